import { deltaE2000 } from '../colour/difference.ts';
import { hueFamily } from '../colour/hue-names.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';

/** What may have gone wrong between a proof and its print. */
export const MISTAKES = {
  'as intended': 'printed as it was meant',
  'media setting': 'another media setting',
  doubled: 'a profile applied twice: colour management was on in the driver',
  rendering: 'another rendering',
  wet: 'not dry yet, by our own estimate of drying',
  batch: 'another box of the paper',
  'no profile': 'printed without the profile',
  lift: 'printed with another lift',
  ladder: 'printed with another ladder of steps',
  'black and white': 'printed in the driver’s black-and-white mode',
  'missing ink': 'an ink is missing',
  'black ink': 'the other black ink, by our own estimate',
  turned: 'the strip was read from the wrong end',
  shifted: 'the strip was read shifted',
} as const;
export type Mistake = keyof typeof MISTAKES;

/** What the patches would read like if that had happened. */
export interface Hypothesis {
  readonly mistake: Mistake;
  /** Which setting, which box. */
  readonly which?: string;
  readonly labs: readonly Lab[];
}

export interface LikelyCause {
  readonly mistake: Mistake;
  readonly which?: string;
  /** Mean ΔE00 between what was read and what it would read like then. */
  readonly meanDeltaE: number;
}

/** What was read, against what may have happened: the likeliest first. */
export interface Recognised {
  readonly causes: readonly LikelyCause[];
  /** One stands out of the rest, and explains what was read. */
  readonly clear: boolean;
  readonly sentence: string;
}

/** A mean beyond which nothing that is known explains what was read (our own choice). */
const EXPLAINS = 2.5;
/**
 * The next must be so much further off for one to stand out: of its mean, and at least so many ΔE00; of a scanner’s
 * error a share, for it is the same under every supposition.
 */
const APART = { times: 1.25, deltaE: 0.2, ofError: 0.25 } as const;

const mean = (read: readonly Lab[], labs: readonly Lab[]): number =>
  read.reduce((sum, lab, i) => sum + deltaE2000(lab, labs[i]!), 0) / read.length;

/**
 * Ranks what may have happened by how near what was read lies to what it would read like then. What stands as near as
 * the next is not called clear; where nothing known comes near, that is said.
 * @param errorDeltaE mean error of what read it, above an instrument’s: a scanner’s
 * @throws RangeError without patches or hypotheses
 */
export function recognise(read: readonly Lab[], hypotheses: readonly Hypothesis[], errorDeltaE = 0): Recognised {
  if (read.length === 0 || hypotheses.length === 0) throw new RangeError('Nothing was read, or nothing is supposed.');
  const causes = hypotheses
    .map(({ mistake, which, labs }): LikelyCause => ({
      mistake,
      ...(which && { which }),
      meanDeltaE: mean(read, labs),
    }))
    .sort((a, b) => a.meanDeltaE - b.meanDeltaE);
  const [first, second] = causes;
  const explains = first!.meanDeltaE <= EXPLAINS + errorDeltaE;
  // What reads it is unsure of more than parts the two: then a print is as it was meant until something explains it better.
  const meant = errorDeltaE > 0 ? causes.find((c) => c.mistake === 'as intended') : undefined;
  if (meant && explains && meant.meanDeltaE - first!.meanDeltaE <= unsure(errorDeltaE)) {
    const others = causes.filter((c) => c !== meant);
    const [near] = others;
    return {
      causes: [meant, ...others],
      clear: true,
      sentence: sentenceOf(meant, near && isApart(meant, near, errorDeltaE) ? near : undefined, true, true),
    };
  }
  const clear = explains && (!second || isApart(first!, second, errorDeltaE));
  return { causes, clear, sentence: sentenceOf(first!, second, explains, clear) };
}

/** Two suppositions nearer than this are not distinguished, ΔE00. */
const unsure = (errorDeltaE: number) => Math.max(APART.deltaE, errorDeltaE * APART.ofError);
const isApart = (first: LikelyCause, second: LikelyCause, errorDeltaE: number) =>
  second.meanDeltaE > first.meanDeltaE * APART.times && second.meanDeltaE - first.meanDeltaE > unsure(errorDeltaE);

/**
 * Suppositions that hold another as a special case (any lift holds none, any ladder holds every lift) explain at least
 * as much: each stands only where it explains more than what reads the print is unsure of.
 * @param nested from the special to the general
 */
