import fc from 'fast-check';
import { asLaid, toLie, wayToLie, type Grain } from './lie.ts';
import { nest } from './nest.ts';

const piece = (widthMm: number, heightMm: number) => ({ key: 'p', name: 'P', widthMm, heightMm, mayTurn: true });

describe('how a piece lies on its stock', () => {
  it.each([
    ['height', 'height', 'upright'],
    ['height', 'width', 'turned'],
    ['width', 'height', 'turned'],
    [undefined, 'height', 'either'],
    ['height', undefined, 'either'],
  ] as const)('stock %s, piece %s: %s', (stock, grain, way) =>
    expect(wayToLie(stock, { grain, mayTurn: true })).toBe(way),
  );

  it('keeps its own shape however it had to lie, and the fibres run as asked', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 150 }),
        fc.integer({ min: 20, max: 150 }),
        fc.constantFrom<Grain>('height', 'width'),
        fc.constantFrom<Grain>('height', 'width'),
        (w, h, stock, grain) => {
          const way = wayToLie(stock, { grain, mayTurn: true });
          const { sheets } = nest({ kind: 'sheet', widthMm: 300, heightMm: 400 }, [toLie(piece(w, h), way)], {
            gapMm: 4,
          });
          const laid = asLaid(sheets[0].placed[0], way);
          expect([laid.widthMm, laid.heightMm]).toEqual([w, h]);
          // The stock's fibres, seen from the piece: across what lies turned.
          const across = (g: Grain): Grain => (g === 'height' ? 'width' : 'height');
          expect(laid.turned ? across(stock) : stock).toBe(grain);
        },
      ),
    ));
});
