import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { fitsOn } from '@rakuen/core/layout/taken';
import { SESSION_CHECKS, SHEET_CHECKS, sheetChecks } from '@rakuen/core/print/checks';
import { FEED_PATHS, pathOf, type FeedKey } from '@rakuen/core/print/feed';
import { minutesEach } from '@rakuen/core/print/minutes';
import { dryingOf, LOOK_MINUTES } from '@rakuen/core/print/drying';
import { CHANGE_COSTS, type Waiting } from '@rakuen/core/print/run-timing';
import type { PrintDone } from '@rakuen/contract/prints';
import { type MisprintInput, type RunInput, type RunItemView, type RunNeed, type RunView } from '@rakuen/contract/runs';
import type { ConditionView } from '@rakuen/contract/conditions';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { CostsService } from '../costs/costs.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { feedPaths } from '@rakuen/core/print/handling';
import { cautionsFor, fedOf } from '../prints/cautions.ts';
import { openInWords, boxProposed, PrintChecks } from '../prints/print-checks.service.ts';
import { PrintsService } from '../prints/prints.service.ts';
import { timedPrint } from '../prints/timed-print.ts';
import { Workshop } from '../work/workshop.ts';
import { StockService } from '../stock/stock.service.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { RunItemRow, RunRow } from './runs.entity.ts';

/** Prints of a condition whose minutes are counted, the newest. */
const TIMED_PRINTS = 10;

/** Sessions at the printer: planned from what waits, ticked as it comes out. */
@Injectable()
export class RunsService {
  constructor(
    @InjectRepository(RunRow) private readonly runs: Repository<RunRow>,
    @InjectRepository(RunItemRow) private readonly items: Repository<RunItemRow>,
    @InjectRepository(PrintRow) private readonly rows: Repository<PrintRow>,
    private readonly prints: PrintsService,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly costs: CostsService,
    private readonly stock: StockService,
    private readonly checks: PrintChecks,
    private readonly workshop: Workshop,
  ) {}

  async open(): Promise<RunView[]> {
    const open = await this.runs.find({ where: { state: 'open' }, order: { createdAt: 'DESC' } });
    return Promise.all(open.map((r) => this.view(r.id)));
  }

