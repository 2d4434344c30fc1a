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
import { keyFrom } from '../store/keys.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { ReadingRow } from '../readings/readings.entity.ts';
import type { ReadingSource } from '../work/tasks.ts';
import { UnderWay, type Work } from '../work/under-way.ts';
import { Workshop } from '../work/workshop.ts';

/** A like needs so many patches to be worth beginning from. */
const LIKE_PATCHES = 250;
/** So many are tried on the patches that were read. */
const MAX_CANDIDATES = 5;
/** Measurement conditions a profile can be built from. */
const BUILDABLE = ['M1', 'M0', 'M2'];

/** The readings a model is computed from. */
interface LearnedFrom {
  readonly rows: readonly ReadingRow[];
  readonly patches: number;
}

/** A well-known print condition that a few patches of another may begin from. */
interface Candidate {
  readonly condition: ConditionRow;
  readonly paper: PaperRow;
  readonly mismatches: number;
}

/** Parts in which progress is counted. */
const PERCENT = 100;
/** Computing that nobody watches. */
const UNWATCHED: Pick<Work, 'signal' | 'reach'> = { signal: new AbortController().signal, reach: () => {} };

/** Models of print conditions: computed from what was read, and kept. */
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

  /** @param named by which it can be asked how far the computing is, and be left */
  async view(conditionId: string, named?: string): Promise<ModelView> {
    const { rows, candidates } = await this.restingOn(conditionId);
    const work = this.underWay.begin(named, PERCENT);
    const fitted = await this.fitted(conditionId, undefined, work).finally(work.end);
    const used = rows.filter((_, index) => !fitted.leftOut.some((l) => l.index === index));
    const tried = fitted.like ? (fitted.relatives ?? []) : [];
    const [like, runnerUp] = tried.map(({ id, deltaE00 }) => {
      const { paper, condition } = candidates.find((c) => c.condition.id === id)!;
      return { name: `${paper.maker} ${paper.name}, ${condition.printer}, ${condition.mediaSetting}`, deltaE00 };
    });
    return {
      conditionId,
      deviceSpace: fitted.deviceSpace,
      measurementCondition: fitted.condition,
      spectral: fitted.spectral !== undefined,
      brightenerApart: fitted.spectral?.luminous !== undefined,
      sets: [...new Set(used.map((r) => r.fileName))],
      leftOut: fitted.leftOut.map(({ index, why }) => ({ fileName: rows[index].fileName, why })),
      questionedIn: fitted.error.questioned.map((q) => rows[q.set]?.id ?? null),
      leftOutPatches: rows.flatMap((r) => r.leftOut.map((patch) => ({ readingId: r.id, patch }))),
      like,
      runnerUp,
      error: fitted.error,
      canBuildFrom: BUILDABLE.filter((c) => rows.some((r) => r.measurementCondition === c)),
    };
  }

  /** The model of a condition. @param asked the measurement condition that is to be primary */
  async fitted(conditionId: string, asked?: string, work = UNWATCHED): Promise<FittedPrint> {
    const builtFrom = await this.other(conditionId, asked);
    return this.derived.get(conditionId, `model ${builtFrom ?? ''}`.trim(), async () => {
      const { key, rows, candidates } = await this.restingOn(conditionId, builtFrom);
      return {
        key,
        compute: async () =>
          this.workshop.learn(
            {
              sources: await this.sourcesOf(rows),
              relatives: await Promise.all(
                candidates.map(async ({ condition, mismatches }) => ({
                  id: condition.id,
                  mismatches,
                  fitted: await this.fitted(condition.id),
                })),
              ),
            },
            work.signal,
            work.reach,
          ),
      };
    });
  }

  /** What a model rests on: a key that changes with any of it. */
  async keyOf(conditionId: string): Promise<string> {
    return (await this.restingOn(conditionId)).key;
  }

  /**
   * A model of few patches rests on well-known prints besides its readings, and each of those on its own readings
   * alone: who rests on whom can't come round to where it began.
   */
  private async restingOn(conditionId: string, builtFrom?: string) {
    const { rows, patches } = await this.learnedFrom(conditionId, builtFrom);
    const candidates = patches < ENOUGH_PATCHES ? await this.candidatesFor(conditionId) : [];
    const below = await Promise.all(candidates.map(async (c) => (await this.learnedFrom(c.condition.id)).rows));
    const key = keyFrom(
      'model',
      MODEL_VERSION,
      rows.map(fileKey),
      below.map((list, i) => [candidates[i].mismatches, candidates[i].condition.id, list.map(fileKey)]),
    );
    return { key, rows, candidates };
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
  private async learnedFrom(conditionId: string, builtFrom?: string): Promise<LearnedFrom> {
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

  /**
   * Print conditions that stand on readings of their own and may be relatives of another, the likeliest first: another
   * printer, ink set, black ink, kind of paper or media setting each makes it less likely.
   */
  private async candidatesFor(conditionId: string): Promise<Candidate[]> {
    const rows = await this.conditionRows.find();
    const papers = new Map((await this.papers.find()).map((p) => [p.id, p]));
    const own = rows.find((r) => r.id === conditionId)!;
    const coating = papers.get(own.paperId)!.coating;
    const counts = await this.readings
      .createQueryBuilder('r')
      .select('r.conditionId', 'id')
      .addSelect('MAX(r.patchCount)', 'most')
      .where("r.source = 'measured' AND r.deviceSpace = 'RGB' AND r.apart IS NULL")
      .groupBy('r.conditionId')
      .getRawMany<{ id: string; most: number }>();
    const patches = new Map(counts.map((c) => [c.id, c.most]));
    const likely = rows
      .filter((r) => r.id !== conditionId && r.printMode === own.printMode && (patches.get(r.id) ?? 0) >= LIKE_PATCHES)
      .map((condition): Candidate & { press: boolean; kind: boolean } => {
        const press = condition.printer === own.printer && condition.inkSet === own.inkSet;
        // Two sheets nobody described are not of one kind for that.
        const kind = coating !== null && papers.get(condition.paperId)!.coating === coating;
        const unlike = [
          !press,
          !press,
          condition.blackInk !== own.blackInk,
          !kind,
          condition.mediaSetting !== own.mediaSetting,
        ];
        return {
          condition,
          paper: papers.get(condition.paperId)!,
          mismatches: unlike.filter(Boolean).length,
          press,
          kind,
        };
      })
      // Neither the same printer with its inks nor the same kind of sheet: no relative.
      .filter((c) => c.press || c.kind)
      .sort((p, q) => p.mismatches - q.mismatches || p.condition.id.localeCompare(q.condition.id));
    const found: Candidate[] = [];
    for (const candidate of likely) {
      if (found.length === MAX_CANDIDATES) break;
      // One whose own model rests on a relative is none: only the sets that speak for it count.
      const known = await this.learnedFrom(candidate.condition.id).catch(() => undefined);
      if (known && known.patches >= LIKE_PATCHES) found.push(candidate);
    }
    return found;
  }
}

/** A reading by what it holds, and what was left out of it. */
const fileKey = (r: ReadingRow) => [r.contentHash, r.part, r.measurementCondition, r.mapping, r.leftOut];
