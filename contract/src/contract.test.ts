import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { PaperBundle } from './bundle.ts';
import { ChartInput, ChartSpecInput } from './charts.ts';
import { ComparisonQuery } from './comparison.ts';
import { EyeInput } from './eye.ts';
import { ObservationInput, WeightValue } from './observations.ts';
import { PackInput } from './packs.ts';
import { SessionInput } from './sessions.ts';
import { TrialInput } from './trials.ts';
import { ConditionInput } from './conditions.ts';
import { LedgerQuery } from './ledger.ts';
import { DecisionInput, MatchRequest } from './matches.ts';
import { PaperInput } from './papers.ts';
import { PrintInput } from './prints.ts';
import { Settings, TableState } from './settings.ts';
import { SETTING_KEYS } from './vocabulary.ts';

const ID = '3f0f6b1e-8f43-4c6e-9a35-0d6b3f9b2a11';

const paper = {
  maker: 'Testmill',
  name: 'Proof',
  coating: 'baryta',
  base: 'cotton',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 300,
  thicknessUm: 400,
  sizes: [{ label: 'A4', widthMm: 210, heightMm: 297, sheets: 25, packPrice: 40 }],
  currency: 'EUR',
};
const condition = {
  paperId: ID,
  printer: 'Press',
  inkSet: 'inks',
  blackInk: 'photo black',
  mediaSetting: 'Gloss',
  resolution: '720',
  printMode: 'driver colour',
  profile: '',
  blackOvercoat: false,
};
const settings = {
  printer: 'Press',
  inkSet: 'inks',
  blackInk: 'matt black',
  mediaSetting: 'Matt',
  resolution: '720',
  printMode: 'driver colour',
  profile: '',
  intent: 'driver',
  blackPointCompensation: true,
  blackOvercoat: false,
  sharpening: '',
  feed: '',
  liftStops: 0.25,
  direction: 'one way',
  headHeight: 'high',
  suction: 'low',
  dryingMinutes: 30,
};
const print = {
  pictureId: ID,
  conditionId: ID,
  printedOn: '2026-11-20',
  widthMm: 300,
  heightMm: 200,
  copies: 1,
  settings,
  carriedOver: ['printer'],
  verdict: 'good',
  verdictReason: '',
  misprints: 0,
  misprintCause: '',
};
const WHEN = '2026-11-20T10:00:00Z';
const spec = { purpose: 'gamut', patches: 300, sheet: 'A4', patchMm: 8, dpi: 300, seed: 7 };
const session = {
  conditionId: ID,
  chartId: ID,
  instrument: 'Simulated bench spectrophotometer',
  passes: 2,
  printedAt: WHEN,
  rehearsal: 'none',
};
const seen = { edgeToEdge: 1, acrossRoom: 2 };