  async plan({ printer, printIds, present = [] }: RunInput): Promise<RunView> {
    if (await this.runs.existsBy({ printer, state: 'open' }))
      throw new RakuenError(409, `A run at the ${printer} is under way.`, {
        field: 'printer',
        remedy: 'Finish it or close it first; what it did not print waits on.',
      });
    const waiting = (await this.rows.findBy({ state: 'waiting' })).filter(
      (p) => p.settings.printer === printer && (!printIds || printIds.includes(p.id)),
    );
    const stray = printIds?.find((id) => !waiting.some((p) => p.id === id));
    if (stray)
      throw new RakuenError(409, 'One of the prints does not wait for this printer.', {
        field: 'printIds',
        remedy: 'Load the list again: it may have been printed, or it is set for another printer.',
      });
    if (waiting.length === 0)
      throw new RakuenError(409, `Nothing waits for the ${printer}.`, {
        remedy: 'Begin a print first, from a match or an earlier print.',
      });
    const last = await this.lastAt(printer);
    const order = await Promise.all(waiting.map((p) => this.asWaiting(p)));
    const { steps, ...plan } = await this.workshop.run('planRun', {
      prints: order,
      present,
      begins: last ? { blackInk: last.settings.blackInk, feed: feedOf(last) } : undefined,
    });
    const row = this.runs.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      printer,
      state: 'open',
      present,
      plan,
      looked: [],
    });
    await this.runs.manager.transaction(async (manager) => {
      await manager.insert(RunRow, row);
      for (const [turn, { id: printId, ...step }] of steps.entries())
        await manager.insert(RunItemRow, {
          ...step,
          loads: [...step.loads],
          alone: false,
          id: randomUUID(),
          runId: row.id,
          printId,
          turn,
          state: 'waiting',
          looked: [],
        });
    });
    return this.view(row.id);
  }

  async looked(id: string, looked: string[]): Promise<RunView> {
    await this.get(id);
    await this.runs.update(id, { looked: known(looked, Object.keys(SESSION_CHECKS)) });
    return this.view(id);
  }

  async sheetLooked(id: string, printId: string, looked: string[]): Promise<RunView> {
    const item = await this.item(id, printId);
    await this.items.update(item.id, { looked: known(looked, Object.keys(SHEET_CHECKS)) });
    return this.view(id);
  }

  async done(id: string, printId: string, done: PrintDone): Promise<RunView> {
    const item = await this.item(id, printId);
    // The print first: were we to stop between, it is made and the run says so when it is looked at again.
    await this.prints.done(printId, done);
    await this.items.update(item.id, { state: 'printed' });
    return this.view(id);
  }

  async spoil(id: string, printId: string, input: MisprintInput): Promise<RunView> {
    await this.item(id, printId);
    await this.prints.spoil(printId, input);
    return this.view(id);
  }

  async close(id: string): Promise<RunView> {
    await this.get(id);
    await this.runs.manager.transaction(async (manager) => {
      await manager.update(RunItemRow, { runId: id, state: 'waiting' }, { state: 'left' });
      await manager.update(RunRow, id, { state: 'closed' });
    });
    return this.view(id);
  }

  async view(id: string): Promise<RunView> {
    const run = await this.get(id);
    const items = await this.items.find({ where: { runId: id }, order: { turn: 'ASC' } });
    const rows = await this.rows.findBy({ id: In(items.map((i) => i.printId)) });
    const views = new Map((await this.prints.views(rows)).map((v) => [v.id, v]));
    const conditions = new Map((await this.conditions.list()).map((c) => [c.id, c]));
    const shown: RunItemView[] = [];
    const byId = new Map(rows.map((r) => [r.id, r]));
    // Each sheet is compared with the one that goes in before it: the last that was printed, then the waiting ones.
    let before = await this.checks.beforeIn(id, { id: '' });
    for (const item of items) {
      const print = views.get(item.printId);
      const condition = print && conditions.get(print.conditionId);
      if (!print || !condition) continue;
      const row = byId.get(print.id)!;
      const waits = print.state === 'waiting' && item.state === 'waiting';
      const looks = sheetChecks(print.settings, before?.settings);
      const differs = waits ? await this.checks.differences({ print: row, before: before ?? undefined }) : [];
      const covered = looks.map((name) => SHEET_CHECKS[name].covers);
      if (waits) before = row;
      const { title } = await this.pictures.get(print.pictureId);
      shown.push({
        print,
        title,
        paper: condition.paper.name,
        startMin: item.startMin,
        endMin: item.endMin,
        loads: item.loads ?? [],
        drying: dryingOf(print.settings.dryingMinutes),
        state: print.state === 'printed' ? 'printed' : item.state,
        before: beforeOf(item, print.settings.blackInk, print.settings.feed),
        looks,
        looked: item.looked,
        differs: differs.filter((d) => !covered.includes(d.key)),
        open: waits
          ? openInWords({
              differs: differs.map((d) => d.key),
              carriedOver: print.carriedOver,
              boxProposed: boxProposed(row),
              session: { checked: run.looked, asked: looks, sheetChecked: item.looked },
            })
          : [],
        cautions: cautionsFor(print, condition),
      });
    }
    const { id: _id, present: _present, plan, ...rest } = run;
    const { unplaced = [], ...planned } = plan;
    return {
      id,
      ...rest,
      plan: planned,
      unplaced: await this.titled(unplaced),
      items: shown,
      needs: await this.needs(shown, conditions),
      inkMl: await this.inkOf(shown, conditions),
    };
  }

  private async get(id: string): Promise<RunRow> {
    const row = await this.runs.findOneBy({ id });
    if (!row) throw notFound('run');
    return row;
  }

  private async item(runId: string, printId: string): Promise<RunItemRow> {
    const row = await this.items.findOneBy({ runId, printId });
    if (!row) throw notFound('print of this run');
    return row;
  }

  private lastAt(printer: string): Promise<PrintRow | null> {
    return this.rows
      .createQueryBuilder('p')
      .where(`p.state = 'printed' AND json_extract(p.settings, '$.printer') = :printer`, { printer })
      .orderBy('p.printedOn', 'DESC')
      .addOrderBy('p.recordedAt', 'DESC')
      .getOne();
  }

  /** A print as the run is planned with it: its minutes as they were timed on this sheet before, else by feed and area. */
  private async asWaiting(p: PrintRow): Promise<Waiting> {
    const timed = await this.rows.find({
      where: { conditionId: p.conditionId, state: 'printed' },
      order: { printedOn: 'DESC' },
      take: TIMED_PRINTS,
    });
    const path = pathOf(feedOf(p));
    const { each } = minutesEach(timed.map(timedPrint), p.settings.feed, p.widthMm * p.heightMm * 1e-6);
    const found = path && feedPaths(fedOf((await this.conditions.view(p.conditionId)).observations)).get(path);
    return {
      id: p.id,
      blackInk: p.settings.blackInk,
      feed: feedOf(p),
      copies: p.copies,
      minutesEach: each,
      hand: handOf(path),
      stack: found?.stack ?? FEED_PATHS.auto.stack,
      dryMinutes: p.settings.dryingMinutes ?? LOOK_MINUTES,
    };
  }

  /** Prints by the titles of their pictures; one that was removed since is left out. */
  private async titled(ids: readonly string[]): Promise<RunView['unplaced']> {
    const rows = await this.rows.findBy({ id: In([...ids]) });
    return Promise.all(rows.map(async (r) => ({ printId: r.id, title: (await this.pictures.get(r.pictureId)).title })));
  }

  private async needs(
    items: readonly RunItemView[],
    conditions: ReadonlyMap<string, ConditionView>,
  ): Promise<RunNeed[]> {
    const boxes = await this.stock.list();
    const needs = new Map<string, RunNeed>();
    for (const { print, state } of items) {
      if (state !== 'waiting') continue;
      const { paper } = conditions.get(print.conditionId)!;
      const own = boxes.filter((b) => b.paperId === paper.id && b.kind === 'sheet' && fitsOn(b, print));
      const left = own.length > 0 ? own.reduce((sum, b) => sum + Math.max(0, b.left), 0) : undefined;
      const was = needs.get(paper.id);
      needs.set(paper.id, {
        paperId: paper.id,
        paper: paper.name,
        sheets: (was?.sheets ?? 0) + print.copies,
        ...(left !== undefined && { left }),
      });
    }
    return [...needs.values()];
  }

  private async inkOf(items: readonly RunItemView[], conditions: ReadonlyMap<string, ConditionView>): Promise<number> {
    const { solidMlPerM2 } = await this.costs.rates();
    const inks = await Promise.all(
      items
        .filter(({ state }) => state === 'waiting')
        .map(async ({ print: { pictureId, conditionId, widthMm, heightMm, copies } }) => {
          const condition = conditions.get(conditionId)!;
          const { ml } = await this.costs.ink(pictureId, condition, widthMm, heightMm, solidMlPerM2);
          return ml * copies;
        }),
    );
    return inks.reduce((a, b) => a + b, 0);
  }
}

/** A path nobody knows is stood by. */
const handOf = (path: FeedKey | undefined): Waiting['hand'] =>
  path === 'roll' ? 'feed change' : path === 'auto' ? 'each stack' : 'each copy';
const feedOf = (p: PrintRow) => p.settings.feed || 'auto feeder';
const known = (words: readonly string[], list: readonly string[]) => list.filter((w) => words.includes(w));

function beforeOf(item: RunItemRow, blackInk: string, feed: string): string[] {
  return [
    ...(item.blackInkChange
      ? [`Change to ${blackInk}: ${CHANGE_COSTS.blackInkMinutes} minutes and ${CHANGE_COSTS.blackInkMl} ml (practice).`]
      : []),
    ...(item.feedChange ? [`Change the feed to ${feed || 'auto feeder'}.`] : []),
    ...(item.alone ? ['Nobody is at the printer when it is fed by hand.'] : []),
  ];
}
