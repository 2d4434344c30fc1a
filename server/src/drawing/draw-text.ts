import type { Font, Glyph } from 'opentype.js';
import { pixelAt, type Raster } from '@rakuen/core/chart/raster';
import { font, type Face } from './fonts.ts';

/** A line of words on a sheet, mm; the base line is at `yMm`. */
export interface TextLine {
  readonly xMm: number;
  readonly yMm: number;
  readonly sizeMm: number;
  readonly text: string;
  readonly face: Face;
  readonly anchor?: 'start' | 'middle';
  /** White on black instead of black on white. */
  readonly reversed?: boolean;
}

type Segment = readonly [x0: number, y0: number, x1: number, y1: number];
const CURVE_STEPS = 6;
/** Scan lines a pixel: edges are smoothed by them down the page and exactly across it. */
const SUB = 4;

/**
 * Draws words into a raster from the outlines of a shipped face. The drawing library's own text needs its SVG reader,
 * which is shut here because files from outside could reach it.
 */
export function drawText(raster: Raster, line: TextLine): void {
  const { widthPx, heightPx, dpi, data } = raster;
  const sizePx = (line.sizeMm / 25.4) * dpi;
  const face = font(line.face);
  const set = typeset(face, line.text, sizePx);
  const left = pixelAt(line.xMm, dpi) - (line.anchor === 'middle' ? set.widthPx / 2 : 0);
  const baseline = pixelAt(line.yMm, dpi);
  const segments = set.glyphs.flatMap(({ glyph, atPx }) =>
    flatten(glyph.getPath(left + atPx, baseline, sizePx).commands),
  );
  if (segments.length === 0) return;
  const bound = (of: (s: Segment) => number, pick: (...v: number[]) => number) =>
    segments.reduce((b, s) => pick(b, of(s)), of(segments[0]));
  const [x0, x1] = [
    Math.max(0, Math.floor(bound((s) => Math.min(s[0], s[2]), Math.min))),
    Math.min(widthPx, Math.ceil(bound((s) => Math.max(s[0], s[2]), Math.max))),
  ];
  const [y0, y1] = [
    Math.max(0, Math.floor(bound((s) => Math.min(s[1], s[3]), Math.min))),
    Math.min(heightPx, Math.ceil(bound((s) => Math.max(s[1], s[3]), Math.max))),
  ];
  const ink = line.reversed ? 65_535 : 0;
  for (let y = y0; y < y1; y++) {
    const cover = new Float32Array(Math.max(0, x1 - x0));
    for (let sub = 0; sub < SUB; sub++)
      spans(segments, y + (sub + 0.5) / SUB).forEach(([from, to]) => fillSpan(cover, from - x0, to - x0));
    for (let x = x0; x < x1; x++) {
      const alpha = Math.min(1, cover[x - x0] / SUB);
      if (alpha <= 0) continue;
      for (let c = 0; c < 3; c++) {
        const i = (y * widthPx + x) * 3 + c;
        data[i] = Math.round(data[i] + (ink - data[i]) * alpha);
      }
    }
  }
}

/**
 * Glyphs one after the other, kerned. The face's finer substitutions are left alone: the outline reader does not know
 * all of them and a label needs none.
 */
function typeset(
  face: Font,
  text: string,
  sizePx: number,
): { glyphs: { glyph: Glyph; atPx: number }[]; widthPx: number } {
  const scale = sizePx / face.unitsPerEm;
  const glyphs: { glyph: Glyph; atPx: number }[] = [];
  let at = 0;
  for (const character of text) {
    const glyph = face.charToGlyph(character);
    const before = glyphs[glyphs.length - 1];
    if (before) at += face.getKerningValue(before.glyph, glyph);
    glyphs.push({ glyph, atPx: at * scale });
    at += glyph.advanceWidth ?? 0;
  }
  return { glyphs, widthPx: at * scale };
}

interface Command {
  readonly type: string;
  readonly x?: number;
  readonly y?: number;
  readonly x1?: number;
  readonly y1?: number;
  readonly x2?: number;
  readonly y2?: number;
}

/** Outlines as straight segments. */
function flatten(commands: readonly Command[]): Segment[] {
  const out: Segment[] = [];
  let [x, y, startX, startY] = [0, 0, 0, 0];
  const to = (nx: number, ny: number) => {
    out.push([x, y, nx, ny]);
    [x, y] = [nx, ny];
  };
  for (const c of commands) {
    if (c.type === 'M') [x, y, startX, startY] = [c.x!, c.y!, c.x!, c.y!];
    else if (c.type === 'L') to(c.x!, c.y!);
    else if (c.type === 'Z') to(startX, startY);
    else {
      const [px, py] = [x, y];
      for (let i = 1; i <= CURVE_STEPS; i++) {
        const t = i / CURVE_STEPS;
        const u = 1 - t;
        if (c.type === 'Q')
          to(u * u * px + 2 * u * t * c.x1! + t * t * c.x!, u * u * py + 2 * u * t * c.y1! + t * t * c.y!);
        else
          to(
            u ** 3 * px + 3 * u * u * t * c.x1! + 3 * u * t * t * c.x2! + t ** 3 * c.x!,
            u ** 3 * py + 3 * u * u * t * c.y1! + 3 * u * t * t * c.y2! + t ** 3 * c.y!,
          );
      }
    }
  }
  return out;
}

/** Where a scan line is inside the outlines, by the non-zero rule. */
function spans(segments: readonly Segment[], y: number): [from: number, to: number][] {
  const crossings = segments
    .flatMap(([x0, y0, x1, y1]) =>
      y0 <= y !== y1 <= y ? [{ x: x0 + ((y - y0) / (y1 - y0)) * (x1 - x0), turn: y1 > y0 ? 1 : -1 }] : [],
    )
    .sort((p, q) => p.x - q.x);
  const out: [number, number][] = [];
  let winding = 0;
  crossings.forEach(({ x, turn }, i) => {
    winding += turn;
    if (winding !== 0 && i + 1 < crossings.length) out.push([x, crossings[i + 1].x]);
  });
  return out;
}

function fillSpan(cover: Float32Array, from: number, to: number): void {
  const [a, b] = [Math.max(0, from), Math.min(cover.length, to)];
  for (let x = Math.floor(a); x < b; x++) cover[x] += Math.max(0, Math.min(b, x + 1) - Math.max(a, x));
}
