import { oneDigit, percent } from '../words.ts';
import { behindGlass, shineOf, type Leaning } from './leaning.ts';

const WORTH = 0.8;

export const reflections: Leaning = {
  key: 'reflections',
  name: 'Reflections on the sheet',
  holds: 'Light areas and plain tones are seen best where the sheet shows no lamp and no window.',
  disagrees: 'The darkroom school likes a sheet that answers the light.',
  weight: 1,
  judge: (w) => {
    if (behindGlass(w)) return undefined;
    const { sheet, picture, match } = w;
    const shine = shineOf(sheet);
    if (shine === undefined) return undefined;
    // Where a picture is light there is no black to gain by the shine.
    const area =
      Math.min(1, Math.max(picture.structure?.smoothShare ?? 0, match.highlightShare)) * (1 - match.shadowShare);
    const figures = [
      ...(sheet.gloss60 === undefined
        ? []
        : [{ name: 'gloss at 60°', value: sheet.gloss60, unit: 'GU', weighed: true }]),
      { name: 'plain or light', value: area * 100, unit: '%' },
    ];
    const said = sheet.gloss60 === undefined ? 'by its class' : `${oneDigit(sheet.gloss60)} GU at 60°`;
    return {
      speaks: shine < 0.1 && area > 0.3 ? 'for' : shine * area > 0.35 ? 'against' : 'neither',
      sentence:
        shine < 0.1
          ? `It shows no reflections (${said}), and ${percent(area)} of the picture is plain or light.`
          : `It mirrors the room (${said}) over ${percent(area)} of the picture that is plain or light.`,
      figures,
      cost: WORTH * shine * area,
    };
  },
};
