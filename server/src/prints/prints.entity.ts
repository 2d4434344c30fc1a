import type { PhotographKind } from '@rakuen/contract/vocabulary';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PassedChecks, PrintInput, PrintRecipe, PrintSettings } from '@rakuen/contract/prints';
import type { PrintState } from '@rakuen/contract/vocabulary';

@Entity('prints')
export class PrintRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') recordedAt!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') printedOn!: string;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('integer') copies!: number;
  @Column('simple-json') settings!: PrintSettings;
  @Column('simple-json') carriedOver!: string[];
  @Column('text') verdict!: PrintInput['verdict'];
  @Column('text') verdictReason!: string;
  @Column('text') notes!: string;
  @Column('text') state!: PrintState;
  @Column('text', { nullable: true }) boxId!: string | null;
  /** The line of an order it was made for. */
  @Column('text', { nullable: true }) orderLineId!: string | null;
  /** The print it repeats. */
  @Column('text', { nullable: true }) fromPrintId!: string | null;
  /** Of a waiting print: where each setting came from. */
  @Column('simple-json') carriedFrom!: Record<string, string>;
  /** At the printer, as timed. */
  @Column('real', { nullable: true }) minutes!: number | null;
  @Column('text') judgedIn!: string;
  @Column('text') decidedBy!: NonNullable<PrintInput['decidedBy']> | '';
  @Column('text') decidedWhy!: string;
  /** What was done to the picture for it; null where nothing was, or where it was not recorded. */
  @Column('simple-json', { nullable: true }) recipe!: PrintRecipe | null;
  /** SHA-256 of the profile, of the picture's file and of the print file it was made from; '' where not known. */
  @Column('text', { default: '' }) profileHash!: string;
  @Column('text', { default: '' }) pictureHash!: string;
  @Column('text', { default: '' }) fileHash!: string;
  @Column('text', { default: '' }) fileName!: string;
  /** Checks it was marked as printed without, on purpose. */
  @Column('simple-json', { nullable: true }) passed!: PassedChecks | null;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false })
  revision!: number;
}

/** A photograph or a scan of a print. */
@Entity('photographs')
export class PhotographRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') printId!: string;
  @Column('text') at!: string;
  @Column('text') contentHash!: string;
  @Column('text') fileName!: string;
  @Column('text') kind!: PhotographKind;
  @Column('text') light!: string;
  @Column('text') note!: string;
  @Column('integer') widthPx!: number;
  @Column('integer') heightPx!: number;
}

/** The proof a print was made by, as a small image. */
@Entity('print_proofs')
export class PrintProofRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') printId!: string;
  @Column('text') contentHash!: string;
  @Column('text') light!: string;
  @Column('text') glass!: string;
}

/** What spoils sheets; the list grows. */
@Entity('causes')
export class CauseRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') name!: string;
  /** The look that would have caught it; empty where none would. */
  @Column('text') look!: string;
}

/** Sheets that were spoilt. */
@Entity('misprints')
export class MisprintRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text', { nullable: true }) printId!: string | null;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') causeId!: string;
  @Column('integer') sheets!: number;
  @Column('real') minutes!: number;
  @Column('real', { nullable: true }) lost!: number | null;
  @Column('text', { nullable: true }) currency!: string | null;
  @Column('text', { nullable: true }) boxId!: string | null;
  @Column('text') feed!: string;
  @Column('text') note!: string;
}
