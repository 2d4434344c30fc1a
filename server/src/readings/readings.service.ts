import type { CardReading } from '@rakuen/contract/strips';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DataSource, type EntityManager, In, Repository } from 'typeorm';
import type { ConditionView } from '@rakuen/contract/conditions';
import type {
  HistoryEntry,
  HistoryView,
  ReadingFields,
  ReadingPreview,
  SetComparisonView,
  SpreadsheetPreview,
} from '@rakuen/contract/readings';
import type { ExportFormat } from '@rakuen/contract/vocabulary';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import { WRITERS } from '@rakuen/core/formats/reading-formats';
import { observedFigures } from '@rakuen/core/measurement/measures/registry';
import { notFound, RakuenError } from '../app/errors.ts';
import { FactsService } from '../conditions/facts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { asObservation, ObservationsService } from '../conditions/observations.service.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { ReadingRow } from './readings.entity.ts';
import type { ReadingSource } from '../work/tasks.ts';
import { Workshop } from '../work/workshop.ts';
import { MappingMemory, parseMapping } from './mapping-memory.ts';
import { MisplacedError, PlacingService } from './placing.service.ts';
import { disagreements } from '@rakuen/core/measurement/claims';
import type { Fingerprint } from '@rakuen/core/measurement/fingerprint';
import { isWet } from '@rakuen/core/measurement/alike';
import { readingSets, readWet, speakingSets, whenRead } from '@rakuen/core/measurement/speaking';
import { readingSource, type SpeakingRows } from './reading-source.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { wholes } from '../store/rows.ts';

const MS_PER_HOUR = 3_600_000;

@Injectable()
export class ReadingsService {
  constructor(
    @InjectRepository(ReadingRow) private readonly readings: Repository<ReadingRow>,
    private readonly conditions: ConditionsService,
    private readonly observations: ObservationsService,
    private readonly facts: FactsService,
    private readonly mappings: MappingMemory,
    private readonly placing: PlacingService,
    private readonly settings: SettingsService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
    private readonly database: DataSource,
  ) {}

  /** What a file holds; nothing is kept. */
  async preview(file: IncomingFile, fields: ReadingFields): Promise<ReadingPreview> {
    try {
      const bytes = await readFile(file.path);
      const preview = await this.look(file.originalname, bytes, fields);
      if (preview.parts.length === 0 || preview.source === 'profile') return preview;
      const { conditionId } = fields;
      const before = conditionId ? await this.readings.findBy({ conditionId }) : [];
      const placing = await this.placing.of(await this.fingerprintsOf(bytes, preview, fields), {
        conditionId,
        mayDiffer: mayDiffer(fields, preview, before),
        words: wordsOf(preview),
      });
      const paper = conditionId ? (await this.conditions.view(conditionId)).paper : undefined;
      return { ...preview, placing, claims: paper && disagreements(paper, preview.figures) };
    } finally {
      await this.files.discard(file.path);
    }
  }

  /** Keeps a file as a reading of a condition and computes its figures; all of it or nothing. */
  async keep(conditionId: string, file: IncomingFile, fields: ReadingFields): Promise<ConditionView> {
    const condition = await this.conditions.get(conditionId);
    const preview = await this.look(file.originalname, await readFile(file.path), fields);
    const { spreadsheet } = preview;
    if (spreadsheet?.fault)
      throw new RakuenError(422, spreadsheet.fault, {
        file: file.originalname,
        field: 'mapping',
        remedy: 'Say which column holds what.',
      });
    const before = await this.readings.findBy({ conditionId });
    const apart = await this.whyApart(conditionId, file, preview, fields, before);
    const contentHash = await this.files.keepFile(file.path);
    if (before.some((r) => r.contentHash === contentHash)) {
      throw new RakuenError(409, 'These readings are kept for this print condition already.', {
        file: file.originalname,
        remedy: 'Choose another file, or another print condition.',
      });
    }
    const mapping = spreadsheet ? mappingOf(spreadsheet) : null;
    const rows = readingRows(conditionId, contentHash, preview, fields).map((r) =>
      this.readings.create({ ...r, mapping, apart }),
    );
    await this.store(condition, [...before, ...rows], (manager) => manager.insert(ReadingRow, wholes(rows)));
    if (mapping) await this.mappings.remember(spreadsheet!.columns, mapping);
    return this.conditions.view(conditionId);
  }

