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
  { key: 'start', name: 'As it begins', holds: 'Every question at its own weight, no side taken.', weights: {} },
  {
    key: 'darkroom',
    name: 'North darkroom',
    holds: 'The deepest black, on a sheet that answers the light.',
    weights: { depth: 2, darkroomGreys: 1, reflections: 0.2, shadowSteps: 1.3, contrastLeft: 1.5 },
  },
  {
    key: 'quiet',
    name: 'Quiet rag',
    holds: 'No reflections, soft greys, the sheet felt.',
    weights: { reflections: 3, quietGreys: 1, depth: 0.3, shadowSteps: 0.4, contrastLeft: 0.3, inTheHand: 1.5 },
  },
  {
    key: 'vanishing',
    name: 'Sheet unseen',
    holds: 'The sheet vanishes behind the picture.',
    weights: {
      plainAreas: 2.5,
      busyDetail: 0,
      colourHeld: 1.5,
      paperWhite: 3,
      bronzing: 2,
      loudSheet: 1.5,
      inTheHand: 0.3,
    },
  },
  {
    key: 'oneThing',
    name: 'Ink and sheet one',
    holds: 'Some tone may be given up for what the sheet adds.',
    weights: { busyDetail: 3, plainAreas: 0.2, colourHeld: 0.5, shadowSteps: 0.5, inTheHand: 2, reflections: 1.5 },
  },
  {
    key: 'thrift',
    name: 'Open door',
    holds: 'Good enough at a quarter of the price keeps the studio open.',
    weights: { money: 3.5, feeding: 1 },
  },
  {
    key: 'lasting',
    name: 'Long wall',
    holds: 'What hangs for years is white without help.',
    weights: { brightener: 6, tonedWhite: 2, neutralGreys: 1.5 },
  },
];

/** The weight of every leaning under a set of weights. */
export const weightsOf = (weights: Weights = {}): Record<string, number> =>
  Object.fromEntries(LEANINGS.map((l) => [l.key, weights[l.key] ?? l.weight]));
