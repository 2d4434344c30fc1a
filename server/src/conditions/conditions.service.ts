import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { whatPartsThem } from '@rakuen/core/print/apart';
import { likeCandidate } from '@rakuen/core/likeness/candidate';
import type { ConditionHead, ConditionInput, ConditionView, LikesView } from '@rakuen/contract/conditions';
import type { ReadingView } from '@rakuen/contract/readings';
import { refuseStale } from '../app/revision.ts';
import { notFound, RakuenError } from '../app/errors.ts';
import { paperHead, PapersService } from '../papers/papers.service.ts';
import { DecisionRow } from '../matches/matches.entity.ts';
import { ConditionRow } from './conditions.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { ReadingRow } from '../readings/readings.entity.ts';
import { factsHead } from './condition-heads.ts';
import { FactsService, withObserved } from './facts.service.ts';
import { asObservation, ObservationsService, observationView } from './observations.service.ts';

/** Columns a condition is told apart by. */
const SAID = {
  id: true,
  paperId: true,
  printer: true,
  inkSet: true,
  blackInk: true,
  mediaSetting: true,
  resolution: true,
  printMode: true,
  profile: true,
  blackOvercoat: true,
} as const;
const HEAD = { ...SAID, createdAt: true, revision: true, figuresFrom: true, profileId: true } as const;

@Injectable()
export class ConditionsService {
  constructor(
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(ReadingRow) private readonly readings: Repository<ReadingRow>,
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
    @InjectRepository(DecisionRow) private readonly decisions: Repository<DecisionRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    private readonly drawer: PapersService,
    private readonly observations: ObservationsService,
    private readonly told: FactsService,
  ) {}

  rows(): Promise<ConditionRow[]> {
    return this.conditions.find({ order: { createdAt: 'ASC' } });
  }

  /** Every print condition as a list shows it. */
  async heads(): Promise<ConditionHead[]> {
    const rows = await this.conditions.find({ select: HEAD, order: { createdAt: 'ASC' } });
    const papers = new Map((await this.papers.find()).map((p) => [p.id, paperHead(p)]));
    const facts = await this.told.heads(rows);
    const unread = rows.filter((r) => !facts.has(r.id));
    for (const [id, found] of await this.observations.of(unread)) {
      const atTheBench = withObserved(undefined, found.map(asObservation));
      if (atTheBench) facts.set(id, factsHead(atTheBench));
    }
    const apart = whatPartsThem(rows);
    return rows.map((row) => ({
      ...said(row),
      apart: apart.get(row.id),
      paper: papers.get(row.paperId)!,
      facts: facts.get(row.id),
    }));
  }

  async list(): Promise<ConditionView[]> {
    return this.views(await this.rows());
  }

  /** Those asked for, whole, in the order of the asking; one that is no more is left out. */
  async whole(ids: readonly string[]): Promise<ConditionView[]> {
    const views = await this.views(await this.conditions.findBy({ id: In([...ids]) }));
    return ids.flatMap((id) => views.find((v) => v.id === id) ?? []);
  }

  /** Minutes of a print at the printer, the mean of what was timed on each sheet. */
  minutesTimed(): Promise<{ conditionId: string; minutes: number }[]> {
    return this.prints
      .createQueryBuilder('p')
      .select('p.conditionId', 'conditionId')
      .addSelect('AVG(p.minutes / p.copies)', 'minutes')
      .where('p.minutes IS NOT NULL')
      .groupBy('p.conditionId')
      .getRawMany();
  }

  /** What may stand in for a sheet: every other paper's print conditions that were measured. */
  async likes(id: string): Promise<LikesView> {
    const all = await this.list();
    const missed = all.find((c) => c.id === id);
    if (!missed) throw notFound('print condition');
    return {
      missed: likeCandidate(missed, missed),
      candidates: all.filter((c) => c.facts && c.paperId !== missed.paperId).map((c) => likeCandidate(c, missed)),
    };
  }

  async view(id: string): Promise<ConditionView> {
    return (await this.views([await this.get(id)]))[0];
  }

