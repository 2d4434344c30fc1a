import { dayOf, today } from '@rakuen/core/day';
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { validate } from 'class-validator';
import { plainToInstance } from 'class-transformer';
import { Like, Repository } from 'typeorm';
import { boxRefusal } from '@rakuen/core/layout/box-for';
import { taken } from '@rakuen/core/layout/taken';
import { pathOf } from '@rakuen/core/print/feed';
import { feedPaths } from '@rakuen/core/print/handling';
import { readCode } from '@rakuen/core/print/record-code';
import { SETTINGS } from '@rakuen/core/print/settings';
import {
  PrintSettings,
  type PrintBegin,
  type PrintDone,
  type PrintInput,
  type PrintLook,
  type PrintProposal,
  type PrintRecipe,
  type PrintSettle,
  type PrintView,
} from '@rakuen/contract/prints';
import type { MisprintInput, MisprintView } from '@rakuen/contract/runs';
import { SETTING_KEYS, type PrintState, type SettingKey } from '@rakuen/contract/vocabulary';
import type { BoxView } from '@rakuen/contract/stock';
import { refuseStale } from '../app/revision.ts';

import { faultsOf, notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { LearnedService } from '../ledger/learned.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { PrintFilesService, recipeRecord, type MadeWith } from '../print-files/print-files.service.ts';
import { MovesService } from '../clients/moves.service.ts';
import { OrdersService } from '../clients/orders.service.ts';
import { StockService } from '../stock/stock.service.ts';
import { NumberRow } from '../editions/editions.entity.ts';
import type { OrderLineRow } from '../clients/clients.entity.ts';
import { RecipeRow } from '../matches/matches.entity.ts';
import { PrintRow } from './prints.entity.ts';
import { fromCondition, fromRecipe, loose } from './carried-over.ts';
import { cautionsFor, fedOf } from './cautions.ts';
import { MisprintsService } from './misprints.service.ts';
import { PhotographsService } from './photographs.service.ts';
import { PrintProofs } from './print-proofs.service.ts';
import { PrintChecks } from './print-checks.service.ts';
import { PrintSince } from './print-since.service.ts';
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
    @InjectRepository(NumberRow) private readonly numbers: Repository<NumberRow>,
    @InjectRepository(RecipeRow) private readonly recipes: Repository<RecipeRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly misprints: MisprintsService,
    private readonly learned: LearnedService,
    private readonly photographs: PhotographsService,
    private readonly checks: PrintChecks,
    private readonly proofs: PrintProofs,
    private readonly printSince: PrintSince,
    private readonly printFiles: PrintFilesService,
    private readonly stock: StockService,
    private readonly orders: OrdersService,
    private readonly moves: MovesService,
  ) {}

  /** The newest of them; the ledger pages through all. */
  async list(state: PrintState = 'printed'): Promise<PrintView[]> {
    return this.views(await this.prints.find({ where: { state }, order: NEWEST, take: MOST_LISTED }));
  }

  async view(id: string): Promise<PrintView> {
    return (await this.views([await this.get(id)]))[0];
  }

  /** Prints whose record has a code, as it is typed from a label. */
  async byCode(typed: string): Promise<PrintView[]> {
    const read = readCode(typed);
    if (!read || 'misread' in read)
      throw new RakuenError(
        400,
        read ? `“${typed}” is not the code of a record: a sign of it is wrong.` : `“${typed}” is not a code.`,
        {
          field: 'code',
          remedy: 'Type the eight signs on the label and the check sign after them.',
        },
      );
    return this.views(await this.prints.find({ where: { id: Like(`${read.idBegins}%`) }, order: NEWEST }));
  }

  async views(rows: readonly PrintRow[]): Promise<PrintView[]> {
    const spoilt = await this.misprints.of(rows.map((r) => r.id));
    const unchecked = await this.checks.unchecked(rows);
    return rows.map((r) => printView(r, spoilt.get(r.id), unchecked.get(r.id)));
  }

  /** Settings to begin a print with, and where each was carried over from. */
  async propose(pictureId: string, conditionId: string): Promise<PrintProposal> {
    await this.pictures.get(pictureId);
    const condition = await this.conditions.get(conditionId);
    const madeToday = await this.printFiles.madeWith(pictureId, conditionId);
    const last = await this.last({ conditionId });
    const ofPicture = await this.last({ conditionId, pictureId });
    const settings = {
      ...fromCondition(condition, madeToday.profileName),
      ...(last && loose(last.settings)),
      liftStops: ofPicture?.settings.liftStops ?? 0,
    };
    const from = last ? `the print of ${dayOf(last.printedOn)}` : 'the usual start';
    const carriedFrom: Record<string, string> = Object.fromEntries(
      said(settings).map((key) => [key, 'fixed' in SETTINGS[key] ? 'the print condition' : from]),
    );
    Object.assign(settings, ofRecipe(madeToday, condition.printMode, carriedFrom));
    // What the hands found of the way in speaks where no print said otherwise.
    const path = pathOf(settings.feed);
    const view = await this.conditions.view(conditionId);
    const found = path && feedPaths(fedOf(view.observations)).get(path);
    for (const key of ['headHeight', 'suction'] as const) {
      if (!found || settings[key] || !found[key]) continue;
      settings[key] = found[key];
      carriedFrom[key] = `the bench, ${found.by}, ${dayOf(found.takenAt)}`;
    }
    return { settings, carriedFrom, widthMm: ofPicture?.widthMm, heightMm: ofPicture?.heightMm };
  }

  /** Begins a print: every setting is there; all of them wait to be looked at. */
  async begin(input: PrintBegin): Promise<PrintView> {
    const earlier = input.printId ? await this.get(input.printId) : undefined;
    const line = input.orderLineId ? await this.lineFor(input, earlier) : undefined;
    const pictureId = earlier?.pictureId ?? line?.pictureId ?? input.pictureId;
    const conditionId = earlier?.conditionId ?? input.conditionId ?? line?.conditionId;
    if (!pictureId || !conditionId)
      throw new RakuenError(400, 'A print begins from a picture and a sheet, or from an earlier print.', {
        field: 'pictureId, conditionId, printId',
        remedy: 'Name a picture and a print condition, or the print to repeat.',
      });
    const picture = await this.pictures.view(pictureId);
    const proposal = await this.propose(pictureId, conditionId);
    const settings = earlier?.settings ?? proposal.settings;
    const widthMm =
      line?.widthMm ??
      earlier?.widthMm ??
      proposal.widthMm ??
      sideOf(picture.commission.longSideMm, picture.widthPx, picture.heightPx) ??
      round((picture.widthPx / PIXELS_PER_INCH) * MM_PER_INCH);
    const madeToday = await this.printFiles.madeWith(pictureId, conditionId);
    const boxId = earlier && !line ? await this.boxAgain(earlier) : null;
    const from = earlier ? `the print of ${dayOf(earlier.printedOn)}` : '';
    const row = this.prints.create({
      id: randomUUID(),
      recordedAt: new Date().toISOString(),
      pictureId,
      conditionId,
      printedOn: today(),
      widthMm,
      heightMm:
        line?.heightMm ??
        earlier?.heightMm ??
        proposal.heightMm ??
        round((widthMm * picture.heightPx) / picture.widthPx),
      copies: line ? Math.max(1, line.copies - line.made) : earlier ? 1 : picture.commission.copies,
      orderLineId: line?.id ?? null,
      settings,
      carriedOver: said(settings),
      carriedFrom: earlier
        ? {
            ...Object.fromEntries(said(settings).map((key) => [key, from])),
            ...(boxId && { box: from }),
          }
        : proposal.carriedFrom,
      verdict: 'not yet judged',
      verdictReason: '',
      notes: '',
      state: 'waiting',
      boxId,
      fromPrintId: earlier?.id ?? null,
      minutes: null,
      recipe: earlier ? earlier.recipe : madeToday.recipe,
      profileHash: madeToday.profileHash,
      pictureHash: madeToday.pictureHash,
      // Whether the file of an earlier print is printed again is not known.
      fileHash: earlier ? '' : madeToday.fileHash,
      fileName: earlier ? '' : madeToday.fileName,
      passed: null,
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
    const standing = await this.checks.standing(condition.paperId, row.settings);
    const newest = await this.printFiles.newestRecipe(row.pictureId, row.conditionId);
    const newer =
      row.state === 'waiting' && newest && (row.recipe?.id !== newest.id || row.recipe.version !== newest.revision);
    return {
      print: await this.view(id),
      differs: await this.checks.differences({ print: row }),
      open: row.state === 'waiting' ? await this.checks.open(row) : [],
      newerRecipe: newer ? recipeRecord(newest) : undefined,
      standing: standing
        ? {
            mediaSetting: standing.mediaSetting,
            reason: standing.reason,
            by: standing.by,
            stampedAt: standing.stampedAt,
          }
        : undefined,
      since: await this.printSince.of(row),
      learned: await this.learned.about(row.pictureId, condition.paperId),
      cautions: cautionsFor(row, condition),
      order: row.orderLineId ? await this.orders.ofLine(row.orderLineId) : undefined,
      whereabouts: await this.moves.ofPrint(id),
      proof: await this.proofs.of(id),
      photographs: await this.photographs.of(id),
    };
  }

  /** Changes what waits. What is changed, or looked at and left, is carried over no longer. */
  async settle(id: string, change: PrintSettle, from?: number): Promise<PrintView> {
    const known = await this.waiting(id);
    refuseStale('This print', known, from, await this.view(id));
    const stray = Object.keys(change.settings ?? {}).find((key) => !(SETTING_KEYS as string[]).includes(key));
    if (stray) throw strayed(stray);
    const recipe = change.recipeId ? await this.recipeOf(known, change.recipeId) : undefined;
    const asked = recipe && fromRecipe(recipe.values, known.settings.printMode);
    const settings = plainToInstance(PrintSettings, { ...known.settings, ...asked, ...change.settings });
    const faults = faultsOf(await validate(settings, { whitelist: true, forbidUnknownValues: true }), 'settings');
    if (faults.length > 0)
      throw new RakuenError(400, faults.map((f) => f.message).join('; '), {
        field: faults.map((f) => f.field).join(', '),
        remedy: 'Correct what is named and send it again.',
      });
    const seen = new Set<string>([
      ...(change.looked ?? []),
      ...Object.keys(change.settings ?? {}),
      ...Object.keys(asked ?? {}),
    ]);
    const { widthMm, heightMm, copies, boxId, notes } = change;
    const taker = {
      conditionId: known.conditionId,
      widthMm: widthMm ?? known.widthMm,
      heightMm: heightMm ?? known.heightMm,
      copies: copies ?? known.copies,
      boxId: boxId ?? known.boxId,
    };
    if ([widthMm, heightMm, copies, boxId].some((v) => v !== undefined)) await this.boxServes(taker);
    await this.prints.save(
      this.prints.merge(known, {
        settings: { ...settings },
        carriedOver: known.carriedOver.filter((key) => !seen.has(key)),
        ...(widthMm !== undefined && { widthMm }),
        ...(heightMm !== undefined && { heightMm }),
        ...(copies !== undefined && { copies }),
        ...(boxId !== undefined && { boxId, carriedFrom: withoutBox(known.carriedFrom) }),
        ...(notes !== undefined && { notes }),
        // A file that was written by another recipe is not what is printed.
        ...(recipe && { recipe, fileHash: '', fileName: '' }),
      }),
    );
    return this.view(id);
  }

  /**
   * It came out of the printer: from now on it stands in the ledger. Checks that can spoil the sheet are done first, or
   * left out for a reason that is recorded.
   */
  async done(id: string, { printedOn, minutes, passReason }: PrintDone): Promise<PrintView> {
    const known = await this.waiting(id);
    const checks = await this.checks.open(known);
    if (checks.length > 0 && !passReason?.trim())
      throw new RakuenError(409, `Not checked yet: ${checks.join(', ')}.`, {
        field: 'passReason',
        remedy: 'Check them, or enter why the print was made without.',
      });
    await this.boxServes(known);
    const madeToday = await this.printFiles.madeWith(known.pictureId, known.conditionId);
    await this.prints.save(
      this.prints.merge(known, {
        state: 'printed',
        printedOn: printedOn ? dayOf(printedOn) : today(),
        recordedAt: new Date().toISOString(),
        passed: checks.length > 0 ? { checks, reason: passReason!.trim() } : null,
        pictureHash: madeToday.pictureHash,
        // The profile a file was written in stays its profile, whatever is in use by now.
        ...(known.fileHash === '' && { profileHash: madeToday.profileHash }),
        ...(minutes !== undefined && { minutes }),
      }),
    );
    await this.proofs.keep(known);
    return this.view(id);
  }

  async record(input: PrintInput): Promise<PrintView> {
    await this.pictures.get(input.pictureId);
    await this.conditions.get(input.conditionId);
    await this.boxServes(input);
    check(input);
    const row = this.prints.create({
      ...written(input),
      ...(await this.madeWithOf(input)),
      id: randomUUID(),
      recordedAt: new Date().toISOString(),
      state: 'printed',
      fromPrintId: null,
      orderLineId: null,
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
    if (boxMoves(known, input)) await this.boxServes(input, known);
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

  /**
   * A box holds the print's paper, its size and as many sheets as it takes.
   * @param known the print as it is recorded: what it took is in the box again
   * @throws RakuenError (409)
   */
  private async boxServes(print: BoxTaker, known?: PrintRow): Promise<void> {
    if (!print.boxId) return;
    const box = await this.stock.view(print.boxId);
    if (box.paperId !== (await this.conditions.get(print.conditionId)).paperId)
      throw new RakuenError(409, 'That box holds another paper.', {
        field: 'boxId',
        remedy: 'Choose a box of the paper this print is on.',
      });
    const back = known?.state === 'printed' && known.boxId === box.id ? takenBy(box, known) : 0;
    const refused = boxRefusal({ ...box, left: box.left + back }, print, print.copies);
    if (refused?.why === 'too small')
      throw new RakuenError(
        409,
        `A print of ${mm(print.widthMm)} × ${mm(print.heightMm)} mm does not fit on ${box.label}.`,
        {
          field: 'boxId',
          remedy: 'Choose a larger box, or make the print smaller.',
        },
      );
    if (refused)
      throw new RakuenError(
        409,
        `The box ${box.label} holds ${amount(box, box.left + back)}; this print takes ${amount(box, refused.takes)}.`,
        {
          field: 'boxId',
          remedy: 'Choose another box; or count it and correct it under Stock.',
        },
      );
  }

  /** The line of an open order a print is made for, and how many of its copies were printed. */
  private async lineFor(
    { orderLineId, pictureId }: PrintBegin,
    earlier: PrintRow | undefined,
  ): Promise<OrderLineRow & { made: number }> {
    const line = await this.orders.openLine(orderLineId!);
    const asked = earlier?.pictureId ?? pictureId;
    if (asked && asked !== line.pictureId)
      throw new RakuenError(409, 'Another picture was ordered.', {
        field: 'orderLineId',
        remedy: 'Choose the line of this picture, or begin the print without an order.',
      });
    const made = await this.prints.sum('copies', { orderLineId: line.id, state: 'printed' });
    return { ...line, made: made ?? 0 };
  }

  /** The box of an earlier print, where one more still comes out of it. */
  private async boxAgain(earlier: PrintRow): Promise<string | null> {
    if (!earlier.boxId) return null;
    return boxRefusal(await this.stock.view(earlier.boxId), earlier, 1) ? null : earlier.boxId;
  }

  /** A recipe of the print's picture on its sheet, as it is recorded. */
  private async recipeOf({ pictureId, conditionId }: PrintRow, id: string): Promise<PrintRecipe> {
    const row = await this.recipes.findOneBy({ id, pictureId, conditionId });
    if (!row) throw notFound('recipe of this picture on this sheet');
    return recipeRecord(row);
  }

  /**
   * What a print is recorded with that was not planned here. Of one of an earlier day nothing is known: the recipe and
   * the profile of today may be others than those it was made with.
   */
  private async madeWithOf(input: PrintInput): Promise<Omit<MadeWith, 'profileName'> & { passed: null }> {
    if (dayOf(input.printedOn) !== today())
      return { recipe: null, profileHash: '', pictureHash: '', fileHash: '', fileName: '', passed: null };
    const { profileName: _, ...rest } = await this.printFiles.madeWith(input.pictureId, input.conditionId);
    return { ...rest, passed: null };
  }

  /** Says in words what the database forbids: a numbered print of another size, or of fewer copies than numbers. */
  private async staysNumbered(known: PrintRow, next: PrintInput): Promise<void> {
    const given = await this.numbers.countBy({ printId: known.id });
    const left = next.copies < known.copies ? known.copies - given - (await this.moves.neverMoved(known.id)) : 0;
    if (next.copies < given + left)
      throw new RakuenError(409, `${left} ${left === 1 ? 'copy' : 'copies'} of this print left the studio.`, {
        field: 'copies',
        remedy: 'Remove the entry about where they are first, if it is wrong.',
      });
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
}

/** A box that was confirmed is no longer a proposal. */
const withoutBox = ({ box: _, ...rest }: Record<string, string>) => rest;

/** A print as far as it takes from a box. */
type BoxTaker = Pick<PrintInput, 'conditionId' | 'widthMm' | 'heightMm' | 'copies'> & { boxId?: string | null };

/** Whether a correction takes another amount from a box, or from another one. */
const boxMoves = (known: PrintRow, next: PrintInput): boolean =>
  (next.boxId ?? null) !== known.boxId ||
  next.copies > known.copies ||
  next.widthMm !== known.widthMm ||
  next.heightMm !== known.heightMm;

const takenBy = (box: BoxView, print: PrintRow): number => (taken(box, print) ?? 0) * print.copies;
const mm = (value: number) => String(Math.round(value));
const amount = ({ kind }: BoxView, of: number): string => {
  const left = Math.max(0, Math.round(of));
  return kind === 'roll' ? `${left} mm` : left === 1 ? '1 sheet' : `${left} sheets`;
};

/** Lift, sharpening and rendering of the recipe a print would be made by. */
function ofRecipe(
  { recipe, fileName }: MadeWith,
  printMode: string,
  carriedFrom: Record<string, string>,
): Partial<PrintSettings> {
  if (!recipe) return {};
  const asked = fromRecipe(recipe.values, printMode);
  const from = fileName ? `the print file ${fileName}` : recipe.name ? `the recipe “${recipe.name}”` : 'the recipe';
  for (const key of Object.keys(asked)) carriedFrom[key] = from;
  return asked;
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
