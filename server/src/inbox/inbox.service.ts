import { createHash, randomUUID } from 'node:crypto';
import { copyFile, open, readFile, stat } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, Not, Repository } from 'typeorm';
import { fileKind, HEAD_BYTES } from '@rakuen/core/formats/file-kind';
import { toldByFile, type KnownWords, type ToldByFile } from '@rakuen/core/formats/told-by-file';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { InboxFields, InboxFile, InboxImport, InboxView } from '@rakuen/contract/inbox';
import type { ApiError } from '@rakuen/contract/settings';
import type { PaperView } from '@rakuen/contract/papers';
import type { InboxKind } from '@rakuen/contract/vocabulary';
import { notFound, RakuenError } from '../app/errors.ts';
import { BundlesService } from '../bundles/bundles.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { PapersService } from '../papers/papers.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { ProfilesService } from '../profiles/profiles.service.ts';
import { placed, PlacingService, type KnownPrints } from '../readings/placing.service.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { SheetsService } from '../sheets/sheets.service.ts';
import { whole } from '../store/rows.ts';
import { InboxRow, type FoundReadings } from './inbox.entity.ts';
import { propose, type Proposal } from './proposal.ts';

/** What the studio holds, looked up once for a whole list. */
interface Studio {
  readonly papers: readonly PaperView[];
  readonly conditions: readonly ConditionHead[];
  readonly words: KnownWords;
  readonly known: KnownPrints;
  /** Changes with anything that a proposal rests on. */
  readonly sign: string;
  /** Of the paper that came in last. */
  readonly currency: string;
}

const KIND_WORDS: Readonly<Record<Exclude<InboxKind, 'readings'>, string>> = {
  profile: 'an ICC profile',
  picture: 'a picture',
  bundle: 'a paper with everything known of it',
  lamp: 'the spectrum of a lamp',
  strange: 'nothing that is read here',
};
const STRANGE = {
  fault: 'This is nothing that is read here.',
  remedy:
    'Bring readings (CGATS, CxF3, tables), ICC profiles, pictures (JPEG, PNG, TIFF), a paper’s archive or a lamp’s spectrum.',
};

const USUAL_CURRENCY = 'EUR';

/** Files that came in: recognised, kept until they are where they belong, and imported one by one or all that are certain. */
@Injectable()
export class InboxService {
  /** Proposals by row, with what they were told from: a list of hundreds is asked for again with every change. */
  private readonly proposals = new Map<string, { sign: string; told: ToldByFile; proposal?: Proposal }>();

  /** Why files that were certain were not imported, by id. */
  private readonly refusals = new Map<string, string>();

  constructor(
    @InjectRepository(InboxRow) private readonly rows: Repository<InboxRow>,
    private readonly files: FileStore,
    private readonly papers: PapersService,
    private readonly conditions: ConditionsService,
    private readonly readings: ReadingsService,
    private readonly placing: PlacingService,
    private readonly profiles: ProfilesService,
    private readonly pictures: PicturesService,
    private readonly bundles: BundlesService,
    private readonly sheets: SheetsService,
  ) {}

  /** As it came, what was imported too: no row moves under a hand. */
  async list(): Promise<InboxView> {
    const rows = await this.rows.find({ order: { at: 'ASC' } });
    const studio = await this.studio();
    const files: InboxFile[] = [];
    for (const row of rows) files.push(await this.view(row, studio));
    return { files };
  }

  /** Takes a file in: it is recognised, and kept; what is nothing of a studio's is refused at once, with why. */
  async add(file: IncomingFile, { path }: InboxFields): Promise<InboxFile> {
    const name = (path?.trim() || file.originalname).slice(0, 400);
    const { size } = await stat(file.path);
    const kind = await kindOf(file.path);
    const row: InboxRow = {
      id: randomUUID(),
      at: new Date().toISOString(),
      name,
      bytes: size,
      contentHash: null,
      kind,
      found: {},
      fault: null,
      remedy: null,
      importedAt: null,
      importedAs: null,
      conditionId: null,
    };
    if (kind === 'strange') Object.assign(row, STRANGE);
    else if (kind === 'readings') Object.assign(row, await this.recognised(file, name));
    if (row.fault === null) {
      row.contentHash = await this.files.keepFile(file.path);
      const waits = await this.rows.findOneBy({ contentHash: row.contentHash, importedAt: IsNull() });
      // The same file dropped twice waits once.
      if (waits) return this.view(waits, await this.studio());
    } else await this.files.discard(file.path);
    await this.rows.insert(whole(row));
    return this.view(row, await this.studio());
  }

