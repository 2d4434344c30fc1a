import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { comparableFigures } from '@rakuen/core/measurement/basis';
import { rankTrial } from '@rakuen/core/measurement/trial';
import { TrialInput, TrialView } from '@rakuen/contract/trials';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { TrialRow } from './trials.entity.ts';
import { whole } from '../store/rows.ts';

/** Media settings tried on one paper in one printer: the choice is stamped with what was measured that day, and stands until the next. */
@Injectable()
export class TrialsService {
  constructor(
    @InjectRepository(TrialRow) private readonly rows: Repository<TrialRow>,
    private readonly conditions: ConditionsService,
  ) {}

  /** The newest first. */
  async list(): Promise<TrialView[]> {
    return (await this.rows.find({ order: { stampedAt: 'DESC' } })).map(trialView);
  }

  async stamp(input: TrialInput): Promise<TrialView> {
    const all = await this.conditions.list();
    const chosen = all.find((c) => c.id === input.conditionId);
    if (!chosen) throw notFound('print condition');
    const tried = all.filter(
      (c) => c.paperId === chosen.paperId && c.printer === chosen.printer && c.printMode === chosen.printMode,
    );
    if (tried.length < 2)
      throw new RakuenError(409, 'One setting alone is no trial.', {
        remedy: 'Print the chart under another media setting and read it first.',
      });
    const alike = comparableFigures(tried);
    const ranking = rankTrial(tried.map((c, i) => ({ id: c.id, figures: alike[i] }))).map(({ mean, ...r }) => ({
      ...r,
      ...(Number.isFinite(mean) && { mean }),
      mediaSetting: tried.find((c) => c.id === r.conditionId)!.mediaSetting,
    }));
    const row = this.rows.create({
      ...input,
      reason: input.reason.trim(),
      by: input.by.trim(),
      light: input.light?.trim() ?? '',
      id: randomUUID(),
      stampedAt: new Date().toISOString(),
      paperId: chosen.paperId,
      printer: chosen.printer,
      mediaSetting: chosen.mediaSetting,
      ranking,
    });
    await this.rows.insert(whole(row));
    return trialView(row);
  }

  /** Conditions whose media setting was tried and not chosen, each with the reason, while the choice stands. */
  async superseded(): Promise<Map<string, string>> {
    const left = new Map<string, string>();
    const decided = new Set<string>();
    // The newest first: what a later trial chose or left stands.
    for (const trial of await this.rows.find({ order: { stampedAt: 'DESC' } })) {
      for (const { conditionId } of trial.ranking) {
        if (decided.has(conditionId)) continue;
        decided.add(conditionId);
        if (conditionId !== trial.conditionId)
          left.set(conditionId, `The media setting ${trial.mediaSetting} was chosen for this paper instead.`);
      }
    }
    return left;
  }

  async remove(id: string): Promise<void> {
    if (!(await this.rows.delete(id)).affected) throw notFound('trial');
  }
}

const trialView = (row: TrialRow): TrialView => ({
  id: row.id,
  stampedAt: row.stampedAt,
  conditionId: row.conditionId,
  paperId: row.paperId,
  printer: row.printer,
  mediaSetting: row.mediaSetting,
  reason: row.reason,
  by: row.by,
  light: row.light,
  ranking: row.ranking,
});