  /**
   * Compares readings with what is kept before they are.
   * @returns why they stand apart, where somebody chose to keep them all the same
   * @throws MisplacedError where they resemble another print, and nobody chose to
   */
  private async whyApart(
    conditionId: string,
    file: IncomingFile,
    preview: ReadingPreview,
    fields: ReadingFields,
    before: readonly ReadingRow[],
  ): Promise<string | null> {
    if (preview.source === 'profile') return null;
    const prints = await this.fingerprintsOf(await readFile(file.path), preview, fields);
    const view = await this.placing.of(prints, {
      conditionId,
      mayDiffer: mayDiffer(fields, preview, before),
      words: wordsOf(preview),
    });
    if (!view.against) return null;
    if (fields.keep !== 'apart') throw new MisplacedError(file.originalname, view);
    return view.against;
  }

  /** Print conditions for which a file is kept as readings, by its content. */
  async keptAs(contentHash: string): Promise<string[]> {
    return (await this.readings.findBy({ contentHash })).map((r) => r.conditionId);
  }

  /** What a file holds, and what its readings are recognised by; nothing is kept. */
  async recognise(bytes: Uint8Array, fileName: string): Promise<{ preview: ReadingPreview; prints: Fingerprint[] }> {
    const preview = await this.look(fileName, bytes, {});
    const unread = preview.parts.length === 0 || preview.source === 'profile';
    return { preview, prints: unread ? [] : await this.fingerprintsOf(bytes, preview, {}) };
  }

  private fingerprintsOf(bytes: Uint8Array, preview: ReadingPreview, fields: ReadingFields): Promise<Fingerprint[]> {
    const stated = { condition: fields.measurementCondition, instrument: fields.instrument?.trim() || undefined };
    const { spreadsheet } = preview;
    const mapping = spreadsheet && !spreadsheet.fault ? mappingOf(spreadsheet) : undefined;
    return this.workshop.run('fingerprints', {
      sources: preview.parts.map((_, part) => ({ bytes, part, stated, mapping })),
    });
  }

  /** Lets readings that were kept apart give figures with the others, all that came in their file. */
  async join(id: string): Promise<ConditionView> {
    const row = await this.get(id);
    const condition = await this.conditions.get(row.conditionId);
    const rows = await this.readings.findBy({ conditionId: row.conditionId });
    const own = rows.filter((r) => r.contentHash === row.contentHash).map((r) => r.id);
    const changed = rows.map((r) => (own.includes(r.id) ? { ...r, apart: null } : r));
    await this.store(condition, changed, (manager) => manager.update(ReadingRow, own, { apart: null }));
    return this.conditions.view(row.conditionId);
  }

  /** Leaves patches out of a reading, or takes them in again: all that are named are left out, and no others. */
  async leaveOut(id: string, patches: readonly string[]): Promise<ConditionView> {
    const row = await this.get(id);
    const condition = await this.conditions.get(row.conditionId);
    const rows = await this.readings.findBy({ conditionId: row.conditionId });
    const leftOut = [...new Set(patches)].sort();
    const changed = rows.map((r) => (r.id === id ? { ...r, leftOut } : r));
    await this.store(condition, changed, (manager) => manager.update(ReadingRow, id, { leftOut }));
    return this.conditions.view(row.conditionId);
  }

  async remove(id: string): Promise<ConditionView> {
    const row = await this.get(id);
    const condition = await this.conditions.get(row.conditionId);
    const rest = (await this.readings.findBy({ conditionId: row.conditionId })).filter((r) => r.id !== id);
    await this.store(
      { ...condition, figuresFrom: condition.figuresFrom === id ? null : condition.figuresFrom },
      rest,
      (manager) => manager.delete(ReadingRow, id),
    );
    return this.conditions.view(row.conditionId);
  }

  /** Lets a reading give the figures, or the newest again. */
  async takeFiguresFrom(conditionId: string, readingId: string | undefined): Promise<ConditionView> {
    const condition = await this.conditions.get(conditionId);
    const rows = await this.readings.findBy({ conditionId });
    if (readingId && !rows.some((r) => r.id === readingId)) throw notFound('reading of this print condition');
    await this.store({ ...condition, figuresFrom: readingId ?? null }, rows);
    return this.conditions.view(conditionId);
  }

