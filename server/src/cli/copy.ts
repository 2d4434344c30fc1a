import { RENDERINGS } from '@rakuen/core/characterisation/renderings';
import { FormatError } from '@rakuen/core/formats/format-error';
import { readProfile } from '@rakuen/core/formats/icc/profile-read';
import { lift } from '@rakuen/core/proof/lift';
import { openProfile, ProfileError } from '../colour-management/lcms.ts';
import { aimOf } from '../work/lay-tasks.ts';
import { writePrintFile } from '../work/print-file.ts';
import { chosen, parseArguments, UseError } from './arguments.ts';
import { pictureLine } from './match.ts';
import { stops, withPicture } from './proof.ts';
import { isProfile, shellFile } from './shell-file.ts';

const USE =
  'Use: npm run --silent copy -- --picture FILE [--sheet READINGS] --profile OUT.icc [--rendering relative|perceptual|saturation|absolute] --size 420x280 --ppi 360 [--lift STOPS] --out COPY.tif';
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

/** The shell's `copy`: the print copy of a picture, in device values of a profile that is embedded. @returns the exit code */
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
    readProfile(icc);
    const relative = await openProfile(icc);
    const sender = await openProfile(icc, rendering.key);
    try {
      if (relative.space !== 'RGB')
        throw new ProfileError(`It is for ${relative.space}; print copies are written for printers driven in RGB.`);
      const aim = aimOf(relative, rendering.key);
      at = path;
      await withPicture(path, async ({ meta, pipeline, channels, bitsPerChannel, labOf }, scratch) => {
        const { width, height } = meta.autoOrient;
        // As large as it goes on that size: nothing is cut off, nothing is stretched.
        const scale = Math.min(widthMm / width, heightMm / height) / MM_PER_INCH;
        const [w, h] = [Math.max(1, Math.round(width * scale * ppi)), Math.max(1, Math.round(height * scale * ppi))];
        await writePrintFile({
          pipeline: pipeline.autoOrient().resize(w, h, { fit: 'fill', kernel: 'lanczos3' }),
          channels,
          bitsPerChannel,
          labOf,
          written: (labs) => {
            lift(labs, lifted);
            for (let p = 0; p < labs.length; p += 3) labs.set(aim([labs[p], labs[p + 1], labs[p + 2]]), p);
            return Uint16Array.from(sender.fromLab(labs), (v) => Math.round(Math.min(1, Math.max(0, v)) * 65_535));
          },
          kind: { widthPx: w, heightPx: h, colour: 'RGB', ppi, icc, xmp: meta.xmp, iptc: meta.iptc },
          out,
          scratch,
        });
        console.log(
          `${out}: ${w} × ${h} px at ${ppi} ppi, ${((w / ppi) * MM_PER_INCH).toFixed(0)} × ${((h / ppi) * MM_PER_INCH).toFixed(0)} mm, 16-bit device values of ${relative.name}; ${rendering.name.toLowerCase()}`,
        );
      });
    } finally {
      relative.close();
      sender.close();
    }
    return 0;
  } catch (error) {
    console.error(pictureLine(at, error));
    return 1;
  }
}
