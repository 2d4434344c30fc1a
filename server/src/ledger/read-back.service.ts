import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { isISO8601, isUUID, validateSync } from 'class-validator';
import { DataSource, type EntityManager } from 'typeorm';
import { EntryMark, LedgerSheet, type LedgerEntry, type LedgerReadView } from '@rakuen/contract/ledger';
import { DecisionInput } from '@rakuen/contract/matches';
import { NoteInput } from '@rakuen/contract/notes';
import { PrintInput, PrintRecipe } from '@rakuen/contract/prints';
import { MisprintInput } from '@rakuen/contract/runs';
import { SETTING_KEYS } from '@rakuen/contract/vocabulary';
import { faultsOf, RakuenError } from '../app/errors.ts';
import { tooMuchJson } from '../app/json.ts';
import { MisprintsService } from '../prints/misprints.service.ts';
import { DecisionRow } from '../matches/matches.entity.ts';
import { MisprintRow, PrintRow } from '../prints/prints.entity.ts';
import { Left, NamedThings } from './named-things.ts';
import { NoteRow } from '../notes/notes.entity.ts';

/** Values a ledger of fifty thousand entries holds. */
const MOST_VALUES = 4_000_000;
/** Length of a file's name and of a reason that are read back. */
const MAX_NAME = 300;
/** What was left out is told so far. */
const MOST_TOLD = 200;

type Details = Readonly<Record<string, unknown>>;
interface Reader {
  readonly table: string;
  enter(manager: EntityManager, entry: LedgerEntry): Promise<void>;
}

/**
 * Reads a ledger that was taken away as JSON back in: what is here already stays as it is, what speaks of a picture or
 * a sheet that is not here is left out, and named.
 */
@Injectable()
export class ReadBackService {
  private readonly readers: Partial<Record<string, Reader>> = {
    decision: { table: 'decisions', enter: enterDecision },
    print: { table: 'prints', enter: enterPrint },
    misprint: { table: 'misprints', enter: (manager, entry) => this.enterMisprint(manager, entry) },
    note: { table: 'notes', enter: enterNote },
  };

  constructor(
    private readonly database: DataSource,
    private readonly misprints: MisprintsService,
  ) {}

  async read(path: string): Promise<LedgerReadView> {
    const entries = entriesIn(await readFile(path));
    const left: { entry: number; why: string }[] = [];
    let [entered, known] = [0, 0];
    // Prints first: a misprint finds its own, though it came before it.
    const isPrint = ({ entry }: { entry: LedgerEntry }) => Number(entry?.kind === 'print');
    const order = entries.map((entry, i) => ({ entry, i })).sort((p, q) => isPrint(q) - isPrint(p));
    let [papers, conditions] = [0, 0];
    await this.database.transaction(async (manager) => {
      const named = new NamedThings(manager, (sheet) => checked(LedgerSheet, sheet));
      for (const { entry, i } of order)
        try {
          if (await this.enter(manager, entry, named)) entered++;
          else known++;
        } catch (error) {
          if (!(error instanceof Left)) throw error;
          left.push({ entry: i + 1, why: error.message });
        }
      [papers, conditions] = [named.papers, named.conditions];
    });
    left.sort((p, q) => p.entry - q.entry);
    return { entered, known, papers, conditions, leftOut: left.length, left: left.slice(0, MOST_TOLD) };
  }

  /** @returns false where it is here already */
  private async enter(manager: EntityManager, entry: LedgerEntry, named: NamedThings): Promise<boolean> {
    const kind: unknown = entry?.kind;
    const reader = typeof kind === 'string' && Object.hasOwn(this.readers, kind) ? this.readers[kind] : undefined;
    if (!reader)
      throw new Left(
        entry?.kind === 'number' || entry?.kind === 'trial'
          ? `A ${entry.kind === 'number' ? 'number of an edition' : 'media-setting trial'} comes back with the whole studio alone.`
          : 'It is no entry of a ledger.',
      );
    checked(EntryMark, { id: entry.id, at: entry.at });
    if (!isDetails(entry.details)) throw new Left('It lacks its details.');
    const has = async (sql: string, values: unknown[]) => (await manager.query<unknown[]>(sql, values)).length > 0;
    if (await has(`SELECT 1 FROM ${reader.table} WHERE id = ?`, [entry.id])) return false;
    if (await has(`SELECT 1 FROM events WHERE id = ? AND deed = 'removed'`, [entry.id]))
      throw new Left('It was removed here: it lies in the bin.');
    for (const id of [entry.pictureId, entry.conditionId, entry.paperId])
      if (id !== undefined && !isUUID(id)) throw new Left('It names a thing by what is no id.');
    const found = await named.of(entry);
    await reader.enter(manager, found).catch((error: Error & { code?: string }) => {
      throw error.code?.startsWith('SQLITE_CONSTRAINT') ? new Left('It does not agree with what is here.') : error;
    });
    return true;
  }