  private async recognised(file: IncomingFile, name: string): Promise<Partial<InboxRow>> {
    try {
      const { preview, prints } = await this.readings.recognise(await readFile(file.path), name);
      const { parts, patchCount, description, keywords, source, spreadsheet } = preview;
      return { found: { parts, patchCount, description, keywords, source, fault: spreadsheet?.fault, prints } };
    } catch (error) {
      if (!(error instanceof RakuenError)) throw error;
      const { message, line, remedy } = error.getResponse() as ApiError;
      const where = line === undefined ? '' : `Line ${line}: `;
      return { fault: `${where}${message}`, remedy: remedy ?? 'Export the file again.' };
    }
  }

  /** Imports one file to where it is said to belong; the file is named, so that no other is taken for it. */
  async import(id: string, to: InboxImport): Promise<InboxFile> {
    const row = await this.waiting(id);
    if (row.name !== to.name)
      throw new RakuenError(409, `This row holds ${row.name}, not ${to.name}: nothing was imported.`, {
        file: row.name,
        field: 'name',
        remedy: 'Look at the list again.',
      });
    this.refusals.delete(id);
    if (row.kind !== 'readings') return this.importPlain(row);
    const made: { paperId?: string; conditionId?: string } = {};
    // Nothing said of where: then where it surely belongs.
    const where = to.conditionId || to.paperId || to.paper ? to : { ...to, ...(await this.surely(row)) };
    try {
      await this.keepReadings(row, await this.conditionFor(where, made), where);
    } catch (error) {
      // All of it or nothing: a paper that was added for readings that were refused does not stay.
      if (made.conditionId) await this.conditions.remove(made.conditionId);
      if (made.paperId) await this.papers.remove(made.paperId);
      throw error;
    }
    return this.view(await this.get(id), await this.studio());
  }

  /** Imports everything that is certain, one after another: what came in first may make the next certain. */
  async importCertain(): Promise<InboxView> {
    for (const row of await this.rows.find({
      where: { importedAt: IsNull(), fault: IsNull() },
      order: { at: 'ASC' },
    })) {
      if (row.kind !== 'readings') await this.importPlain(row).catch(this.held(row));
      else if (await this.surely(row)) await this.import(row.id, { name: row.name }).catch(this.held(row));
    }
    return this.list();
  }

  /** Where a file belongs that is certain; undefined of one that is not. */
  private async surely(row: InboxRow): Promise<Omit<InboxImport, 'name'> | undefined> {
    const studio = await this.studio();
    const { told, proposal } = await this.proposalFor(row, studio);
    if (!proposal || proposal.unclear.length > 0) return undefined;
    const { belongs } = proposal;
    if (belongs?.conditionId) return { conditionId: belongs.conditionId };
    const printed = printedOf(told);
    return belongs ? { paperId: belongs.paperId, printed } : { paper: paperOf(told, studio.currency), printed };
  }

  /** What a client can be told is said at the row, which waits on; anything else is a fault of ours. */
  private held({ id }: InboxRow): (error: unknown) => void {
    return (error) => {
      if (!(error instanceof RakuenError)) throw error;
      const { message, remedy } = error.getResponse() as ApiError;
      this.refusals.set(id, [message, remedy].filter(Boolean).join(' '));
    };
  }

  async remove(id: string): Promise<void> {
    await this.rows.delete({ id: (await this.get(id)).id });
  }

  /** Takes what is done off the list: what was imported, and what was refused. */
  async clear(): Promise<InboxView> {
    await this.rows.delete({ importedAt: Not(IsNull()) });
    await this.rows.delete({ fault: Not(IsNull()) });
    return this.list();
  }

