import fc from 'fast-check';
import { looksAlike, type Look } from './one-look.ts';
import { additions, drops, MAX_EXACT, planShow, type Scores } from './show.ts';

const score = fc.option(fc.double({ min: 0, max: 10, noNaN: true }), { nil: undefined, freq: 6 });
const scoresOf = (papers: fc.Arbitrary<number>, most: number) =>
  papers.chain((n) => fc.array(fc.array(score, { minLength: n, maxLength: n }), { minLength: 1, maxLength: most }));

/** Written out plainly, apart from what is tested: every set of so many papers. */
function sets(from: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return from.flatMap((p, i) => sets(from.slice(i + 1), size - 1).map((rest) => [p, ...rest]));
}
const meanOf = (scores: Scores, papers: readonly number[]): number =>
  scores.reduce((sum, of) => sum + Math.max(0, ...papers.map((p) => of[p] ?? 0)), 0) / scores.length;

describe('planShow', () => {
  it('finds the best choice of each number of papers: none is better (exhaustive search)', () => {
    fc.assert(
      fc.property(scoresOf(fc.integer({ min: 1, max: 6 }), 6), (scores) => {
        const all = scores[0].map((_, p) => p);
        const { exact, choices } = planShow({ scores, maxLoss: 0 });
        expect(exact).toBe(true);
        for (const choice of choices) {
          expect(choice.meanScore).toBeCloseTo(meanOf(scores, choice.papers), 9);
          expect(choice.meanLoss).toBeCloseTo(meanOf(scores, all) - choice.meanScore, 9);
          expect(choice.atMost).toBeCloseTo(choice.meanScore, 9);
          for (const other of sets(all, choice.papers.length))
            expect(meanOf(scores, other)).toBeLessThanOrEqual(choice.meanScore + 1e-9);
        }
        // The last loses nothing: more papers would improve nothing.
        expect(choices.at(-1)!.meanLoss).toBeCloseTo(0, 9);
      }),
      { numRuns: 60 },
    );
  });

  it('holds what is chosen and leaves out what is vetoed, and is the best of those', () => {
    fc.assert(
      fc.property(
        scoresOf(fc.integer({ min: 4, max: 7 }), 5),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (scores, maxLoss) => {
          const all = scores[0].map((_, p) => p);
          const [chosen, vetoed] = [[2], [0]];
          const open = all.filter((p) => p !== 0);
          const { choices, fewest } = planShow({ scores, chosen, vetoed, maxLoss });
          for (const { papers, meanScore } of choices) {
            expect(papers).toContain(2);
            expect(papers).not.toContain(0);
            const others = sets(open, papers.length).filter((s) => s.includes(2));
            expect(meanScore).toBeCloseTo(Math.max(...others.map((s) => meanOf(scores, s))), 9);
          }
          const best = meanOf(scores, open);
          const enough = open
            .map((_, k) => k + 1)
            .find((k) => sets(open, k).some((s) => s.includes(2) && best - meanOf(scores, s) <= maxLoss + 1e-9));
          expect(fewest === undefined ? undefined : choices[fewest].papers.length).toBe(enough);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('with one look every two papers of a choice are alike, and no such choice is better', () => {
    fc.assert(
      fc.property(
        scoresOf(fc.constant(6), 5),
        fc.array(fc.boolean(), { minLength: 36, maxLength: 36 }),
        (scores, m) => {
          const alike = (p: number, q: number) => m[Math.min(p, q) * 6 + Math.max(p, q)];
          for (const { papers, meanScore } of planShow({ scores, maxLoss: 0, alike }).choices) {
            const fits = (s: readonly number[]) => s.every((p, i) => s.slice(i + 1).every((q) => alike(p, q)));
            expect(fits(papers)).toBe(true);
            const best = Math.max(
              ...sets([0, 1, 2, 3, 4, 5], papers.length)
                .filter(fits)
                .map((s) => meanOf(scores, s)),
            );
            expect(meanScore).toBeCloseTo(best, 9);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('beyond fourteen papers no choice exceeds the bound that is stated, and what is found reaches 1 − 1/e of it', () => {
    fc.assert(
      fc.property(scoresOf(fc.integer({ min: MAX_EXACT + 1, max: MAX_EXACT + 3 }), 8), (scores) => {
        const all = scores[0].map((_, p) => p);
        const { exact, choices } = planShow({ scores, maxLoss: 0 });
        expect(exact).toBe(false);
        for (const { papers, meanScore, atMost } of choices.slice(0, 3)) {
          const best = Math.max(...sets(all, papers.length).map((s) => meanOf(scores, s)));
          expect(meanScore).toBeCloseTo(meanOf(scores, papers), 9);
          expect(atMost).toBeGreaterThanOrEqual(best - 1e-9);
          expect(meanScore).toBeGreaterThanOrEqual((1 - 1 / Math.E) * best - 1e-9);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('finds the groups of forty papers that were made to carry sixty pictures', () => {
    // Paper 10 g + 3 carries the pictures of group g at 9, everything else at 4: four papers are needed, and these.
    const scores = Array.from({ length: 60 }, (_, i) =>
      Array.from({ length: 40 }, (_, s) => (s === 10 * (i % 4) + 3 ? 9 : 4)),
    );
    const plan = planShow({ scores, maxLoss: 0.5 });
    expect(plan.choices.map((c) => [c.papers.length, c.meanScore, c.meanLoss])).toEqual([
      [1, 5.25, 3.75],
      [2, 6.5, 2.5],
      [3, 7.75, 1.25],
      [4, 9, 0],
    ]);
    expect(plan.choices[plan.fewest!].papers).toEqual([3, 13, 23, 33]);
    expect(planShow({ scores, maxLoss: 1.25 }).fewest).toBe(2);
  });

  it('says what dropping a paper costs and what one more would improve', () => {
    // Two pictures, three papers.
    const question = {
      scores: [
        [8, 2, 9],
        [1, 7, undefined],
      ] as Scores,
      maxLoss: 0,
    };
    // Without paper 0 the first picture falls from 8 to 2; without paper 1 the second from 7 to 1. Both cost 3 in the mean.
    expect(drops(question, [0, 1])).toEqual([
      { paper: 0, byMean: -3, pictures: 1, most: { picture: 0, by: -6 } },
      { paper: 1, byMean: -3, pictures: 1, most: { picture: 1, by: -6 } },
    ]);
    expect(additions(question, [0, 1])).toEqual([{ paper: 2, byMean: 0.5, pictures: 1, most: { picture: 0, by: 1 } }]);
    expect(additions({ ...question, vetoed: [2] }, [0, 1])).toEqual([]);
  });

  it('names the picture that loses most, and chosen papers that do not look alike', () => {
    const scores: Scores = [
      [6, 6.5],
      [3, 9],
    ];
    const plan = planShow({ scores, chosen: [0], vetoed: [], maxLoss: 10, alike: () => true });
    expect(plan.choices[0].hardest).toEqual({ picture: 1, score: 3, loss: 6 });
    expect(plan.choices[0].meanLoss).toBeCloseTo(3.25, 9);
    expect(planShow({ scores, chosen: [0, 1], maxLoss: 10, alike: () => false }).unlike).toEqual([[0, 1]]);
  });

  it('plans nothing of nothing', () => {
    expect(planShow({ scores: [], maxLoss: 1 }).choices).toEqual([]);
    expect(planShow({ scores: [[], []], maxLoss: 1 }).choices).toEqual([]);
    expect(planShow({ scores: [[5]], vetoed: [0], maxLoss: 1 }).choices).toEqual([]);
  });
});

describe('looksAlike', () => {
  const rag: Look = { surface: 'smooth', coating: 'cotton', white: [96, 0, 2] };
  const wish = { sameSurface: true, sameWhite: true };
  it('holds surface, sheen and white against each other, as far as each is wished for', () => {
    expect(looksAlike(rag, { ...rag, white: [96, 0.5, 2] }, wish, 2)).toBe(true);
    // 6 in b* near the neutral axis is about 5 ΔE00.
    const blue: Look = { ...rag, white: [96, 0, -4] };
    expect(looksAlike(rag, blue, wish, 2)).toBe(false);
    expect(looksAlike(rag, blue, { ...wish, sameWhite: false }, 2)).toBe(true);
    expect(looksAlike(rag, { ...rag, coating: 'baryta' }, wish, 2)).toBe(false);
    expect(looksAlike(rag, { ...rag, surface: 'textured' }, wish, 2)).toBe(false);
    expect(looksAlike(rag, { ...rag, surface: undefined }, wish, 2)).toBe(false);
    expect(looksAlike(rag, { ...rag, surface: 'rough' }, { ...wish, sameSurface: false }, 2)).toBe(true);
  });
});
