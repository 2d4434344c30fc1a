import { Injectable } from '@nestjs/common';
import { USUAL_COMMISSION, type Commission } from '@rakuen/core/match/commission';
import type { ReadySheet } from '@rakuen/core/match/ready-sheet';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { SuitLine, SuitsEnd, SuitsRequest, UnsuitLine } from '@rakuen/contract/matches';
import { RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { unpackReady } from '../work/lay-tasks.ts';
import { sharedSheet, type AskedPicture, type ColoursOfPicture } from '../work/suit-task.ts';
import { AT_ONCE, Workshop } from '../work/workshop.ts';
import { PictureColours, type KeptPicture } from './picture-colours.service.ts';
import { SheetsAtHand, type BesideReadings } from './sheets-at-hand.service.ts';

/** Pictures of a page: the server answers others between two of them. */
const PAGE = 150;
/** So many of the best are computed again from all their colours: what a screen shows at first. */
const EXACT = 40;
/** And so many of them at once, for their colours are many. */
const EXACT_PAGE = 5;

/** The sheet as it is seen in one place, or why that is not known. */
type Seen = { readonly at: number } | { readonly why: string };

/** Which pictures suit a sheet: the match, asked the other way round. */
@Injectable()
export class PicturesForSheet {
  constructor(
    private readonly colours: PictureColours,
    private readonly conditions: ConditionsService,
    private readonly sheets: SheetsAtHand,
    private readonly workshop: Workshop,
  ) {}

  /** Lines as they are computed, some at a time, in no order. @throws RakuenError (404) for no such condition, (409) where nothing was measured of it */
  async *pages({
    conditionId,
    pictureIds,
    weights,
  }: SuitsRequest): AsyncGenerator<readonly (SuitLine | UnsuitLine | SuitsEnd)[]> {
    const condition = await this.conditions.view(conditionId);
    if (!condition.facts?.readingId)
      throw new RakuenError(409, 'Nothing was measured of this print condition yet.', {
        remedy: 'Import the readings of its chart first.',
      });
    const sheets: { qualities: SheetQualities; ready: ReadySheet }[] = [];
    // Asked for by name, it is judged though another media setting was chosen since.
    const beside = { ...(await this.sheets.beside()), superseded: new Map<string, string>() };
    const seen = new Map<string, Promise<Seen>>();
    const seenFor = ({ commission }: KeptPicture): Promise<Seen> => {
      const { light, glass } = commission === null ? USUAL_COMMISSION : (JSON.parse(commission) as Commission);
      const key = `${light} ${glass}`;
      const known = seen.get(key) ?? this.seen(condition, { light, glass }, beside, sheets);
      seen.set(key, known);
      return known;
    };
    const best: { id: string; score: number }[] = [];
    const judge = async (rows: readonly KeptPicture[], colours: Map<string, ColoursOfPicture>) => {
      const out: (SuitLine | UnsuitLine)[] = [];
      const asked: AskedPicture[] = [];
      for (const row of rows) {
        const there = await seenFor(row);
        if ('why' in there) out.push({ pictureId: row.id, refused: there.why });
        else asked.push({ ...row, sheet: there.at, ...colours.get(row.id) });
      }
      const lines =
        asked.length > 0 ? await this.workshop.run('suitPictures', { pictures: asked, sheets, weights }) : [];
      return [...out, ...lines];
    };

    let pictures = 0;
    const pending: Promise<(SuitLine | UnsuitLine)[]>[] = [];
    for await (const page of this.colours.pages(PAGE, pictureIds)) {
      pictures += page.length;
      pending.push(this.colours.gists(page.map((v) => v.id)).then((gists) => judge(page, gists)));
      // A page in each thread, and one that waits.
      if (pending.length <= AT_ONCE) continue;
      yield keepBest(await pending.shift()!, best);
    }
    for (const page of pending) yield keepBest(await page, best);

    best.sort((p, q) => q.score - p.score);
    const first = best.slice(0, EXACT).map((b) => b.id);
    for (let i = 0; i < first.length; i += EXACT_PAGE * AT_ONCE) {
      const parts = Array.from({ length: AT_ONCE }, (_, k) =>
        first.slice(i + k * EXACT_PAGE, i + (k + 1) * EXACT_PAGE),
      ).filter((ids) => ids.length > 0);
      const done = await Promise.all(
        parts.map(async (ids) => judge(await this.colours.rows(ids), await this.colours.all(ids))),
      );
      yield done.flat();
    }
    yield [{ pictures }];
  }

  private async seen(
    condition: ConditionView,
    where: { light: string; glass: string },
    beside: BesideReadings,
    sheets: { qualities: SheetQualities; ready: ReadySheet }[],
  ): Promise<Seen> {
    const found = await this.sheets.of(condition, where, beside);
    if ('why' in found) return found;
    return { at: sheets.push({ qualities: found.qualities, ready: sharedSheet(unpackReady(found.ready)) }) - 1 };
  }
}

type Line = SuitLine | UnsuitLine;
function keepBest(page: readonly Line[], best: { id: string; score: number }[]): readonly Line[] {
  for (const line of page) if ('score' in line) best.push({ id: line.pictureId, score: line.score });
  return page;
}
