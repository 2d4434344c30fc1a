import type { SceneName } from './pictures/draw.ts';

/** Three months at the printer, as the studio’s book tells them. Print conditions by their number in `CONDITIONS`. */
interface Dated {
  /** ISO 8601 day. */
  readonly on: string;
  readonly picture: SceneName;
  readonly condition: number;
}

export interface DemoDecision extends Dated {
  readonly stamp: 'chosen' | 'held' | 'refused';
  readonly reason: string;
  readonly by: string;
}

export interface DemoPrint extends Dated {
  readonly widthMm: number;
  readonly copies?: number;
  readonly feed: string;
  readonly lift?: number;
  readonly sharpening: string;
  readonly verdict: 'good' | 'good enough' | 'rejected' | 'not yet judged';
  readonly why: string;
  readonly judgedIn?: string;
  readonly decidedBy?: 'printmaker' | 'client' | 'artist';
  readonly minutes: number;
  readonly spoilt?: readonly { readonly cause: string; readonly sheets: number }[];
}

const BARYTA = 0;
const LUSTRE = 2;
const LUSTRE_DYE = 3;
const RAG = 4;
const BRIGHT_MATT = 5;
const METALLIC = 6;
const MULBERRY = 7;
const BARYTA_GREY = 8;
const GLOSS = 9;
const WHITE_BARYTA = 10;
const TEXTURED_RAG = 11;
const CANVAS = 12;

const me = 'printmaker';

export const DECISIONS: readonly DemoDecision[] = [
  {
    on: '2026-09-16',
    picture: 'saltCrust',
    condition: BARYTA,
    stamp: 'held',
    reason: 'The white of the crust wants no gloss; look at the rag first.',
    by: me,
  },
  {
    on: '2026-09-16',
    picture: 'fogPylons',
    condition: RAG,
    stamp: 'held',
    reason: 'Quiet, but behind film nobody sees the rag.',
    by: me,
  },
  {
    on: '2026-09-18',
    picture: 'fogPylons',
    condition: LUSTRE_DYE,
    stamp: 'chosen',
    reason: 'Forty behind film: good enough at a fifth of the price.',
    by: me,
  },
  {
    on: '2026-09-21',
    picture: 'controlRoom',
    condition: LUSTRE,
    stamp: 'chosen',
    reason: 'The sodium orange holds; on the rag it browns.',
    by: me,
  },
  {
    on: '2026-09-21',
    picture: 'controlRoom',
    condition: RAG,
    stamp: 'refused',
    reason: 'The lamps go brown and the dark desk closes.',
    by: me,
  },
  {
    on: '2026-09-25',
    picture: 'nightDish',
    condition: RAG,
    stamp: 'refused',
    reason: 'The dish sinks into the plain.',
    by: me,
  },
  {
    on: '2026-09-28',
    picture: 'lichen',
    condition: MULBERRY,
    stamp: 'chosen',
    reason: 'The fibres carry the lichen; it is held in the hand.',
    by: 'artist',
  },
  {
    on: '2026-09-30',
    picture: 'nightDish',
    condition: BARYTA,
    stamp: 'chosen',
    reason: 'The sky stays open down to the horizon; on the rag it closes.',
    by: me,
  },
  {
    on: '2026-10-05',
    picture: 'insulator',
    condition: METALLIC,
    stamp: 'held',
    reason: 'The glaze sparkles, and so does the wall behind it.',
    by: me,
  },
  {
    on: '2026-10-06',
    picture: 'insulator',
    condition: BARYTA,
    stamp: 'chosen',
    reason: 'Smooth in the half tones, no tooth in the glaze.',
    by: me,
  },
  {
    on: '2026-10-12',
    picture: 'tonedHall',
    condition: BARYTA_GREY,
    stamp: 'chosen',
    reason: 'The greys stay where the toning put them.',
    by: 'artist',
  },
  {
    on: '2026-10-14',
    picture: 'tonedHall',
    condition: BRIGHT_MATT,
    stamp: 'refused',
    reason: 'Its white turns blue at the window.',
    by: me,
  },
  {
    on: '2026-10-20',
    picture: 'blueprint',
    condition: RAG,
    stamp: 'chosen',
    reason: 'The ground lies nearest; signed by I. Tamsin.',
    by: 'client',
  },
  {
    on: '2026-10-27',
    picture: 'rustStruts',
    condition: LUSTRE,
    stamp: 'chosen',
    reason: 'The rust stays red to the last sun.',
    by: me,
  },
  {
    on: '2026-10-29',
    picture: 'lichen',
    condition: TEXTURED_RAG,
    stamp: 'held',
    reason: 'Its tooth goes along with the stone; look at it beside the mulberry.',
    by: me,
  },
  {
    on: '2026-10-29',
    picture: 'insulator',
    condition: TEXTURED_RAG,
    stamp: 'refused',
    reason: 'The tooth lies on the glaze like dust.',
    by: me,
  },
  {
    on: '2026-10-30',
    picture: 'controlRoom',
    condition: GLOSS,
    stamp: 'refused',
    reason: 'It holds the sodium light, and every lamp of the room with it.',
    by: me,
  },
  {
    on: '2026-11-02',
    picture: 'nightDish',
    condition: WHITE_BARYTA,
    stamp: 'held',
    reason: 'As black as Slate, and bluer at the window; not beside the others.',
    by: me,
  },
  {
    on: '2026-11-03',
    picture: 'saltCrust',
    condition: RAG,
    stamp: 'held',
    reason: 'Quiet and right; the client wants to see the lustre beside it.',
    by: 'client',
  },
  {
    on: '2026-11-09',
    picture: 'panorama',
    condition: CANVAS,
    stamp: 'refused',
    reason: 'The roll is long enough; its weave breaks the horizon.',
    by: me,
  },
  {
    on: '2026-11-10',
    picture: 'panorama',
    condition: BARYTA,
    stamp: 'chosen',
    reason: 'From the roll, in one piece.',
    by: me,
  },
];

