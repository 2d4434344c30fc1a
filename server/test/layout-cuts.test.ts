import { inflateSync } from 'node:zlib';
import fc from 'fast-check';
import { orderOfCuts } from '@rakuen/core/layout/cuts';
import { nest } from '@rakuen/core/layout/nest';
import type { LaidPiece, LayoutView } from '@rakuen/contract/layouts';
import { layoutPdf } from '../src/layouts/layout-pdf.ts';

type Matrix = readonly [number, number, number, number, number, number];
interface Drawn {
  /** Dashed lines, from point to point. */
  readonly cuts: [x0: number, y0: number, x1: number, y1: number][];
  /** Outlines of the pieces. */
  readonly pieces: [x0: number, y0: number, x1: number, y1: number][];
}

/** Content streams of a PDF, in the order of its pages. */
function streamsOf(pdf: Uint8Array): string[] {
  const text = Buffer.from(pdf).toString('latin1');
  return [...text.matchAll(/<<([^>]*)>>\s*stream\r?\n/g)].flatMap((m) => {
    if (/Subtype|Length1|FunctionType/.test(m[1])) return [];
    const from = m.index + m[0].length;
    const bytes = Buffer.from(text.slice(from, text.indexOf('endstream', from)), 'latin1');
    const stream = m[1].includes('FlateDecode') ? inflateSync(bytes).toString('latin1') : bytes.toString('latin1');
    return / (re|l)\s/.test(stream) ? [stream] : [];
  });
}

/** What the operators of a page draw: a few lines of ISO 32000, apart from the package that wrote them. */
function drawn(stream: string): Drawn {
  const out: Drawn = { cuts: [], pieces: [] };
  let matrix: Matrix = [1, 0, 0, 1, 0, 0];
  const stack: Matrix[] = [];
  let [dashed, path]: [boolean, number[]] = [false, []];
  let rect: number[] | undefined;
  const point = (x: number, y: number) =>
    [matrix[0] * x + matrix[2] * y + matrix[4], matrix[1] * x + matrix[3] * y + matrix[5]] as const;
  for (const line of stream.split('\n')) {
    const words = line.trim().split(/\s+/);
    const operator = words.pop();
    const n = words.map(Number);
    if (operator === 'q') stack.push(matrix);
    else if (operator === 'Q') matrix = stack.pop()!;
    else if (operator === 'cm') {
      const [a, b, c, d, e, f] = matrix;
      matrix = [
        n[0] * a + n[1] * c,
        n[0] * b + n[1] * d,
        n[2] * a + n[3] * c,
        n[2] * b + n[3] * d,
        n[4] * a + n[5] * c + e,
        n[4] * b + n[5] * d + f,
      ];
    } else if (operator === 'd') dashed = !line.includes('[]') && /\[\s*\d/.test(line);
    else if (operator === 'm') path = [...point(n[0], n[1])];
    else if (operator === 'l') path.push(...point(n[0], n[1]));
    else if (operator === 're') rect = [...point(n[0], n[1]), ...point(n[0] + n[2], n[1] + n[3])];
    else if (operator === 'S') {
      if (rect) {
        const [x0, y0, x1, y1] = rect;
        out.pieces.push([Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)]);
      } else if (dashed && path.length === 4) out.cuts.push(path as Drawn['cuts'][number]);
      [rect, path] = [undefined, []];
    }
  }
  return out;
}

const NONE = { top: 0, right: 0, bottom: 0, left: 0 };
function laid(sizes: readonly (readonly [number, number, boolean])[], gapMm: number): LayoutView['sheets'] {
  const pieces = sizes.map(([widthMm, heightMm, mayTurn], i): LaidPiece => ({
    key: `${i}`,
    name: `Print ${i}`,
    widthMm,
    heightMm,
    mayTurn,
    borders: NONE,
  }));
  const stock = { kind: 'sheet', widthMm: 300, heightMm: 400 } as const;
  return nest(stock, pieces, { gapMm }).sheets.map((s) => ({
    ...s,
    cuts: orderOfCuts(s.placed, { x0: 0, y0: 0, x1: 300, y1: 400 })!,
  }));
}

it('no cut that is drawn in the PDF crosses a print, by its own operators (1,000 sheets)', async () => {
  const size = fc.integer({ min: 20, max: 220 });
  const one = fc.tuple(fc.array(fc.tuple(size, size, fc.boolean()), { minLength: 2, maxLength: 12 }), fc.constant(4));
  const sheets = fc.sample(one, { seed: 28, numRuns: 700 }).flatMap(([sizes, gapMm]) => laid(sizes, gapMm));
  expect(sheets.length).toBeGreaterThan(1000);
  const stock = { kind: 'sheet', widthMm: 300, heightMm: 400, ...NONE } as const;
  const view = { sheets, lacking: [], waste: 0, notes: [] };
  const pages = streamsOf(await layoutPdf(stock, view)).map(drawn);
  const drawnSheets = pages.filter((p) => p.pieces.length > 0);
  expect(drawnSheets).toHaveLength(sheets.length);
  drawnSheets.forEach(({ cuts, pieces }, i) => {
    expect(cuts).toHaveLength(sheets[i].cuts.length);
    for (const [x0, y0, x1, y1] of cuts)
      for (const [left, top, right, bottom] of pieces) {
        const inside =
          Math.max(Math.min(x0, x1), left) < Math.min(Math.max(x0, x1), right) - 0.01 &&
          y0 > top + 0.01 &&
          y0 < bottom - 0.01;
        const across =
          Math.max(Math.min(y0, y1), top) < Math.min(Math.max(y0, y1), bottom) - 0.01 &&
          x0 > left + 0.01 &&
          x0 < right - 0.01;
        expect(inside || across).toBe(false);
      }
  });
}, 120_000);
