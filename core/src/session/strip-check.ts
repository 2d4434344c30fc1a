import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';

/** What may be wrong with a strip, and how it is mended. */
export const MISREADS = {
  slipped: { name: 'Slipped strip', mend: 'Read it again, from the lead-in, at an even pace.' },
  doubled: { name: 'Another strip was read', mend: 'Move the guide on and read this strip again.' },
  backwards: { name: 'Read backwards', mend: 'Read it again from the lettered end.' },
  turned: {
    name: 'The sheet lies the wrong way round',
    mend: 'Turn the sheet so that the solid corner is first, and read the strip again.',
  },
  dirty: { name: 'One bad patch', mend: 'Look at the patch: brush it off and read again, or leave the patch out.' },
  drift: {
    name: 'The instrument drifts',
    mend: 'Calibrate on the white tile and go on; the whites can take the drift out of what was read.',
  },
} as const;
export type Misread = keyof typeof MISREADS;

/** A misread, caught and named. */
export interface Finding {
  readonly misread: Misread;
  /** What was seen, with the figures it rests on. */
  readonly saw: string;
  /** Patches that are wrong, by place in the strip, from 0; all of them where absent. */
  readonly patches?: readonly number[];
}

/** Another reading of the strip must fit this much better than the right one, and by so many ΔE00, to be named (our own choice). */
const BETTER = { share: 0.6, deltaE: 4 };
/** A patch this much further off than its strip, and so many times the strip's own scatter, is bad (our own choice). */
const BAD = { deltaE: 5, times: 6 };
const MOST_SLIP = 2;

/** What is printed on the sheet, and what was read of the strip before. */
export interface SheetWords {
  /** Strips as they are called on it. */
  readonly labels?: readonly string[];
  /** First and last strip of the sheet this one is on; all strips where absent. */
  readonly range?: readonly [first: number, last: number];
  /** Earlier readings of the strip, by patch: withdrawn ones too. */
  readonly before?: readonly (readonly Lab[])[];
}

/** A patch that reads so nearly the same again is the printer's own, however far it lies from what was expected, ΔE00 (our own choice). */
const AGAIN = 1.5;
const isLearned = (read: Lab, before: readonly Lab[] = []) => before.some((b) => deltaE2000(read, b) < AGAIN);

/**
 * Looks for what goes wrong at the bench: the strip fits its own expectation, or another one better.
 * @param read what was read, in the order it came
 * @param expected every strip of the sheet as it should read
 * @param strip which of them this should be
 */
export function checkStrip(
  read: readonly Lab[],
  expected: readonly (readonly Lab[])[],
  strip: number,
  sheet: SheetWords = {},
): Finding[] {
  const own = expected[strip]!;
  const label = (i: number) => sheet.labels?.[i] ?? String(i + 1);
  // A turned sheet is looked for among the strips of its own sheet.
  const [first, last] = sheet.range ?? [0, expected.length - 1];
  const fit = misfit(read, own);
  const others: { misread: Misread; misfit: number; saw: string }[] = [];
  for (let by = 1; by <= MOST_SLIP; by++) {
    for (const slip of [by, -by]) {
      others.push({
        misread: 'slipped',
        misfit: misfit(read, own, slip),
        saw: `It fits when moved ${by === 1 ? 'one patch' : `${by} patches`} ${slip > 0 ? 'on: the beginning was missed' : 'back: the reading began too early'}`,
      });
    }
  }
  others.push({ misread: 'backwards', misfit: misfit(read, [...own].reverse()), saw: 'It fits backwards' });
  expected.forEach((other, i) => {
    if (i === strip) return;
    others.push({
      misread: 'doubled',
      misfit: misfit(read, other),
      saw: `It fits strip ${label(i)} better than strip ${label(strip)}`,
    });
    if (i === first + last - strip)
      others.push({
        misread: 'turned',
        misfit: misfit(read, [...other].reverse()),
        saw: `It fits strip ${label(i)} backwards, counted from the other end`,
      });
  });
  const best = others.reduce((least, o) => (o.misfit < least.misfit ? o : least));
  if (best.misfit < BETTER.share * fit && fit - best.misfit > BETTER.deltaE) {
    return [
      { misread: best.misread, saw: `${best.saw} (median ${best.misfit.toFixed(1)} against ${fit.toFixed(1)} ΔE00).` },
    ];
  }
  const apart = read.map((lab, i) => deltaE2000(lab, own[i]!));
  const middle = median(apart);
  const scatter = median(apart.map((d) => Math.abs(d - middle)));
  const bad = apart.flatMap((d, i) =>
    d - middle > Math.max(BAD.deltaE, BAD.times * scatter) && !isLearned(read[i]!, sheet.before?.[i]) ? [i] : [],
  );
  // One patch, or two, are dirt; many are a printer that is not what was expected.
  if (bad.length === 0 || bad.length > 2) return [];
  return [
    {
      misread: 'dirty',
      patches: bad,
      saw: `${bad.length === 1 ? 'Patch' : 'Patches'} ${bad.map((i) => i + 1).join(' and ')} ${bad.length === 1 ? 'lies' : 'lie'} ${bad.map((i) => apart[i]!.toFixed(1)).join(' and ')} ΔE00 off where the strip lies ${middle.toFixed(1)}.`,
    },
  ];
}

/** Median ΔE00 between what was read and what a strip should read, moved by `slip` patches. */
function misfit(read: readonly Lab[], expected: readonly Lab[], slip = 0): number {
  const apart: number[] = [];
  read.forEach((lab, i) => {
    const e = expected[i + slip];
    if (e) apart.push(deltaE2000(lab, e));
  });
  return median(apart);
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((p, q) => p - q);
  const n = sorted.length;
  return n === 0 ? Infinity : n % 2 === 1 ? sorted[(n - 1) / 2]! : (sorted[n / 2 - 1]! + sorted[n / 2]!) / 2;
}