const FRONT = 'front straight path';
const AUTO = 'auto feeder';

export const PRINTS: readonly DemoPrint[] = [
  {
    on: '2026-09-19',
    picture: 'fogPylons',
    condition: LUSTRE_DYE,
    widthMm: 254,
    copies: 10,
    feed: AUTO,
    sharpening: 'light',
    verdict: 'good enough',
    why: 'Behind film nobody misses more.',
    judgedIn: 'cool LED',
    decidedBy: 'printmaker',
    minutes: 38,
    spoilt: [{ cause: 'fed askew', sheets: 1 }],
  },
  {
    on: '2026-09-22',
    picture: 'controlRoom',
    condition: LUSTRE,
    widthMm: 400,
    feed: AUTO,
    sharpening: 'light',
    verdict: 'good',
    why: 'The orange glows and does not spill.',
    judgedIn: 'D50 booth',
    decidedBy: 'printmaker',
    minutes: 9,
  },
  {
    on: '2026-09-23',
    picture: 'nightDish',
    condition: RAG,
    widthMm: 300,
    feed: FRONT,
    lift: 0.25,
    sharpening: 'strong, for rag',
    verdict: 'rejected',
    why: 'Muddy from the dish down.',
    judgedIn: 'D50 booth',
    decidedBy: 'printmaker',
    minutes: 14,
    spoilt: [{ cause: 'fingerprint or scuff', sheets: 1 }],
  },
  {
    on: '2026-09-24',
    picture: 'nightDish',
    condition: RAG,
    widthMm: 300,
    feed: FRONT,
    lift: 0.5,
    sharpening: 'strong, for rag',
    verdict: 'rejected',
    why: 'Lifted by half a stop, still muddy.',
    judgedIn: 'D50 booth',
    decidedBy: 'printmaker',
    minutes: 14,
  },
  {
    on: '2026-09-25',
    picture: 'nightDish',
    condition: RAG,
    widthMm: 300,
    feed: FRONT,
    lift: 0.75,
    sharpening: 'strong, for rag',
    verdict: 'rejected',
    why: 'Open at last, and grey: muddy and flat.',
    judgedIn: 'gallery lamp',
    decidedBy: 'client',
    minutes: 13,
  },
  {
    on: '2026-09-29',
    picture: 'lichen',
    condition: MULBERRY,
    widthMm: 254,
    feed: FRONT,
    sharpening: 'strong, for rag',
    verdict: 'good',
    why: 'One wants to touch it.',
    judgedIn: 'north window',
    decidedBy: 'artist',
    minutes: 16,
    spoilt: [{ cause: 'fed askew', sheets: 2 }],
  },
  {
    on: '2026-10-02',
    picture: 'nightDish',
    condition: BARYTA,
    widthMm: 420,
    feed: FRONT,
    lift: 0.25,
    sharpening: 'light, for baryta',
    verdict: 'good',
    why: 'Stars crisp, rim of the dish not burnt.',
    judgedIn: 'gallery lamp',
    decidedBy: 'printmaker',
    minutes: 17,
    spoilt: [{ cause: 'printed on the back', sheets: 1 }],
  },
  {
    on: '2026-10-07',
    picture: 'insulator',
    condition: BARYTA,
    widthMm: 254,
    feed: FRONT,
    sharpening: 'light, for baryta',
    verdict: 'good',
    why: 'The glaze runs without a step.',
    judgedIn: 'D50 booth',
    decidedBy: 'printmaker',
    minutes: 11,
  },
  {
    on: '2026-10-13',
    picture: 'tonedHall',
    condition: BARYTA_GREY,
    widthMm: 254,
    feed: FRONT,
    sharpening: 'light, for baryta',
    verdict: 'good',
    why: 'Warm in the shadows as it was meant.',
    judgedIn: 'museum light',
    decidedBy: 'artist',
    minutes: 11,
  },
  {
    on: '2026-10-21',
    picture: 'blueprint',
    condition: RAG,
    widthMm: 254,
    feed: FRONT,
    sharpening: 'none',
    verdict: 'good',
    why: 'Side by side with the drawing: the ground agrees.',
    judgedIn: 'D50 booth',
    decidedBy: 'client',
    minutes: 12,
    spoilt: [{ cause: 'wrong media setting', sheets: 1 }],
  },
  {
    on: '2026-10-28',
    picture: 'controlRoom',
    condition: RAG,
    widthMm: 300,
    feed: FRONT,
    lift: 0.25,
    sharpening: 'strong, for rag',
    verdict: 'rejected',
    why: 'The desk is muddy and the lamps brown.',
    judgedIn: 'D50 booth',
    decidedBy: 'client',
    minutes: 13,
  },
  {
    on: '2026-11-04',
    picture: 'nightDish',
    condition: BARYTA,
    widthMm: 420,
    feed: FRONT,
    lift: 0.25,
    sharpening: 'light, for baryta',
    verdict: 'good',
    why: 'As the first.',
    judgedIn: 'gallery lamp',
    decidedBy: 'printmaker',
    minutes: 16,
  },
];

