import { cgatsTable } from '@rakuen/core/formats/reading-from-cgats';
import { suggestMapping, type ColumnMapping, type NamedTable } from '@rakuen/core/formats/column-mapping';
import { looksDelimited, parseDelimited } from '@rakuen/core/formats/delimited';
import { FormatError } from '@rakuen/core/formats/format-error';
import { WRITERS } from '@rakuen/core/formats/reading-formats';
import type { ImportedReading } from '@rakuen/core/formats/imported-reading';
import { abOutline } from '@rakuen/core/gamut/outline';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { computeFigures, FIGURES_VERSION, MEASURES } from '@rakuen/core/measurement/measures/registry';
import { readingFacts, type ReadingFacts } from '@rakuen/core/measurement/reading-facts';
import { fingerprintOf, type Fingerprint } from '@rakuen/core/measurement/fingerprint';
import { figuresOfSets } from '@rakuen/core/measurement/sets';
import type { Figure } from '@rakuen/core/measurement/figure';
import { compareSets, passSpread, type SetComparison } from '@rakuen/core/measurement/set-comparison';
import type { Thresholds } from '@rakuen/core/measurement/thresholds';
import { readingSpectra } from '@rakuen/core/measurement/reading-spectra';
import type { MeasurementCondition, Reading } from '@rakuen/core/measurement/reading';
import type { ConditionFacts } from '@rakuen/contract/conditions';
import type { ReadingPreview, SpreadsheetPreview } from '@rakuen/contract/readings';
import { looksLikeProfile, readingFromProfile } from './profile-reading.ts';
import { readLast } from './read-last.ts';

/** What a worker is asked to do with the bytes of a reading. */
export interface ReadingSource {
  readonly bytes: Uint8Array;
  /** Which reading of the file, from 0. */
  readonly part: number;
  /** What the columns of a table hold, where a hand said so. */
  readonly mapping?: ColumnMapping;
  /** Names of patches that somebody left out. */
  readonly leftOut?: readonly string[];
  readonly stated: { readonly condition?: MeasurementCondition; readonly instrument?: string };
}

/** The header's word, and where it is silent the printmaker's. */
export async function readSource({ bytes, part, stated, mapping, leftOut }: ReadingSource): Promise<ImportedReading> {
  const imported = stating((await readingsOf(bytes, mapping))[part], stated);
  if (!leftOut || leftOut.length === 0) return imported;
  const gone = new Set(leftOut);
  const patches = imported.reading.patches.filter((p) => !gone.has(p.id));
  return { ...imported, reading: { ...imported.reading, patches } };
}

const readingsOf = async (bytes: Uint8Array, mapping?: ColumnMapping): Promise<readonly ImportedReading[]> =>
  looksLikeProfile(bytes) ? [await readingFromProfile(bytes)] : readLast(bytes, mapping);

function stating(imported: ImportedReading, stated: ReadingSource['stated']): ImportedReading {
  const reading: Reading = {
    ...imported.reading,
    condition: imported.reading.condition ?? stated.condition,
    instrument: imported.reading.instrument ?? stated.instrument,
  };
  return { ...imported, reading };
}

/** Rows of a spreadsheet that are shown while its columns are mapped. */
const SAMPLE_ROWS = 4;

interface PreviewTask {
  readonly fileName: string;
  readonly source: Omit<ReadingSource, 'part'>;
}

export async function previewReading({ fileName, source }: PreviewTask): Promise<ReadingPreview> {
  const { bytes, stated, mapping } = source;
  if (looksLikeProfile(bytes))
    return previewOf(fileName, [stating(await readingFromProfile(bytes), stated)], 'profile');
  const readings = () => readLast(bytes, mapping).map((imported) => stating(imported, stated));
  if (looksDelimited(bytes)) return previewTable({ fileName, source }, parseDelimited(bytes), readings);
  try {
    const preview = previewOf(fileName, readings(), 'measured');
    return mapping ? { ...preview, spreadsheet: columnsAsked(cgatsTable(bytes), mapping) } : preview;
  } catch (error) {
    // What a hand can say is asked; what is broken stays an error.
    if (!(error instanceof FormatError) || !(error.asks ?? mapping)) throw error;
    return previewTable({ fileName, source }, cgatsTable(bytes), () => {
      throw error;
    });
  }
}

const columnsAsked = (table: NamedTable, said?: ColumnMapping): SpreadsheetPreview => {
  const { roles, ...rest } = said ?? suggestMapping(table);
  return {
    columns: [...table.columns],
    sample: table.rows.slice(0, SAMPLE_ROWS).map((r) => [...r]),
    roles: [...roles],
    ...rest,
    remembered: false,
  };
};

