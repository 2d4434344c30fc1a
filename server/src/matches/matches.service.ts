import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { Commission } from '@rakuen/core/match/commission';
import { aspectOf } from '@rakuen/core/picture/aspect';
import { MATCH_VERSION } from '@rakuen/core/match/on-sheet';
import { judgeSheets, type Candidate, type JudgedSheet } from '@rakuen/core/match/judge';
import { choiceOf, keepCosts } from '@rakuen/core/match/kept-costs';
import { rankSheets, weigh, type RankedSheet } from '@rakuen/core/match/rank';
import { SCHOOLS, weightsOf } from '@rakuen/core/match/schools';
import type { ConditionView } from '@rakuen/contract/conditions';
import type {
  DecisionInput,
  DecisionView,
  KeepMatch,
  KeptMatch,
  LearnedEyeView,
  LeftOut,
  MatchRequest,
  MatchVersion,
  MatchView,
  SchoolInput,
  SchoolView,
} from '@rakuen/contract/matches';
import type { PictureView } from '@rakuen/contract/pictures';
import type { RecipeView } from '@rakuen/contract/recipes';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import type { PackedReady } from '../work/lay-tasks.ts';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { NotesService } from '../notes/notes.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { DecisionRow, MatchRow, SchoolRow } from './matches.entity.ts';
import { Writer } from '../store/writer.ts';
import { AT_ONCE, Workshop } from '../work/workshop.ts';
import { eachOf, UnderWay } from '../work/under-way.ts';
import { RecipesService } from './recipes.service.ts';
import { SheetsAtHand, type BesideReadings } from './sheets-at-hand.service.ts';
import { whole } from '../store/rows.ts';

/** Decisions of a list: what a screen shows at once. */
const MOST_LISTED = 500;
/** Kept matches of a picture that are listed. */
const MOST_KEPT = 50;

/** A picture against sheets, before anything is weighed. */
interface Laying {
  readonly picture: PictureView;
  readonly versions: readonly MatchVersion[];
  readonly candidates: readonly Candidate[];
  readonly leftOut: readonly LeftOut[];
}

/** The order among all measured conditions, as of some event. */
interface Standing {
  readonly seq: number;
  readonly places: readonly RankedSheet[];
  readonly sheets: readonly JudgedSheet[];
}

/** Pictures that are matched again in one request, for decisions that kept nothing to learn from. */
const PICTURES_AGAIN = 30;

@Injectable()
export class MatchesService {
  constructor(
    @InjectRepository(MatchRow) private readonly kept: Repository<MatchRow>,
    @InjectRepository(SchoolRow) private readonly schools: Repository<SchoolRow>,
    @InjectRepository(DecisionRow) private readonly decisions: Repository<DecisionRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly sheets: SheetsAtHand,
    private readonly recipes: RecipesService,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
    private readonly strips: NotesService,
    private readonly underWay: UnderWay,
  ) {}

  private readonly standings = new Map<string, Standing>();

  async match(request: MatchRequest): Promise<MatchView> {
    const { picture, candidates, leftOut, versions } = await this.lay(request.pictureId, request);
    const asked = askedOf(picture, request.weights);
    const ranking = rankSheets(asked, candidates);
    const decisions = await this.newestDecisions(picture.id);
    const judged = await this.strips.found(picture.id);
    return {
      pictureId: picture.id,
      places: ranking.places.map(({ id, ...place }) => {
        const version = versions.find((v) => v.id === id);
        const conditionId = version?.conditionId ?? id;
        return {
          conditionId,
          ...(version && { recipeId: version.id }),
          ...place,
          reasons: [...place.reasons],
          parts: [...place.parts],
          // What was decided was decided of the paper, with the picture as it is.
          decision: version ? undefined : decisions.get(conditionId),
          judged: version ? [] : judged.filter((n) => n.conditionId === id),
        };
      }),
      leftOut: [
        ...leftOut,
        // A version is refused with its paper.
        ...ranking.refused.flatMap(({ id, why }) =>
          versions.some((v) => v.id === id) ? [] : [{ conditionId: id, why }],
        ),
      ],
      shared: [...ranking.shared],
      turns: [...ranking.turns],
      uncounted: [...ranking.uncounted],
      versions: [...versions],
      candidates: [...candidates],
    };
  }