/** What was begun and waits for the printer. */
export const WAITING: readonly { readonly picture: SceneName; readonly condition: number }[] = [
  { picture: 'saltCrust', condition: RAG },
  { picture: 'rustStruts', condition: LUSTRE },
  { picture: 'insulator', condition: BARYTA },
];

/** Boxes and rolls in the drawer: a paper by its key, a size by its label. */
export const BOXES: readonly {
  readonly paper: string;
  readonly size: string;
  readonly batch: string;
  readonly on: string;
}[] = [
  { paper: 'slate', size: 'A3+', batch: '', on: '2026-06-02' },
  { paper: 'slate', size: '17 in roll', batch: '', on: '2026-06-02' },
  { paper: 'slate', size: 'A3+', batch: 'new label, autumn 2026', on: '2026-10-30' },
  { paper: 'harbour', size: 'A3+', batch: '', on: '2026-05-11' },
  { paper: 'chalk', size: 'A3+', batch: '', on: '2026-05-11' },
  { paper: 'lantern', size: 'A4', batch: '', on: '2025-03-08' },
  { paper: 'reedmere', size: '64 × 97 cm sheet', batch: '', on: '2026-08-20' },
];

/** The edition of three for the exhibition; its first two prints are numbered. */
export const EDITION = {
  picture: 'nightDish',
  condition: BARYTA,
  name: 'Edition of 3',
  size: 3,
  artist: 1,
  printer: 0,
  good: 1,
  widthMm: 420,
} as const satisfies {
  readonly picture: SceneName;
} & Record<string, unknown>;

