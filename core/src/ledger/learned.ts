/** A print that was judged, as far as something is learned from it. */
export interface Judged {
  readonly paperId: string;
  readonly paper: string;
  readonly pictureId: string;
  /** What kind of picture it is, in words: "low-key". */
  readonly trait: string;
  readonly verdict: string;
  readonly reason: string;
}

export interface Lesson {
  readonly paperId: string;
  readonly trait: string;
  readonly rejected: number;
  readonly of: number;
  readonly sentence: string;
}

/** Fewer prints than these teach nothing. */
const FEWEST = 3;
/** Rejected among them from which it is said. */
const SHARE = 0.5;
const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
const inWords = (n: number) => NUMBERS[n] ?? String(n);
/** Words that say nothing of a print. */
const SMALL = new Set(
  'the and but too was were has have had with without that this not all are its into from than then there only very still more much print paper sheet picture where which when'.split(
    ' ',
  ),
);

/**
 * What the ledger has taught: of a paper and a kind of picture, how many of the judged prints were rejected, and the
 * word that came back. Said from three judged prints of a kind on; what was not judged does not count.
 */
export function lessons(prints: readonly Judged[]): Lesson[] {
  const groups = new Map<string, Judged[]>();
  for (const p of prints)
    if (p.verdict !== 'not yet judged')
      groups.set(`${p.paperId} ${p.trait}`, [...(groups.get(`${p.paperId} ${p.trait}`) ?? []), p]);
  return [...groups.values()].flatMap((group): Lesson[] => {
    const bad = group.filter((p) => p.verdict === 'rejected');
    if (group.length < FEWEST || bad.length / group.length < SHARE) return [];
    const { paperId, paper, trait } = group[0]!;
    // Three prints of one picture say less than one each of three.
    const alone = new Set(group.map((p) => p.pictureId)).size === 1 ? ', all of one picture' : '';
    const word = commonWord(bad.map((p) => p.reason));
    return [
      {
        paperId,
        trait,
        rejected: bad.length,
        of: group.length,
        sentence: `On ${paper} ${inWords(bad.length)} of ${inWords(group.length)} ${trait} prints were rejected${alone}${
          word ? `; “${word.word}” was said of ${inWords(word.times)}` : ''
        }.`,
      },
    ];
  });
}

/** The word that most reasons share, where two or more do. */
function commonWord(reasons: readonly string[]): { word: string; times: number } | undefined {
  const counts = new Map<string, number>();
  for (const reason of reasons) {
    const words = new Set(reason.toLowerCase().match(/\p{L}{3,}/gu) ?? []);
    for (const w of words) if (!SMALL.has(w)) counts.set(w, (counts.get(w) ?? 0) + 1);
  }
  const [best] = [...counts].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
  return best && best[1] >= 2 ? { word: best[0], times: best[1] } : undefined;
}