  /**
   * How the presets would have chosen, and what the printmaker's own choices say of their weights: from what was kept with
   * each decision. Of decisions made before it was kept a few are matched again at a time, as things stand today.
   */
  async learned(): Promise<LearnedEyeView> {
    const chosen = await this.decisions.find({ where: { stamp: 'chosen' }, order: { decidedAt: 'ASC' } });
    // The newest word on a picture and a sheet is the one that counts.
    const newest = [...new Map(chosen.map((d) => [`${d.pictureId} ${d.conditionId}`, d])).values()];
    await this.keepCostsOf(newest.filter((d) => d.costs === null));
    const known = newest.filter((d) => d.costs !== null);
    const choices = known.map((d) => choiceOf(d.pictureId, d.costs!));
    const own = (await this.schools.find()).map(({ id, name, weights }) => ({ key: id, name, weights }));
    const learned = await this.workshop.run('learnEye', { choices, own });
    return { ...learned, schools: [...learned.schools], leftOut: newest.length - known.length };
  }

  /** Keeps what decisions of earlier versions are learned from, for some of them. */
  private async keepCostsOf(rows: readonly DecisionRow[]): Promise<void> {
    const pictures = [...new Set(rows.map((d) => d.pictureId))].slice(0, PICTURES_AGAIN);
    for (const pictureId of pictures) {
      const { sheets } = await this.standing(pictureId);
      for (const row of rows.filter((d) => d.pictureId === pictureId)) {
        row.costs = keepCosts(row.conditionId, sheets, Math.random) ?? null;
        const { id, costs } = row;
        if (costs) await this.writer.run('decision', () => this.decisions.update(id, whole({ costs })));
      }
    }
  }

  /** Keeps a match as it stands, to be opened again. */
  async keep(request: KeepMatch): Promise<KeptMatch> {
    // Papers are compared with what they become; a version is worked on, and would be another thing by then.
    const match = await this.match({ ...request, recipeIds: [] });
    const picture = await this.pictures.view(request.pictureId);
    const names = new Map((await this.conditions.list()).map((c) => [c.id, nameOf(c)]));
    const row = this.kept.create({
      id: randomUUID(),
      at: new Date().toISOString(),
      pictureId: request.pictureId,
      name: request.name.trim(),
      inputs: {
        // As it was matched, behind another glass too.
        commission: { ...picture.commission, ...(request.glass && { glass: request.glass }) },
        hints: picture.hints,
        weights: weightsOf(request.weights),
        conditionIds: request.conditionIds,
        matchVersion: MATCH_VERSION,
        pictureVersion: picture.figures.version,
      },
      result: {
        places: match.places.map((p) => ({
          conditionId: p.conditionId,
          name: names.get(p.conditionId) ?? '',
          place: p.place,
          score: p.score,
          scoreSd: p.scoreSd,
          outsideShare: p.figures.outsideShare,
          meanDeltaE: p.figures.meanDeltaE,
          reasons: p.reasons.map(({ leaning, sentence, cost }) => ({ leaning, sentence, cost })),
        })),
      },
    });
    await this.writer.run('match kept', () => this.kept.insert(whole(row)));
    return row;
  }

  async keptOf(pictureId: string): Promise<KeptMatch[]> {
    return this.kept.find({ where: { pictureId }, order: { at: 'DESC' }, take: MOST_KEPT });
  }

  async forget(id: string): Promise<void> {
    if ((await this.kept.delete(id)).affected !== 1) throw notFound('kept match');
  }

  async ownSchools(): Promise<SchoolView[]> {
    return this.schools.find({ order: { createdAt: 'ASC' } });
  }