  /** @param made told what was added for it */
  private async conditionFor(
    { conditionId, paperId, paper, printed }: InboxImport,
    made: { paperId?: string; conditionId?: string },
  ): Promise<string> {
    if (conditionId) return conditionId;
    if (!printed || (!paperId && !paper))
      throw new RakuenError(400, 'It is not said where the readings belong.', {
        field: 'conditionId',
        remedy: 'Choose a print condition, or a paper and how it is printed.',
      });
    if (!paperId) made.paperId = (await this.papers.create(paper!)).id;
    const { id } = await this.conditions.create({
      ...printed,
      paperId: paperId ?? made.paperId!,
      printMode: 'colour through a profile',
      profile: '',
      blackOvercoat: false,
    });
    made.conditionId = id;
    return id;
  }

  private async keepReadings(row: InboxRow, conditionId: string, to: InboxImport): Promise<void> {
    const { batch, keep, measurementCondition } = to;
    const file = await this.handed(row);
    const condition = await this.readings
      .keep(conditionId, file, { batch, keep, measurementCondition })
      .finally(() => this.files.discard(file.path));
    await this.done(row, `${condition.paper.name}, ${condition.mediaSetting}`, conditionId);
  }

  private async importPlain(row: InboxRow): Promise<InboxFile> {
    const file = await this.handed(row);
    try {
      const as = await {
        profile: async () => `profile ${(await this.profiles.bring(file)).name}`,
        picture: async () => `picture ${(await this.pictures.add(file, {})).title}`,
        bundle: async () => `paper ${(await this.bundles.take(file)).name}`,
        lamp: async () => `lamp ${(await this.sheets.addLight(file, { name: withoutEnding(file.originalname) })).name}`,
        readings: async () => Promise.reject(notFound('print condition')),
        strange: async () => Promise.reject(notFound('use for it')),
      }[row.kind]();
      await this.done(row, as, null);
    } finally {
      await this.files.discard(file.path);
    }
    return this.view(await this.get(row.id), await this.studio());
  }

  private async done(row: InboxRow, importedAs: string, conditionId: string | null): Promise<void> {
    await this.rows.update(row.id, { importedAt: new Date().toISOString(), importedAs, conditionId });
  }

