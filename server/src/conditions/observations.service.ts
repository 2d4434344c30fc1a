import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository, type EntityManager } from 'typeorm';
import { OBSERVATION_KINDS, type Observation } from '@rakuen/core/measurement/observations';
import type { ObservationView } from '@rakuen/contract/observations';
import { notFound } from '../app/errors.ts';
import { ConditionRow, ObservationRow } from './conditions.entity.ts';
import { wholes } from '../store/rows.ts';

/** Observations of print conditions. */
@Injectable()
export class ObservationsService {
  constructor(
    @InjectRepository(ObservationRow) private readonly observations: Repository<ObservationRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
  ) {}

  /** What is known of each condition, from old to new: its own, and of its bare sheet whatever any condition of the paper has. */
  async of(conditions: readonly Pick<ConditionRow, 'id' | 'paperId'>[]): Promise<Map<string, ObservationRow[]>> {
    if (conditions.length === 0) return new Map();
    const siblings = await this.conditions.find({
      select: { id: true, paperId: true },
      where: { paperId: In(conditions.map((c) => c.paperId)) },
    });
    const paperOf = new Map(siblings.map((s) => [s.id, s.paperId]));
    const rows = await this.observations.find({
      where: { conditionId: In([...paperOf.keys()]) },
      order: { takenAt: 'ASC', entry: 'ASC', id: 'ASC' },
    });
    return new Map(
      conditions.map((c) => [
        c.id,
        rows.filter(
          (r) =>
            r.conditionId === c.id ||
            (OBSERVATION_KINDS[r.kind].of === 'sheet' && paperOf.get(r.conditionId) === c.paperId),
        ),
      ]),
    );
  }

  async get(id: string): Promise<ObservationRow> {
    const row = await this.observations.findOneBy({ id });
    if (!row) throw notFound('observation');
    return row;
  }

  async keep(rows: readonly NewObservation[]): Promise<void> {
    await this.observations.manager.transaction((manager) => insertObservations(manager, rows));
  }

  async remove({ id }: ObservationRow): Promise<void> {
    await this.observations.delete(id);
  }
}

export type NewObservation = Omit<ObservationRow, 'id' | 'entry'>;

/** Inserts observations in the order in which they were made. */
export async function insertObservations(manager: EntityManager, rows: readonly NewObservation[]): Promise<void> {
  if (rows.length === 0) return;
  const last = (await manager.maximum(ObservationRow, 'entry')) ?? 0;
  await manager.insert(ObservationRow, wholes(rows.map((r, i) => ({ ...r, id: randomUUID(), entry: last + 1 + i }))));
}

export const asObservation = (row: ObservationRow): Observation =>
  ({ kind: row.kind, takenAt: row.takenAt, ...row.value }) as Observation;

export function observationView(row: ObservationRow): ObservationView {
  return {
    id: row.id,
    conditionId: row.conditionId,
    kind: row.kind,
    value: row.value,
    takenAt: row.takenAt,
    by: row.by,
    instrument: row.instrument,
    light: row.light,
    note: row.note,
    scanHash: row.scanHash ?? undefined,
  };
}