  private async enterMisprint(manager: EntityManager, entry: LedgerEntry): Promise<void> {
    const { printId, sheets, minutes, lost, currency, feed } = entry.details as Details;
    const input = checked(MisprintInput, { cause: entry.outcome, sheets, minutes, note: entry.reason || undefined });
    if (!entry.pictureId || !entry.conditionId)
      throw new Left('It does not say which picture was spoilt on which sheet.');
    const print = isUUID(printId) ? await manager.findOneBy(PrintRow, { id: printId as string }) : null;
    await manager.insert(MisprintRow, {
      id: entry.id,
      at: entry.at,
      printId: print?.id ?? null,
      pictureId: entry.pictureId,
      conditionId: entry.conditionId,
      causeId: (await this.misprints.causeOf(input.cause, '')).id,
      sheets: input.sheets,
      minutes: input.minutes ?? 0,
      ...price(lost, currency),
      boxId: null,
      feed: typeof feed === 'string' ? feed.slice(0, 60) : '',
      note: input.note ?? '',
    });
  }
}

async function enterDecision(manager: EntityManager, entry: LedgerEntry): Promise<void> {
  const d = entry.details as Details;
  const input = checked(DecisionInput, {
    ...ofBoth(entry),
    stamp: entry.outcome,
    reason: entry.reason,
    decidedBy: d.decidedBy,
  });
  await manager.insert(DecisionRow, {
    ...input,
    id: entry.id,
    decidedAt: entry.at,
    decidedBy: input.decidedBy ?? '',
    place: within('place', Number.isInteger(d.place) ? d.place : null, 1),
    costDeltaE: within('cost, ΔE00,', d.costDeltaE, 0),
    outsideShare: within('share outside the solid', d.outsideShare, 0, 1),
    score: within('score', d.score, 0, 10),
    lostShare: within('share out of reach', d.lostShare, 0, 1),
  });
}

async function enterPrint(manager: EntityManager, entry: LedgerEntry): Promise<void> {
  const d = entry.details as Details;
  const input = checked(PrintInput, {
    ...ofBoth(entry),
    printedOn: entry.at,
    widthMm: d.widthMm,
    heightMm: d.heightMm,
    copies: d.copies,
    // What says nothing is left out of a ledger: an empty word again.
    settings: {
      profile: '',
      sharpening: '',
      feed: '',
      ...Object.fromEntries(SETTING_KEYS.flatMap((key) => (d[key] === undefined ? [] : [[key, yesNo(d[key])]]))),
    },
    carriedOver: typeof d.carriedOver === 'string' ? d.carriedOver.split(' ').filter(isSetting) : [],
    verdict: entry.outcome,
    verdictReason: entry.reason,
    notes: d.notes,
    judgedIn: d.judgedIn,
    decidedWhy: d.decidedWhy,
    ...(d.decidedBy !== undefined && { decidedBy: d.decidedBy }),
  });
  const { misprints: _, misprintCause: __, ...rest } = input;
  await manager.insert(PrintRow, {
    ...rest,
    id: entry.id,
    recordedAt: typeof d.recordedAt === 'string' && isISO8601(d.recordedAt) ? d.recordedAt : entry.at,
    state: 'printed',
    notes: input.notes ?? '',
    boxId: null,
    fromPrintId: null,
    carriedFrom: {},
    recipe: recipeOf(d),
    profileHash: hash(d.profileHash),
    pictureHash: hash(d.pictureHash),
    fileHash: hash(d.printFileHash),
    fileName: typeof d.printFile === 'string' ? d.printFile.slice(0, MAX_NAME) : '',
    passed:
      typeof d.notChecked === 'string' && typeof d.notCheckedWhy === 'string'
        ? { checks: d.notChecked.slice(0, MAX_NAME).split(', '), reason: d.notCheckedWhy.slice(0, MAX_NAME) }
        : null,
    minutes: within('minutes', d.minutes, 0, 100_000),
    judgedIn: input.judgedIn ?? '',
    decidedBy: input.decidedBy ?? '',
    decidedWhy: input.decidedWhy ?? '',
  });
}