  async create(input: ConditionInput): Promise<ConditionView> {
    await this.drawer.get(input.paperId);
    const row = await this.conditions.save(
      this.conditions.create({
        ...trimmed(input),
        id: randomUUID(),
        createdAt: new Date().toISOString(),
        figuresFrom: null,
      }),
    );
    return this.view(row.id);
  }

  /** @param from revision the change was made from; whatever it is now where absent */
  async replace(id: string, input: ConditionInput, from?: number): Promise<ConditionView> {
    const known = await this.get(id);
    refuseStale('This print condition', known, from, await this.view(id));
    if (input.paperId !== known.paperId && (await this.readings.countBy({ conditionId: id })) > 0) {
      throw new RakuenError(409, 'This print condition was measured; its paper can’t be changed.', {
        field: 'paperId',
        remedy: 'Make a new print condition for the other paper.',
      });
    }
    await this.drawer.get(input.paperId);
    await this.conditions.update(id, trimmed(input));
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    await this.get(id);
    const rests =
      (await this.decisions.countBy({ conditionId: id })) + (await this.prints.countBy({ conditionId: id }));
    if (rests > 0)
      throw new RakuenError(409, 'Decisions or prints in the ledger rest on this print condition.', {
        remedy: 'It stays, so that they can still be read.',
      });
    await this.conditions.delete(id);
  }

  async get(id: string): Promise<ConditionRow> {
    const row = await this.conditions.findOneBy({ id });
    if (!row) throw notFound('print condition');
    return row;
  }

  private async views(rows: ConditionRow[]): Promise<ConditionView[]> {
    const ids = rows.map((r) => r.id);
    const readings = await this.readings.find({ where: { conditionId: In(ids) }, order: { importedAt: 'ASC' } });
    const observations = await this.observations.of(rows);
    const read = await this.told.of(rows, readings);
    const papers = new Map((await this.papers.findBy({ id: In(rows.map((r) => r.paperId)) })).map((p) => [p.id, p]));
    const siblings = await this.conditions.find({
      where: { paperId: In([...papers.keys()]) },
      select: SAID,
      order: { createdAt: 'ASC' },
    });
    const apart = whatPartsThem(siblings);
    return rows.map((row): ConditionView => {
      const found = observations.get(row.id)!;
      const facts = withObserved(read.get(row.id), found.map(asObservation));
      return {
        ...said(row),
        notes: row.notes,
        facts,
        apart: apart.get(row.id),
        paper: paperHead(papers.get(row.paperId)!),
        readings: readings
          .filter((r) => r.conditionId === row.id)
          .map((r) => readingView(r, r.id === facts?.readingId)),
        observations: found.map(observationView),
      };
    });
  }
}

export function readingView(row: ReadingRow, primary: boolean): ReadingView {
  return {
    id: row.id,
    conditionId: row.conditionId,
    fileName: row.fileName,
    contentHash: row.contentHash,
    part: row.part,
    patchCount: row.patchCount,
    colourFrom: row.colourFrom,
    deviceSpace: row.deviceSpace ?? undefined,
    measurementCondition: row.measurementCondition ?? undefined,
    instrument: row.instrument ?? undefined,
    backing: row.backing ?? undefined,
    measuredAt: row.measuredAt ?? undefined,
    importedAt: row.importedAt,
    source: row.source,
    batch: row.batch,
    printedAt: row.printedAt ?? undefined,
    apart: row.apart ?? undefined,
    leftOut: row.leftOut,
    primary,
  };
}

/** What its own row says of a print condition. */
const said = (row: Omit<ConditionRow, 'notes'>) => ({
  id: row.id,
  revision: row.revision,
  createdAt: row.createdAt,
  paperId: row.paperId,
  printer: row.printer,
  inkSet: row.inkSet,
  blackInk: row.blackInk,
  mediaSetting: row.mediaSetting,
  resolution: row.resolution,
  printMode: row.printMode,
  profile: row.profile,
  blackOvercoat: row.blackOvercoat,
  profileId: row.profileId ?? undefined,
  figuresFrom: row.figuresFrom ?? undefined,
});

const trimmed = (input: ConditionInput) => ({
  ...input,
  printer: input.printer.trim(),
  inkSet: input.inkSet.trim(),
  mediaSetting: input.mediaSetting.trim(),
  notes: input.notes ?? '',
});