  /** Every set of readings with figures of its own, from old to new: a new box, a later day, a reformulated sheet. */
  async history(conditionId: string): Promise<HistoryView> {
    const condition = await this.conditions.get(conditionId);
    const observed = (await this.observations.of([condition])).get(conditionId)!;
    const sets = readingSets(await this.readings.findBy({ conditionId }));
    const entries = await Promise.all(
      sets.map(async (set, i): Promise<HistoryEntry> => {
        const { primary } = set;
        const own = await this.facts.ofSet(set);
        const at = whenRead(primary);
        // What the bench found until the next set came belongs to this one.
        const until = i + 1 < sets.length ? whenRead(sets[i + 1].primary) : undefined;
        const found = observed.filter((o) => (i === 0 || o.takenAt >= at) && (!until || o.takenAt < until));
        return {
          readingId: primary.id,
          fileName: primary.fileName,
          batch: primary.batch,
          source: primary.source,
          measurementCondition: primary.measurementCondition ?? undefined,
          instrument: primary.instrument ?? undefined,
          at,
          driedHours: primary.printedAt ? (Date.parse(at) - Date.parse(primary.printedAt)) / MS_PER_HOUR : undefined,
          patchCount: primary.patchCount,
          patches: own.patches,
          figures: { ...own.figures, ...observedFigures(found.map(asObservation)) },
        };
      }),
    );
    return { conditionId, entries };
  }

  /**
   * Two sets patch by patch.
   * @throws RakuenError 409 where their colours can't be compared
   */
  async against(laterId: string, firstId: string): Promise<SetComparisonView> {
    const [later, first] = [await this.get(laterId), await this.get(firstId)];
    const [p, q] = [later.measurementCondition, first.measurementCondition];
    if (p !== q && p && q)
      throw new RakuenError(409, `One set was read in ${p}, the other in ${q}.`, {
        remedy: 'Choose two sets that were read under one measurement condition.',
      });
    const compared = await this.workshop.run('compareSetsOf', {
      later: await readingSource(this.files, later),
      first: await readingSource(this.files, first),
      thresholds: (await this.settings.get()).thresholds,
    });
    if (!compared)
      throw new RakuenError(409, 'The two sets have no patch in common.', {
        remedy: 'Compare sets of one chart, or of charts that share device values.',
      });
    const { passes, ...rest } = compared;
    return { ...rest, worst: [...rest.worst], laterPasses: passes.later, firstPasses: passes.first };
  }

  async file(id: string): Promise<{ name: string; bytes: Buffer }> {
    const row = await this.get(id);
    return { name: row.fileName, bytes: await this.files.read(row.contentHash) };
  }

  /** The reading in a format of choice, named after its file. */
  async written(id: string, format: ExportFormat): Promise<{ name: string; mediaType: string; bytes: Buffer }> {
    const row = await this.get(id);
    const text = await this.workshop.run('writeReading', {
      source: await readingSource(this.files, row),
      format,
    });
    const { extension, mediaType } = WRITERS[format];
    const stem = row.fileName.replace(/\.[^.]+$/, '');
    return {
      name: `${stem}${row.measurementCondition && !stem.endsWith(row.measurementCondition) ? `-${row.measurementCondition}` : ''}.${extension}`,
      mediaType,
      bytes: Buffer.from(text),
    };
  }

  /**
   * A table whose columns are asked about is looked at with the mapping that came with it, else with the one
   * remembered for its columns.
   */
  async look(fileName: string, bytes: Uint8Array, fields: ReadingFields): Promise<ReadingPreview> {
    const stated = { condition: fields.measurementCondition, instrument: fields.instrument?.trim() || undefined };
    const look = (mapping: ColumnMapping | undefined) =>
      this.workshop.run('previewReading', { fileName, source: { bytes, mapping, stated } }, fileName);
    const said = parseMapping(fields.mapping);
    const preview = await look(said);
    const remembered = preview.spreadsheet && !said && (await this.mappings.recall(preview.spreadsheet.columns));
    if (!remembered) return preview;
    const again = await look(remembered);
    return again.spreadsheet ? { ...again, spreadsheet: { ...again.spreadsheet, remembered: true } } : again;
  }