/** The recipe a print was made by; null where it was not recorded. @throws Left where it is none */
function recipeOf(d: Details): PrintRecipe | null {
  if (typeof d.recipeValues !== 'string') return null;
  let values: unknown;
  try {
    values = JSON.parse(d.recipeValues);
  } catch {
    throw new Left('Its recipe can’t be read.');
  }
  return checked(PrintRecipe, {
    id: d.recipeId,
    name: d.recipeName ?? '',
    version: d.recipeVersion,
    changedAt: d.recipeChangedAt,
    values,
  });
}

/** A SHA-256 as 64 hexadecimal digits; '' where it is none. */
const hash = (value: unknown): string => (typeof value === 'string' && /^[0-9a-f]{64}$/.test(value) ? value : '');

async function enterNote(manager: EntityManager, entry: LedgerEntry): Promise<void> {
  const { by, finding } = entry.details as Details;
  const { text, ...input } = checked(NoteInput, {
    text: entry.reason,
    by,
    ...ofBoth(entry),
    paperId: entry.paperId,
    finding: finding ?? undefined,
  });
  await manager.insert(NoteRow, {
    id: entry.id,
    at: entry.at,
    text,
    by: input.by ?? '',
    pictureId: input.pictureId ?? null,
    // Of its own only where no print condition tells it.
    paperId: input.conditionId ? null : (input.paperId ?? null),
    conditionId: input.conditionId ?? null,
    // Of a picture on a print condition alone.
    finding: input.finding && input.pictureId && input.conditionId ? { ...input.finding } : null,
  });
}

/** @throws RakuenError (422) */
function entriesIn(bytes: Buffer): LedgerEntry[] {
  const fault = (why: string) =>
    new RakuenError(422, `This is no ledger: ${why}`, { remedy: 'Choose a file that Ledger, JSON, has written.' });
  const much = tooMuchJson(bytes, MOST_VALUES);
  if (much) throw fault(much);
  let read: unknown;
  try {
    read = JSON.parse(bytes.toString('utf8'));
  } catch (error) {
    throw fault(`${(error as Error).message}.`);
  }
  const { entries } = (read ?? {}) as { entries?: unknown };
  if (!Array.isArray(entries)) throw fault('it has no list of entries.');
  return entries as LedgerEntry[];
}

const isDetails = (value: unknown): value is Details =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const ofBoth = ({ pictureId, conditionId }: LedgerEntry) => ({
  ...(pictureId !== undefined && { pictureId }),
  ...(conditionId !== undefined && { conditionId }),
});
const isSetting = (key: string) => (SETTING_KEYS as readonly string[]).includes(key);
/** SQLite keeps yes and no as 1 and 0 where they came through its JSON. */
const yesNo = (value: unknown) => (value === 'yes' ? true : value === 'no' ? false : value);
const amount = (value: unknown): number | null => (typeof value === 'number' && Number.isFinite(value) ? value : null);
/** An amount where one is told. @throws Left where it can be none of its kind */
function within(what: string, value: unknown, low: number, high = Infinity): number | null {
  const told = amount(value);
  if (told !== null && (told < low || told > high))
    throw new Left(
      `Its ${what} can’t be ${told}: it is ${high === Infinity ? `${low} or more` : `from ${low} to ${high}`}.`,
    );
  return told;
}

/** An amount and its currency, or neither. */
const price = (lost: unknown, currency: unknown): { lost: number | null; currency: string | null } => {
  const paid = amount(lost);
  return paid !== null && paid >= 0 && typeof currency === 'string' && /^[A-Z]{3}$/.test(currency)
    ? { lost: paid, currency }
    : { lost: null, currency: null };
};

/** What a form would have asked of it. @throws Left with the first fault */
function checked<T extends object>(of: new () => T, value: object): T {
  const instance = plainToInstance(of, value);
  const [fault] = faultsOf(validateSync(instance, { whitelist: true, forbidUnknownValues: true }));
  if (fault) throw new Left(`${fault.message}.`);
  return instance;
}
