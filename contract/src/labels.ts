import { LABEL_SHEETS, type LabelSheet } from '@rakuen/core/print/label';
import { CommaIds, Id, Maybe, OneOf, QueryInt, Words } from './fields.ts';

export const LABEL_KINDS = ['back', 'strip'] as const;

export class LabelsQuery {
  /** Ids of prints, with commas between. */
  @CommaIds(200) prints!: string[];
  /** For the back of a print, or a settings strip for the margin of a test print. */
  @Maybe() @OneOf(LABEL_KINDS) kind?: (typeof LABEL_KINDS)[number];
  /** One label a page, or a sheet of them. */
  @Maybe() @OneOf(Object.keys(LABEL_SHEETS)) sheet?: LabelSheet;
  /** The first label of the sheet that is still there, from 1. */
  @Maybe() @QueryInt(1, 200) from?: number;
}

export class CaptionsQuery {
  @Id() pictureId!: string;
}

/** Lines that may stand under a picture. */
export class CaptionsView {
  @Words() captions!: string[];
}