  /** The reading that gives a print condition its figures, with those that serve it. */
  async speaking(conditionId: string): Promise<SpeakingRows | undefined> {
    return (await this.speakingSets(conditionId))[0];
  }

  /** All sets that may give figures, the primary one first. */
  async speakingSets(conditionId: string): Promise<SpeakingRows[]> {
    const { figuresFrom } = await this.conditions.get(conditionId);
    return speakingSets(await this.readings.findBy({ conditionId }), figuresFrom);
  }

  private async get(id: string): Promise<ReadingRow> {
    const row = await this.readings.findOneBy({ id });
    if (!row) throw notFound('reading');
    return row;
  }

  /** Writes a change of readings together with what follows from it. */
  private async store(
    condition: Pick<ConditionRow, 'id' | 'figuresFrom'>,
    readings: readonly ReadingRow[],
    change?: (manager: EntityManager) => Promise<unknown>,
  ): Promise<void> {
    const keepFacts = await this.facts.beforehand(condition, readings);
    await this.database.transaction(async (manager) => {
      await change?.(manager);
      await manager.update(ConditionRow, condition.id, { figuresFrom: condition.figuresFrom });
      await keepFacts(manager);
    });
  }

  /** A set of readings by its id, and under which measurement condition it was read. */
  async spoken(
    id: string,
  ): Promise<{ source: ReadingSource; measurementCondition: ReadingRow['measurementCondition'] }> {
    const row = await this.get(id);
    return { source: await readingSource(this.files, row), measurementCondition: row.measurementCondition };
  }

  /** Sets that hold so many patches, or so many times as many: what may be readings of a chart, the newest first. */
  async ofSize(patches: number): Promise<CardReading[]> {
    const rows = await this.readings.find({
      where: { source: 'measured', patchCount: In([1, 2, 3].map((passes) => passes * patches)) },
      order: { importedAt: 'DESC', id: 'ASC' },
    });
    const heads = new Map((await this.conditions.heads()).map((c) => [c.id, c]));
    return rows.map(({ id, fileName, importedAt, conditionId, measurementCondition }) => ({
      readingId: id,
      fileName,
      importedAt,
      paper: heads.get(conditionId)?.paper.name ?? '',
      ...(measurementCondition && { measurementCondition }),
    }));
  }
}

/** Another box, or another state of drying, than all that is kept: it may differ from it. */
function mayDiffer(
  { batch = '', printedAt }: ReadingFields,
  { measuredAt }: ReadingPreview,
  before: readonly ReadingRow[],
): boolean {
  const known = before.filter((r) => r.source === 'measured');
  const readAt = measuredAt && !Number.isNaN(Date.parse(measuredAt)) ? measuredAt : new Date().toISOString();
  const wet = isWet(printedAt, readAt) === true;
  return known.every((r) => r.batch !== batch.trim()) || known.every((r) => readWet(r) !== wet);
}

const wordsOf = ({ fileName, description = '' }: ReadingPreview) => `${fileName} ${description}`;

const mappingOf = ({ roles, startNm, stepNm, deviceScale }: SpreadsheetPreview): ColumnMapping => ({
  roles,
  startNm,
  stepNm,
  deviceScale,
});

/** Rows of a file's readings, one a measurement condition. */
export function readingRows(
  conditionId: string,
  contentHash: string,
  preview: ReadingPreview,
  fields: ReadingFields,
): Omit<ReadingRow, 'mapping'>[] {
  const importedAt = new Date().toISOString();
  return preview.parts.map(({ patchCount, measurementCondition }, part) => ({
    id: randomUUID(),
    conditionId,
    contentHash,
    part,
    fileName: preview.fileName.slice(0, 200),
    importedAt,
    patchCount,
    measurementCondition: measurementCondition ?? null,
    colourFrom: preview.colourFrom,
    deviceSpace: preview.deviceSpace ?? null,
    instrument: preview.instrument ?? null,
    backing: preview.backing ?? null,
    measuredAt: preview.measuredAt ?? null,
    source: preview.source,
    batch: fields.batch?.trim() ?? '',
    printedAt: fields.printedAt ?? null,
    apart: null,
    leftOut: [],
  }));
}
