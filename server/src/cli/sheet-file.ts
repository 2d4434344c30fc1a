import { basename } from 'node:path';
import { fitPrint } from '@rakuen/core/characterisation/fitted-print';
import { expandPrint, ModelFault } from '@rakuen/core/characterisation/print-model';
import { relativePrint } from '@rakuen/core/characterisation/relative-print';
import { sentLattice } from '@rakuen/core/characterisation/printed';
import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import { FormatError } from '@rakuen/core/formats/format-error';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';
import type { Glass } from '@rakuen/core/light/glass';
import type { ViewingLight } from '@rakuen/core/light/table-lights';
import { brightenerKnown, layBare, laySeen, laySolid } from '@rakuen/core/match/lay';
import type { LaidSheet, SheetQualities } from '@rakuen/core/match/sheet';
import { betweenOf } from '@rakuen/core/measurement/figure';
import { computeFigures } from '@rakuen/core/measurement/measures/registry';
import { readingFacts } from '@rakuen/core/measurement/reading-facts';
import { PRECEDENCE } from '@rakuen/core/measurement/speaking';
import type { Reading } from '@rakuen/core/measurement/reading';
import { profileSheet } from '../work/lay-tasks.ts';
import { isProfile, shellFile } from './shell-file.ts';

/** Where and how a sheet named in the shell is looked at. */
export interface Looked {
  readonly light: ViewingLight;
  readonly glass: Glass;
  readonly rendering?: RenderingKey;
}

/** A sheet from a file of readings, or from a profile. @throws FormatError, ModelFault, ProfileError */
export async function sheetFromFile(
  file: string,
  { light, glass, rendering = 'relative' }: Looked,
): Promise<{ sheet: SheetQualities; laid: LaidSheet }> {
  const bytes = await shellFile(file);
  const plain = light.key === 'D50' && glass.key === 'none';
  const paperId = basename(file);
  if (isProfile(bytes)) {
    if (!plain) throw new ModelFault('The profile holds no spectra: how it looks in that light is not known.');
    const bare = await profileSheet(bytes, rendering);
    return { sheet: { id: file, paperId, told: true }, laid: { bare, seen: bare } };
  }
  const readings = primaryFirst(readingsFromFile(bytes).map((r) => r.reading));
  const { sheet, white, black, mesh } = qualitiesOf(file, paperId, readings);
  if (readings.some((r) => r.deviceSpace === 'RGB')) {
    const fitted = fitPrint(readings);
    const model = expandPrint(fitted);
    const sent = sentLattice(relativePrint(model.labs), rendering);
    const seen = laySeen(sent, model, { light, glass });
    return {
      sheet: {
        ...sheet,
        modelError: fitted.error.stated.pictures.mean,
        // The same rule as in the application: without M2 beside M1 the brightener is estimated in another light.
        ...brightenerKnown(!plain && !fitted.spectral?.luminous, seen),
      },
      laid: { bare: layBare(sent, model), seen },
    };
  }
  if (!plain || rendering !== 'relative')
    throw new ModelFault(
      'Only the solid of its colours is known: there is no other light, glass or rendering for it than D50, none, relative.',
    );
  if (!white || !black || !mesh)
    throw new FormatError({
      message: 'The readings enclose no solid of colours.',
      remedy: 'Read a chart that holds more than greys.',
    });
  const bare = laySolid(mesh, white, black);
  return { sheet, laid: { bare, seen: bare } };
}

/** The reading that gives the figures first: M1 before M0, unstated, M2 and M3, as in the application. */
const primaryFirst = (readings: readonly Reading[]): Reading[] =>
  [...readings].sort((p, q) => PRECEDENCE.indexOf(p.condition ?? null) - PRECEDENCE.indexOf(q.condition ?? null));

function qualitiesOf(id: string, paperId: string, [first, ...others]: readonly Reading[]) {
  const facts = readingFacts(first, others);
  const figures = computeFigures(facts);
  const value = (key: string) => (figures[key]?.shape === 'scalar' ? figures[key].value : undefined);
  const lab = (key: string) => (figures[key]?.shape === 'colour' ? figures[key].lab : undefined);
  const sheet: SheetQualities = {
    id,
    paperId,
    brightenerShift: value('brightenerShift'),
    brightenerBetween: betweenOf(figures.brightenerShift),
    greysOff: value('neutrality'),
    metamerism: value('metamerism'),
    measurementCondition: first.condition,
  };
  return { sheet, white: lab('white'), black: lab('black'), mesh: facts.gamut?.mesh };
}
