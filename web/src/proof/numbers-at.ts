import { unpackLab } from '@rakuen/core/characterisation/packed';
import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { chroma } from '@rakuen/core/colour/lab';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab } from '@rakuen/core/colour/types';
import { signedDegrees } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { aimed, aimOf, movesAll } from '@rakuen/core/proof/aim';
import { applyLocal, type LocalBase } from '@rakuen/core/proof/local-contrast';
import { inPart, inPicture } from '@rakuen/core/proof/part';
import { applyRecipe } from '@rakuen/core/proof/recipe';
import { LAB_UNITS, type LabImage } from '../pictures/lab-image.ts';
import { latticeOf } from '../pictures/picture-api.ts';
import type { Sheet } from './laid.tsx';
import type { ProofView } from './proof-canvas.ts';
import type { Detail } from './use-detail.ts';

/** A place of the picture, and the sheet that lies there. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly hand: 0 | 1;
}

const triple = (lab: Lab): string =>
  `${formatNumber(lab[0], 1)}, a* ${formatNumber(lab[1], 1)}, b* ${formatNumber(lab[2], 1)}`;

type Numbers = ReturnType<typeof numbersAt>;

/** What a sheet gives of a place, in a line. @param name of the sheet */
export const onSheet = ({ seen, deltaE, fromFileDeltaE, from, lost, kept }: Numbers, name: string): string =>
  [
    `on ${name} L* ${triple(seen)}`,
    `${formatNumber(deltaE, 1)} ΔE00 ${from}${lost}, ${formatNumber(fromFileDeltaE, 1)} from the file`,
    ...(kept ? [kept] : []),
  ].join(' · ');

/** The same, after what the file holds there. */
export const inALine = (numbers: Numbers, name: string): string =>
  [`File L* ${triple(numbers.file)}`, onSheet(numbers, name)].join(' · ');

/** A place of less C* has no chroma to keep. */
const GREY_C = 2;
const hueDeg = ([, a, b]: Lab): number => (Math.atan2(b, a) * 180) / Math.PI;

/** "chroma 15 to 10, 67 % kept, hue +3°"; nothing of a grey. */
export function chromaKeptWords(file: Lab, printed: Lab): string {
  const [from, to] = [chroma(file), chroma(printed)];
  if (from < GREY_C) return '';
  const turn = ((hueDeg(printed) - hueDeg(file) + 540) % 360) - 180;
  return `chroma ${formatNumber(from, 0)} to ${formatNumber(to, 0)}, ${Math.round((100 * to) / from)}\u00a0% kept, hue ${signedDegrees(turn)}`;
}

/** File, print and loss at a place: the same lattice, read by the processor. */
export function numbersAt(
  whole: LabImage,
  detail: Detail | undefined,
  base: LocalBase | undefined,
  sheet: Sheet,
  view: ProofView,
  { x: atX, y: atY, hand }: Place,
) {
  const spot = inPicture(view.part, atX, atY);
  const near = detail && inPart(detail.part, spot.x, spot.y);
  const { widthPx, heightPx, lab } = near ? detail.image : whole;
  const { x, y } = near ?? spot;
  const px = Math.min(widthPx - 1, Math.max(0, Math.floor(x * widthPx)));
  const py = Math.min(heightPx - 1, Math.max(0, Math.floor(y * heightPx)));
  const from = (py * widthPx + px) * 3;
  const file: Lab = [lab[from] / LAB_UNITS, lab[from + 1] / LAB_UNITS, lab[from + 2] / LAB_UNITS];
  const values = Float32Array.from(file);
  const here = { widthPx: 1, heightPx: 1, first: 0, part: { ...spot, width: 0, height: 0 } };
  if (base) applyLocal(values, view.recipes[hand], base, here);
  applyRecipe(values, view.recipes[hand]);
  const { rendering } = view.recipes[hand];
  const aim = aimed(aimOf(rendering, sheet), [values[0], values[1], values[2]]);
  throughPrinted(unpackLab(sheet.nodes, latticeOf(sheet)), values, values);
  const relative: Lab = [values[0], values[1], values[2]];
  const deltaE = deltaE2000(aim, relative);
  const [dL, dC] = [relative[0] - aim[0], Math.hypot(aim[1], aim[2]) - Math.hypot(relative[1], relative[2])];
  const lost =
    deltaE < 1 || movesAll(rendering)
      ? ''
      : Math.abs(dL) < dC / 2
        ? ', too saturated for it'
        : dL > 0
          ? ', too dark for it'
          : ', too light for it';
  const fromWords = movesAll(rendering) ? 'from the colour as it is, black compensated' : 'from its aim';
  return {
    file,
    seen: view.settled ? relative : absoluteOnWhite(sheet.white)(relative),
    deltaE,
    fromFileDeltaE: deltaE2000(file, relative),
    from: fromWords,
    lost,
    kept: chromaKeptWords(file, relative),
  };
}
