import { fileKind, HEAD_BYTES, type FileKind } from '@rakuen/core/formats/file-kind';
import { createHash, randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { DataSource, type EntityManager, Repository } from 'typeorm';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import {
  PaperBundle,
  type BundleCondition,
  type BundleObservation,
  type BundleReadings,
} from '@rakuen/contract/bundle';
import { TextureValue, VALUE_CLASSES } from '@rakuen/contract/observations';
import type { PaperView } from '@rakuen/contract/papers';
import { faultsOf, RakuenError } from '../app/errors.ts';
import { tooMuchJson } from '../app/json.ts';
import { FactsService, withObserved } from '../conditions/facts.service.ts';
import {
  asObservation,
  insertObservations,
  ObservationsService,
  type NewObservation,
} from '../conditions/observations.service.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { PapersService } from '../papers/papers.service.ts';
import { readingRows, ReadingsService } from '../readings/readings.service.ts';
import { parseMapping } from '../readings/mapping-memory.ts';
import { ConditionRow, ObservationRow } from '../conditions/conditions.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { ReadingRow } from '../readings/readings.entity.ts';
import { present, whole, wholes } from '../store/rows.ts';

const STRICT = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true } as const;

/** A paper with everything known of it, as one file out and in. */
@Injectable()
export class BundlesService {
  constructor(
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(ReadingRow) private readonly readings: Repository<ReadingRow>,
    @InjectRepository(ObservationRow) private readonly observations: Repository<ObservationRow>,
    private readonly papers: PapersService,
    private readonly read: ReadingsService,
    private readonly files: FileStore,
    private readonly database: DataSource,
    private readonly observed: ObservationsService,
    private readonly facts: FactsService,
  ) {}

