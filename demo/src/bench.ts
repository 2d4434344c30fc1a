import type { FeedingObservation, Observation } from '@rakuen/core/measurement/observations';
import { readGloss } from '@rakuen/core/simulation/gloss-meter';
import type { PressModel } from '@rakuen/core/simulation/printer';
import { measureStack, readBacking, weigh } from '@rakuen/core/simulation/scale';
import { isMatt, type CoatingClass } from '@rakuen/core/paper';

/** Something the invented printmaker found out at the bench. */
export interface DemoObservation {
  readonly observation: Exclude<Observation, { kind: 'texture' }>;
  readonly instrument: string;
  readonly light: string;
}

const A4 = { widthMm: 210, heightMm: 297 };
const TIMES = 5;
const STACK = 10;
const measured = (observation: DemoObservation['observation'], instrument: string): DemoObservation => ({
  observation,
  instrument,
  light: '',
});
const judged = (observation: DemoObservation['observation']): DemoObservation => ({
  observation,
  instrument: '',
  light: 'D50 viewing light, 2000 lx',
});

/** What holds of the bare sheet: weight, thickness, opacity. */
export function sheetObservations({ sheet }: PressModel, seed: number): DemoObservation[] {
  return [
    measured(
      { kind: 'weight', ...A4, grams: weigh(sheet, A4.widthMm, A4.heightMm, TIMES, seed) },
      'Simulated scale, 0.01 g',
    ),
    measured(
      { kind: 'thickness', sheets: STACK, stackUm: measureStack(sheet, STACK, TIMES, seed + 1) },
      'Simulated micrometer, 1 µm',
    ),
    measured({ kind: 'opacity', ...readBacking(sheet, TIMES, seed + 2) }, 'Simulated bench spectrophotometer'),
  ];
}

/** Stiff sheets go in one by one at the back; the others stand in the feeder. */
function feedingOf({ sheet }: PressModel): FeedingObservation {
  const stiff = sheet.thicknessUm >= STIFF_UM;
  return {
    kind: 'feeding',
    feed: stiff ? 'rear' : 'auto',
    takes: stiff ? 'care' : 'well',
    ...(!stiff && { stack: 15 }),
    headHeight: stiff ? 'wide' : '',
    suction: '',
    corners: stiff ? 1 : 0,
    borderless: !stiff,
    customSizes: true,
  };
}
const STIFF_UM = 380;

/**
 * What holds of the print: gloss with the meter; bronzing and rub by eye. Bronzing shows on a glossy coating alone;
 * matt coatings let go of their black.
 */
export function printObservations(press: PressModel, coating: CoatingClass, seed: number): DemoObservation[] {
  const matt = isMatt(coating);
  return [
    ...readGloss(press, TIMES, seed).map(({ angle, white, black }) =>
      measured({ kind: 'gloss', angleDeg: angle, white, black }, 'Simulated gloss meter, 20°, 60°, 85°'),
    ),
    judged({ kind: 'bronzing', grade: matt ? 0 : press.inks.film.bronzing }),
    judged({ kind: 'scuffs', grade: matt ? 2 : coating === 'baryta' ? 3 : 1 }),
    judged(feedingOf(press)),
    judged({ kind: 'rub', minutesAfterPrinting: 10, grade: matt ? 2 : 1 }),
    judged({ kind: 'rub', minutesAfterPrinting: 1500, grade: matt ? 1 : 0 }),
  ];
}
