import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { OrderState } from '@rakuen/contract/vocabulary';
import type { Whereabout } from '@rakuen/core/print/whereabouts';

@Entity('clients')
export class ClientRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') contact!: string;
  @Column('text') wishes!: string;
  @Column('text') notes!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

@Entity('places')
export class PlaceRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') address!: string;
  @Column('text', { nullable: true }) clientId!: string | null;
  @Column('text', { nullable: true }) light!: string | null;
  @Column('text', { nullable: true }) glass!: string | null;
  @Column('real', { nullable: true }) lux!: number | null;
  @Column('text') notes!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

@Entity('orders')
export class OrderRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') clientId!: string;
  @Column('text', { nullable: true }) placeId!: string | null;
  @Column('text') name!: string;
  @Column('text', { nullable: true }) dueOn!: string | null;
  @Column('real', { nullable: true }) price!: number | null;
  @Column('text', { nullable: true }) currency!: string | null;
  @Column('text') notes!: string;
  @Column('text') state!: OrderState;
  @Column('text', { nullable: true }) deliveredOn!: string | null;
  /** Counts the changes of its lines, so that they raise its revision too. */
  @Column('integer') parts!: number;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

@Entity('order_lines')
export class OrderLineRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') orderId!: string;
  @Column('integer') position!: number;
  @Column('text') pictureId!: string;
  @Column('text', { nullable: true }) conditionId!: string | null;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('integer') copies!: number;
}

/** Copies of a print, or a numbered one, that went from one place to another. */
@Entity('moves')
export class MoveRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') recordedAt!: string;
  @Column('text', { nullable: true }) printId!: string | null;
  @Column('text', { nullable: true }) numberId!: string | null;
  @Column('text', { nullable: true }) fromId!: string | null;
  @Column('text') to!: Whereabout;
  @Column('integer') copies!: number;
  @Column('text', { nullable: true }) clientId!: string | null;
  @Column('text', { nullable: true }) placeId!: string | null;
  @Column('text', { nullable: true }) orderId!: string | null;
  @Column('text') withWhom!: string;
  @Column('text') on!: string;
  @Column('text', { nullable: true }) until!: string | null;
  @Column('real', { nullable: true }) price!: number | null;
  @Column('text', { nullable: true }) currency!: string | null;
  @Column('text') note!: string;
}
