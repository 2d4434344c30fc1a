import { halton } from '../halton.ts';
import type { Rgb } from '../colour/types.ts';
import { addToDiagonal, columnsOf, factor, fillPanels, gram, rowOf, solveLowerPanel } from './panel-algebra.ts';
import { PANEL, panelRoom } from './panels.ts';
import { latticeModes, modesAt } from './smooth-modes.ts';
import { LATTICE, type FittedPrint } from './fitted-print.ts';
import { BENDING_FLOOR } from './smooth-fit.ts';

/** A device value that matters, and how much. */
export interface WantedPlace {
  readonly device: Rgb;
  readonly weight: number;
}

const CANDIDATES = 420;
/**
 * The model itself is uncertain of its smoothness where the chart is coarse: no smoother than this is assumed when the
 * next patches are chosen.
 */
const LEAST_STIFF = 3e-5;

/**
 * The patches whose reading would take most uncertainty from the model, one after another: each is the one that, read, lowers the weighted
 * variance of the fit over all wanted places most.
 * @param known device values that were read
 * @param wanted colours of the pictures as they would be sent; the whole cube evenly where empty
 * @param count how many patches
 * @returns device values on 8-bit steps, the one that helps most first
 */
export function whichNext(
  fitted: Pick<FittedPrint, 'deviceSpace' | 'smoothness'>,
  known: readonly (readonly number[])[],
  wanted: readonly WantedPlace[],
  count: number,
): Rgb[] {
  const { axes, nodes, shapes } = LATTICE.RGB;
  const modes = latticeModes(axes, nodes, shapes);
  const size = modes.count;
  const spread = Array.from({ length: CANDIDATES }, (_, i): Rgb => [
    halton(i + 1, 2),
    halton(i + 1, 3),
    halton(i + 1, 5),
  ]);
  const corners = Array.from({ length: 8 }, (_, i): Rgb => [i & 1, (i >> 1) & 1, (i >> 2) & 1]);
  const places: WantedPlace[] = [
    // Even where the pictures ask for little, something is wanted: the next picture is another.
    ...[...spread, ...corners].map((device) => ({ device: rounded(device), weight: wanted.length > 0 ? 0.3 : 1 })),
    ...wanted.map((w) => ({ device: rounded(w.device), weight: w.weight * CANDIDATES })),
  ];
  const room = panelRoom([
    [size, known.length],
    [size, size + PANEL],
    [places.length, size + PANEL],
  ]);
  const columns = columnsOf(
    room,
    known.map((at) => modesAt(modes, at)),
  );
  const normal = gram(room, size, columns, columns);
  const stiff = Math.min(fitted.smoothness, LEAST_STIFF);
  for (let i = 0; i < size; i++) addToDiagonal(normal, i, stiff * known.length * (modes.bending[i]! + BENDING_FLOOR));
  factor(room, normal);
  const sides = room.take(places.length, normal.width);
  fillPanels(
    sides,
    places.map((p) => modesAt(modes, p.device)),
  );
  for (let panel = 0; panel < sides.count; panel++) solveLowerPanel(room, normal, sides, panel);
  const through = places.map((_, p) => rowOf(sides, p));
  const n = places.length;
  const shared = through.map((a) => Float64Array.from(through, (b) => dot(a, b)));
  const chosen: Rgb[] = [];
  const seen = new Set(known.map((d) => rounded(d as Rgb).join()));
  while (chosen.length < count) {
    let best = -1;
    let most = 0;
    for (let c = 0; c < n; c++) {
      if (seen.has(places[c]!.device.join())) continue;
      let won = 0;
      for (let t = 0; t < n; t++) won += places[t]!.weight * shared[t]![c]! ** 2;
      won /= shared[c]![c]! + 1;
      if (won > most) [most, best] = [won, c];
    }
    if (best < 0) break;
    chosen.push(places[best]!.device);
    seen.add(places[best]!.device.join());
    const column = Float64Array.from(shared, (row) => row[best]!);
    const by = 1 / (column[best]! + 1);
    for (let t = 0; t < n; t++) for (let u = 0; u < n; u++) shared[t]![u]! -= column[t]! * column[u]! * by;
  }
  return chosen;
}

/** Values a printer is sent: 8-bit steps. */
const rounded = (rgb: Rgb): Rgb => [step(rgb[0]), step(rgb[1]), step(rgb[2])];
const step = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 255) / 255;

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}
