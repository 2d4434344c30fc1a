import type { ToldByFile } from '@rakuen/core/formats/told-by-file';
import { namesPaper, SAME_PRINT } from '@rakuen/core/measurement/fingerprint';
import { DRIFT } from '@rakuen/core/measurement/same-print';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { InboxProposal } from '@rakuen/contract/inbox';
import type { PaperView } from '@rakuen/contract/papers';
import type { PlacingView, ResemblanceView } from '@rakuen/contract/readings';

/** Where a file of readings belongs, and what a hand has to say of it. */
export interface Proposal {
  readonly belongs?: InboxProposal;
  readonly unclear: readonly string[];
}

/** What is known when a proposal is made. */
export interface KnownHere {
  readonly told: ToldByFile;
  /** The file's name and description. */
  readonly words: string;
  readonly papers: readonly PaperView[];
  readonly conditions: readonly ConditionHead[];
  /** What it resembles of what is kept; and the same where it is meant for one print condition. */
  readonly placing: (conditionId?: string) => PlacingView;
}

/** A second print as near as this share of the first is not told from it. */
const TOLD_APART = 2;
/** Mean ΔE00 over the common patches up to which two readings are of one print, as where they are kept. */
const ALIKE = DRIFT.mean;

const nameOf = (c: ConditionHead) =>
  `${c.paper.maker} ${c.paper.name}: ${[c.printer, c.inkSet, c.blackInk, c.mediaSetting].join(', ')}`;
const same = (p: string | undefined, q: string) => p === undefined || p.trim().toLowerCase() === q.trim().toLowerCase();
const oneDigit = (v: number) => v.toFixed(1);

/** By likeness first, then by what the file says; what remains open is named. */
export function propose(known: KnownHere): Proposal {
  const { resembles } = known.placing();
  const [best, second] = resembles;
  const { told, words, papers, conditions } = known;
  // Two papers may lie near each other: what a file states of its paper gives way to the very same print alone.
  const otherwise =
    best &&
    statesAnother(
      told,
      conditions.find((c) => c.id === best.conditionId)!,
    );
  if (best && best.deltaE00 <= (otherwise ? SAME_PRINT : ALIKE)) return alike(best, second, known);
  const named = papers.filter((p) => (told.paper && sameName(told, p)) || namesPaper(words, p.name));
  // "Rag" is named where "Bright Rag" is: the longest name is meant.
  const paper = [...named].sort((p, q) => q.name.length - p.name.length)[0];
  if (!paper) return { unclear: lackingOf(told, false) };
  const fitting = conditions.filter((c) => c.paperId === paper.id && fits(told, c));
  if (fitting.length === 1) return namedAlone(fitting[0], known);
  const paperName = `${paper.maker} ${paper.name}`;
  if (fitting.length > 1)
    return {
      belongs: { paperId: paper.id, name: paperName, why: 'named by the file' },
      unclear: [`${paper.name} is printed in ${fitting.length} ways that fit: say which.`],
    };
  return {
    belongs: { paperId: paper.id, name: paperName, why: 'named by the file; not printed like this yet' },
    unclear: lackingOf(told, true),
  };
}

/** Words of a name that may be a paper’s: letters alone. */
const wordsIn = (text: string) => text.toLowerCase().match(/\p{L}{3,}/gu) ?? [];
/** A name of so many words is no number of a scan. */
const FEWEST_WORDS = 2;

/** What a file’s name says against a paper it looks like: another weight, or a name that shares no word with it. */
function saysOtherwise({ paper, weightGsm, stated }: ToldByFile, there: ConditionHead): string | undefined {
  const { name, maker, weightGsm: claimed } = there.paper;
  if (weightGsm !== undefined && claimed !== undefined && Math.abs(weightGsm - claimed) > WEIGHT_ROUNDED * claimed)
    return `The file says ${weightGsm} g/m², and ${name} is of ${claimed}: say which it is.`;
  if (!paper || stated.includes('paper') || /\d/.test(paper)) return undefined;
  const known = new Set(wordsIn(`${maker} ${name} ${there.printer} ${there.inkSet} ${there.mediaSetting}`));
  const said = wordsIn(paper);
  return said.length >= FEWEST_WORDS && said.every((w) => !known.has(w))
    ? `Its name says “${paper}”, and it looks like ${name}: say which it is.`
    : undefined;
}
/** Weights are rounded as they are written. */
const WEIGHT_ROUNDED = 0.04;

