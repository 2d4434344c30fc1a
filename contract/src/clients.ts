import { WHEREABOUT_KEYS, type Whereabout } from '@rakuen/core/print/whereabouts';
import { Currency, Day, FreeText, Id, Int, Maybe, Num, OneOf, Parts, Text, When } from './fields.ts';
import { ORDER_STATES, type OrderState } from './vocabulary.ts';

/** Who orders, buys or is lent prints. */
export class ClientInput {
  @Text(160) name!: string;
  /** Address, telephone, e-mail: as it is written on an envelope. */
  @FreeText(1000) contact!: string;
  /** What they like and what they do not. */
  @FreeText(2000) wishes!: string;
  @FreeText(2000) notes!: string;
}

export class ClientView extends ClientInput {
  @Id() id!: string;
  @When() createdAt!: string;
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Int() openOrders!: number;
  /** Copies that are with them now. */
  @Int() copies!: number;
}

/** A place where prints hang. */
export class PlaceInput {
  @Text(160) name!: string;
  @FreeText(1000) address!: string;
  /** Whose place it is; absent where nobody's. */
  @Maybe() @Id() clientId?: string;
  /** Light, glass and level there; absent where not known. */
  @Maybe() @Text(60) light?: string;
  @Maybe() @Text(20) glass?: string;
  @Maybe() @Num(1, 20_000) lux?: number;
  @FreeText(2000) notes!: string;
}

export class PlaceView extends PlaceInput {
  @Id() id!: string;
  @When() createdAt!: string;
  @Int() revision!: number;
  /** Copies that hang there now. */
  @Int() copies!: number;
}

/** Prints of a picture that were ordered. */
export class OrderLine {
  @Id() pictureId!: string;
  /** Absent while the paper is not chosen. */
  @Maybe() @Id() conditionId?: string;
  @Num(5, 20_000) widthMm!: number;
  @Num(5, 20_000) heightMm!: number;
  @Int(1, 10_000) copies!: number;
}

export class OrderLineInput extends OrderLine {
  /** Absent for a new line. */
  @Maybe() @Id() id?: string;
}

export class OrderLineView extends OrderLine {
  @Id() id!: string;
  /** Copies that were printed for it, and prints that wait for the printer. */
  @Int() printed!: number;
  @Int() waiting!: number;
}

export class OrderInput {
  @Id() clientId!: string;
  /** Where it will hang. */
  @Maybe() @Id() placeId?: string;
  @Text(160) name!: string;
  @Maybe() @Day() dueOn?: string;
  /** The price that is asked for all of it. */
  @Maybe() @Num(0, 1e9) price?: number;
  @Maybe() @Currency() currency?: string;
  @FreeText(2000) notes!: string;
  @Parts(() => OrderLineInput, 500) lines!: OrderLineInput[];
}

export class OrderView extends OrderInput {
  @Id() id!: string;
  @When() createdAt!: string;
  @Int() revision!: number;
  @OneOf(ORDER_STATES) state!: OrderState;
  @Maybe() @Day() deliveredOn?: string;
  @Parts(() => OrderLineView, 500) declare lines: OrderLineView[];
}

/** An order went out. Every copy that was printed for it and is still in the studio is recorded as sold to the client. */
export class Delivery {
  @Maybe() @When() on?: string;
}

/** Copies of a print go somewhere, or come back. */
export class MoveInput {
  /** A print, for its copies without a number; or a number. */
  @Maybe() @Id() printId?: string;
  @Maybe() @Id() numberId?: string;
  /** The move these copies stand at; absent for copies that never left. */
  @Maybe() @Id() fromId?: string;
  @OneOf(WHEREABOUT_KEYS) to!: Whereabout;
  /** 1 where absent. */
  @Maybe() @Int(1, 10_000) copies?: number;
  @Maybe() @Id() clientId?: string;
  @Maybe() @Id() placeId?: string;
  /** Who has it, in words, where it is no client. */
  @Maybe() @FreeText(160) withWhom?: string;
  @Maybe() @When() on?: string;
  @Maybe() @Day() until?: string;
  /** Of a copy. */
  @Maybe() @Num(0, 1e7) price?: number;
  @Maybe() @Currency() currency?: string;
  @Maybe() @FreeText(1000) note?: string;
}

export class MoveView extends MoveInput {
  @Id() id!: string;
  @When() recordedAt!: string;
  @Int(1) declare copies: number;
  @Day() declare on: string;
  /** Copies that still stand there. */
  @Int() standing!: number;
  /** Who has it: the client by name, or the words that were entered. */
  @FreeText() who!: string;
  /** The place by name. */
  @FreeText() where!: string;
  /** Order it was delivered with. */
  @Maybe() @Id() orderId?: string;
  /** What it is: the picture, and the number it bears. */
  @Text() what!: string;
  /** The number alone, as it is written under the print. */
  @Maybe() @Text() number?: string;
  /** Days since it should have been back. */
  @Int() daysOverdue!: number;
}

/** Where the copies of a print are, and were. */
export class WhereaboutsView {
  /** Copies without a number, in the studio since they were printed. */
  @Int() neverMoved!: number;
  /** From old to new, of its numbers too. */
  @Parts(() => MoveView) moves!: MoveView[];
}

export class MovesQuery {
  @Maybe() @Id() clientId?: string;
  @Maybe() @Id() placeId?: string;
}
