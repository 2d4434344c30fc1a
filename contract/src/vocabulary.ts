/** The words both sides use. No decorators here: the interface imports these as values and everything else as types. */

export const BLACK_INKS = ['photo black', 'matt black', 'dye black', 'none'] as const;
export type BlackInk = (typeof BLACK_INKS)[number];

export const PRINT_MODES = ['colour through a profile', 'driver black-and-white', 'driver colour'] as const;
export type PrintMode = (typeof PRINT_MODES)[number];

/** What a file that comes in may be. */
export const INBOX_KINDS = ['readings', 'profile', 'picture', 'bundle', 'lamp', 'strange'] as const;
export type InboxKind = (typeof INBOX_KINDS)[number];

export const MEASUREMENT_CONDITIONS = ['M0', 'M1', 'M2', 'M3'] as const;

/** Formats in which a reading can be taken away. */
export const EXPORT_FORMATS = ['cgats', 'cxf', 'csv'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** Where a reading comes from: an instrument, or the colours a profile describes. */
export const READING_SOURCES = ['measured', 'profile'] as const;
export type ReadingSourceName = (typeof READING_SOURCES)[number];

/** What a reading session may rehearse: nothing, what happens now and then, or one fault on the second strip. */
export const REHEARSALS = [
  'none',
  'now and then',
  'slipped',
  'skipped',
  'repeated',
  'stopped',
  'doubled',
  'dirty',
  'turned',
] as const;
export type Rehearsal = (typeof REHEARSALS)[number];

export const INSTRUMENTS = ['Simulated bench spectrophotometer'] as const;

/** What a blind comparison asks the eye. */
export const EYE_CRITERIA = [
  'deeper black',
  'whiter',
  'more detail',
  'better skin',
  'nicer in the hand',
  'which would you hang',
  'a question of my own',
] as const;
export type EyeCriterion = (typeof EYE_CRITERIA)[number];

export const JOB_STATES = ['waiting', 'reading', 'done', 'failed', 'cancelled'] as const;

export const STAMPS = ['chosen', 'held', 'refused'] as const;
export type Stamp = (typeof STAMPS)[number];

export const INTENTS = [
  'relative colorimetric',
  'perceptual',
  'absolute colorimetric',
  'saturation',
  'driver',
] as const;

export const VERDICTS = ['not yet judged', 'good', 'good enough', 'rejected'] as const;

/** Whether a print waits for the printer or was made. */
export const PRINT_STATES = ['waiting', 'printed'] as const;
export type PrintState = (typeof PRINT_STATES)[number];

/** Who said which sheet, and that it is good. */
export const DECIDERS = ['printmaker', 'client', 'artist'] as const;

export { SETTING_KEYS, type SettingKey } from '@rakuen/core/print/settings';

/** The most papers that lie on the table. */
export { TABLE_SIZE } from '@rakuen/core/table/table';

/** How a print was taken down. */
export const PHOTOGRAPH_KINDS = ['photograph', 'scan'] as const;
export type PhotographKind = (typeof PHOTOGRAPH_KINDS)[number];

/** What is held of a paper in a show. */
/** An order is open until it was delivered or cancelled. */
export const ORDER_STATES = ['open', 'delivered', 'cancelled'] as const;
export type OrderState = (typeof ORDER_STATES)[number];

export const PAPER_STANDINGS = ['considered', 'chosen', 'vetoed'] as const;
export type PaperStanding = (typeof PAPER_STANDINGS)[number];

export const MAX_SHOW_PICTURES = 500;

/** Numbers of an edition that are given in one operation. */
export const MAX_NUMBERS_AT_ONCE = 200;
