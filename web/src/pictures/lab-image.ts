import { three } from '@rakuen/core/colour/three';
import type { Lab } from '@rakuen/core/colour/types';
import { localBase, type LocalBase } from '@rakuen/core/proof/local-contrast';
import type { Part } from '@rakuen/core/proof/part';

/** A picture as Lab, as large as a screen: L*, a*, b* of each pixel in units of 1/250. */
export interface LabImage {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly lab: Int16Array;
}

const HEAD_BYTES = 8;
export const LAB_UNITS = 250;
const known = new Map<string, Promise<LabImage>>();
const MOST_KNOWN = 8;

/** Fetched once; the last few stay. @param part a part of it, with as many of its own pixels as a screen has */
export function labImage(pictureId: string, part?: Part): Promise<LabImage> {
  const key = part
    ? `${pictureId}?${Object.entries(part)
        .map(([k, v]) => `${k}=${v.toFixed(5)}`)
        .join('&')}`
    : pictureId;
  const found = known.get(key);
  if (found) return found;
  const [id, query = ''] = key.split('?');
  const made = fetch(`/api/pictures/${id}/lab${query && `?${query}`}`).then(async (answer) => {
    if (!answer.ok) throw new Error('The picture could not be fetched.');
    const bytes = await answer.arrayBuffer();
    const head = new DataView(bytes);
    return {
      widthPx: head.getUint32(0, true),
      heightPx: head.getUint32(4, true),
      lab: new Int16Array(bytes, HEAD_BYTES),
    };
  });
  known.set(key, made);
  made.catch(() => known.delete(key));
  if (known.size > MOST_KNOWN) known.delete(known.keys().next().value!);
  return made;
}

const bases = new WeakMap<LabImage, { longSideMm: number; base: LocalBase }>();

/** What lies under the local contrast of a picture at a size of print; computed when a recipe first asks for it. */
export function localBaseOf(image: LabImage, longSideMm: number): LocalBase {
  const known = bases.get(image);
  if (known?.longSideMm === longSideMm) return known.base;
  const { widthPx, heightPx, lab } = image;
  const lightness = Float32Array.from({ length: widthPx * heightPx }, (_, i) => lab[i * 3] / LAB_UNITS);
  const base = localBase({ widthPx, heightPx, lightness }, longSideMm);
  bases.set(image, { longSideMm, base });
  return base;
}

/** Half the side of what is looked at about a place, as a share of the picture. */
const ABOUT = 0.012;

/** Mean colour about a place, and how much is drawn there: standard deviation of L*. */
export function sampleAt({ widthPx, heightPx, lab }: LabImage, x: number, y: number): { lab: Lab; detailL: number } {
  const half = Math.max(2, Math.round(ABOUT * Math.max(widthPx, heightPx)));
  const [cx, cy] = [Math.round(x * (widthPx - 1)), Math.round(y * (heightPx - 1))];
  const sums = [0, 0, 0];
  let [squares, n] = [0, 0];
  for (let v = Math.max(0, cy - half); v <= Math.min(heightPx - 1, cy + half); v++)
    for (let u = Math.max(0, cx - half); u <= Math.min(widthPx - 1, cx + half); u++, n++) {
      const at = (v * widthPx + u) * 3;
      for (let c = 0; c < 3; c++) sums[c] += lab[at + c] / LAB_UNITS;
      squares += (lab[at] / LAB_UNITS) ** 2;
    }
  const mean = three((c) => sums[c] / n);
  return { lab: mean, detailL: Math.sqrt(Math.max(0, squares / n - mean[0] ** 2)) };
}
