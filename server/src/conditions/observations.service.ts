import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DataSource, type EntityManager, In, Repository } from 'typeorm';
import { OBSERVATION_KINDS, type Observation } from '@rakuen/core/measurement/observations';
import { computeFigures, FIGURES_VERSION, observedFigures } from '@rakuen/core/measurement/measures/registry';
import type { ConditionFacts } from '@rakuen/contract/conditions';
import type { ObservationView } from '@rakuen/contract/observations';
import { notFound } from '../app/errors.ts';
import { ConditionRow, ObservationRow } from '../store/entities/papers.ts';
import { columns, present, wholes } from '../store/rows.ts';

/** Observations of print conditions, and the figures that rest on them. */
@Injectable()
export class ObservationsService {
  constructor(
    @InjectRepository(ObservationRow) private readonly observations: Repository<ObservationRow>,
    private readonly database: DataSource,
  ) {}

  /** What is known of each condition, from old to new: its own, and of its bare sheet whatever any condition of the paper has. */
  async of(
    conditions: readonly Pick<ConditionRow, 'id' | 'paperId'>[],
    manager: EntityManager = this.database.manager,
  ): Promise<Map<string, ObservationRow[]>> {
    const siblings = await manager.find(ConditionRow, {
      select: { id: true, paperId: true },
      where: { paperId: In(conditions.map((c) => c.paperId)) },
    });
    const paperOf = new Map(siblings.map((s) => [s.id, s.paperId]));
    const rows = await manager.find(ObservationRow, {
      where: { conditionId: In([...paperOf.keys()]) },
      order: { takenAt: 'ASC', id: 'ASC' },
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

  /** Keeps observations together with the figures that follow from them. */
  async keep(rows: readonly Omit<ObservationRow, 'id'>[]): Promise<void> {
    await this.database.transaction(async (manager) => {
      await manager.insert(ObservationRow, wholes(rows.map((r) => ({ ...r, id: randomUUID() }))));
      const { paperId } = await manager.findOneByOrFail(ConditionRow, { id: rows[0].conditionId });
      await this.renew(paperId, manager);
    });
  }

  async remove(row: ObservationRow): Promise<void> {
    await this.database.transaction(async (manager) => {
      await manager.delete(ObservationRow, row.id);
      const { paperId } = await manager.findOneByOrFail(ConditionRow, { id: row.conditionId });
      await this.renew(paperId, manager);
    });
  }

  /** Renews the observed figures of every print condition on the paper; what was read of charts is not touched. */
  async renew(paperId: string, manager: EntityManager): Promise<void> {
    const conditions = await manager.findBy(ConditionRow, { paperId });
    const known = await this.of(conditions, manager);
    for (const { id, facts } of conditions)
      await manager.update(
        ConditionRow,
        id,
        columns<ConditionRow>({ facts: withObserved(facts, known.get(id)!.map(asObservation)) }),
      );
  }
}

function withObserved(facts: ConditionFacts | null, observations: readonly Observation[]): ConditionFacts | null {
  if (facts?.readingId) return { ...facts, figures: { ...facts.figures, ...observedFigures(observations) } };
  return observations.length > 0
    ? { version: FIGURES_VERSION, figures: computeFigures(undefined, observations), outline: [] }
    : null;
}

export const asObservation = (row: ObservationRow): Observation => ({ kind: row.kind, ...row.value }) as Observation;

export function observationView(row: ObservationRow): ObservationView {
  return present(row);
}
