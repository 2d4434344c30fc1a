import { Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';
import { USUAL_COMMISSION, type Commission } from '@rakuen/core/match/commission';
import { looksAlike, type Look } from '@rakuen/core/match/one-look';
import { additions, drops, planShow, type PaperChange, type ShowQuestion } from '@rakuen/core/match/show';
import type { ReadySheet } from '@rakuen/core/match/ready-sheet';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import type { ConditionView } from '@rakuen/contract/conditions';
import type {
  PlannedChange,
  PlannedPaper,
  PlannedPicture,
  ShowPlanRequest,
  ShowPlanView,
  ShowView,
} from '@rakuen/contract/shows';
import type { PaperStanding } from '@rakuen/contract/vocabulary';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PictureColours } from '../matches/picture-colours.service.ts';
import { SheetsAtHand } from '../matches/sheets-at-hand.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { keyFrom } from '../store/keys.ts';
import { unpackReady } from '../work/lay-tasks.ts';
import { sharedSheet, type ShownPicture } from '../work/suit-task.ts';
import { eachOf, UnderWay, type Work } from '../work/under-way.ts';
import { AT_ONCE, Workshop } from '../work/workshop.ts';
import { ShowsService } from './shows.service.ts';

/** Pictures of one task: a request that waits has its turn between two. */
const PICTURES_AT_ONCE = 8;
/** Scores of shows that are kept in memory. */
const MAX_KEPT = 8;
/** What scores follow from. */
const SCORED_BY = [
  'pictures',
  'papers',
  'conditions',
  'readings',
  'observations',
  'trials',
  'prints',
  'profiles',
  'lights',
];

interface Place {
  readonly light: string;
  readonly glass: string;
}
type Shared = { readonly qualities: SheetQualities; readonly ready: ReadySheet };

/** Every picture on every print condition. */
interface Scored {
  readonly pictureIds: readonly string[];
  /** Print conditions that are known in every place, in order. */
  readonly conditions: readonly { readonly condition: ConditionView; readonly looks: readonly Look[] }[];
  /** By picture, then by condition; absent where refused. */
  readonly scores: readonly (readonly (number | undefined)[])[];
  readonly leftOut: readonly { readonly condition: ConditionView; readonly why: string }[];
}

/** Sheets as they are seen in each place. */
interface Sheets {
  /** Print conditions that are known in every place. */
  readonly known: readonly ConditionView[];
  readonly byPlace: readonly (readonly Shared[])[];
  readonly leftOut: Scored['leftOut'];
}
/** Sheets of so many questions stay unpacked in memory: half a megabyte a sheet and place. */
const MAX_SHEETS = 2;