  async found(input: SchoolInput): Promise<SchoolView> {
    const name = input.name.trim();
    if (SCHOOLS.some((s) => s.name.toLowerCase() === name.toLowerCase()))
      throw new RakuenError(409, `${name} is the name of a school that is there already.`, {
        field: 'name',
        remedy: 'Give yours another name.',
      });
    const row = this.schools.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      name,
      holds: input.holds?.trim() ?? '',
      weights: input.weights,
    });
    await this.schools.insert(row);
    return row;
  }

  async dissolve(id: string): Promise<void> {
    if ((await this.schools.delete(id)).affected !== 1) throw notFound('school');
  }

  /** Stamps a decision, with the figures as they stand now. */
  async decide(input: DecisionInput): Promise<DecisionView> {
    await this.pictures.get(input.pictureId);
    await this.conditions.get(input.conditionId);
    // The place is the one among all measured conditions: it does not depend on what happened to lie on the table.
    const { places, sheets } = await this.standing(input.pictureId);
    const place = places.find((p) => p.id === input.conditionId);
    const row = this.decisions.create({
      ...input,
      reason: input.reason.trim(),
      decidedBy: input.decidedBy?.trim() ?? '',
      id: randomUUID(),
      decidedAt: new Date().toISOString(),
      place: place?.place ?? null,
      // Cost and share of the match as it was before it had a score: other figures, which stay with the decisions they were made by.
      costDeltaE: null,
      outsideShare: null,
      score: place?.score ?? null,
      lostShare: place?.figures.outsideShare ?? null,
      costs: keepCosts(input.conditionId, sheets, Math.random) ?? null,
    });
    await this.writer.run('decision', () => this.decisions.insert(row));
    return decisionView(row);
  }

  /** The order among all measured conditions as it stands; what nothing has changed is not ranked again. */
  private async standing(pictureId: string): Promise<Standing> {
    const [last] = await this.decisions.query<{ seq: number }[]>(
      `SELECT seq FROM events WHERE subject IN (${RANKED_BY.map((t) => `'${t}'`).join()}) ORDER BY seq DESC LIMIT 1`,
    );
    const seq = last?.seq ?? 0;
    const known = this.standings.get(pictureId);
    if (known?.seq === seq) return known;
    const { picture, candidates } = await this.lay(pictureId);
    const judgement = judgeSheets(askedOf(picture), candidates);
    const standing = { seq, places: weigh(judgement).places, sheets: judgement.sheets };
    this.standings.set(pictureId, standing);
    if (this.standings.size > MOST_STANDING) this.standings.delete(this.standings.keys().next().value!);
    return standing;
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

  /** What every sheet asked for does to the picture, where it will hang. */
  private async lay(
    pictureId: string,
    { conditionIds, recipeIds = [], glass, work: named }: Omit<MatchRequest, 'pictureId'> = {},
  ): Promise<Laying> {
    const view = await this.pictures.view(pictureId);
    const picture = glass ? { ...view, commission: { ...view.commission, glass } } : view;
    const all = await this.conditions.list();
    const asked = conditionIds ? conditionIds.map((id) => all.find((c) => c.id === id)) : all;
    if (asked.some((c) => c === undefined)) throw notFound('print condition');
    const beside = await this.sheets.beside();
    const leftOut: LeftOut[] = [];
    const work = this.underWay.begin(named, asked.length);
    // One a thread, so that little is begun that may be left.
    const laid = await eachOf(asked as ConditionView[], AT_ONCE, async (condition) => {
      work.goOn();
      const found = await this.sheets.of(condition, picture.commission, beside);
      work.step();
      if (!('why' in found)) return found;
      leftOut.push({ conditionId: condition.id, why: found.why });
      return undefined;
    }).finally(work.end);
    const known = laid.filter((l) => l !== undefined);
    const cells = await this.pictures.cells(pictureId);
    const each = Math.ceil(known.length / AT_ONCE);
    const shares = Array.from({ length: AT_ONCE }, (_, i) => known.slice(i * each, (i + 1) * each));
    const laidOut = await Promise.all(
      shares.map((some) =>
        this.workshop.run('matchSheets', { cells, marks: picture.marks, sheets: some.map((k) => k.ready) }),
      ),
    );
    const figures = laidOut.flat();
    const there = new Map(known.map(({ qualities }) => [qualities.id, asked.find((c) => c!.id === qualities.id)!]));
    const { versions, printed, unknown } = await this.byRecipe(picture, recipeIds, there, cells, beside);
    return {
      picture,
      versions,
      candidates: [...known.map(({ qualities }, i) => ({ sheet: qualities, figures: figures[i] })), ...printed],
      leftOut: [...leftOut, ...unknown],
    };
  }

  /** The picture by saved recipes, each on its sheet. @param there conditions that are ranked; recipes for others are left out */
  private async byRecipe(
    picture: PictureView,
    recipeIds: readonly string[],
    there: ReadonlyMap<string, ConditionView>,
    cells: Float32Array,
    beside: BesideReadings,
  ): Promise<{ versions: MatchVersion[]; printed: Candidate[]; unknown: LeftOut[] }> {
    const unknown: LeftOut[] = [];
    const recipes = await Promise.all([...new Set(recipeIds)].map((id) => this.recipes.of(id, picture.id)));
    const found: { recipe: RecipeView; sheet: SheetQualities; ready: PackedReady }[] = [];
    for (const recipe of recipes) {
      const condition = there.get(recipe.conditionId);
      if (!condition) continue;
      const sheet = await this.sheets.of(condition, picture.commission, beside, recipe.values.rendering);
      if ('why' in sheet) {
        unknown.push({ conditionId: condition.id, why: `Version “${recipe.name || 'working recipe'}”: ${sheet.why}` });
        continue;
      }
      found.push({ recipe, sheet: { ...sheet.qualities, id: recipe.id }, ready: sheet.ready });
    }
    if (found.length === 0) return { versions: [], printed: [], unknown };
    const figures = await this.workshop.run('matchRecipes', {
      cells,
      marks: picture.marks,
      question: questionOf(picture),
      printed: found.map(({ recipe, ready }) => ({ recipe: recipe.values, ready })),
    });
    return {
      versions: found.map(({ recipe: { id, conditionId, name, revision } }) => ({ id, conditionId, name, revision })),
      unknown,
      printed: found.map(({ sheet }, i) => ({ sheet, figures: figures[i] })),
    };
  }

  private async newestDecisions(pictureId: string): Promise<Map<string, DecisionView>> {
    const rows = await this.decisions.find({ where: { pictureId }, order: { decidedAt: 'ASC' } });
    return new Map(rows.map((row) => [row.conditionId, decisionView(row)]));
  }
}

