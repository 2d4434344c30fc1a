import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { validate } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { Not, Repository } from 'typeorm';
import { differences, type Earlier } from '@rakuen/core/print/differences';
import { pathOf } from '@rakuen/core/print/feed';
import { feedPaths } from '@rakuen/core/print/handling';
import { SETTINGS } from '@rakuen/core/print/settings';
import { since } from '@rakuen/core/print/since';
import {
  PrintSettings,
  type PrintBegin,
  type PrintDone,
  type PrintInput,
  type PrintLook,
  type PrintProposal,
  type PrintSettle,
  type PrintView,
} from '@rakuen/contract/prints';
import type { MisprintInput, MisprintView } from '@rakuen/contract/runs';
import { SETTING_KEYS, type PrintState, type SettingKey } from '@rakuen/contract/vocabulary';
import { refuseStale } from '../app/revision.ts';
import { faultsOf, notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { LearnedService } from '../ledger/learned.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { BoxRow } from '../stock/stock.entity.ts';
import { NumberRow } from '../editions/editions.entity.ts';
import { TrialRow } from '../trials/trials.entity.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { RecipeRow } from '../matches/matches.entity.ts';
import { PrintRow } from './prints.entity.ts';
import { ProfileRow } from '../profiles/profiles.entity.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { boxesApart } from './boxes-apart.ts';
import { fromCondition, fromRecipe, loose } from './carried-over.ts';
import { cautionsFor, fedOf } from './cautions.ts';
import { MisprintsService } from './misprints.service.ts';
import { PhotographsService } from './photographs.service.ts';
import { printView, said, written } from './print-view.ts';

/** Prints of a list: what a screen shows at once. */
const MOST_LISTED = 200;
const NEWEST = { printedOn: 'DESC', recordedAt: 'DESC' } as const;
const MM_PER_INCH = 25.4;
const PIXELS_PER_INCH = 300;

@Injectable()
export class PrintsService {
  constructor(
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    @InjectRepository(TrialRow) private readonly trials: Repository<TrialRow>,
    @InjectRepository(BoxRow) private readonly boxes: Repository<BoxRow>,
    @InjectRepository(NumberRow) private readonly numbers: Repository<NumberRow>,
    @InjectRepository(ProfileRow) private readonly profiles: Repository<ProfileRow>,
    @InjectRepository(RecipeRow) private readonly recipes: Repository<RecipeRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly misprints: MisprintsService,
    private readonly learned: LearnedService,
    private readonly photographs: PhotographsService,
    private readonly readings: ReadingsService,
  ) {}

  /** The newest of them; the ledger pages through all. */
  async list(state: PrintState = 'printed'): Promise<PrintView[]> {
    return this.views(await this.prints.find({ where: { state }, order: NEWEST, take: MOST_LISTED }));
  }

  async view(id: string): Promise<PrintView> {
    return (await this.views([await this.get(id)]))[0];
  }

  async views(rows: readonly PrintRow[]): Promise<PrintView[]> {
    const spoilt = await this.misprints.of(rows.map((r) => r.id));
    return rows.map((r) => printView(r, spoilt.get(r.id)));
  }

  /** Settings to begin a print with, and where each was carried over from. */
  async propose(pictureId: string, conditionId: string): Promise<PrintProposal> {
    await this.pictures.get(pictureId);
    const condition = await this.conditions.get(conditionId);
    const last = await this.last({ conditionId });
    const ofPicture = await this.last({ conditionId, pictureId });
    const settings = {
      ...fromCondition(condition),
      ...(last && loose(last.settings)),
      liftStops: ofPicture?.settings.liftStops ?? 0,
    };
    const from = last ? `the print of ${last.printedOn.slice(0, 10)}` : 'the usual start';
    const carriedFrom: Record<string, string> = Object.fromEntries(
      said(settings).map((key) => [key, 'fixed' in SETTINGS[key] ? 'the print condition' : from]),
    );
    Object.assign(settings, await this.ofRecipe(pictureId, conditionId, condition.printMode, ofPicture, carriedFrom));
    // What the hands found of the way in speaks where no print said otherwise.
    const path = pathOf(settings.feed);
    const view = await this.conditions.view(conditionId);
    const found = path && feedPaths(fedOf(view.observations)).get(path);
    for (const key of ['headHeight', 'suction'] as const) {
      if (!found || settings[key] || !found[key]) continue;
      settings[key] = found[key];
      carriedFrom[key] = `the bench, ${found.by}, ${found.takenAt.slice(0, 10)}`;
    }
    return { settings, carriedFrom, widthMm: ofPicture?.widthMm, heightMm: ofPicture?.heightMm };
  }

  /** Lift, sharpening and rendering of the newest recipe of a picture for a sheet, where it is newer than its last print there. */
  private async ofRecipe(
    pictureId: string,
    conditionId: string,
    printMode: string,
    last: PrintRow | null,
    carriedFrom: Record<string, string>,
  ): Promise<Partial<PrintSettings>> {
    const recipe = await this.recipes.findOne({ where: { pictureId, conditionId }, order: { changedAt: 'DESC' } });
    if (!recipe || (last && last.recordedAt >= recipe.changedAt)) return {};
    const asked = fromRecipe(recipe.values, printMode);
    for (const key of Object.keys(asked)) carriedFrom[key] = recipe.name ? `the recipe “${recipe.name}”` : 'the recipe';
    return asked;
  }

  /** Begins a print: every setting is there; all of them wait to be looked at. */
  async begin(input: PrintBegin): Promise<PrintView> {
    const earlier = input.printId ? await this.get(input.printId) : undefined;
    const pictureId = earlier?.pictureId ?? input.pictureId;
    const conditionId = earlier?.conditionId ?? input.conditionId;
    if (!pictureId || !conditionId)
      throw new RakuenError(400, 'A print begins from a picture and a sheet, or from an earlier print.', {
        field: 'pictureId, conditionId, printId',
        remedy: 'Name a picture and a print condition, or the print to repeat.',
      });
    const picture = await this.pictures.view(pictureId);
    const proposal = await this.propose(pictureId, conditionId);
    const settings = earlier?.settings ?? proposal.settings;
    const widthMm =
      earlier?.widthMm ??
      proposal.widthMm ??
      sideOf(picture.commission.longSideMm, picture.widthPx, picture.heightPx) ??
      round((picture.widthPx / PIXELS_PER_INCH) * MM_PER_INCH);
    const row = this.prints.create({
      id: randomUUID(),
      recordedAt: new Date().toISOString(),
      pictureId,
      conditionId,
      printedOn: new Date().toISOString().slice(0, 10),
      widthMm,
      heightMm: earlier?.heightMm ?? proposal.heightMm ?? round((widthMm * picture.heightPx) / picture.widthPx),
      copies: earlier ? 1 : picture.commission.copies,
      settings,
      carriedOver: said(settings),
      carriedFrom: earlier
        ? Object.fromEntries(said(settings).map((key) => [key, `the print of ${earlier.printedOn.slice(0, 10)}`]))
        : proposal.carriedFrom,
      verdict: 'not yet judged',
      verdictReason: '',
      notes: '',
      state: 'waiting',
      boxId: null,
      fromPrintId: earlier?.id ?? null,
      minutes: null,
      judgedIn: '',
      decidedBy: '',
      decidedWhy: '',
    });
    await this.prints.insert(row);
    return this.view(row.id);
  }

  /** A print held against what went before: what differs, what changed since, what the ledger has learned. */
  async look(id: string): Promise<PrintLook> {
    const row = await this.get(id);
    const condition = await this.conditions.view(row.conditionId);
    const standing = await this.standing(condition.paperId, row.settings);
    return {
      print: await this.view(id),
      differs: differences(row.settings, {
        atPrinter: await this.earlier(await this.lastAt(row.settings.printer, id)),
        ofPicture: await this.earlier(
          await this.last({ pictureId: row.pictureId, conditionId: row.conditionId, id: Not(id) }),
        ),
        standing: standing ?? undefined,
      }),
      standing: standing
        ? {
            mediaSetting: standing.mediaSetting,
            reason: standing.reason,
            by: standing.by,
            stampedAt: standing.stampedAt,
          }
        : undefined,
      since: await this.since(row),
      learned: await this.learned.about(row.pictureId, condition.paperId),
      cautions: cautionsFor(row, condition),
      photographs: await this.photographs.of(id),
    };
  }

  /** Changes what waits. What is changed, or looked at and left, is carried over no longer. */
  async settle(id: string, change: PrintSettle, from?: number): Promise<PrintView> {
    const known = await this.waiting(id);
    refuseStale('This print', known, from, await this.view(id));
    const stray = Object.keys(change.settings ?? {}).find((key) => !(SETTING_KEYS as string[]).includes(key));
    if (stray) throw strayed(stray);
    const settings = plainToInstance(PrintSettings, { ...known.settings, ...change.settings });
    const faults = faultsOf(await validate(settings, { whitelist: true, forbidUnknownValues: true }), 'settings');
    if (faults.length > 0)
      throw new RakuenError(400, faults.map((f) => f.message).join('; '), {
        field: faults.map((f) => f.field).join(', '),
        remedy: 'Correct what is named and send it again.',
      });
    const seen = new Set<string>([...(change.looked ?? []), ...Object.keys(change.settings ?? {})]);
    const { widthMm, heightMm, copies, boxId, notes } = change;
    await this.ofItsPaper(known.conditionId, boxId);
    await this.prints.save(
      this.prints.merge(known, {
        settings: { ...settings },
        carriedOver: known.carriedOver.filter((key) => !seen.has(key)),
        ...(widthMm !== undefined && { widthMm }),
        ...(heightMm !== undefined && { heightMm }),
        ...(copies !== undefined && { copies }),
        ...(boxId !== undefined && { boxId }),
        ...(notes !== undefined && { notes }),
      }),
    );
    return this.view(id);
  }

  /** It came out of the printer: from now on it stands in the ledger. */
  async done(id: string, { printedOn, minutes }: PrintDone): Promise<PrintView> {
    await this.waiting(id);
    await this.prints.update(id, {
      state: 'printed',
      printedOn: printedOn ?? new Date().toISOString().slice(0, 10),
      recordedAt: new Date().toISOString(),
      ...(minutes !== undefined && { minutes }),
    });
    return this.view(id);
  }

  async record(input: PrintInput): Promise<PrintView> {
    await this.pictures.get(input.pictureId);
    await this.conditions.get(input.conditionId);
    await this.ofItsPaper(input.conditionId, input.boxId);
    check(input);
    const row = this.prints.create({
      ...written(input),
      id: randomUUID(),
      recordedAt: new Date().toISOString(),
      state: 'printed',
      fromPrintId: null,
      carriedFrom: {},
      minutes: null,
    });
    await this.prints.insert(row);
    if (input.misprints)
      await this.misprints.book(row, { cause: input.misprintCause!, sheets: input.misprints }, input.printedOn);
    return this.view(row.id);
  }

  /**
   * Corrects a record: a verdict is often given a day later.
   * @param from revision the change was made from; whatever it is now where absent
   */
  async replace(id: string, input: PrintInput, from?: number): Promise<PrintView> {
    const known = await this.get(id);
    const stands = await this.view(id);
    refuseStale('This print', known, from, stands);
    if (input.pictureId !== known.pictureId || input.conditionId !== known.conditionId) {
      throw new RakuenError(409, 'A print stays with its picture and its print condition.', {
        field: 'pictureId, conditionId',
        remedy: 'Record another print instead.',
      });
    }
    if (input.misprints !== undefined && input.misprints < stands.misprints)
      throw new RakuenError(409, 'Spoilt sheets are booked one by one, and taken back one by one.', {
        field: 'misprints',
        remedy: 'Take back the misprint itself.',
      });
    await this.ofItsPaper(input.conditionId, input.boxId);
    await this.staysNumbered(known, input);
    check(input);
    await this.prints.save(this.prints.merge(known, written(input)));
    const more = (input.misprints ?? 0) - stands.misprints;
    if (more > 0) await this.misprints.book(known, { cause: input.misprintCause!, sheets: more });
    return this.view(id);
  }

  /** Minutes a print took at the printer. */
  async timed(id: string, minutes: number): Promise<void> {
    await this.prints.update(id, { minutes });
  }

  /** Books spoilt sheets there and then. */
  async spoil(id: string, input: MisprintInput): Promise<MisprintView> {
    return this.misprints.book(await this.get(id), input);
  }

  /** Words each setting had on a printer, the newest first: what is known is chosen, not typed again. */
  async words(printer: string): Promise<Partial<Record<SettingKey, string[]>>> {
    const keys = SETTING_KEYS.filter((key) => SETTINGS[key].entry === 'word');
    const out: Partial<Record<SettingKey, string[]>> = {};
    const settings = await this.prints.find({
      select: { settings: true, printedOn: true, recordedAt: true, id: true },
      order: NEWEST,
      take: 1000,
    });
    const conditions = (await this.conditions.list()).filter((c) => c.printer === printer);
    for (const key of keys) {
      const own = settings.filter((p) => key === 'printer' || p.settings.printer === printer);
      const words = [
        ...own.map((p) => p.settings[key]),
        ...conditions.map((c) => (key in c ? c[key as keyof typeof c] : undefined)),
      ];
      out[key] = [...new Set(words.filter((w): w is string => typeof w === 'string' && w !== ''))].slice(0, 60);
    }
    return out;
  }

  async get(id: string): Promise<PrintRow> {
    const row = await this.prints.findOneBy({ id });
    if (!row) throw notFound('print');
    return row;
  }

  async remove(id: string): Promise<void> {
    if ((await this.prints.delete(id)).affected !== 1) throw notFound('print');
  }

  private async waiting(id: string): Promise<PrintRow> {
    const row = await this.get(id);
    if (row.state !== 'waiting')
      throw new RakuenError(409, 'This print was made already.', {
        remedy: 'Judge or correct it; or begin another one from it.',
      });
    return row;
  }

  /** Says in words what the database forbids: a sheet from a box of another paper. */
  private async ofItsPaper(conditionId: string, boxId: string | undefined): Promise<void> {
    if (!boxId) return;
    const box = await this.boxes.findOneBy({ id: boxId });
    if (!box) throw notFound('box');
    if (box.paperId !== (await this.conditions.get(conditionId)).paperId)
      throw new RakuenError(409, 'That box holds another paper.', {
        field: 'boxId',
        remedy: 'Choose a box of the paper this print is on.',
      });
  }

  /** Says in words what the database forbids: a numbered print of another size, or of fewer copies than numbers. */
  private async staysNumbered(known: PrintRow, next: PrintInput): Promise<void> {
    const given = await this.numbers.countBy({ printId: known.id });
    if (given === 0) return;
    if (next.widthMm !== known.widthMm || next.heightMm !== known.heightMm || next.copies < given)
      throw new RakuenError(409, 'This print bears a number: its size stays, and no copy that bears one goes.', {
        field: next.copies < given ? 'copies' : 'widthMm, heightMm',
        remedy: 'Say what became of the numbered print, and make another.',
      });
  }

  private last(where: object): Promise<PrintRow | null> {
    return this.prints.findOne({ where: { ...where, state: 'printed' }, order: NEWEST });
  }

  /** The last sheet through a printer. */
  private lastAt(printer: string, except: string): Promise<PrintRow | null> {
    return this.prints
      .createQueryBuilder('p')
      .where(`p.state = 'printed' AND p.id <> :except AND json_extract(p.settings, '$.printer') = :printer`, {
        except,
        printer,
      })
      .orderBy('p.printedOn', 'DESC')
      .addOrderBy('p.recordedAt', 'DESC')
      .getOne();
  }

  private async earlier(row: PrintRow | null): Promise<Earlier | undefined> {
    if (!row) return undefined;
    const [picture, condition] = [await this.pictures.get(row.pictureId), await this.conditions.view(row.conditionId)];
    return { printedOn: row.printedOn, settings: row.settings, on: `${picture.title} on ${condition.paper.name}` };
  }

  /** The media setting that was stamped for a paper on a printer, in the mode of the print: another mode’s says nothing about it. */
  private standing(paperId: string, { printer, printMode }: PrintSettings): Promise<TrialRow | null> {
    return this.trials
      .createQueryBuilder('t')
      .innerJoin(ConditionRow, 'c', 'c.id = t.conditionId')
      .where('t.paperId = :paperId AND t.printer = :printer AND c.printMode = :printMode', {
        paperId,
        printer,
        printMode,
      })
      .orderBy('t.stampedAt', 'DESC')
      .getOne();
  }

  private async since(row: PrintRow) {
    const earlier = row.fromPrintId ? await this.prints.findOneBy({ id: row.fromPrintId }) : null;
    if (!earlier) return [];
    const condition = await this.conditions.view(row.conditionId);
    const day = earlier.printedOn.slice(0, 10);
    const profile = condition.profileId ? await this.profiles.findOneBy({ id: condition.profileId }) : null;
    const { entries } = await this.readings.history(row.conditionId);
    const measured = entries.filter((e) => e.source === 'measured');
    // By the box its sheet came from where that is known and was read, else by the day.
    const box = earlier.boxId ? await this.boxes.findOneBy({ id: earlier.boxId }) : null;
    const ofBox = box?.batch ? measured.filter((e) => e.batch === box.batch).at(-1) : undefined;
    const madeOn = ofBox ?? measured.filter((e) => e.at.slice(0, 10) <= day).at(-1) ?? measured[0];
    // Of each later box the newest reading speaks.
    const later = new Map(
      measured.filter((e) => e.batch && e.batch !== madeOn.batch && e.at.slice(0, 10) > day).map((e) => [e.batch, e]),
    );
    return since({
      printedOn: earlier.printedOn,
      then: earlier.settings,
      now: fromCondition(await this.conditions.get(row.conditionId)),
      laterBoxes: [...later.values()].map((e) => ({ batch: e.batch, readOn: e.at, apart: boxesApart(madeOn, e) })),
      profileMadeOn: profile?.source === 'made' ? profile.createdAt : undefined,
    });
  }
}

const round = (mm: number) => Math.round(mm * 10) / 10;
/** Width of a picture whose longer side is given. */
const sideOf = (longMm: number | undefined, w: number, h: number): number | undefined =>
  longMm === undefined ? undefined : round(w >= h ? longMm : (longMm * w) / h);

const strayed = (key: string) =>
  new RakuenError(400, `“${key}” is not a setting.`, { field: 'carriedOver', remedy: 'Name settings of the print.' });

function check(input: PrintInput): void {
  if (input.misprints && !input.misprintCause?.trim()) {
    throw new RakuenError(400, 'A misprint wants its cause.', {
      field: 'misprintCause',
      remedy: 'Say in a word what spoilt the sheet, so that it spoils no other.',
    });
  }
  const stray = input.carriedOver.find((key) => !(SETTING_KEYS as readonly string[]).includes(key));
  if (stray) throw strayed(stray);
}