/** The media setting that was tried and stamped. */
export const TRIAL = {
  condition: BARYTA,
  reason: 'Blacker and no gloss lost; Plain photo leaves the shadows short.',
  by: me,
  light: 'D50 booth',
  on: '2026-09-15',
} as const;

/** A blind comparison: what the eye said of each pair, in the order in which they were shown. */
export const BLIND = {
  conditions: [BARYTA, LUSTRE, RAG],
  criterion: 'deeper black',
  observer: 'I. Tamsin',
  light: 'gallery lamp',
  times: 7,
} as const;

/** A sample pack for the next season. */
export const PACK = {
  name: 'Fair in spring',
  types: [BARYTA, RAG, BRIGHT_MATT],
  crops: ['nightDish', 'saltCrust'],
} as const satisfies {
  readonly crops: readonly SceneName[];
} & Record<string, unknown>;

/** Who orders prints, and where they hang. */
export const CLIENTS = [
  {
    key: 'trust',
    name: 'Skerrow Mast Trust',
    contact: 'Harbour house 2, Ottermark',
    wishes: 'No gloss in the hall: lamps stand low. The edition stays at three.',
    places: [
      { name: 'Visitors’ hall', address: 'Harbour house 2, Ottermark', light: 'led-warm', glass: 'museum', lux: 150 },
    ],
  },
  {
    key: 'office',
    name: 'I. Tamsin',
    contact: 'Drawing office, Quay lane 4',
    wishes: 'The ground of the drawing must agree; matt and warm.',
    places: [{ name: 'North wall', address: 'Quay lane 4', light: 'window', glass: 'none', lux: 500 }],
  },
  { key: 'fair', name: 'Vessel Fair', contact: '', wishes: 'Small and behind film; under 20 EUR.', places: [] },
] as const;

/** What they ordered. */
export const ORDERS = [
  {
    client: 'trust',
    place: 'Visitors’ hall',
    name: 'Three for the hall',
    dueOn: '2027-01-15',
    price: 1150,
    lines: [
      { picture: 'controlRoom', condition: LUSTRE, widthMm: 400, copies: 2 },
      { picture: 'rustStruts', condition: LUSTRE, widthMm: 254, copies: 1 },
    ],
  },
  {
    client: 'office',
    place: 'North wall',
    name: 'Second drawing',
    dueOn: '2026-12-18',
    price: 240,
    lines: [{ picture: 'blueprint', condition: RAG, widthMm: 254, copies: 1 }],
  },
] as const satisfies readonly {
  readonly lines: readonly { readonly picture: SceneName; readonly [key: string]: unknown }[];
  readonly [key: string]: unknown;
}[];

/** Where prints went: of a print by its place in `PRINTS`, or of the edition by its number. */
export const MOVES = [
  { print: 0, to: 'sold', copies: 6, client: 'fair', on: '2026-10-03', price: 18, note: 'On the first day.' },
  { print: 0, to: 'consigned', copies: 2, client: 'fair', on: '2026-10-04', until: '2027-03-31', price: 18, note: '' },
  {
    number: 1,
    to: 'lent',
    copies: 1,
    client: 'trust',
    on: '2026-10-10',
    until: '2027-01-31',
    price: undefined,
    note: '',
  },
] as const;
