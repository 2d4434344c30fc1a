import fc from 'fast-check';
import { orderOfCuts, sideWords } from './cuts.ts';
import { nest, type Placed } from './nest.ts';

const SHEET = { x0: 0, y0: 0, x1: 300, y1: 400 };
const at = (key: string, xMm: number, yMm: number, widthMm: number, heightMm: number): Placed => ({
  key,
  name: key,
  xMm,
  yMm,
  widthMm,
  heightMm,
  mayTurn: false,
  turned: false,
});

describe('the cuts of a sheet', () => {
  it('end where the piece in hand ends: the second does not run through what lies beyond the first', () => {
    // A tall print on the left; two cards on the right, one above the other.
    const cuts = orderOfCuts([at('tall', 0, 0, 140, 390), at('a', 150, 0, 100, 90), at('b', 150, 100, 100, 90)], SHEET);
    expect(cuts).toEqual([
      { way: 'down', atMm: 145, fromMm: 0, toMm: 400, first: ['tall'], second: ['a', 'b'] },
      { way: 'across', atMm: 95, fromMm: 145, toMm: 300, first: ['a'], second: ['b'] },
    ]);
  });

  it('part everything, each along the whole of one piece, and cross nothing (1,000 layouts)', () => {
    const size = fc.integer({ min: 20, max: 220 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(size, size, fc.boolean()), { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 0, max: 8 }),
        (sizes, gapMm) => {
          const pieces = sizes.map(([widthMm, heightMm, mayTurn], i) => ({
            key: `${i}`,
            name: `${i}`,
            widthMm,
            heightMm,
            mayTurn,
          }));
          const stock = { kind: 'sheet', widthMm: 300, heightMm: 400 } as const;
          for (const { placed } of nest(stock, pieces, { gapMm }).sheets) {
            const cuts = orderOfCuts(placed, SHEET)!;
            expect(cuts).toHaveLength(placed.length - 1);
            // Pieces in hand, from the whole sheet on: each cut goes through exactly one, from edge to edge.
            const hands = [SHEET];
            for (const { way, atMm, fromMm, toMm, first, second } of cuts) {
              const through = hands.findIndex((h) =>
                way === 'across'
                  ? h.x0 === fromMm && h.x1 === toMm && h.y0 < atMm && atMm < h.y1
                  : h.y0 === fromMm && h.y1 === toMm && h.x0 < atMm && atMm < h.x1,
              );
              expect(through).toBeGreaterThanOrEqual(0);
              const [h] = hands.splice(through, 1);
              hands.push(
                ...(way === 'across'
                  ? [
                      { ...h, y1: atMm },
                      { ...h, y0: atMm },
                    ]
                  : [
                      { ...h, x1: atMm },
                      { ...h, x0: atMm },
                    ]),
              );
              expect(first.filter((key) => second.includes(key))).toEqual([]);
              for (const p of placed) {
                const [w, d] = p.turned ? [p.heightMm, p.widthMm] : [p.widthMm, p.heightMm];
                const [low, high, from, to] =
                  way === 'across' ? [p.yMm, p.yMm + d, p.xMm, p.xMm + w] : [p.xMm, p.xMm + w, p.yMm, p.yMm + d];
                const beside = to <= fromMm + 1e-6 || from >= toMm - 1e-6;
                expect(beside || atMm <= low + 1e-6 || atMm >= high - 1e-6).toBe(true);
              }
            }
            expect(hands).toHaveLength(placed.length);
          }
        },
      ),
      { numRuns: 1000 },
    );
  });

  it('are named by what they part', () => {
    const names: Record<string, string> = { a: 'Salt', b: 'Card', c: 'Card', d: 'Fog', e: 'Tide' };
    expect(sideWords(['a', 'b', 'c'], (key) => names[key])).toBe('Salt, 2 × Card');
    expect(sideWords(['a', 'b', 'd', 'e'], (key) => names[key])).toBe('4 pieces');
  });
});
