import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { MATCH_VERSION, type MatchFigures } from '@rakuen/core/match/match-figures';
import { rankSheets } from '@rakuen/core/match/rank';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import { basisOf } from '@rakuen/core/measurement/basis';
import { gamutVolume } from '@rakuen/core/measurement/measures/gamut-volume';
import { FIGURES_VERSION } from '@rakuen/core/measurement/measures/registry';
import type { Figure } from '@rakuen/core/measurement/figure';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { DecisionInput, DecisionView, LeftOut, MatchRequest, MatchView } from '@rakuen/contract/matches';
import { notFound } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { ConditionRow, DecisionRow, MatchRow, TrialRow } from '../store/entities.ts';
import { Writer } from '../store/writer.ts';
import { Workshop } from '../work/workshop.ts';

/** Decisions of a list: what a screen shows at once. */
const MOST_LISTED = 500;

@Injectable()
export class MatchesService {
  constructor(
    @InjectRepository(MatchRow) private readonly known: Repository<MatchRow>,
    @InjectRepository(DecisionRow) private readonly decisions: Repository<DecisionRow>,
    @InjectRepository(ConditionRow) private readonly rows: Repository<ConditionRow>,
    @InjectRepository(TrialRow) private readonly trials: Repository<TrialRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
  ) {}

  async match(request: MatchRequest): Promise<MatchView> {
    const picture = await this.pictures.get(request.pictureId);
    const all = await this.conditions.list();
    const asked = request.conditionIds ? request.conditionIds.map((id) => all.find((c) => c.id === id)) : all;
    if (asked.some((c) => c === undefined)) throw notFound('print condition');
    const leftOut: LeftOut[] = [];
    const superseded = await this.supersededSettings();
    const measured = (asked as ConditionView[]).filter((condition) => {
      const why = unfit(condition) ?? superseded.get(condition.id);
      if (why) leftOut.push({ conditionId: condition.id, why });
      return !why;
    });

    const meshes = new Map(
      (await this.rows.find({ select: { id: true, mesh: true }, where: { id: In(measured.map((c) => c.id)) } })).map(
        (r) => [r.id, r.mesh as GamutMesh],
      ),
    );
    const sheets = measured.map((c) => qualities(c, meshes.get(c.id)!));
    const figures = await this.figures(picture.id, measured, sheets);
    const ranked = rankSheets(
      picture.figures,
      sheets.map((sheet) => ({ sheet, figures: figures.get(sheet.id)! })),
    );
    const decisions = await this.newestDecisions(picture.id);
    return {
      pictureId: picture.id,
      places: ranked.map((r) => ({
        conditionId: r.id,
        place: r.place,
        cost: r.cost,
        reasons: [...r.reasons],
        figures: r.figures,
        decision: decisions.get(r.id),
      })),
      leftOut,
    };
  }

  /** Stamps a decision, with the figures as they stand now. */
  async decide(input: DecisionInput): Promise<DecisionView> {
    await this.pictures.get(input.pictureId);
    await this.conditions.get(input.conditionId);
    // The place is the one among all measured conditions: it does not depend on what happened to lie on the table.
    const place = (await this.match({ pictureId: input.pictureId })).places.find(
      (p) => p.conditionId === input.conditionId,
    );
    const row = this.decisions.create({
      ...input,
      reason: input.reason.trim(),
      decidedBy: input.decidedBy?.trim() ?? '',
      id: randomUUID(),
      decidedAt: new Date().toISOString(),
      place: place?.place ?? null,
      costDeltaE: place?.cost ?? null,
      outsideShare: place?.figures.outsideShare ?? null,
    });
    await this.decisions.insert(row);
    return decisionView(row);
  }

  /** The newest of them; the ledger pages through all. */
  async list(pictureId?: string): Promise<DecisionView[]> {
    const rows = await this.decisions.find({
      where: pictureId ? { pictureId } : {},
      order: { decidedAt: 'DESC' },
      take: MOST_LISTED,
    });
    return rows.map(decisionView);
  }

