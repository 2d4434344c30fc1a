import fc from 'fast-check';
import { planPack, type PackItem } from './pack-plan.ts';

const A4 = [210, 297] as const;
const item = (key: string, widthMm: number, heightMm: number, kind: PackItem['kind'] = 'crop'): PackItem => ({
  key,
  kind,
  name: key,
  widthMm,
  heightMm,
});

describe('a sample pack', () => {
  it('a chart and a test page fill a sheet each, crops share one, and the rest is left', () => {
    const items = [
      item('crop 1', 100, 70),
      item('crop 2', 100, 70),
      item('crop 3', 70, 100),
      item('chart', 210, 297, 'chart'),
      item('page', 210, 297, 'test page'),
    ];
    const [plan] = planPack(...A4, [{ id: 'rag', sheets: 4 }], items);
    expect(plan.sheets.map((s) => s.items.map((i) => i.key))).toEqual([
      ['chart'],
      ['page'],
      expect.arrayContaining(['crop 1', 'crop 2', 'crop 3']),
    ]);
    expect(plan).toMatchObject({ left: 1, lacking: [] });
  });

  it('nothing is printed within the margin that the printer can’t reach (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 14, noNaN: true }),
        fc.array(fc.tuple(fc.integer({ min: 40, max: 150 }), fc.integer({ min: 40, max: 150 })), { maxLength: 8 }),
        (margin, crops) => {
          const items = [item('chart', 210, 297, 'chart'), ...crops.map(([w, h], i) => item(`c${i}`, w, h))];
          const [plan] = planPack(297, 420, [{ id: 'rag', sheets: 9 }], items, margin);
          for (const sheet of plan.sheets)
            for (const i of sheet.items) {
              const [w, h] = i.turned ? [i.heightMm, i.widthMm] : [i.widthMm, i.heightMm];
              // A chart keeps ten bare millimetres of its own.
              const own = i.kind === 'crop' ? 0 : Math.min(margin, 10);
              expect(i.xMm + own).toBeGreaterThanOrEqual(margin - 1e-9);
              expect(i.yMm + own).toBeGreaterThanOrEqual(margin - 1e-9);
              expect(i.xMm + w - own).toBeLessThanOrEqual(297 - margin + 1e-9);
              expect(i.yMm + h - own).toBeLessThanOrEqual(420 - margin + 1e-9);
            }
          expect(plan.lacking.length + plan.sheets.flatMap((s) => s.items).length).toBe(items.length);
        },
      ),
    );
  });

  it('a chart of the sheet’s own size fits it, its margins being part of it', () => {
    const [plan] = planPack(...A4, [{ id: 'rag', sheets: 1 }], [item('chart', 210, 297, 'chart')], 5);
    expect(plan.sheets[0].items[0]).toMatchObject({ xMm: 0, yMm: 0, widthMm: 210, heightMm: 297 });
    expect(plan.sheets[0].used).toBeCloseTo(1, 9);
    const [crop] = planPack(...A4, [{ id: 'rag', sheets: 1 }], [item('crop', 205, 290)], 5);
    expect(crop.lacking).toHaveLength(1);
  });

  it('on larger sheets a chart leaves room for crops beside it', () => {
    const [plan] = planPack(
      297,
      420,
      [{ id: 'rag', sheets: 1 }],
      [item('chart', 210, 297, 'chart'), item('crop', 80, 200), item('wide', 200, 110)],
    );
    expect(plan.sheets).toHaveLength(1);
    expect(plan.sheets[0].items).toHaveLength(3);
    expect(plan.sheets[0].used).toBeGreaterThan(0.75);
  });

  it('what finds no room is said; the chart goes on before anything else', () => {
    const [plan] = planPack(
      ...A4,
      [{ id: 'rag', sheets: 1 }],
      [item('poster', 400, 300), item('page', 210, 297, 'test page'), item('chart', 200, 280, 'chart')],
    );
    expect(plan.sheets[0].items[0].key).toBe('chart');
    expect(plan.lacking.map((i) => i.key).sort()).toEqual(['page', 'poster']);
  });

  it('however little room there is, the chart is the last to find none: not for two crops in its place', () => {
    const items = [
      item('chart', 210, 297, 'chart'),
      item('page', 210, 297, 'test page'),
      item('one', 100, 140),
      item('other', 100, 140),
    ];
    const laid = (sheets: number) => {
      const [plan] = planPack(...A4, [{ id: 'rag', sheets }], items);
      return plan.sheets.map((s) => s.items.map((i) => i.key).sort());
    };
    expect(laid(1)).toEqual([['chart']]);
    expect(laid(2)).toEqual([['chart'], ['one', 'other']]);
    expect(laid(3)).toEqual([['chart'], ['page'], ['one', 'other']]);
  });

  it('nothing overlaps, nothing leaves its sheet, nothing is lost (fast-check)', () => {
    const size = fc.integer({ min: 20, max: 220 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(size, size), { maxLength: 14 }),
        fc.integer({ min: 1, max: 5 }),
        (sizes, sheets) => {
          const items = sizes.map(([w, h], i) => item(`i${i}`, w, h));
          const [plan] = planPack(...A4, [{ id: 'x', sheets }], items);
          expect(plan.sheets.length + plan.left).toBe(sheets);
          expect(plan.sheets.flatMap((s) => s.items).length + plan.lacking.length).toBe(items.length);
          for (const { items: laid } of plan.sheets) {
            const boxes = laid.map((i) => ({
              x: i.xMm,
              y: i.yMm,
              w: i.turned ? i.heightMm : i.widthMm,
              h: i.turned ? i.widthMm : i.heightMm,
            }));
            for (const b of boxes) {
              expect(b.x + b.w).toBeLessThanOrEqual(A4[0] + 1e-6);
              expect(b.y + b.h).toBeLessThanOrEqual(A4[1] + 1e-6);
            }
            boxes.forEach((p, i) =>
              boxes
                .slice(i + 1)
                .forEach((q) =>
                  expect(
                    p.x + p.w <= q.x + 1e-6 ||
                      q.x + q.w <= p.x + 1e-6 ||
                      p.y + p.h <= q.y + 1e-6 ||
                      q.y + q.h <= p.y + 1e-6,
                  ).toBe(true),
                ),
            );
          }
        },
      ),
    );
  });
});