/** What a ranking rests on; the record of events tells when any of it changed. */
const RANKED_BY = ['pictures', 'papers', 'conditions', 'readings', 'observations', 'trials', 'prints', 'profiles'];
const MOST_STANDING = 50;

const askedOf = (picture: PictureView, weights?: Record<string, number>) => ({
  ...questionOf(picture),
  weights,
});
const questionOf = ({ figures, hints, commission, widthPx, heightPx }: PictureView) => ({
  aspect: aspectOf({ widthPx, heightPx }),
  picture: figures,
  hints,
  commission: commission as Commission,
});

const nameOf = ({ paper, printer, mediaSetting, apart }: ConditionView): string =>
  [`${paper.maker} ${paper.name}`, printer, mediaSetting, apart].filter(Boolean).join(', ');

export function decisionView(row: DecisionRow): DecisionView {
  return {
    id: row.id,
    pictureId: row.pictureId,
    conditionId: row.conditionId,
    stamp: row.stamp,
    reason: row.reason,
    decidedBy: row.decidedBy,
    decidedAt: row.decidedAt,
    place: row.place ?? undefined,
    score: row.score ?? undefined,
    lostShare: row.lostShare ?? undefined,
    costDeltaE: row.costDeltaE ?? undefined,
    outsideShare: row.outsideShare ?? undefined,
  };
}
