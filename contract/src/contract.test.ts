import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { ConditionInput } from './conditions.ts';
import { LedgerQuery } from './ledger.ts';
import { DecisionInput, MatchRequest } from './matches.ts';
import { PaperInput } from './papers.ts';
import { PrintInput } from './prints.ts';
import { Settings, TableState } from './settings.ts';
import { SETTING_KEYS } from './vocabulary.ts';

const ID = '3f0f6b1e-8f43-4c6e-9a35-0d6b3f9b2a11';

const paper = { maker: 'Testmill', name: 'Proof', coating: 'baryta', base: 'cotton', surface: 'smooth', brightenerClaim: 'none', weightGsm: 300, thicknessUm: 400, sizes: [{ label: 'A4', widthMm: 210, heightMm: 297, sheets: 25, packPrice: 40 }], currency: 'EUR' };
const condition = { paperId: ID, printer: 'Press', inkSet: 'inks', blackInk: 'photo black', mediaSetting: 'Gloss', resolution: '720', printMode: 'driver colour', profile: '', blackOvercoat: false };
const settings = { printer: 'Press', inkSet: 'inks', blackInk: 'matt black', mediaSetting: 'Matt', resolution: '720', printMode: 'driver colour', profile: '', intent: 'driver', blackPointCompensation: true, blackOvercoat: false, sharpening: '', feed: '' };
const print = { pictureId: ID, conditionId: ID, printedOn: '2026-11-20', widthMm: 300, heightMm: 200, copies: 1, settings, carriedOver: ['printer'], verdict: 'good', verdictReason: '', misprints: 0, misprintCause: '' };
const seen = { edgeToEdge: 1, acrossRoom: 2 };

/** A sound request of each kind, and faults by the field in which each lies. */
const REQUESTS: readonly (readonly [name: string, type: new () => object, sound: object, faults: Record<string, unknown>])[] = [
  ['a paper', PaperInput, paper, { maker: '', name: 7, coating: 'velvet', base: 'stone', surface: 'hairy', brightenerClaim: 'some', weightGsm: 0, thicknessUm: Infinity, sizes: 'A4', currency: 'EURO', notes: 3 }],
  ['a size', PaperInput, paper, { sizes: [{ ...paper.sizes[0], widthMm: -1 }] }],
  ['a print condition', ConditionInput, condition, { paperId: '../../etc', printer: '   ', inkSet: null, blackInk: 'grey', mediaSetting: 'x'.repeat(121), printMode: 'by hand', profile: 5, blackOvercoat: 'yes' }],
  ['a match', MatchRequest, { pictureId: ID, conditionIds: [ID] }, { pictureId: 'none', conditionIds: ['none'] }],
  ['a decision', DecisionInput, { pictureId: ID, conditionId: ID, stamp: 'held', reason: 'why' }, { stamp: 'loved', reason: ' ', conditionId: undefined, decidedBy: 'x'.repeat(81) }],
  ['a print', PrintInput, print, { printedOn: 'yesterday', widthMm: 2, heightMm: NaN, copies: 0, settings: null, carriedOver: [1], verdict: 'superb', misprints: -1 }],
  ['settings', Settings, { thresholds: { deltaE: seen, density: seen, percent: seen }, limits: { readingBytes: 1e6, pictureBytes: 1e8, picturePixels: 1e8 } }, { thresholds: { deltaE: seen, density: seen, percent: { edgeToEdge: -1, acrossRoom: 2 } }, limits: { readingBytes: 0, pictureBytes: 1e8, picturePixels: 1e8 } }],
  ['the table', TableState, { conditionIds: [ID], pictureIds: [], leftHand: ID }, { conditionIds: Array(7).fill(ID), pictureIds: ['x'], leftHand: 'left' }],
  ['a search', LedgerQuery, { q: 'baryta', kind: 'print' }, { q: 'x'.repeat(201), kind: 'rumour' }],
];

const check = (type: new () => object, plain: object): ValidationError[] => validateSync(plainToInstance(type, plain), { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });

describe.each(REQUESTS)('%s', (_, type, sound, faults) => {
  it('is taken when sound', () => expect(check(type, sound)).toEqual([]));

  it.each(Object.keys(faults))('is refused for its %s', (field) => {
    const errors = check(type, { ...sound, [field]: faults[field] });
    expect(errors.map((e) => e.property)).toEqual([field]);
  });

  it('is refused for a field nobody knows', () => expect(check(type, { ...sound, isAdmin: true }).map((e) => e.property)).toEqual(['isAdmin']));
});

it('every setting of a print has a key, and every key a setting', () => {
  expect([...SETTING_KEYS].sort()).toEqual(Object.keys(settings).sort());
});
