import { RENDERING_KEYS, RENDERINGS } from '@rakuen/core/characterisation/renderings';
import { FormatError } from '@rakuen/core/formats/format-error';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { writeCopy } from '../work/copy-task.ts';
import { chosen, parseArguments, UseError } from './arguments.ts';
import { existing, MOST_PIXELS, pictureLine } from './match.ts';
import { inScratch, stops } from './proof.ts';
import { isProfile, shellFile } from './shell-file.ts';

const USE = `Use: npm run --silent copy -- --picture FILE [--sheet READINGS] --profile OUT.icc [--rendering ${RENDERING_KEYS.join('|')}] --size 420x280 --ppi 360 [--lift STOPS] --out COPY.tif`;
const MM_PER_INCH = 25.4;
const MOST_MM = 20_000;
const MOST_PPI = 2880;

/** Width and height in mm, as 420x280. @throws UseError */
function sizeOf(value: string | true | undefined): [number, number] {
  const found = /^(\d+(?:\.\d+)?)x(\d+(?:\.\d+)?)$/.exec(String(value));
  const size = found ? ([Number(found[1]), Number(found[2])] as [number, number]) : undefined;
  if (!size || size.some((v) => v < 10 || v > MOST_MM))
    throw new UseError('--size is width and height in mm, as 420x280.');
  return size;
}

/** The shell's `copy`: the print file of a picture, in device values of a profile that is embedded. @returns the exit code */
export async function runCopy(words: readonly string[]): Promise<number> {
  let at = 'copy';
  try {
    const { files, options } = parseArguments(words, {
      taking: ['picture', 'sheet', 'profile', 'rendering', 'size', 'ppi', 'lift', 'out'],
      flags: [],
    });
    const { picture: path, profile: profilePath, out } = options;
    if (typeof path !== 'string' || typeof profilePath !== 'string' || typeof out !== 'string' || files.length > 0)
      throw new UseError(USE);
    const [widthMm, heightMm] = sizeOf(options.size);
    const ppi = Number(options.ppi ?? 360);
    if (!(ppi >= 36 && ppi <= MOST_PPI)) throw new UseError(`--ppi is from 36 to ${MOST_PPI}.`);
    const rendering = chosen('rendering', options.rendering, RENDERINGS);
    const lifted = stops(options.lift);
    at = profilePath;
    const icc = await shellFile(profilePath);
    if (!isProfile(icc))
      throw new FormatError({
        message: 'It is not an ICC profile.',
        remedy: 'Name the profile of the print condition.',
      });
    at = path;
    await existing(path);
    const { widthPx, heightPx, profile } = await inScratch((scratch) =>
      writeCopy({
        path,
        assumeSrgb: false,
        maxPixels: MOST_PIXELS,
        target: { icc, rendering: rendering.key },
        as: 'tif',
        widthMm,
        heightMm,
        ppi,
        recipe: { ...PLAIN, liftStops: lifted, rendering: rendering.key },
        out,
        scratch,
      }),
    );
    const mm = (px: number) => ((px / ppi) * MM_PER_INCH).toFixed(0);
    console.log(
      `${out}: ${widthPx} × ${heightPx} px at ${ppi} ppi, ${mm(widthPx)} × ${mm(heightPx)} mm, 16-bit device values of ${profile}; ${rendering.name}`,
    );
    return 0;
  } catch (error) {
    console.error(pictureLine(at, error));
    return 1;
  }
}