  /** The kept file as one on its way in: whoever takes it may move it. */
  private async handed({ contentHash, name }: InboxRow): Promise<IncomingFile> {
    const path = this.files.incomingPath();
    await copyFile(this.files.pathOf(contentHash!), path);
    return { path, originalname: name.replace(/^.*\//, '') };
  }

  private async get(id: string): Promise<InboxRow> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('file in the inbox');
    return row;
  }

  private async waiting(id: string): Promise<InboxRow> {
    const row = await this.get(id);
    if (row.importedAt)
      throw new RakuenError(409, `${row.name} was imported already, as ${row.importedAs}.`, {
        file: row.name,
        remedy: 'Look at the list again.',
      });
    if (row.fault !== null)
      throw new RakuenError(422, row.fault, { file: row.name, remedy: row.remedy ?? 'Export the file again.' });
    return row;
  }

  private async studio(): Promise<Studio> {
    const [papers, known] = await Promise.all([this.papers.list(), this.placing.known()]);
    const { conditions, prints } = known;
    const each = (of: (c: ConditionHead) => string) => [...new Set(conditions.map(of))];
    return {
      papers,
      conditions,
      known,
      sign: createHash('sha256')
        .update(JSON.stringify([papers, conditions, [...prints]]))
        .digest('hex'),
      currency: papers[papers.length - 1]?.currency ?? USUAL_CURRENCY,
      words: {
        makers: [...new Set(papers.map((p) => p.maker))],
        printers: each((c) => c.printer),
        inkSets: each((c) => c.inkSet),
        mediaSettings: each((c) => c.mediaSetting),
      },
    };
  }

  private async proposalFor(row: InboxRow, studio: Studio): Promise<{ told: ToldByFile; proposal?: Proposal }> {
    const waits = row.contentHash !== null && row.importedAt === null;
    const kept = waits ? await this.readings.keptAs(row.contentHash!) : [];
    const sign = [studio.sign, row.importedAt, this.refusals.get(row.id), kept.join()].join(' ');
    const known = this.proposals.get(row.id);
    if (known?.sign === sign) return known;
    const made = { sign, ...this.proposed(row, studio, kept[0]) };
    this.proposals.set(row.id, made);
    return made;
  }

  private proposed(
    row: InboxRow,
    { papers, conditions, words, known: prints }: Studio,
    kept: string | undefined,
  ): { told: ToldByFile; proposal?: Proposal } {
    const { keywords, description, fault } = row.found;
    const told = toldByFile({ keywords, description, fileName: row.name }, words);
    if (row.contentHash === null || row.importedAt) return { told };
    const known = fault ?? this.refusals.get(row.id);
    if (known) return { told, proposal: { unclear: [known] } };
    if (row.kind !== 'readings') return { told };
    const there = conditions.find((c) => c.id === kept);
    if (there) {
      const name = `${there.paper.maker} ${there.paper.name}, ${there.mediaSetting}`;
      return { told, proposal: { unclear: [`These readings are kept already, for ${name}: put them away.`] } };
    }
    const said = [row.name, description ?? '', told.paper ?? ''].join('\n');
    const incoming = row.found.prints ?? [];
    const placing = (conditionId?: string) => placed(incoming, { conditionId, mayDiffer: false, words: said }, prints);
    return { told, proposal: propose({ told, words: said, papers, conditions, placing }) };
  }

  private async view(row: InboxRow, studio: Studio): Promise<InboxFile> {
    const { told, proposal } = await this.proposalFor(row, studio);
    const waits = row.importedAt === null && row.fault === null;
    const conditions = (row.found.parts ?? []).flatMap((p) => p.measurementCondition ?? []);
    return {
      id: row.id,
      at: row.at,
      name: row.name,
      bytes: row.bytes,
      kind: row.kind,
      what: row.kind === 'readings' ? readingsInWords(row.found) : KIND_WORDS[row.kind],
      patchCount: row.found.patchCount,
      conditions,
      ...(row.kind === 'readings' && waits && { told }),
      belongs: proposal?.belongs,
      unclear: [...(proposal?.unclear ?? [])],
      certain: waits && (proposal ? proposal.unclear.length === 0 : row.kind !== 'readings'),
      fault: row.fault ?? undefined,
      remedy: row.remedy ?? undefined,
      importedAt: row.importedAt ?? undefined,
      importedAs: row.importedAs ?? undefined,
      conditionId: row.conditionId ?? undefined,
    };
  }
}

const withoutEnding = (name: string) => name.replace(/\.[^.]+$/, '').slice(0, 80) || name;

async function kindOf(path: string): Promise<InboxKind> {
  const file = await open(path, 'r');
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    const { bytesRead } = await file.read(head, 0, HEAD_BYTES, 0);
    const bytes = new Uint8Array(head.subarray(0, bytesRead));
    const isProfile = head.toString('latin1', 36, 40) === 'acsp';
    return isProfile ? 'profile' : (fileKind(bytes) ?? 'strange');
  } finally {
    await file.close();
  }
}

function readingsInWords({ parts = [], patchCount, source }: Partial<FoundReadings>): string {
  if (patchCount === undefined) return 'taken for readings';
  const conditions = parts.flatMap((p) => p.measurementCondition ?? []);
  const said = conditions.length > 0 ? conditions.join(' + ') : 'measurement condition not stated';
  return source === 'profile' ? 'an ICC profile' : `readings, ${patchCount} patches, ${said}`;
}

const paperOf = (told: ToldByFile, currency: string): InboxImport['paper'] => ({
  maker: told.maker!,
  name: told.paper!,
  brightenerClaim: 'not stated',
  weightGsm: told.weightGsm,
  sizes: [],
  currency,
});
const printedOf = (told: ToldByFile): InboxImport['printed'] => ({
  printer: told.printer!,
  inkSet: told.inkSet!,
  blackInk: told.blackInk!,
  mediaSetting: told.mediaSetting!,
  resolution: told.resolution ?? '',
});
