import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { ENOUGH_PATCHES, MODEL_VERSION, type FittedPrint } from '@rakuen/core/characterisation/fitted-print';
import type { ModelView } from '@rakuen/contract/profiles';
import { RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { readWet, speakingSets } from '@rakuen/core/measurement/speaking';
import { FileStore } from '../files/file-store.ts';
import { readingSource } from '../readings/reading-source.ts';
import { Derived } from '../store/derived.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { ReadingRow } from '../readings/readings.entity.ts';
import type { ReadingSource } from '../work/tasks.ts';
import { UnderWay, type Work } from '../work/under-way.ts';
import { Workshop } from '../work/workshop.ts';

/** A like needs so many patches to be worth beginning from. */
const LIKE_PATCHES = 250;
/** Measurement conditions a profile can be built from. */
const BUILDABLE = ['M1', 'M0', 'M2'];

/** The readings a model is learned from. */
interface Learned {
  readonly rows: readonly ReadingRow[];
  readonly patches: number;
}

/** Models of print conditions: learned from what was read, and kept. */
/** Parts that learning is told in. */
const PERCENT = 100;
/** Learning that nobody watches. */
const UNWATCHED: Pick<Work, 'signal' | 'reach'> = { signal: new AbortController().signal, reach: () => {} };

@Injectable()
export class ModelsService {
  constructor(
    @InjectRepository(ReadingRow) private readonly readings: Repository<ReadingRow>,
    @InjectRepository(ConditionRow) private readonly conditionRows: Repository<ConditionRow>,
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
    private readonly conditions: ConditionsService,
    private readonly files: FileStore,
    private readonly derived: Derived,
    private readonly workshop: Workshop,
    private readonly underWay: UnderWay,
  ) {}

  /** @param named by which it can be asked how far the learning is, and be left */
  async view(conditionId: string, named?: string): Promise<ModelView> {
    const { rows } = await this.learnedFrom(conditionId);
    const work = this.underWay.begin(named, PERCENT);
    const fitted = await this.fitted(conditionId, undefined, work).finally(work.end);
    const like = fitted.like && (await this.likeOf(conditionId));
    return {
      conditionId,
      deviceSpace: fitted.deviceSpace,
      measurementCondition: fitted.condition,
      spectral: fitted.spectral !== undefined,
      brightenerApart: fitted.spectral?.luminous !== undefined,
      sets: [...new Set(rows.map((r) => r.fileName))],
      like: like && `${like.paper.maker} ${like.paper.name}, ${like.condition.printer}, ${like.condition.mediaSetting}`,
      error: fitted.error,
      canBuildFrom: BUILDABLE.filter((c) => rows.some((r) => r.measurementCondition === c)),
    };
  }

  /** What was learned of a condition. @param asked the measurement condition that is to speak */
  async fitted(conditionId: string, asked?: string, work = UNWATCHED): Promise<FittedPrint> {
    const builtFrom = await this.other(conditionId, asked);
    return this.derived.get(conditionId, `model ${builtFrom ?? ''}`.trim(), async () => {
      const { key, rows, like } = await this.restingOn(conditionId, builtFrom);
      return {
        key,
        compute: async () =>
          this.workshop.learn(
            { sources: await this.sourcesOf(rows), like: like && (await this.fitted(like.condition.id)) },
            work.signal,
            work.reach,
          ),
      };
    });
  }

  /** What a model rests on, told apart by a key: other readings, another model. */
  async keyOf(conditionId: string): Promise<string> {
    return (await this.restingOn(conditionId)).key;
  }

  private async restingOn(conditionId: string, builtFrom?: string) {
    const { rows, patches } = await this.learnedFrom(conditionId, builtFrom);
    const like = patches < ENOUGH_PATCHES ? await this.likeOf(conditionId) : undefined;
    const likeRows = like ? (await this.learnedFrom(like.condition.id)).rows : [];
    const keyOf = (r: ReadingRow) => `${r.contentHash} ${r.part} ${r.measurementCondition ?? ''}`;
    return { key: JSON.stringify([MODEL_VERSION, rows.map(keyOf), likeRows.map(keyOf)]), rows, like };
  }

  async sources(conditionId: string, builtFrom?: string): Promise<ReadingSource[]> {
    return this.sourcesOf((await this.learnedFrom(conditionId, await this.other(conditionId, builtFrom))).rows);
  }

  /**
   * The measurement condition asked for, unless it speaks anyway: then its readings without UV go with it, and the
   * model is the condition's own.
   */
  private async other(conditionId: string, asked: string | undefined): Promise<string | undefined> {
    if (!asked) return undefined;
    const [first] = (await this.learnedFrom(conditionId)).rows;
    return first.measurementCondition === asked ? undefined : asked;
  }

  private sourcesOf(rows: readonly ReadingRow[]): Promise<ReadingSource[]> {
    return Promise.all(rows.map((r) => readingSource(this.files, r)));
  }

  /** The sets that speak for a condition, of one box and one state of drying. @throws RakuenError where nothing was read */
  private async learnedFrom(conditionId: string, builtFrom?: string): Promise<Learned> {
    const { figuresFrom } = await this.conditions.get(conditionId);
    const all = (await this.readings.findBy({ conditionId })).filter((r) => r.source === 'measured');
    const own = builtFrom ? all.filter((r) => r.measurementCondition === builtFrom) : all;
    const sets = speakingSets(own, own.some((r) => r.id === figuresFrom) ? figuresFrom : null);
    if (sets.length === 0)
      throw new RakuenError(
        404,
        'Nothing was measured of this print condition yet; a model is learned from readings.',
        {
          remedy: 'Bring readings of a chart first.',
        },
      );
    const [{ primary: first }] = sets;
    const alike = sets.filter(({ primary }) => primary.batch === first.batch && readWet(primary) === readWet(first));
    const rows = [...new Map(alike.flatMap((s) => [s.primary, ...s.companions]).map((r) => [r.id, r])).values()];
    return { rows, patches: alike.reduce((sum, s) => sum + s.primary.patchCount, 0) };
  }

  /** The nearest condition that is well known: same printer and inks before same kind of paper, then the one with most patches. */
  private async likeOf(conditionId: string): Promise<{ condition: ConditionRow; paper: PaperRow } | undefined> {
    const rows = await this.conditionRows.find();
    const papers = new Map((await this.papers.find()).map((p) => [p.id, p]));
    const own = rows.find((r) => r.id === conditionId)!;
    const coating = papers.get(own.paperId)!.coating;
    const counts = await this.readings
      .createQueryBuilder('r')
      .select('r.conditionId', 'id')
      .addSelect('MAX(r.patchCount)', 'most')
      .where("r.source = 'measured' AND r.deviceSpace = 'RGB'")
      .groupBy('r.conditionId')
      .getRawMany<{ id: string; most: number }>();
    const patches = new Map(counts.map((c) => [c.id, c.most]));
    const candidates = rows
      .filter((r) => r.id !== conditionId && r.printMode === own.printMode && (patches.get(r.id) ?? 0) >= LIKE_PATCHES)
      .map((r) => {
        const press = r.printer === own.printer && r.inkSet === own.inkSet;
        // Two sheets nobody described are not of one kind for that.
        const kind = coating !== null && papers.get(r.paperId)!.coating === coating;
        return {
          condition: r,
          paper: papers.get(r.paperId)!,
          near: (press ? 2 : 0) + (kind ? 1 : 0) + (r.blackInk === own.blackInk ? 2 : 0),
        };
      })
      // Neither the same printer with its inks nor the same kind of sheet: no like.
      .filter((c) => c.near >= 2)
      .sort((p, q) => q.near - p.near || patches.get(q.condition.id)! - patches.get(p.condition.id)!);
    return candidates[0];
  }
}
