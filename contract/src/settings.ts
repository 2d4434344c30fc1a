import { TABLE_DEEDS, type TableDeed, type TableDeedName } from '@rakuen/core/table/table';
import { Address, Id, Ids, Int, Maybe, Num, Part, Text, Plain, OneOf } from './fields.ts';
import { TABLE_SIZE } from './vocabulary.ts';

export class SeenFromInput {
  @Num(0, 1000) edgeToEdge!: number;
  @Num(0, 1000) acrossRoom!: number;
}

export class ThresholdsInput {
  @Part(() => SeenFromInput) deltaE!: SeenFromInput;
  @Part(() => SeenFromInput) density!: SeenFromInput;
  @Part(() => SeenFromInput) percent!: SeenFromInput;
}

/** What is let in. */
export class LimitsInput {
  @Int(1000, 2 ** 31) readingBytes!: number;
  @Int(1000, 2 ** 33) pictureBytes!: number;
  @Int(1000, 4e9) picturePixels!: number;
}

export class Settings {
  @Part(() => ThresholdsInput) thresholds!: ThresholdsInput;
  @Part(() => LimitsInput) limits!: LimitsInput;
  /** Counts its changes, as the server tells it; what is sent back with a change is not looked at. */
  @Maybe() @Int() revision?: number;
  /** Daily backups that are kept; seven where nothing was said. */
  @Maybe() @Int(1, 365) backupsKept?: number;
  /** Address by which other devices reach this studio, as http://192.168.1.20:4173; what the codes on labels open. */
  @Maybe() @Address() address?: string;
}

/** What lies on the table: the same after a reload, and on the tablet at the printer. */
export class TableState {
  @Ids(TABLE_SIZE) conditionIds!: string[];
  @Ids(TABLE_SIZE) pictureIds!: string[];
  @Maybe() @Id() leftHand?: string;
  @Maybe() @Id() rightHand?: string;
  @Maybe() @Id() pictureInHand?: string;
  /** The light the table is looked at under: one that ships, or the id of one that was imported. */
  @Maybe() @Text(60) light?: string;
  @Maybe() @Text(20) glass?: string;
}

/** One thing done at the table. */
export class TableDeedInput implements TableDeed {
  @OneOf(TABLE_DEEDS) deed!: TableDeedName;
  @Maybe() @Text(60) id?: string;
}

/** Every error the API gives. */
export class ApiError {
  @Int(400, 599) statusCode!: number;
  /** What is wrong. */
  @Text(2000) message!: string;
  /** What to do. */
  @Maybe() @Text(2000) remedy?: string;
  @Maybe() @Text() file?: string;
  @Maybe() @Int() line?: number;
  @Maybe() @Text() field?: string;
  /** The thing as it is now, where another changed it meanwhile. */
  @Maybe() @Plain() current?: object;
}
