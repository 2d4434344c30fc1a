import { readingsFromFile, WRITERS } from '@rakuen/core/formats/reading-formats';
import type { ImportedReading } from '@rakuen/core/formats/imported-reading';
import { abOutline } from '@rakuen/core/gamut/outline';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { matchFigures, type MatchFigures } from '@rakuen/core/match/match-figures';
import { readySheet, type SheetQualities } from '@rakuen/core/match/sheet';
import { computeFigures, FIGURES_VERSION } from '@rakuen/core/measurement/measures/registry';
import { readingFacts } from '@rakuen/core/measurement/reading-facts';
import { readingSpectra } from '@rakuen/core/measurement/reading-spectra';
import type { MeasurementCondition, Reading } from '@rakuen/core/measurement/reading';
import type { ConditionFacts } from '@rakuen/contract/conditions';
import type { ReadingPreview } from '@rakuen/contract/readings';

/** What a worker is asked to do with the bytes of a reading. */
export interface ReadingSource {
  readonly bytes: Uint8Array;
  /** Which reading of the file, from 0. */
  readonly part: number;
  readonly stated: { readonly condition?: MeasurementCondition; readonly instrument?: string };
}

/** The header's word, and where it is silent the printmaker's. */
export function readSource({ bytes, part, stated }: ReadingSource) {
  return stating(readingsFromFile(bytes)[part], stated);
}

function stating(imported: ImportedReading, stated: ReadingSource['stated']): ImportedReading {
  const reading: Reading = {
    ...imported.reading,
    condition: imported.reading.condition ?? stated.condition,
    instrument: imported.reading.instrument ?? stated.instrument,
  };
  return { ...imported, reading };
}

export function previewReading(task: { fileName: string; source: Omit<ReadingSource, 'part'> }): ReadingPreview {
  const parts = readingsFromFile(task.source.bytes).map((imported) => stating(imported, task.source.stated));
  const { reading, recognised, missing, columns } = parts[0];
  return {
    fileName: task.fileName,
    parts: parts.map((p) => ({ patchCount: p.reading.patches.length, measurementCondition: p.reading.condition })),
    patchCount: reading.patches.length,
    columns: [...columns],
    recognised: [...recognised],
    missing: [...missing],
    colourFrom: reading.colourFrom,
    backing: reading.backing,
    deviceSpace: reading.deviceSpace,
    measurementCondition: reading.condition,
    instrument: reading.instrument,
    measuredAt: reading.createdAt,
    figures: computeFigures(readingFacts(reading)),
  };
}

/** Facts of a condition from its primary reading and, where there is one, the reading without UV. */
export function conditionFacts(task: { readingId: string; primary: ReadingSource; withoutUv?: ReadingSource }): { facts: ConditionFacts; mesh?: GamutMesh } {
  const facts = readingFacts(readSource(task.primary).reading, task.withoutUv && readSource(task.withoutUv).reading);
  return {
    facts: {
      version: FIGURES_VERSION,
      readingId: task.readingId,
      figures: computeFigures(facts),
      ramp: facts.ramp && [...facts.ramp],
      spectra: readingSpectra(facts),
      outline: facts.gamut ? abOutline(facts.gamut.mesh) : [],
      gamutMethod: facts.gamut?.method,
      repeats: facts.repeatability.degreesOfFreedom,
    },
    mesh: facts.gamut?.mesh,
  };
}

/** A kept reading in another format. */
export function writeReading(task: { source: ReadingSource; format: keyof typeof WRITERS }): string {
  return WRITERS[task.format].write(readSource(task.source).reading);
}

export function matchSheets(task: { cells: Float32Array; sheets: SheetQualities[] }): MatchFigures[] {
  return task.sheets.map((sheet) => matchFigures({ count: task.cells.length / 4, data: task.cells }, readySheet(sheet)));
}