/** A table is shown with its columns even when they give no reading yet: then the hand says which holds what. */
function previewTable(
  { fileName, source }: PreviewTask,
  table: NamedTable,
  readings: () => ImportedReading[],
): ReadingPreview {
  const fits = source.mapping?.roles.length === table.columns.length;
  const spreadsheet = columnsAsked(table, fits ? source.mapping : undefined);
  try {
    return { ...previewOf(fileName, readings(), 'measured'), spreadsheet };
  } catch (error) {
    if (!(error instanceof FormatError)) throw error;
    const where = error.line === undefined ? '' : `Line ${error.line}: `;
    return {
      fileName,
      parts: [],
      patchCount: table.rows.length,
      columns: [...table.columns],
      recognised: [],
      missing: [],
      colourFrom: 'Lab',
      source: 'measured',
      figures: {},
      spreadsheet: { ...spreadsheet, fault: `${where}${error.message} ${error.remedy}` },
    };
  }
}

/** Of a file's head so much is told. */
const MOST_KEYWORDS = 100;

function previewOf(fileName: string, parts: ImportedReading[], source: ReadingPreview['source']): ReadingPreview {
  const { reading, recognised, missing, columns, keywords } = parts[0];
  return {
    fileName,
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
    description: reading.description,
    keywords: keywords && Object.fromEntries(Object.entries(keywords).slice(0, MOST_KEYWORDS)),
    source,
    figures: computeFigures(readingFacts(reading)),
  };
}

/** A set of readings that may give figures: one reading, and those of the same sheet under other measurement conditions. */
export interface SetSource {
  readonly readingId: string;
  readonly primary: ReadingSource;
  readonly companions: readonly ReadingSource[];
  /** Why a reading under another measurement condition does not serve, by condition. */
  readonly unserved?: ReadingFacts['unserved'];
}

/** What the facts of a condition rest on. */
export interface FactsTask {
  /** In the order in which they speak; one at least. */
  readonly sets: readonly SetSource[];
  readonly source?: ReadingPreview['source'];
  readonly toldFrom: number;
}

async function factsOf(
  { primary, companions, unserved }: Omit<SetSource, 'readingId'>,
  toldFrom: number,
): Promise<ReadingFacts> {
  const others = await Promise.all(companions.map(async (c) => (await readSource(c)).reading));
  return readingFacts((await readSource(primary)).reading, others, unserved, toldFrom);
}

/** Facts of a condition without what was found at the bench: each figure from the first set that supports it; the drawings likewise. */
export async function conditionFacts(
  task: FactsTask,
): Promise<{ facts: ConditionFacts; mesh?: GamutMesh; fingerprint?: Fingerprint }> {
  const sets = await Promise.all(
    task.sets.map(async (set) => ({ id: set.readingId, facts: await factsOf(set, task.toldFrom) })),
  );
  const { figures, borrowed } = figuresOfSets(sets);
  const behind = (measure: string) => (sets.find((s) => s.id === borrowed[measure]) ?? sets[0]).facts;
  const [{ facts: first }] = sets;
  const { gamut } = behind('gamutVolume');
  const { ramp } = behind('neutrality');
  return {
    facts: {
      version: FIGURES_VERSION,
      toldFrom: task.toldFrom,
      readingId: sets[0].id,
      source: task.source,
      figures,
      borrowed: Object.keys(borrowed).length > 0 ? borrowed : undefined,
      ramp: ramp && [...ramp],
      spectra: readingSpectra(first),
      outline: gamut ? abOutline(gamut.mesh) : [],
      gamutMethod: gamut?.method,
      repeats: first.repeatability.degreesOfFreedom,
      passes: passSpread(first.groups),
    },
    mesh: gamut?.mesh,
    fingerprint: task.source === 'profile' ? undefined : fingerprintOf(first.reading),
  };
}

/** What each reading of an incoming file is recognised by. */
export async function fingerprints({ sources }: { sources: readonly ReadingSource[] }): Promise<Fingerprint[]> {
  const prints = await Promise.all(sources.map(async (s) => fingerprintOf((await readSource(s)).reading)));
  return prints.filter((p) => p !== undefined);
}

/** Figures of one set alone, for its place in the history. */
export async function readingFigures(
  task: Omit<SetSource, 'readingId'> & { readonly toldFrom: number },
): Promise<SetFigures> {
  const facts = await factsOf(task, task.toldFrom);
  const figures = computeFigures(facts);
  const bench = MEASURES.filter((m) => 'observe' in m).map((m) => m.key);
  return {
    patches: facts.groups.length,
    figures: Object.fromEntries(Object.entries(figures).filter(([k]) => !bench.includes(k))),
  };
}

/** Two sets patch by patch; undefined where they share no patch. */
export async function compareSetsOf(task: {
  readonly later: ReadingSource;
  readonly first: ReadingSource;
  readonly thresholds: Thresholds;
}): Promise<SetComparison | undefined> {
  const [later, first] = await Promise.all([task.later, task.first].map(async (s) => (await readSource(s)).reading));
  return compareSets(later, first, task.thresholds);
}

/** A set's own figures, and of how many different patches it is. */
export interface SetFigures {
  readonly patches: number;
  readonly figures: Record<string, Figure>;
}

/** A kept reading in another format. */
export async function writeReading(task: { source: ReadingSource; format: keyof typeof WRITERS }): Promise<string> {
  return WRITERS[task.format].write((await readSource(task.source)).reading);
}
