import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DataSource, Repository } from 'typeorm';
import type { ConditionFacts, ConditionView } from '@rakuen/contract/conditions';
import type { ReadingFields, ReadingPreview } from '@rakuen/contract/readings';
import type { ExportFormat } from '@rakuen/contract/vocabulary';
import { WRITERS } from '@rakuen/core/formats/reading-formats';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { FIGURES_VERSION } from '@rakuen/core/measurement/measures/registry';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore } from '../files/file-store.ts';
import { ConditionRow, ReadingRow } from '../store/entities.ts';
import type { ReadingSource } from '../work/tasks.ts';
import { Workshop } from '../work/workshop.ts';

/** A file on its way in. */
export interface IncomingFile {
  readonly path: string;
  readonly originalname: string;
}

/** Which measurement condition speaks first for the figures: daylight with UV, as prints are seen, then unstated, then the rest. */
const PRECEDENCE: readonly (MeasurementCondition | null)[] = ['M1', 'M0', null, 'M2', 'M3'];

@Injectable()
export class ReadingsService {
  constructor(
    @InjectRepository(ReadingRow) private readonly readings: Repository<ReadingRow>,
    private readonly conditions: ConditionsService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
    private readonly database: DataSource,
  ) {}

  /** What a file holds; nothing is kept. */
  async preview(file: IncomingFile, fields: ReadingFields): Promise<ReadingPreview> {
    try {
      return await this.workshop.run('previewReading', { fileName: file.originalname, source: { bytes: await readFile(file.path), stated: stated(fields) } }, file.originalname);
    } finally {
      await this.files.discard(file.path);
    }
  }

  /** Keeps a file as a reading of a condition and computes its figures; all of it or nothing. */
  async keep(conditionId: string, file: IncomingFile, fields: ReadingFields): Promise<ConditionView> {
    await this.conditions.get(conditionId);
    const bytes = await readFile(file.path);
    const { reading, parts, fileName } = await this.describe(file, bytes, fields);
    const contentHash = await this.files.keepFile(file.path);
    if (await this.readings.existsBy({ conditionId, contentHash })) {
      throw new RakuenError(409, 'These readings are kept for this print condition already.', { file: fileName, remedy: 'Choose another file, or another print condition.' });
    }
    const importedAt = new Date().toISOString();
    const rows = parts.map(({ patchCount, measurementCondition }, part) =>
      this.readings.create({ ...reading, id: randomUUID(), conditionId, contentHash, part, fileName, importedAt, patchCount, measurementCondition: measurementCondition ?? null }),
    );
    const all = [...(await this.readings.findBy({ conditionId })), ...rows];
    await this.store(conditionId, all, (repository) => repository.insert(rows));
    return this.conditions.view(conditionId);
  }

  /** Computes the facts anew that were computed with other measures than today's. */
  async refreshFacts(): Promise<void> {
    for (const { id, facts } of await this.conditions.rows()) {
      if (!facts || facts.version === FIGURES_VERSION) continue;
      await this.store(id, await this.readings.findBy({ conditionId: id }), async () => undefined);
    }
  }

  async remove(id: string): Promise<ConditionView> {
    const row = await this.readings.findOneBy({ id });
    if (!row) throw notFound('reading');
    const rest = (await this.readings.findBy({ conditionId: row.conditionId })).filter((r) => r.id !== id);
    await this.store(row.conditionId, rest, (repository) => repository.delete(id));
    return this.conditions.view(row.conditionId);
  }

  async file(id: string): Promise<{ name: string; bytes: Buffer }> {
    const row = await this.readings.findOneBy({ id });
    if (!row) throw notFound('reading');
    return { name: row.fileName, bytes: await this.files.read(row.contentHash) };
  }

  /** The reading in a format of choice, named after its file. */
  async written(id: string, format: ExportFormat): Promise<{ name: string; mediaType: string; bytes: Buffer }> {
    const row = await this.readings.findOneBy({ id });
    if (!row) throw notFound('reading');
    const text = await this.workshop.run('writeReading', { source: await this.source(row), format });
    const { extension, mediaType } = WRITERS[format];
    const stem = row.fileName.replace(/\.[^.]+$/, '');
    return { name: `${stem}${row.measurementCondition && !stem.endsWith(row.measurementCondition) ? `-${row.measurementCondition}` : ''}.${extension}`, mediaType, bytes: Buffer.from(text) };
  }

  private async describe(file: IncomingFile, bytes: Uint8Array, fields: ReadingFields) {
    const preview = await this.workshop.run('previewReading', { fileName: file.originalname, source: { bytes, stated: stated(fields) } }, file.originalname);
    return {
      fileName: preview.fileName.slice(0, 200),
      parts: preview.parts,
      reading: {
        colourFrom: preview.colourFrom,
        deviceSpace: preview.deviceSpace ?? null,
        instrument: preview.instrument ?? null,
        backing: preview.backing ?? null,
        measuredAt: preview.measuredAt ?? null,
      },
    };
  }

  /** Writes a change of readings together with the facts that follow from it. */
  private async store(conditionId: string, readings: ReadingRow[], change: (repository: Repository<ReadingRow>) => Promise<unknown>): Promise<void> {
    const computed = await this.factsOf(readings);
    await this.database.transaction(async (manager) => {
      await change(manager.getRepository(ReadingRow));
      await manager.getRepository(ConditionRow).update(conditionId, { facts: (computed?.facts ?? null) as never, mesh: (computed?.mesh ?? null) as never });
    });
  }

  private async factsOf(readings: readonly ReadingRow[]): Promise<{ facts: ConditionFacts; mesh?: GamutMesh } | undefined> {
    const newestFirst = [...readings].sort((p, q) => q.importedAt.localeCompare(p.importedAt));
    const under = (condition: MeasurementCondition | null) => newestFirst.find((r) => r.measurementCondition === condition);
    const primary = PRECEDENCE.map(under).find(Boolean);
    if (!primary) return undefined;
    const m2 = under('M2');
    return this.workshop.run('conditionFacts', {
      readingId: primary.id,
      primary: await this.source(primary),
      withoutUv: m2 && m2.id !== primary.id ? await this.source(m2) : undefined,
    });
  }

  private async source(row: ReadingRow): Promise<ReadingSource> {
    return {
      bytes: await this.files.read(row.contentHash),
      part: row.part,
      stated: { condition: (row.measurementCondition as MeasurementCondition | null) ?? undefined, instrument: row.instrument ?? undefined },
    };
  }
}

const stated = (fields: ReadingFields) => ({ condition: fields.measurementCondition, instrument: fields.instrument?.trim() || undefined });
