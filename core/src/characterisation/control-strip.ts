import type { Lab } from '../colour/types.ts';

/** A colour of the strip that is printed through a profile to check it. */
export interface StripColour {
  readonly name: string;
  /** Aim, relative to the paper's white. */
  readonly lab: Lab;
}

const greys: StripColour[] = [8, 15, 22, 30, 38, 46, 54, 62, 70, 78, 86, 92, 97].map((L) => ({
  name: `grey ${L}`,
  lab: [L, 0, 0],
}));

/** Colours that everybody knows how they should look; typical values, from memory (memory). */
const known: StripColour[] = [
  { name: 'fair skin', lab: [78, 12, 17] },
  { name: 'skin in shade', lab: [56, 17, 20] },
  { name: 'dark skin', lab: [38, 13, 16] },
  { name: 'deep skin', lab: [26, 9, 10] },
  { name: 'lips', lab: [52, 36, 16] },
  { name: 'blue sky', lab: [62, -6, -28] },
  { name: 'evening sky', lab: [38, 8, -30] },
  { name: 'grass', lab: [46, -26, 32] },
  { name: 'dark foliage', lab: [28, -12, 16] },
  { name: 'sea', lab: [44, -18, -16] },
  { name: 'sand', lab: [76, 4, 22] },
  { name: 'brick', lab: [44, 28, 26] },
  { name: 'wood', lab: [48, 12, 28] },
  { name: 'stone', lab: [60, 2, 6] },
  { name: 'straw', lab: [80, 0, 36] },
  { name: 'lavender', lab: [62, 14, -22] },
];

/** Twelve hues about the middle and in light tints, and six that ask for all a printer has. */
const hues: StripColour[] = [
  ...Array.from({ length: 8 }, (_, i): StripColour => {
    const h = (i * Math.PI) / 4;
    return { name: `hue ${i * 45}°`, lab: [58, 34 * Math.cos(h), 34 * Math.sin(h)] };
  }),
  ...Array.from({ length: 6 }, (_, i): StripColour => {
    const h = (i * Math.PI) / 3;
    return { name: `tint ${i * 60}°`, lab: [86, 9 * Math.cos(h), 9 * Math.sin(h)] };
  }),
  { name: 'far red', lab: [48, 70, 50] },
  { name: 'far yellow', lab: [88, -4, 88] },
  { name: 'far green', lab: [54, -60, 30] },
  { name: 'far cyan', lab: [58, -38, -38] },
  { name: 'far blue', lab: [30, 22, -62] },
  { name: 'far magenta', lab: [48, 72, -12] },
];

/** The strip, about fifty patches: greys, skin-like and well-known colours, hues, and the ends of the gamut. Our own choice. */
export const CONTROL_STRIP: readonly StripColour[] = [...greys, ...known, ...hues];
