import { seededRandom } from '../random.ts';
import { FEWEST_DECISIONS, fitWeights, learnEye, type Choice } from './eye.ts';
import { LEANINGS } from './leanings/registry.ts';
import { SCHOOLS, weightsOf } from './schools.ts';

const at = (key: string) => LEANINGS.findIndex((l) => l.key === key);
/** A printmaker who chooses by weights of their own, now and then not quite. */
function decisions(count: number, weights: Record<string, number>, slip = 0, seed = 1): Choice[] {
  const random = seededRandom(seed);
  const full = weightsOf(weights);
  return Array.from({ length: count }, (_, n) => {
    const costs = Array.from({ length: 6 }, () => LEANINGS.map(() => (random() < 0.4 ? 2 * random() : 0)));
    const totals = costs.map((c) => c.reduce((sum, v, k) => sum + v * full[LEANINGS[k].key], 0) + slip * random());
    return { pictureId: `p${n % 24}`, costs, chosen: totals.indexOf(Math.min(...totals)) };
  });
}

describe('an eye, learned from what it chose', () => {
  const darkroom = SCHOOLS.find((s) => s.key === 'darkroom')!;

  it('finds the school by which was chosen, and a fit that does nearly as well on decisions it did not see', () => {
    const learned = learnEye(decisions(120, darkroom.weights));
    const hits = (key: string) => learned.schools.find((s) => s.key === key)!.hits;
    expect(hits('darkroom')).toBeCloseTo(120, 6);
    for (const s of learned.schools) if (s.key !== 'darkroom') expect(s.hits).toBeLessThan(110);
    expect(learned.own!.hits).toBeGreaterThan(hits('start'));
    expect(learned.chance).toBeCloseTo(20, 6);
  });

  it('says what is weighed otherwise, and that of the right questions', () => {
    const [more, less] = ['paperWhite', 'depth'];
    const { own } = learnEye(decisions(200, { [more]: 4 * LEANINGS[at(more)].weight, [less]: 0 }));
    const told = new Map(own!.otherwise.map((o) => [o.leaning, o.times]));
    const between = new Map(own!.otherwise.map((o) => [o.leaning, o.between]));
    expect(told.get(more)).toBeGreaterThan(1.5);
    expect(told.get(less)).toBeLessThan(0.67);
    expect(between.get(more)![0]).toBeLessThan(4);
    expect(between.get(more)![1]).toBeGreaterThan(4);
    expect(between.get(less)![0]).toBe(0);
    expect(own!.weights[more]).toBeGreaterThan(own!.weights[less]);
  });

  /** Eyes of many kinds: most criteria at their default, three weighed otherwise; decided by the least cost and a slip. */
  function madeUpEyes(count: number, howMany: number) {
    let [inside, stated, wrong, claimed] = [0, 0, 0, 0];
    for (let seed = 1; seed <= count; seed++) {
      const random = seededRandom(1000 + seed);
      const spoken = LEANINGS.filter((l) => l.weight > 0);
      const changed = Array.from({ length: 3 }, () => spoken[Math.floor(random() * spoken.length)]);
      const eye = Object.fromEntries(changed.map((l) => [l.key, l.weight * [0, 0.3, 2, 4][Math.floor(random() * 4)]]));
      const { own } = learnEye(decisions(howMany, eye, 1.5, seed));
      for (const found of [...own!.otherwise, ...own!.unsure]) {
        const true_ = (eye[found.leaning] ?? weightsOf()[found.leaning]) / weightsOf()[found.leaning];
        stated++;
        if (true_ >= found.between[0] && true_ <= found.between[1]) inside++;
      }
      for (const { leaning, times } of own!.otherwise) {
        claimed++;
        const true_ = (eye[leaning] ?? weightsOf()[leaning]) / weightsOf()[leaning];
        if (true_ === 1 || true_ > 1 !== times > 1) wrong++;
      }
    }
    return { inside: inside / stated, wrong, claimed };
  }

  it.each([30, 100, 400])(
    'the weights of made-up eyes lie in their intervals nine times in ten, of %i decisions',
    (n) => {
      const { inside, wrong, claimed } = madeUpEyes(n === 400 ? 15 : 30, n);
      expect(inside).toBeGreaterThan(0.9);
      // Of thirty decisions little is said, and what is said is seldom wrong.
      expect(wrong).toBeLessThanOrEqual(Math.max(2, 0.15 * claimed));
      if (n === 400) expect(claimed).toBeGreaterThan(20);
    },
  );

  it('does not find an eye where there is none: chosen by lot, the fit does no better than chance can', () => {
    const random = seededRandom(7);
    const lots = decisions(200, {}).map((c) => ({ ...c, chosen: Math.floor(random() * c.costs.length) }));
    const { own, chance } = learnEye(lots);
    // Three standard deviations of so many lots.
    expect(own!.hits).toBeLessThan(chance + 3 * Math.sqrt(200 * (1 / 6) * (5 / 6)));
  });

  it('says nothing of an eye from too few, and leaves out where nothing was to be chosen', () => {
    expect(learnEye(decisions(FEWEST_DECISIONS - 1, {})).own).toBeUndefined();
    const single = decisions(5, {}).map((c) => ({ ...c, costs: [c.costs[c.chosen]], chosen: 0 }));
    expect(learnEye(single).decisions).toBe(0);
  });

  it('what no decision speaks of keeps the weight it began with; none is negative', () => {
    const silent = at('money');
    const choices = decisions(80, darkroom.weights).map((c) => ({
      ...c,
      costs: c.costs.map((row) => row.map((v, k) => (k === silent ? 0 : v))),
    }));
    const weights = fitWeights(choices);
    expect(weights[silent]).toBeCloseTo(LEANINGS[silent].weight, 6);
    for (const w of weights) expect(w).toBeGreaterThanOrEqual(0);
  });
});
