import { LEANINGS } from './leanings/registry.ts';

/** Weights of leanings, by key; what is not named keeps the weight it begins with. */
export type Weights = Readonly<Record<string, number>>;

/** A school: a set of weights with a name. The names are ours. */
export interface School {
  readonly key: string;
  readonly name: string;
  readonly holds: string;
  readonly weights: Weights;
}

export const SCHOOLS: readonly School[] = [
  { key: 'start', name: 'Default', holds: 'Every criterion at its default weight, no side taken.', weights: {} },
  {
    key: 'darkroom',
    name: 'North darkroom',
    holds: 'The deepest black, on a sheet that answers the light: greys on gloss or baryta, whatever it costs.',
    weights: {
      depth: 2.5,
      darkroomGreys: 1,
      reflections: 0,
      longGreys: 0,
      shadowSteps: 1.5,
      contrastLeft: 1.5,
      sharpness: 1.5,
      money: 0.3,
    },
  },
  {
    key: 'quiet',
    name: 'Quiet rag',
    holds: 'Matt cotton without brightener: no reflections, long soft greys, the sheet felt.',
    weights: {
      reflections: 3,
      quietGreys: 1,
      longGreys: 2.5,
      brightener: 4,
      bronzing: 2,
      inTheHand: 1.5,
      depth: 0.3,
      shadowSteps: 0.4,
      contrastLeft: 0.3,
      money: 0.05,
    },
  },
  {
    key: 'vanishing',
    name: 'Sheet unseen',
    holds: 'The sheet vanishes behind the picture: no texture, no tint, every edge and colour as it is in the file.',
    weights: {
      plainAreas: 3,
      busyDetail: 0,
      colourHeld: 1.5,
      paperWhite: 4,
      bronzing: 2,
      sharpness: 2,
      contrastLeft: 2,
      loudSheet: 1.5,
      longGreys: 0,
      reflections: 0.1,
      brightener: 0.3,
      inTheHand: 0.3,
      money: 0.3,
    },
  },
  {
    key: 'oneThing',
    name: 'Ink and sheet one',
    holds: 'The sheet adds its tooth and its weight; some tone and some colour may be given up for it.',
    weights: {
      busyDetail: 3,
      toothInPlain: 1,
      inTheHand: 2,
      reflections: 2,
      longGreys: 2,
      plainAreas: 0.1,
      colourHeld: 0.4,
      shadowSteps: 0.4,
      contrastLeft: 0.5,
      sharpness: 0.3,
      depth: 0.5,
      money: 0.2,
    },
  },
  {
    key: 'thrift',
    name: 'Open door',
    holds:
      'Good enough at a quarter of the price, brightened white included, and fed without a hand: it keeps the studio open.',
    weights: { money: 6, feeding: 2, paperWhite: 0.4, brightener: 0.5 },
  },
  {
    key: 'lasting',
    name: 'Long wall',
    holds: 'What hangs for years is white without brightener, and neutral in every light.',
    weights: { brightener: 10, tonedWhite: 2, neutralGreys: 1.5, money: 0.25, feeding: 0.05 },
  },
];

/** The weight of every leaning under a set of weights. */
export const weightsOf = (weights: Weights = {}): Record<string, number> =>
  Object.fromEntries(LEANINGS.map((l) => [l.key, weights[l.key] ?? l.weight]));
