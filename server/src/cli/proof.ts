import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { RENDERINGS } from '@rakuen/core/characterisation/renderings';
import { tiffLab } from '@rakuen/core/formats/tiff-head';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { applyRecipe, PLAIN } from '@rakuen/core/proof/recipe';
import { seenOn } from '../work/lay-tasks.ts';
import { openPicture, type OpenPicture } from '../work/open-picture.ts';
import { writePrintFile } from '../work/print-file.ts';
import { chosen, parseArguments, UseError } from './arguments.ts';
import { existing, MOST_PIXELS, pictureLine } from './match.ts';
import { sheetFromFile } from './sheet-file.ts';

const USE =
  'Use: npm run --silent proof -- --picture FILE --sheet READINGS [--light NAME] [--glass NAME] [--rendering relative|perceptual|saturation|absolute] [--lift STOPS] --out PROOF.tif';

/** A lift in stops, as the shell takes it. @throws UseError */
export function stops(value: string | true | undefined): number {
  const lifted = value === undefined ? 0 : Number(value);
  if (!Number.isFinite(lifted) || Math.abs(lifted) > 3) throw new UseError('--lift takes stops from -3 to 3, as 0.25.');
  return lifted;
}

/** A folder for what is only needed meanwhile. */
export async function inScratch<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const scratch = join(tmpdir(), `rakuen-${randomUUID()}`);
  try {
    return await work(scratch);
  } finally {
    await rm(scratch, { recursive: true, force: true });
  }
}

/** Opens a picture, works, and closes it. */
async function withPicture<T>(path: string, work: (picture: OpenPicture, scratch: string) => Promise<T>): Promise<T> {
  await existing(path);
  const picture = await openPicture({ path, assumeSrgb: false, maxPixels: MOST_PIXELS });
  try {
    return await inScratch((scratch) => work(picture, scratch));
  } finally {
    picture.close();
  }
}

/** The shell's `proof`: what a picture looks like on a sheet, as 16-bit CIELAB. @returns the exit code */
export async function runProof(words: readonly string[]): Promise<number> {
  let at = 'proof';
  try {
    const { files, options } = parseArguments(words, {
      taking: ['picture', 'sheet', 'light', 'glass', 'rendering', 'lift', 'out'],
      flags: [],
    });
    const { picture: path, sheet: sheetPath, out } = options;
    if (typeof path !== 'string' || typeof sheetPath !== 'string' || typeof out !== 'string' || files.length > 0)
      throw new UseError(USE);
    const light = chosen('light', options.light, TABLE_LIGHTS);
    const glass = chosen('glass', options.glass, GLASSES);
    const rendering = chosen('rendering', options.rendering, RENDERINGS);
    const lifted = stops(options.lift);
    at = sheetPath;
    const { laid } = await sheetFromFile(sheetPath, { light, glass, rendering: rendering.key });
    at = path;
    await withPicture(path, async ({ meta, pipeline, channels, bitsPerChannel, labOf }, scratch) => {
      const { width, height } = meta.autoOrient;
      await writePrintFile({
        pipeline: pipeline.autoOrient(),
        channels,
        bitsPerChannel,
        labOf,
        written: (labs) => {
          applyRecipe(labs, { ...PLAIN, liftStops: lifted });
          seenOn(laid.seen, labs);
          return tiffLab(labs);
        },
        kind: { widthPx: width, heightPx: height, colour: 'CIELAB', ppi: meta.density ?? 300 },
        out,
        scratch,
      });
      console.log(
        `${out}: ${width} × ${height} px, CIELAB of 16 bits, absolute; ${rendering.name.toLowerCase()}, ${light.name}, ${glass.name}`,
      );
    });
    return 0;
  } catch (error) {
    console.error(pictureLine(at, error));
    return 1;
  }
}