/** A sound request of each kind, and faults by the field in which each lies. */
const REQUESTS: readonly (readonly [
  name: string,
  type: new () => object,
  sound: object,
  faults: Record<string, unknown>,
])[] = [
  [
    'a paper',
    PaperInput,
    paper,
    {
      maker: '',
      name: 7,
      coating: 'velvet',
      base: 'stone',
      surface: 'hairy',
      brightenerClaim: 'some',
      weightGsm: 0,
      thicknessUm: Infinity,
      sizes: 'A4',
      currency: 'EURO',
      notes: 3,
    },
  ],
  ['a size', PaperInput, paper, { sizes: [{ ...paper.sizes[0], widthMm: -1 }] }],
  [
    'a print condition',
    ConditionInput,
    condition,
    {
      paperId: '../../etc',
      printer: '   ',
      inkSet: null,
      blackInk: 'grey',
      mediaSetting: 'x'.repeat(121),
      printMode: 'by hand',
      profile: 5,
      blackOvercoat: 'yes',
    },
  ],
  ['a match', MatchRequest, { pictureId: ID, conditionIds: [ID] }, { pictureId: 'none', conditionIds: ['none'] }],
  [
    'a decision',
    DecisionInput,
    { pictureId: ID, conditionId: ID, stamp: 'held', reason: 'why' },
    { stamp: 'loved', reason: ' ', conditionId: undefined, decidedBy: 'x'.repeat(81) },
  ],
  [
    'a print',
    PrintInput,
    print,
    {
      printedOn: 'yesterday',
      widthMm: 2,
      heightMm: NaN,
      copies: 0,
      settings: null,
      carriedOver: [1],
      verdict: 'superb',
      misprints: -1,
    },
  ],
  [
    'settings',
    Settings,
    {
      thresholds: { deltaE: seen, density: seen, percent: seen },
      limits: { readingBytes: 1e6, pictureBytes: 1e8, picturePixels: 1e8 },
    },
    {
      thresholds: { deltaE: seen, density: seen, percent: { edgeToEdge: -1, acrossRoom: 2 } },
      limits: { readingBytes: 0, pictureBytes: 1e8, picturePixels: 1e8 },
    },
  ],
  [
    'the table',
    TableState,
    { conditionIds: [ID], pictureIds: [], leftHand: ID },
    { conditionIds: Array(7).fill(ID), pictureIds: ['x'], leftHand: 'left' },
  ],
  ['a search', LedgerQuery, { q: 'baryta', kind: 'print' }, { q: 'x'.repeat(201), kind: 'rumour' }],
  ['a chart', ChartInput, { name: 'Greys', spec }, { name: ' ', spec: { ...spec, sheet: 'A9' } }],
  ['a layout', ChartSpecInput, spec, { purpose: 'art', patches: 3, sheet: 'A9', patchMm: 400, dpi: 20, seed: 0 }],
  [
    'a reading session',
    SessionInput,
    session,
    {
      conditionId: '1',
      chartId: '../x',
      instrument: 'eye',
      passes: 0,
      printedAt: 'yesterday',
      batch: 'x'.repeat(81),
      rehearsal: 'chaos',
    },
  ],
  [
    'an observation',
    ObservationInput,
    { kind: 'rub', value: { minutesAfterPrinting: 10, grade: 1 }, takenAt: WHEN, by: 'Ines', instrument: '' },
    { kind: 'texture', value: 3, takenAt: 'now', by: '', instrument: 5 },
  ],
  [
    'a weight',
    WeightValue,
    { grams: [18.7], widthMm: 210, heightMm: 297 },
    { grams: [-1], widthMm: 0, heightMm: 'tall' },
  ],
  [
    'a bundle',
    PaperBundle,
    { format: 'rakuen-paper', version: 1, writtenAt: WHEN, paper, conditions: [], files: {} },
    { format: 'other', version: 2, writtenAt: '', paper: { ...paper, name: '' }, conditions: [{}], files: 'none' },
  ],
  [
    'a blind comparison',
    EyeInput,
    { conditionIds: [ID], criterion: 'whiter', times: 2, observer: 'Ines', light: 'D50' },
    { conditionIds: ['x'], criterion: 'prettier', times: 0, observer: ' ', light: '' },
  ],
  [
    'a stamp of a setting',
    TrialInput,
    { conditionId: ID, reason: 'why', by: 'Ines' },
    { conditionId: 'x', reason: '', by: ' ', light: 7 },
  ],
  [
    'a sample pack',
    PackInput,
    { name: 'Spring', widthMm: 210, heightMm: 297, types: [{ conditionId: ID, sheets: 4 }], testPage: true, crops: [] },
    {
      name: '',
      widthMm: 0,
      heightMm: 9e9,
      types: [{ conditionId: ID, sheets: 0 }],
      chartId: 'x',
      testPage: 'yes',
      crops: [{}],
    },
  ],
  [
    'a comparison taken away',
    ComparisonQuery,
    { as: 'pdf', ids: `${ID},${ID}` },
    { as: 'docx', ids: '', light: 'x'.repeat(61) },
  ],
];

const check = (type: new () => object, plain: object): ValidationError[] =>
  validateSync(plainToInstance(type, plain), {
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
  });

describe.each(REQUESTS)('%s', (_, type, sound, faults) => {
  it('is taken when sound', () => expect(check(type, sound)).toEqual([]));

  it.each(Object.keys(faults))('is refused for its %s', (field) => {
    const errors = check(type, { ...sound, [field]: faults[field] });
    expect(errors.map((e) => e.property)).toEqual([field]);
  });

  it('is refused for a field nobody knows', () =>
    expect(check(type, { ...sound, isAdmin: true }).map((e) => e.property)).toEqual(['isAdmin']));
});

it('every setting of a print has a key, and every key a setting', () => {
  expect([...SETTING_KEYS].sort()).toEqual(Object.keys(settings).sort());
});
