import { CAPTION_MM, edgeOf, GAP_MM, MARK_BAND_MM, type SmallSheet } from './strips.ts';

/** Smaller than this nothing can be judged on a crop (our own choice), mm. */
const MIN_CROP_MM = 24;
/** Larger than this a crop shows no more that is judged (our own choice), mm. */
const MAX_CROP_MM = 80;
/** Longer side of a crop over its shorter one. */
const MAX_ASPECT = 2;

export interface FittedStrips {
  readonly cropMm: { readonly width: number; readonly height: number };
  /** The sheet, turned if more of it is printed on then. */
  readonly sheet: SmallSheet;
}

/** Rounded down to a tenth: what is rounded up need not fit. */
const tenth = (mm: number) => Math.floor(mm * 10 + 1e-6) / 10;

/** Largest crops with which so many strips lie on one sheet as it is turned; undefined where they would be too small. */
function fitted(strips: number, steps: number, sheet: SmallSheet): FittedStrips['cropMm'] | undefined {
  const within = (sideMm: number) => sideMm - 2 * edgeOf(sheet) - MARK_BAND_MM;
  const [width, height] = [within(sheet.widthMm), within(sheet.heightMm)];
  let best: FittedStrips['cropMm'] | undefined;
  for (let columns = 1; columns <= strips; columns++) {
    const rows = Math.ceil(strips / columns);
    const across = Math.min(MAX_CROP_MM, (width - (columns - 1) * GAP_MM) / columns / steps);
    const down = Math.min(MAX_CROP_MM, (height - (rows - 1) * GAP_MM) / rows - CAPTION_MM);
    const crop = {
      width: tenth(Math.min(across, down * MAX_ASPECT)),
      height: tenth(Math.min(down, across * MAX_ASPECT)),
    };
    if (Math.min(crop.width, crop.height) < MIN_CROP_MM) continue;
    if (!best || crop.width * crop.height > best.width * best.height) best = crop;
  }
  return best;
}

/**
 * Crops as large as the fewest small sheets allow, and the sheet turned so that they are larger. Where even one strip a
 * sheet is too small, the smallest crop that can be judged.
 */
export function fitStrips(strips: number, steps: number, sheet: SmallSheet): FittedStrips {
  const turned = { ...sheet, widthMm: sheet.heightMm, heightMm: sheet.widthMm };
  for (let sheets = 1; sheets <= strips; sheets++) {
    const each = Math.ceil(strips / sheets);
    const found = [sheet, turned].flatMap((s) => {
      const cropMm = fitted(each, steps, s);
      return cropMm ? [{ cropMm, sheet: s }] : [];
    });
    if (found.length > 0)
      return found.reduce((a, b) => (b.cropMm.width * b.cropMm.height > a.cropMm.width * a.cropMm.height ? b : a));
  }
  return { cropMm: { width: MIN_CROP_MM, height: MIN_CROP_MM }, sheet };
}
