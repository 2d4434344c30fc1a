import sharp from 'sharp';
import { blueprint } from './blueprint.ts';
import { controlRoom } from './control-room.ts';
import { fogPylons } from './fog-pylons.ts';
import { insulator } from './insulator.ts';
import { lichen } from './lichen.ts';
import { nightDish } from './night-dish.ts';
import { panorama } from './panorama.ts';
import { rustStruts } from './rust-struts.ts';
import { saltCrust } from './salt-crust.ts';
import { tonedHall } from './toned-hall.ts';
import type { Scene } from './scene.ts';

/** 8 × 5⅓ inches at 300 pixels an inch. */
const SIZE = [2400, 1600] as const;

/** 5 × 3⅓ inches, for those that need no more. */
const LARGE: readonly string[] = ['nightDish', 'saltCrust', 'controlRoom'];
const SMALL = [1500, 1000] as const;
const SIZES: Partial<Record<SceneName, readonly [number, number]>> = { panorama: [2100, 700] };

export const SCENES = {
  nightDish,
  saltCrust,
  fogPylons,
  controlRoom,
  lichen,
  rustStruts,
  insulator,
  blueprint,
  panorama,
  tonedHall,
} as const;
export type SceneName = keyof typeof SCENES;

/** 16-bit code of linear light 0–1: a table over its square root, fine enough near black. */
const CODES = Uint16Array.from({ length: 16_385 }, (_, i) => {
  const v = (i / 16_384) ** 2;
  return Math.round(65_535 * (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055));
});
function encode(v: number): number {
  const t = 16_384 * Math.sqrt(v < 0 ? 0 : v > 1 ? 1 : v);
  const i = Math.floor(t);
  return i === 16_384 ? CODES[i] : CODES[i] + (CODES[i + 1] - CODES[i]) * (t - i);
}

/** Draws a scene as a 16-bit TIFF with a wide-gamut profile embedded. The same every time. */
export async function drawPicture(
  name: SceneName,
  [widthPx, heightPx]: readonly [number, number] = SIZES[name] ?? (LARGE.includes(name) ? SIZE : SMALL),
): Promise<{ scene: Pick<Scene, 'fileName' | 'title'>; tiff: Buffer }> {
  const scene = SCENES[name](widthPx, heightPx);
  const pixels = new Uint16Array(widthPx * heightPx * 3);
  let at = 0;
  for (let j = 0; j < heightPx; j++) {
    for (let i = 0; i < widthPx; i++) {
      for (const v of scene.shade((i + 0.5) / heightPx, (j + 0.5) / heightPx)) pixels[at++] = encode(v);
    }
  }
  const tiff = await sharp(pixels, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .toColourspace('rgb16')
    .withIccProfile('p3')
    .withDensity(300)
    .tiff({ compression: 'lzw', predictor: 'horizontal' })
    .toBuffer();
  return { scene: { fileName: scene.fileName, title: scene.title }, tiff };
}

/** A picture's name and title, without drawing it. */
export function sceneOf(name: SceneName): Pick<Scene, 'fileName' | 'title'> {
  const { fileName, title } = SCENES[name](1, 1);
  return { fileName, title };
}
