import { writeCxf } from '@rakuen/core/formats/cxf-write';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import { ownSheet, standIn, type StandInFacts } from '@rakuen/core/simulation/stand-in';

/** A baryta sheet as its maker describes it. */
export const facts: StandInFacts = {
  coating: 'baryta',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 300,
  thicknessUm: 400,
  blackInk: 'photo black',
  mediaSetting: 'Fibre gloss',
  printMode: 'colour through a profile',
  blackOvercoat: false,
};
/** A chart read of a sheet, as its instrument writes it. */
export function read(
  change: (sheet: ReturnType<typeof ownSheet>) => ReturnType<typeof ownSheet>,
  createdAt: string,
  seed: number,
): string {
  const typical = standIn(facts);
  const press = { ...typical, sheet: change(typical.sheet) };
  const [m1, m2] = (['M1', 'M2'] as const).map((light) => ({
    ...readChart(press, surfaceChart(4, 11, 3), light, seed),
    createdAt,
    instrument: 'Bench',
  }));
  return writeCxf(m1, m2);
}
