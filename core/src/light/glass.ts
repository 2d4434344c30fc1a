import { edge } from './edge.ts';

/** Glass between the print and the eye. */
export interface Glass {
  readonly key: string;
  readonly name: string;
  readonly source: string;
  /** Light is let through twice: on its way to the print and back. */
  readonly transmits: (nm: number) => number;
  /** Share of the room's light that the glass throws back, 0–1. */
  readonly reflects: number;
}

/** Our own models, after what their kinds do (practice). */
export const GLASSES: readonly Glass[] = [
  { key: 'none', name: 'no glass', source: '', transmits: () => 1, reflects: 0 },
  {
    key: 'plain',
    name: 'plain glass',
    source: 'model: 92 % in one pass, UV from 330 nm on; 8 % thrown back by its two faces (practice)',
    transmits: (nm) => 0.92 * edge(300, 345)(nm),
    reflects: 0.08,
  },
  {
    key: 'uv',
    name: 'UV-blocking glass',
    source: 'model: 91 % in one pass, nothing below 400 nm; 8 % thrown back (practice)',
    transmits: (nm) => 0.91 * edge(385, 415)(nm),
    reflects: 0.08,
  },
  {
    key: 'museum',
    name: 'coated museum glass',
    source: 'model: 98 % in one pass, nothing below 400 nm; 0.8 % thrown back (practice)',
    transmits: (nm) => 0.98 * edge(385, 415)(nm),
    reflects: 0.008,
  },
];

/** How light the room is that the glass shows, as a share of the light on the print (our own assumption). */
export const ROOM = 0.2;