  /** Takes a stamp back; the one before it, if there was one, holds again. */
  async takeBack(id: string): Promise<void> {
    if ((await this.decisions.delete(id)).affected !== 1) throw notFound('decision');
  }

  /** Media settings that were tried and not chosen, while the choice stands: they are not offered for a picture. */
  private async supersededSettings(): Promise<Map<string, string>> {
    const left = new Map<string, string>();
    const decided = new Set<string>();
    // The newest first: what a later trial chose or left stands.
    for (const trial of await this.trials.find({ order: { stampedAt: 'DESC' } })) {
      for (const { conditionId } of trial.ranking) {
        if (decided.has(conditionId)) continue;
        decided.add(conditionId);
        if (conditionId !== trial.conditionId)
          left.set(conditionId, `The media setting ${trial.mediaSetting} was chosen for this paper instead.`);
      }
    }
    return left;
  }

  private async newestDecisions(pictureId: string): Promise<Map<string, DecisionView>> {
    const rows = await this.decisions.find({ where: { pictureId }, order: { decidedAt: 'ASC' } });
    return new Map(rows.map((row) => [row.conditionId, decisionView(row)]));
  }

  private async figures(
    pictureId: string,
    measured: ConditionView[],
    sheets: SheetQualities[],
  ): Promise<Map<string, MatchFigures>> {
    const keys = new Map(measured.map((c) => [c.id, speakingKey(c)]));
    const found = await this.known.findBy({ pictureId, conditionId: In(sheets.map((s) => s.id)) });
    const figures = new Map(
      found.filter((m) => m.readingsKey === keys.get(m.conditionId)).map((m) => [m.conditionId, m.figures]),
    );
    const todo = sheets.filter((s) => !figures.has(s.id));
    if (todo.length > 0) {
      const cells = await this.pictures.cells(pictureId);
      const computed = (
        await Promise.all(todo.map((sheet) => this.workshop.run('matchSheets', { cells, sheets: [sheet] })))
      ).flat();
      const rows = todo.map((sheet, i) => ({
        pictureId,
        conditionId: sheet.id,
        readingsKey: keys.get(sheet.id)!,
        figures: computed[i],
      }));
      await this.writer.run('match kept', () => this.known.save(rows as MatchRow[]));
      rows.forEach((row) => figures.set(row.conditionId, row.figures));
    }
    return figures;
  }
}

function unfit(condition: ConditionView): string | undefined {
  if (!condition.facts) return 'Nothing was measured of it yet.';
  const { gamutVolume, white, black } = condition.facts.figures;
  for (const figure of [gamutVolume, white, black]) if (figure.shape === 'missing') return figure.why;
  return undefined;
}

/** What the figures of a match rest on: the sets that speak, and how figures are computed today. */
const speakingKey = ({ facts, readings }: ConditionView): string =>
  [
    FIGURES_VERSION,
    MATCH_VERSION,
    facts?.readingId,
    ...Object.entries(facts?.borrowed ?? {}).flat(),
    ...readings.map((r) => r.id).sort(),
  ].join();

function qualities(condition: ConditionView, gamut: GamutMesh): SheetQualities {
  const figures = condition.facts!.figures;
  const lab = (f: Figure) => (f.shape === 'colour' ? f.lab : ([0, 0, 0] as const));
  const shift = figures.brightenerShift;
  const { told, wet } = basisOf(condition, gamutVolume);
  return {
    id: condition.id,
    paperId: condition.paperId,
    told,
    wet,
    white: lab(figures.white),
    black: lab(figures.black),
    gamut,
    coating: condition.paper.coating,
    brightenerShift: shift?.shape === 'scalar' ? shift.value : undefined,
    pricePerM2: condition.paper.pricePerM2,
    currency: condition.paper.currency,
  };
}

export function decisionView(row: DecisionRow): DecisionView {
  return Object.fromEntries(Object.entries(row).filter(([, v]) => v !== null)) as unknown as DecisionView;
}