/** Which papers carry a show. */
@Injectable()
export class ShowPlanService {
  private readonly known = new Map<string, Promise<Scored>>();
  private readonly unpacked = new Map<string, Promise<Sheets>>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly shows: ShowsService,
    private readonly conditions: ConditionsService,
    private readonly pictures: PictureColours,
    private readonly sheets: SheetsAtHand,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
    private readonly underWay: UnderWay,
  ) {}

  async plan(id: string, request: ShowPlanRequest): Promise<ShowPlanView> {
    const show = await this.shows.view(id);
    const scored = await this.scored(show, request);
    const acrossRoom = (await this.settings.get()).thresholds.deltaE.acrossRoom;
    return { ...planOf(show, scored, acrossRoom), exactScores: request.exact === true };
  }

  /** Scores do not depend on what is held of a paper: choosing one, or another loss, asks no picture again. */
  private async scored(show: ShowView, { exact, weights, work }: ShowPlanRequest): Promise<Scored> {
    const asked = await this.considered(show);
    const [last] = await this.database.query<{ seq: number }[]>(
      `SELECT seq FROM events WHERE subject IN (${SCORED_BY.map((t) => `'${t}'`).join()}) ORDER BY seq DESC LIMIT 1`,
    );
    const { pictureIds, light, glass, lux } = show;
    const ids = asked.map((c) => c.id);
    const seq = last?.seq ?? 0;
    const key = keyFrom(seq, [...pictureIds].sort(), ids, light, glass, lux, weights ?? {}, exact === true);
    return lately(this.known, MAX_KEPT, key, () => this.score(show, asked, seq, { exact, weights, work }));
  }

  /** Conditions of the papers that are considered, in one order whatever is held of them. */
  private async considered({ papers, allPapers }: ShowView): Promise<ConditionView[]> {
    const named = new Set(papers.map((p) => p.paperId));
    return (await this.conditions.list())
      .filter((c) => allPapers || named.has(c.paperId))
      .sort((p, q) => (p.id < q.id ? -1 : 1));
  }

  private async score(
    show: ShowView,
    asked: readonly ConditionView[],
    seq: number,
    { exact, weights, work: named }: ShowPlanRequest,
  ): Promise<Scored> {
    const rows = new Map((await this.pictures.rows(show.pictureIds)).map((r) => [r.id, r]));
    const place = {
      ...(show.light && { light: show.light }),
      ...(show.glass && { glass: show.glass }),
      ...(show.lux && { lux: show.lux }),
    };
    const places: Place[] = [];
    const placeOf = (commission: string | null): number => {
      const { light, glass } = commission === null ? USUAL_COMMISSION : (JSON.parse(commission) as Commission);
      const there = { light: show.light ?? light, glass: show.glass ?? glass };
      const at = places.findIndex((p) => p.light === there.light && p.glass === there.glass);
      return at >= 0 ? at : places.push(there) - 1;
    };
    const hung = show.pictureIds.flatMap((id) => {
      const row = rows.get(id);
      return row ? [{ ...row, place, at: placeOf(row.commission) }] : [];
    });
    // Without a picture yet the papers are known all the same.
    if (places.length === 0) placeOf(null);
    const work = this.underWay.begin(named, asked.length * places.length + hung.length);
    try {
      const ids = asked.map((c) => c.id);
      const { known, byPlace, leftOut } = await lately(this.unpacked, MAX_SHEETS, keyFrom(seq, ids, places), () =>
        this.sheetsIn(places, asked, work),
      );
      const parts = Array.from({ length: Math.ceil(hung.length / PICTURES_AT_ONCE) }, (_, i) =>
        hung.slice(i * PICTURES_AT_ONCE, (i + 1) * PICTURES_AT_ONCE),
      );
      const scores = await eachOf(parts, AT_ONCE, async (part) => {
        work.goOn();
        const ids = part.map((p) => p.id);
        const colours = exact ? await this.pictures.all(ids) : await this.pictures.gists(ids);
        const pictures = part.map((p): ShownPicture => ({ ...p, ...colours.get(p.id) }));
        const done = await this.workshop.run('scoreShow', { pictures, places: byPlace, weights });
        part.forEach(() => work.step());
        return done;
      });
      const conditions = known.map((condition, s) => ({
        condition,
        looks: byPlace.map((sheets) => ({ ...condition.paper, white: sheets[s].ready.seenWhite })),
      }));
      return { pictureIds: hung.map((p) => p.id), conditions, scores: scores.flat(), leftOut };
    } finally {
      work.end();
    }
  }

  /** Sheets as they are seen in every place; one that is not known in each of them is compared in none. */
  private async sheetsIn(places: readonly Place[], asked: readonly ConditionView[], work: Work): Promise<Sheets> {
    const beside = await this.sheets.beside();
    const leftOut = new Map<string, string>();
    const found = await eachOf(asked, AT_ONCE, async (condition): Promise<Shared[] | undefined> => {
      const seen: Shared[] = [];
      for (const place of places) {
        work.goOn();
        const sheet = leftOut.has(condition.id) ? undefined : await this.sheets.of(condition, place, beside);
        if (sheet && 'why' in sheet) leftOut.set(condition.id, sheet.why);
        else if (sheet) seen.push({ qualities: sheet.qualities, ready: sharedSheet(unpackReady(sheet.ready)) });
        work.step();
      }
      return seen.length === places.length ? seen : undefined;
    });
    const known = asked.filter((_, i) => found[i] !== undefined);
    const sheets = found.filter((f) => f !== undefined);
    return {
      known,
      byPlace: places.map((_, p) => sheets.map((s) => s[p])),
      leftOut: asked.flatMap((condition) => {
        const why = leftOut.get(condition.id);
        return why ? [{ condition, why }] : [];
      }),
    };
  }
}

/** A result that was computed lately, else computed now; one that fails is not kept. */
function lately<T>(known: Map<string, Promise<T>>, most: number, key: string, compute: () => Promise<T>): Promise<T> {
  const result = known.get(key) ?? compute();
  known.delete(key);
  known.set(key, result);
  if (known.size > most) known.delete(known.keys().next().value!);
  return result.catch((error: unknown) => {
    known.delete(key);
    throw error;
  });
}

