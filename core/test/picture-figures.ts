import type { PictureStructure } from '../src/picture/structure.ts';
import type { PictureFigures } from '../src/picture/tally.ts';

/** A picture of nothing in particular: middle tones, some colour, some of everything. */
export const STRUCTURE: PictureStructure = {
  subject: { medianL: 50, key: 'average key' },
  scales: [],
  smoothShare: 0.3,
  busyShare: 0.2,
  noiseL: 0.2,
  fineL: 2,
  shallowFocus: false,
  darkAreaShare: 0.1,
  shadowDetailShare: 0.05,
  lightDetailShare: 0.05,
  skinShare: 0,
  marks: [],
  hints: [],
  map: { columns: 0, rows: 0, busy: '' },
};

export const PICTURE_FIGURES: PictureFigures = {
  pixelsRead: 1000,
  lightness: [],
  meanL: 50,
  medianL: 50,
  darkL: 5,
  lightL: 95,
  contrastSdL: 20,
  nearBlackShare: 0.05,
  nearWhiteShare: 0.05,
  meanChroma: 20,
  chroma95: 50,
  saturatedShare: 0.02,
  key: 'average key',
  contrast: 'normal',
  colour: 'colour',
  structure: STRUCTURE,
};
