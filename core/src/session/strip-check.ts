import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import { alignStrip, MAX_SLIP, type Fit } from './alignment.ts';

/** What may be wrong with a strip, and how it is mended. */
export const MISREADS = {
  slipped: { name: 'Slipped strip', mend: 'Read it again, from the lead-in, at an even pace.' },
  skipped: {
    name: 'Patches were skipped',
    mend: 'Read the strip again at an even pace. Everything from the named patch on is wrong.',
  },
  repeated: {
    name: 'A patch was read twice',
    mend: 'Read the strip again at an even pace. Everything from the named patch on is wrong.',
  },
  stopped: {
    name: 'The instrument stopped within the strip',
    mend: 'Read the strip again in one movement, to its end.',
  },
  unfit: {
    name: 'Several patches do not fit',
    mend: 'Check that the right strip of the right sheet was read, and that the sheet is clean. Then read it again.',
  },
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
/**
 * Where many patches are bad, the middle of the strip is bad too: they are judged by its better quarter instead. A patch
 * is then wrong this far off, and so many times as far as that quarter (our own choice).
 */
const UNFIT = { deltaE: 5, times: 5, fewest: 3 };
/** So few right patches say nothing about where a strip slipped (our own choice). */
const LEAST_RIGHT = 3;
/** A patch is wrong only if it is off by so many times the doubt of its expectation (our own choice). */
const DOUBTED = 4;

/** What is printed on the sheet, and what was read of the strip before. */
export interface SheetWords {
  /** Strips as they are called on it. */
  readonly labels?: readonly string[];
  /** First and last strip of the sheet this one is on; all strips where absent. */
  readonly range?: readonly [first: number, last: number];
  /** Earlier readings of the strip, by patch: withdrawn ones too. */
  readonly before?: readonly (readonly Lab[])[];
  /** How far the expectation of each patch of the strip may be off, standard deviation, ΔE*ab. */
  readonly doubt?: readonly (number | undefined)[];
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
  for (let by = 1; by <= MAX_SLIP; by++) {
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
  const within = changeWithin(read, own);
  if (best.misfit < BETTER.share * fit && fit - best.misfit > BETTER.deltaE) {
    // A strip that slipped after it began well is wrong from there on only.
    if (best.misread === 'slipped' && within) return within;
    return [
      { misread: best.misread, saw: `${best.saw} (median ${best.misfit.toFixed(1)} against ${fit.toFixed(1)} ΔE00).` },
    ];
  }
  const apart = read.map((lab, i) => deltaE2000(lab, own[i]!));
  return within ?? badPatches(read, apart, sheet);
}

/** A strip that is right up to a patch and fits another way from there on. */
function changeWithin(read: readonly Lab[], own: readonly Lab[]): Finding[] | undefined {
  const fits = alignStrip(read, own);
  const wrong = fits.flatMap((fit, i) => (fit === 0 ? [] : [i]));
  const first = wrong[0];
  if (first === undefined || read.length - wrong.length < LEAST_RIGHT) return undefined;
  const to = wrong[wrong.length - 1]! + 1 === read.length ? 'on' : `to ${wrong[wrong.length - 1]! + 1}`;
  const off = median(wrong.map((i) => deltaE2000(read[i]!, own[i]!))).toFixed(1);
  const where = `From patch ${first + 1} ${to}`;
  const { misread, how } = changeOf(fits[first]!);
  return [{ misread, patches: wrong, saw: `${where} ${how} (median ${off} ΔE00 off as it was read).` }];
}

function changeOf(fit: Fit): { misread: Misread; how: string } {
  if (fit === 'stopped') return { misread: 'stopped', how: 'every patch reads the same' };
  const count = Math.abs(fit) === 1 ? 'one patch' : `${Math.abs(fit)} patches`;
  return fit > 0
    ? { misread: 'skipped', how: `the readings fit when moved ${count} on` }
    : { misread: 'repeated', how: `the readings fit when moved ${count} back` };
}

/** Patches that fit nothing: one or two are dirt, more are a strip that was not read right. */
function badPatches(read: readonly Lab[], apart: readonly number[], { before, doubt }: SheetWords): Finding[] {
  const unlearned = apart.map((_, i) => !isLearned(read[i]!, before?.[i]));
  const beyond = (limit: number) =>
    apart.flatMap((d, i) => (unlearned[i] && d > Math.max(limit, DOUBTED * (doubt?.[i] ?? 0)) ? [i] : []));
  const quarter = [...apart].sort((p, q) => p - q)[Math.floor(apart.length / 4)]!;
  const unfit = beyond(Math.max(UNFIT.deltaE, UNFIT.times * quarter));
  if (unfit.length >= UNFIT.fewest)
    return [
      {
        misread: 'unfit',
        patches: unfit,
        saw: `${unfit.length} of ${read.length} patches, the first of them patch ${unfit[0]! + 1}, are ${median(unfit.map((i) => apart[i]!)).toFixed(1)} ΔE00 off in the middle; a quarter of the strip is within ${quarter.toFixed(1)}.`,
      },
    ];
  const middle = median(apart);
  const scatter = median(apart.map((d) => Math.abs(d - middle)));
  const bad = beyond(middle + Math.max(BAD.deltaE, BAD.times * scatter));
  // More than two that are only a little off are a printer that is not what was expected.
  if (bad.length === 0 || bad.length > 2) return [];
  return [
    {
      misread: 'dirty',
      patches: bad,
      saw: `${bad.length === 1 ? 'Patch' : 'Patches'} ${bad.map((i) => i + 1).join(' and ')} ${bad.length === 1 ? 'is' : 'are'} ${bad.map((i) => apart[i]!.toFixed(1)).join(' and ')} ΔE00 off; the middle of the strip is ${middle.toFixed(1)} off.`,
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