/** The plan, from scores by print condition: a paper serves a picture as well as the best of its conditions does. */
function planOf(show: ShowView, scored: Scored, maxWhiteDeltaE: number): Omit<ShowPlanView, 'exactScores'> {
  const standings = new Map(show.papers.map((p) => [p.paperId, p.standing]));
  const { papers, looks } = papersOf(scored, standings);
  const order = show.pictureIds.filter((id) => scored.pictureIds.includes(id));
  const pictures = order.map((pictureId): PlannedPicture => {
    const of = scored.scores[scored.pictureIds.indexOf(pictureId)];
    const best = papers.map(({ conditionIds }) => bestOf(scored, of, conditionIds));
    return {
      pictureId,
      scores: best.map((b) => b?.score ?? null),
      conditions: best.map((b) => b?.conditionId ?? null),
    };
  });
  const wish = show.sameSurface || show.sameWhite;
  const free: ShowQuestion = {
    scores: pictures.map((p) => p.scores.map((s) => s ?? undefined)),
    chosen: papers.flatMap((p, i) => (p.standing === 'chosen' ? [i] : [])),
    vetoed: papers.flatMap((p, i) => (p.standing === 'vetoed' ? [i] : [])),
    maxLoss: show.maxLoss,
  };
  const question: ShowQuestion = wish
    ? {
        ...free,
        alike: (p, q) => looks[p].every((look, place) => looksAlike(look, looks[q][place], show, maxWhiteDeltaE)),
      }
    : free;
  const plan = planShow(question);
  const main = plan.choices[plan.fewest ?? plan.choices.length - 1]?.papers ?? [];
  const idOf = (p: number) => papers[p].paperId;
  const change = ({ paper, byMean, pictures: n, most }: PaperChange): PlannedChange => ({
    paperId: idOf(paper),
    byMean,
    pictures: n,
    most: { pictureId: order[most.picture], by: most.by },
  });
  const sameSize = wish && planShow(free).choices.findLast((c) => c.papers.length <= main.length);
  return {
    exactSearch: plan.exact,
    papers,
    pictures,
    choices: plan.choices.map(({ papers: own, meanScore, meanLoss, hardest: { picture, score, loss }, atMost }) => ({
      paperIds: own.map(idOf),
      meanScore,
      meanLoss,
      hardest: { pictureId: order[picture], score, loss },
      atMost,
    })),
    fewest: plan.fewest,
    drops: drops(question, main).map(change),
    additions: additions(question, main).map(change),
    unlike: plan.unlike.map(([p, q]) => [idOf(p), idOf(q)] as const),
    ...(sameSize && { meanWithoutWish: sameSize.meanScore }),
    leftOut: leftOutOf(scored, papers),
  };
}

type Standings = ReadonlyMap<string, PaperStanding>;

/** Papers of the conditions that were scored, and how each looks in every place: as the first of its conditions does. */
function papersOf(
  { conditions }: Scored,
  standings: Standings,
): { papers: PlannedPaper[]; looks: (readonly Look[])[] } {
  const byPaper = new Map<string, { paper: PlannedPaper; looks: readonly Look[] }>();
  for (const { condition, looks } of conditions) {
    const { paperId, id, paper } = condition;
    const known = byPaper.get(paperId)?.paper;
    byPaper.set(paperId, {
      looks: byPaper.get(paperId)?.looks ?? looks,
      paper: {
        paperId,
        name: paper.name,
        standing: standings.get(paperId) ?? 'considered',
        conditionIds: [...(known?.conditionIds ?? []), id],
      },
    });
  }
  const names = paperNames(conditions.map((c) => c.condition));
  const all = [...byPaper.values()]
    .map(({ paper, looks }) => ({ looks, paper: { ...paper, name: names.get(paper.paperId)! } }))
    .sort((p, q) => p.paper.name.localeCompare(q.paper.name));
  return { papers: all.map((p) => p.paper), looks: all.map((p) => p.looks) };
}

/** What papers are called: their maker stands before the name where two have the same. */
function paperNames(conditions: readonly ConditionView[]): Map<string, string> {
  const papers = new Map(conditions.map((c) => [c.paperId, c.paper]));
  const count = (name: string) => [...papers.values()].filter((p) => p.name === name).length;
  return new Map([...papers].map(([id, p]) => [id, count(p.name) > 1 ? `${p.maker} ${p.name}` : p.name]));
}

function bestOf({ conditions }: Scored, of: readonly (number | undefined)[], ids: readonly string[]) {
  let best: { conditionId: string; score: number } | undefined;
  conditions.forEach(({ condition: { id } }, s) => {
    const score = of[s];
    if (ids.includes(id) && score !== undefined && score > (best?.score ?? -1)) best = { conditionId: id, score };
  });
  return best;
}

/** Papers of which no condition was scored, each with the reason of its first. */
function leftOutOf({ leftOut }: Scored, papers: readonly PlannedPaper[]): ShowPlanView['leftOut'] {
  const out = new Map<string, ShowPlanView['leftOut'][number]>();
  for (const { condition, why } of leftOut) {
    const { paperId, paper } = condition;
    if (out.has(paperId) || papers.some((p) => p.paperId === paperId)) continue;
    out.set(paperId, { paperId, name: `${paper.maker} ${paper.name}`, why });
  }
  return [...out.values()].sort((p, q) => p.name.localeCompare(q.name));
}
