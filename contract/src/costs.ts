import type { PrintCost } from '@rakuen/core/cost/print-cost';
import type { Rate, CauseAccount } from '@rakuen/core/cost/spoilage';
import { Currency, Int, Day, Id, Maybe, Num, NumberText, OneOf, Plain, Rows, Text, When, Yes } from './fields.ts';

/** What the studio reckons with; every price has its day. */
export class RatesInput {
  @Currency() currency!: string;
  @Num(0, 10_000) perHour!: number;
  @Num(0, 1000) inkPerMl!: number;
  /** Ink on a square metre of full black, ml. */
  @Num(0.1, 200) solidMlPerM2!: number;
  /** Sleeve, board, box for one print. */
  @Num(0, 10_000) finishing!: number;
  /** The day these prices were true. */
  @Day() asOf!: string;
}

/** The rates, and whether anyone has said them yet. */
export class RatesView extends RatesInput {
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Yes() said!: boolean;
}

export class CostQuery {
  @Id() pictureId!: string;
  @Id() conditionId!: string;
  @NumberText(5, 20_000) widthMm!: number;
  @NumberText(5, 20_000) heightMm!: number;
  /** The print it is for: its own box and its own feed count. */
  @Maybe() @Id() printId?: string;
}

/** What the ink is reckoned from: counted ink by ink where the printer is simulated, from what is seen else. */
export const INK_FROM = ['simulated printer', 'picture and sheet', 'area alone'] as const;

export class CostView {
  @Id() conditionId!: string;
  @Text(3) currency!: string;
  @Plain() cost!: PrintCost;
  /** What the sheet’s price rests on: a box in the drawer, or the maker’s price. */
  @Text() paperFrom!: string;
  @OneOf(INK_FROM) inkFrom!: (typeof INK_FROM)[number];
  @Num(0) inkMl!: number;
  @Num(0) minutes!: number;
  /** Timed by this feed in this size, computed from other prints on this sheet that were timed, or estimated from feed and area. */
  @OneOf(['timed', 'scaled', 'estimated']) minutesFrom!: 'timed' | 'scaled' | 'estimated';
  @Plain() spoilage!: Rate;
  /** The day the studio’s rates are of; absent where nobody has said them and a start of ours is reckoned with. */
  @Maybe() @Day() asOf?: string;
}

export class AccountQuery {
  @Maybe() @When() from?: string;
  @Maybe() @When() to?: string;
}

export interface RateLine {
  readonly of: string;
  readonly rate: Rate;
}

/** What was spoilt, and what it took. */
export class SpoilageView {
  @When() from!: string;
  @When() to!: string;
  @Plain() all!: Rate;
  @Rows() papers!: RateLine[];
  @Rows() printers!: RateLine[];
  @Rows() feeds!: RateLine[];
  @Rows() causes!: CauseAccount[];
  /** Currencies of what was lost; causes are reckoned in one alone. */
  @Text() currency!: string;
  /** Misprints priced in another currency, not reckoned. */
  @Num(0) otherCurrency!: number;
  /** The dearest cause and the look that would have caught it, in a sentence. */
  @Maybe() @Text(400) sentence?: string;
}