/** Whether a keyword of the file names another paper than this one. */
const statesAnother = (told: ToldByFile, { paper }: ConditionHead) =>
  told.paper !== undefined &&
  told.stated.includes('paper') &&
  !same(told.paper, paper.name) &&
  !namesPaper(told.paper, paper.name);

const sameName = (told: ToldByFile, p: PaperView) =>
  same(told.paper, p.name) || same(told.paper, `${p.maker} ${p.name}`);

const fits = (told: ToldByFile, c: ConditionHead) =>
  same(told.printer, c.printer) &&
  same(told.inkSet, c.inkSet) &&
  same(told.mediaSetting, c.mediaSetting) &&
  same(told.blackInk, c.blackInk);

function alike(best: ResemblanceView, second: ResemblanceView | undefined, known: KnownHere): Proposal {
  const { told, conditions } = known;
  const there = conditions.find((c) => c.id === best.conditionId)!;
  const why = `looks like it: ${oneDigit(best.deltaE00)} ΔE00 over ${best.common} common patches`;
  const unclear: string[] = [];
  if (second && second.deltaE00 < TOLD_APART * best.deltaE00 && second.deltaE00 <= ALIKE)
    unclear.push(`It looks like ${second.name} as well (${oneDigit(second.deltaE00)} ΔE00): say which it is.`);
  if (statesAnother(told, there))
    unclear.push(`The file says “${told.paper}”, and it looks like ${there.paper.name}: say which it is.`);
  if (best.deltaE00 > SAME_PRINT && !namesPaper(known.words, there.paper.name))
    unclear.push(`It is near ${there.paper.name}, and not as near as one print read twice: say whether it is that.`);
  const otherwise = unclear.length === 0 ? saysOtherwise(told, there) : undefined;
  if (otherwise) unclear.push(otherwise);
  return { belongs: { conditionId: there.id, name: nameOf(there), why }, unclear };
}

/** The one print condition that the file's words fit. */
function namedAlone(there: ConditionHead, { told, placing }: KnownHere): Proposal {
  const { against, own } = placing(there.id);
  // A paper alone does not say in which printer and setting it was printed.
  const stated = (['paper', 'printer', 'mediaSetting'] as const).every((part) => told.stated.includes(part));
  const why =
    own && !against ? `named by the file, and like what is kept (${oneDigit(own.deltaE00)} ΔE00)` : 'named by the file';
  const unclear = against
    ? [against]
    : !stated && !own
      ? ['Only its words point there: nothing is kept that it can be compared with.']
      : [];
  return { belongs: { conditionId: there.id, name: nameOf(there), why }, unclear };
}

const ASKED = [
  ['paper', 'which paper it is'],
  ['maker', 'who makes the paper'],
  ['printer', 'which printer'],
  ['inkSet', 'which inks'],
  ['blackInk', 'which black ink'],
  ['mediaSetting', 'which media setting'],
] as const;

/** What a new paper, or a new way of printing one, has to be told by a hand: only what a keyword states needs no look. */
function lackingOf(told: ToldByFile, paperKnown: boolean): string[] {
  const asked = ASKED.filter(([part]) => !(paperKnown && (part === 'paper' || part === 'maker')));
  const lacking = asked.filter(([part]) => told[part] === undefined).map(([, what]) => what);
  const guessed = asked
    .filter(([part]) => told[part] !== undefined && !told.stated.includes(part))
    .map(([, what]) => what);
  return [
    ...(lacking.length > 0 ? [`The file does not say ${lacking.join(', ')}.`] : []),
    ...(guessed.length > 0 ? [`Taken from its name only: ${guessed.join(', ')}.`] : []),
  ];
}