  async write(paperId: string): Promise<{ name: string; bundle: PaperBundle }> {
    const row = await this.papers.get(paperId);
    const { id: _id, createdAt: _createdAt, revision: _revision, ...paper } = row;
    const files: Record<string, string> = {};
    const conditions = await Promise.all(
      (await this.conditions.find({ where: { paperId }, order: { createdAt: 'ASC' } })).map(
        async (c): Promise<BundleCondition> => {
          const {
            printer,
            inkSet,
            blackInk,
            mediaSetting,
            resolution,
            printMode,
            profile,
            blackOvercoat,
            notes,
            figuresFrom,
          } = c;
          const readings = await this.readings.find({
            where: { conditionId: c.id },
            order: { importedAt: 'ASC', part: 'ASC' },
          });
          const observations = await this.observations.find({
            where: { conditionId: c.id },
            order: { takenAt: 'ASC', entry: 'ASC', id: 'ASC' },
          });
          const seen = (await this.observed.of([c])).get(c.id)!;
          const facts = withObserved((await this.facts.of([c], readings)).get(c.id), seen.map(asObservation));
          for (const hash of [...readings.map((r) => r.contentHash), ...observations.flatMap((o) => o.scanHash ?? [])])
            files[hash] ??= (await this.files.read(hash)).toString('base64');
          return {
            ...({
              printer,
              inkSet,
              blackInk,
              mediaSetting,
              resolution,
              printMode,
              profile,
              blackOvercoat,
              notes,
            } as Omit<BundleCondition, 'readings' | 'observations'>),
            readings: [...new Set(readings.map((r) => r.contentHash))].map((hash): BundleReadings => {
              const parts = readings.filter((r) => r.contentHash === hash);
              const [{ fileName, measurementCondition, instrument, batch, printedAt, mapping, apart }] = parts;
              const leftOut = [...parts].sort((p, q) => p.part - q.part).map((p) => p.leftOut);
              return present({
                fileName,
                contentHash: hash,
                measurementCondition,
                instrument,
                batch,
                printedAt,
                mapping,
                apart,
                leftOut: leftOut.some((patches) => patches.length > 0) ? leftOut : null,
                chosen: parts.some((p) => p.id === figuresFrom) || null,
              });
            }),
            observations: observations.map(
              ({ kind, value, takenAt, by, instrument, light, note, scanHash }): BundleObservation =>
                present({
                  kind,
                  value,
                  takenAt,
                  by,
                  instrument,
                  light,
                  note,
                  scanHash,
                }),
            ),
            figures: facts ? named(facts.figures) : undefined,
          };
        },
      ),
    );
    return {
      name: `${row.maker} ${row.name}.rakuen.json`.replace(/[\\/:*?"<>|]/g, '-'),
      bundle: {
        format: 'rakuen-paper',
        version: 1,
        writtenAt: new Date().toISOString(),
        paper: present(paper),
        conditions,
        files,
      },
    };
  }

  /** Takes a bundle in: all of it, in one transaction, or nothing. */
  async take(file: IncomingFile): Promise<PaperView> {
    const bundle = await parseBundle(await readFile(file.path), file.originalname);
    await this.files.discard(file.path);
    await this.papers.refuseTwin(bundle.paper);
    const files = new Map(
      Object.entries(bundle.files).map(([hash, content]) => {
        const bytes = Buffer.from(content, 'base64');
        if (createHash('sha256').update(bytes).digest('hex') !== hash)
          throw broken(file.originalname, `files.${hash.slice(0, 12)}…`, 'A file in it is not what its name says.');
        return [hash, bytes] as const;
      }),
    );
    // What this drawer happens to hold already does not count: a bundle is whole or it is none.
    const named = bundle.conditions.flatMap((c) => [
      ...c.readings.map((r) => r.contentHash),
      ...c.observations.flatMap((o) => o.scanHash ?? []),
    ]);
    const lacking = named.find((hash) => !Object.hasOwn(bundle.files, hash));
    if (lacking)
      throw broken(file.originalname, `files.${lacking.slice(0, 12)}…`, 'It speaks of a file that it does not hold.');
    refuseOddParts(bundle, files, file.originalname);
    const now = Date.now();
    const paper = this.papers.row(bundle.paper);
    const prepared = await Promise.all(
      bundle.conditions.map((c, i) =>
        this.prepare(c, paper.id, new Date(now + i).toISOString(), file.originalname, files),
      ),
    );
    // Every part was looked over: only now is a byte of it kept.
    for (const bytes of files.values()) await this.files.keepBytes(bytes);
    const told: ((manager: EntityManager) => Promise<void>)[] = [];
    for (const { condition, readings } of prepared) told.push(await this.facts.beforehand(condition, readings));
    await this.database.transaction(async (manager) => {
      await manager.insert(PaperRow, whole(paper));
      for (const [i, { condition, readings, observations }] of prepared.entries()) {
        await manager.insert(ConditionRow, condition);
        if (readings.length > 0) await manager.insert(ReadingRow, wholes(readings));
        await insertObservations(manager, observations);
        await told[i](manager);
      }
    });
    return this.papers.one(paper.id);
  }

  private async prepare(
    from: BundleCondition,
    paperId: string,
    createdAt: string,
    file: string,
    files: ReadonlyMap<string, Buffer>,
  ): Promise<{
    condition: Omit<ConditionRow, 'revision' | 'profileId'>;
    readings: ReadingRow[];
    observations: NewObservation[];
  }> {
    const { readings: sets, observations, figures: _figures, ...condition } = from;
    const id = randomUUID();
    const readings: ReadingRow[] = [];
    let figuresFrom: string | null = null;
    for (const [i, set] of sets.entries()) {
      const mapping = parseMapping(set.mapping && JSON.stringify(set.mapping));
      const fields = {
        measurementCondition: set.measurementCondition,
        instrument: set.instrument,
        batch: set.batch,
        printedAt: set.printedAt,
        mapping: mapping && JSON.stringify(mapping),
      };
      const preview = await this.read.look(set.fileName, files.get(set.contentHash)!, fields);
      if (preview.spreadsheet?.fault) throw broken(file, 'mapping', preview.spreadsheet.fault);
      const rows = readingRows(id, set.contentHash, preview, fields).map((r): ReadingRow => ({
        ...r,
        mapping: mapping ?? null,
        apart: set.apart ?? null,
        leftOut: namesOnly(set.leftOut?.[r.part]),
        importedAt: new Date(Date.parse(createdAt) + i).toISOString(),
      }));
      if (set.chosen) figuresFrom = rows[0].id;
      readings.push(...rows);
    }
    return {
      condition: { ...condition, id, paperId, createdAt, figuresFrom },
      readings,
      observations: observations.map((o) => ({
        ...o,
        conditionId: id,
        scanHash: o.scanHash ?? null,
      })),
    };
  }
}

/** @throws RakuenError naming the field */
/** What was sent instead of a paper's archive, and where it goes. */
const GOES_TO: Record<Exclude<FileKind, 'bundle'>, readonly [is: string, remedy: string]> = {
  readings: ['These are readings', 'Import them under Readings, at the print condition they belong to.'],
  picture: ['This is a picture', 'Import it under Pictures.'],
  lamp: ['This is the spectrum of a lamp', 'Drop it anywhere: it joins the lamps over the table.'],
};
const elsewhere = (file: string, kind: Exclude<FileKind, 'bundle'>) =>
  new RakuenError(422, `${GOES_TO[kind][0]}, not a paper’s archive.`, { file, remedy: GOES_TO[kind][1] });

/** A list of names, as far as it is one: the archive comes from outside. */
const namesOnly = (list: unknown): string[] =>
  Array.isArray(list) ? list.filter((v): v is string => typeof v === 'string' && v.length <= 200) : [];

async function parseBundle(bytes: Buffer, file: string): Promise<PaperBundle> {
  const much = tooMuchJson(bytes);
  if (much) throw broken(file, undefined, much);
  let plain: unknown;
  try {
    plain = JSON.parse(bytes.toString('utf8'));
  } catch {
    const kind = fileKind(bytes.subarray(0, HEAD_BYTES));
    if (kind && kind !== 'bundle') throw elsewhere(file, kind);
    throw broken(file, undefined, 'This is not JSON.');
  }
  if (typeof plain !== 'object' || plain === null || (plain as { format?: unknown }).format !== 'rakuen-paper')
    throw broken(file, 'format', 'This is not a paper that Rakuen wrote.');
  const bundle = plainToInstance(PaperBundle, plain);
  const faults = faultsOf(await validate(bundle, STRICT));
  for (const [c, { observations }] of faults.length > 0 ? [] : bundle.conditions.entries()) {
    for (const [o, { kind, value }] of observations.entries()) {
      const type = (kind === 'texture' ? TextureValue : VALUE_CLASSES[kind]) as new () => object;
      faults.push(
        ...faultsOf(await validate(plainToInstance(type, value), STRICT), `conditions.${c}.observations.${o}.value`),
      );
    }
  }
  const odd = Object.entries(bundle.files ?? {}).find(
    ([hash, content]) => !/^[0-9a-f]{64}$/.test(hash) || typeof content !== 'string',
  );
  if (odd) faults.push({ field: `files.${odd[0].slice(0, 12)}`, message: 'files must be base64 under their SHA-256' });
  if (faults.length > 0)
    throw broken(
      file,
      faults
        .map((f) => f.field)
        .slice(0, 5)
        .join(', '),
      faults
        .map((f) => f.message)
        .slice(0, 5)
        .join('; '),
    );
  // Only plain objects go into the database.
  return JSON.parse(JSON.stringify(bundle)) as PaperBundle;
}

const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47]);