export function simplest(
  read: readonly Lab[],
  nested: readonly Hypothesis[],
  errorDeltaE: number,
): readonly Hypothesis[] {
  const kept: Hypothesis[] = [];
  let best = Infinity;
  for (const h of nested) {
    const off = mean(read, h.labs);
    if (off > best - unsure(errorDeltaE)) continue;
    best = off;
    kept.push(h);
  }
  return kept;
}

const named = ({ mistake, which }: LikelyCause) => `${MISTAKES[mistake]}${which ? ` (${which})` : ''}`;
const off = (c: LikelyCause) => `${c.meanDeltaE.toFixed(1)} ΔE00`;

function sentenceOf(first: LikelyCause, second: LikelyCause | undefined, explains: boolean, clear: boolean): string {
  if (!explains)
    return `Nothing that is known here explains it: the nearest, ${named(first)}, lies ${off(first)} off in the mean.`;
  if (clear && first.mistake === 'as intended')
    return `As it was meant, to ${off(first)} in the mean${second ? `; ${named(second)} would lie ${off(second)} off` : ''}.`;
  if (clear)
    return `Most likely ${named(first)}: then it lies ${off(first)} off in the mean, ${second ? `else ${off(second)} or more` : 'and nothing else is known'}.`;
  return `It can’t be told ${named(first)} from ${second ? named(second) : 'anything else'}: ${off(first)} and ${second ? off(second) : 'nothing'}.`;
}

/** Density a print gains as it dries, as a share of its own: so much less while it is wet (our own estimate). */
const WET_SHARE = 0.05;

/** What patches would read like before they are dry: inks lie deeper than they will. @param white the bare sheet */
export function whileWet(labs: readonly Lab[], white: Lab): Lab[] {
  const paper = labToXyz(white);
  return labs.map((lab) =>
    xyzToLab(
      labToXyz(lab).map((v, i) => paper[i]! * Math.max(1e-6, v / paper[i]!) ** (1 + WET_SHARE)) as [
        number,
        number,
        number,
      ],
    ),
  );
}

/** Fewest patches of a kind of colour of which something is said. */
const FEWEST = 3;
/** ΔE00 from which a kind of colour is spoken of; C* from which greys are said to turn. */
const SPOKEN = { deltaE: 1, greyC: 0.5 } as const;
const GREY_CHROMA = 6;

/** How the kinds of colours came out: "greens 3.1 ΔE00 off, too dark"; "greys 0.8 C* towards greens". The worst first. */
export function offInWords(read: readonly Lab[], intended: readonly Lab[], errorDeltaE = 0): string[] {
  const spoken = { deltaE: Math.max(SPOKEN.deltaE, errorDeltaE), greyC: Math.max(SPOKEN.greyC, errorDeltaE) };
  const kinds = new Map<string, number[]>();
  intended.forEach((lab, i) => {
    const kind = Math.hypot(lab[1], lab[2]) < GREY_CHROMA ? 'greys' : hueFamily(lab);
    kinds.set(kind, [...(kinds.get(kind) ?? []), i]);
  });
  return [...kinds]
    .filter(([, at]) => at.length >= FEWEST)
    .map(([kind, at]) => ({ kind, ...shiftOf(at, read, intended) }))
    .filter((s) =>
      s.kind === 'greys'
        ? Math.hypot(s.da, s.db) >= spoken.greyC || s.deltaE >= spoken.deltaE
        : s.deltaE >= spoken.deltaE,
    )
    .sort((a, b) => b.deltaE - a.deltaE)
    .map(({ kind, deltaE, dL, da, db, dC }) =>
      kind === 'greys' && Math.hypot(da, db) >= spoken.greyC
        ? `greys ${Math.hypot(da, db).toFixed(1)} C* towards ${hueFamily([50, da, db])}`
        : `${kind} ${deltaE.toFixed(1)} ΔE00 off, ${Math.abs(dL) >= Math.abs(dC) / 2 ? (dL < 0 ? 'too dark' : 'too light') : dC < 0 ? 'too pale' : 'too strong'}`,
    );
}

function shiftOf(at: readonly number[], read: readonly Lab[], intended: readonly Lab[]) {
  const average = (of: (i: number) => number) => at.reduce((sum, i) => sum + of(i), 0) / at.length;
  const chroma = (lab: Lab) => Math.hypot(lab[1], lab[2]);
  return {
    deltaE: average((i) => deltaE2000(read[i]!, intended[i]!)),
    dL: average((i) => read[i]![0] - intended[i]![0]),
    da: average((i) => read[i]![1] - intended[i]![1]),
    db: average((i) => read[i]![2] - intended[i]![2]),
    dC: average((i) => chroma(read[i]!) - chroma(intended[i]!)),
  };
}