/** What fields alone don't tell: a set that stands twice, a texture without its scan, a scan that is no picture. @throws RakuenError */
function refuseOddParts(bundle: PaperBundle, files: ReadonlyMap<string, Buffer>, file: string): void {
  bundle.conditions.forEach(({ readings, observations }, c) => {
    const hashes = readings.map((r) => r.contentHash);
    const twice = hashes.findIndex((hash, i) => hashes.indexOf(hash) !== i);
    if (twice >= 0) throw broken(file, `conditions.${c}.readings.${twice}`, 'The same readings stand in it twice.');
    observations.forEach(({ kind, scanHash }, o) => {
      const where = `conditions.${c}.observations.${o}.scanHash`;
      if (kind === 'texture' && !scanHash) throw broken(file, where, 'A texture lacks the scan it was computed from.');
      if (scanHash && !files.get(scanHash)!.subarray(0, 4).equals(PNG))
        throw broken(file, where, 'A scan in it is no PNG.');
    });
  });
}

const broken = (file: string, field: string | undefined, message: string) =>
  new RakuenError(422, message, {
    file,
    field,
    remedy: 'Take the paper away again from where it came from, and do not change the file.',
  });
/** Figures with their names and units, so that another program needs nothing of ours to read them. */
function named(figures: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(
    MEASURES.flatMap((m) =>
      figures[m.key] ? [[m.key, { name: m.name, unit: m.unit, source: m.source, ...(figures[m.key] as object) }]] : [],
    ),
  );
}
