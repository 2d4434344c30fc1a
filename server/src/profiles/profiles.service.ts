import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { readModelError } from '@rakuen/core/characterisation/model-error';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { checkInWords } from '@rakuen/core/characterisation/profile-check';
import { promisedUnder, takenForGranted, whyNotHeld } from '@rakuen/core/characterisation/promised-under';
import { designOwnChart, type OwnPurpose } from '@rakuen/core/chart/chart-design';
import type { Rgb } from '@rakuen/core/colour/types';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { isMatt } from '@rakuen/core/paper';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import type { ChartView } from '@rakuen/contract/charts';
import type {
  CheckList,
  CheckView,
  ProfileJob,
  ProfileSettingsInput,
  ProfileView,
  SolidView,
} from '@rakuen/contract/profiles';
import { BUILT_FROM } from '@rakuen/contract/profiles';
import { notFound, RakuenError } from '../app/errors.ts';
import { ChartsService } from '../charts/charts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore, type IncomingFile, type OutgoingFile } from '../files/file-store.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { PRECEDENCE, readWet } from '@rakuen/core/measurement/speaking';
import { readingSource } from '../readings/reading-source.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { ProfileCheckRow, ProfileRow } from './profiles.entity.ts';
import { ReadingRow } from '../readings/readings.entity.ts';
import { Writer } from '../store/writer.ts';
import { TableService } from '../table/table.service.ts';
import { type Job, Jobs } from '../work/jobs.ts';
import type { HeldCheck, OtherBox, OtherSetting } from '../work/model-tasks.ts';
import { Workshop } from '../work/workshop.ts';
import { ModelsService } from './models.service.ts';
import { NAME_CHANGES, namedUses, usesOf, type NameChange } from './profile-uses.ts';
import { columns, whole } from '../store/rows.ts';

/** How strips and small charts are laid out. */
const SMALL_CHART = { sheet: 'A4', patchMm: 8, dpi: 300 } as const;

/** Boxes a strip is held against. */
const MOST_BOXES = 3;

/** Profiles: made, brought or named; who uses them; how they hold against what is printed through them. */
@Injectable()
export class ProfilesService {
  private readonly jobs = new Jobs<string>('making of a profile', {
    message: 'The profile could not be made.',
    remedy: 'Try it again; if it fails once more, choose smaller tables.',
  });

  constructor(
    @InjectRepository(ProfileRow) private readonly rows: Repository<ProfileRow>,
    @InjectRepository(ProfileCheckRow) private readonly checkRows: Repository<ProfileCheckRow>,
    @InjectRepository(ConditionRow) private readonly conditionRows: Repository<ConditionRow>,
    @InjectRepository(ReadingRow) private readonly readingRows: Repository<ReadingRow>,
    private readonly conditions: ConditionsService,
    private readonly models: ModelsService,
    private readonly readings: ReadingsService,
    private readonly charts: ChartsService,
    private readonly pictures: PicturesService,
    private readonly table: TableService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
  ) {}

  async list(): Promise<ProfileView[]> {
    return this.views(await this.rows.find({ order: { createdAt: 'ASC' } }));
  }

  async view(id: string): Promise<ProfileView> {
    return (await this.views([await this.get(id)]))[0];
  }

  /** Keeps a maker's profile. One that is known by its name alone becomes the kept one. */
  async bring(file: IncomingFile): Promise<ProfileView> {
    const { name, space, volume, mesh } = await this.workshop.run(
      'profileSolid',
      { bytes: await readFile(file.path) },
      file.originalname,
    );
    const contentHash = await this.files.keepFile(file.path);
    const twin = await this.rows.findOneBy({ contentHash });
    if (twin) return this.view(twin.id);
    const id = randomUUID();
    await this.rows.insert(
      columns<ProfileRow>({
        id,
        createdAt: new Date().toISOString(),
        name: name || file.originalname,
        source: 'brought',
        contentHash,
        space,
        volume,
        mesh,
      }),
    );
    return this.view(id);
  }

  /** Begins to make a profile from what was read of a condition, and returns at once. */
  async make(conditionId: string, settings: ProfileSettingsInput): Promise<ProfileJob> {
    const { paper, printMode } = await this.conditions.view(conditionId);
    const used = settings.use !== false && printMode === 'colour through a profile';
    const light = TABLE_LIGHTS.find((l) => l.key === settings.light);
    if (!light)
      throw new RakuenError(422, 'There is no such light on the table.', {
        field: 'light',
        remedy: `Choose one of ${TABLE_LIGHTS.map((l) => l.key).join(', ')}.`,
      });
    const name = await this.freeName(settings.name.trim());
    const job = this.jobs.begin(undefined, async (signal, progress) => {
      const fitted = await this.models.fitted(conditionId, settings.builtFrom);
      const { version, grid, greys } = settings;
      const { bytes, volume, mesh } = await this.workshop.makeProfile(
        {
          fitted,
          sources: await this.models.sources(conditionId, settings.builtFrom),
          settings: { version, grid, greys, light },
          words: { description: name, matt: paper.coating !== undefined && isMatt(paper.coating) },
        },
        signal,
        progress,
      );
      if (signal.aborted) throw new Error('stopped');
      return this.writer.run('profile made', async () => {
        const contentHash = await this.files.keepBytes(bytes);
        const twin = await this.rows.findOneBy({ contentHash });
        if (twin) {
          if (used) await this.choose(conditionId, twin.id);
          return twin.id;
        }
        const id = randomUUID();
        // What it rests on is kept, asked for or not: readings of another measurement condition are not held against it.
        const builtFrom = BUILT_FROM.find((c) => c === (settings.builtFrom ?? fitted.condition));
        const { use: _, ...asked } = settings;
        const use = { ...asked, builtFrom };
        const earlier = (await this.rows.findBy({ conditionId, source: 'made' })).filter(
          (p) => p.supersededBy === null && sameUse(p.settings, use),
        );
        await this.rows.insert(
          columns<ProfileRow>({
            id,
            createdAt: new Date().toISOString(),
            name: await this.freeName(name),
            source: 'made',
            contentHash,
            space: 'RGB',
            volume,
            mesh,
            conditionId,
            settings: use,
            error: fitted.error,
          }),
        );
        for (const p of earlier) await this.rows.update(p.id, { supersededBy: id });
        if (used) await this.choose(conditionId, id);
        return id;
      });
    });
    return jobView(job);
  }

  job(id: string): ProfileJob {
    return jobView(this.jobs.get(id));
  }

  cancel(id: string): ProfileJob {
    return jobView(this.jobs.cancel(id));
  }

  async file(id: string): Promise<OutgoingFile> {
    const row = await this.kept(id);
    const stem = row.name.replace(/\.ic[cm]$/i, '').replace(/[^\p{L}\p{N}.-]+/gu, '-');
    return {
      name: `${stem}.icc`,
      mediaType: 'application/vnd.iccprofile',
      bytes: await this.files.read(row.contentHash!),
    };
  }

  /** A profile's file; undefined where only its name is known. */
  async bytesOf(id: string): Promise<Buffer | undefined> {
    const row = await this.get(id);
    return row.contentHash ? this.files.read(row.contentHash) : undefined;
  }

  async solid(id: string): Promise<SolidView> {
    const row = await this.rows.findOne({ where: { id }, select: { id: true, mesh: true } });
    if (!row?.mesh) throw notFound('profile with a solid');
    return { id, mesh: row.mesh };
  }

  async remove(id: string): Promise<void> {
    const row = await this.get(id);
    const users = await this.conditionRows.countBy({ profileId: id });
    if (users > 0)
      throw new RakuenError(
        409,
        `${row.name} is used: ${users} print condition${users === 1 ? ' is' : 's are'} printed through it.`,
        {
          remedy: 'Choose another profile there first.',
        },
      );
    await this.rows.delete(id);
  }

  /** Says which profile a condition is printed through. */
  async choose(conditionId: string, profileId: string | undefined): Promise<ProfileView[]> {
    await this.conditions.get(conditionId);
    const chosen = profileId ? await this.get(profileId) : undefined;
    await this.conditionRows.update(conditionId, { profile: chosen?.name ?? '', profileId: chosen?.id ?? null });
    return this.list();
  }

  /** Lays out the strip that is printed to check a profile. */
  async strip(id: string): Promise<ChartView> {
    const row = await this.kept(id);
    const sent = await this.workshop.run(
      'stripThrough',
      { profile: await this.files.read(row.contentHash!) },
      row.name,
    );
    return this.ownChart(`Check of ${row.name}`, 'check', sent);
  }

  /** Lays out the patches that would help a condition's model most, for the pictures on the table. */
  async next(conditionId: string, count: number): Promise<ChartView> {
    const { paper } = await this.conditions.view(conditionId);
    const fitted = await this.models.fitted(conditionId);
    if (fitted.deviceSpace !== 'RGB')
      throw new RakuenError(422, 'Patches are found for printers that are driven in RGB.', {
        remedy: 'Read this condition with a chart of its own.',
      });
    const { pictureIds } = await this.table.get();
    const patches = await this.workshop.run('nextPatches', {
      fitted,
      sources: await this.models.sources(conditionId),
      cells: await Promise.all(pictureIds.map((p) => this.pictures.cells(p))),
      count,
    });
    return this.ownChart(`Next for ${paper.name}`, 'next', patches);
  }

  async checks(profileId: string): Promise<CheckList> {
    const profile = await this.get(profileId);
    const rows = await this.checkRows.find({ where: { profileId }, order: { at: 'DESC' } });
    return { checks: rows.map((row) => checkView(row, profile)) };
  }

  /** Holds a set of readings of a condition against the profile it was printed through. */
  async checkReading(profileId: string, readingId: string): Promise<CheckView> {
    const row = await this.kept(profileId);
    const reading = await this.readingRows.findOneBy({ id: readingId });
    if (!reading) throw notFound('reading');
    const profile = await this.files.read(row.contentHash!);
    const granted = takenForGrantedOf(profile, reading.measurementCondition);
    const result = await this.workshop.run(
      'checkProfileOf',
      {
        profile,
        source: await readingSource(this.files, reading),
        others: await this.otherSettings(reading.conditionId),
        boxes: await this.otherBoxes(reading.conditionId, reading.measurementCondition),
      },
      reading.fileName,
    );
    const wet = readWet(reading) ? [WET] : [];
    return this.keepCheck(row, { ...result, off: [...wet, ...granted, ...result.off] }, reading, reading.conditionId);
  }

  /** The same with a file of readings that belong to no condition. */
  async checkFile(profileId: string, file: IncomingFile, conditionId?: string): Promise<CheckView> {
    const row = await this.kept(profileId);
    if (conditionId) await this.conditions.get(conditionId);
    const bytes = await readFile(file.path);
    const profile = await this.files.read(row.contentHash!);
    // The reading of the file that the profile was built from, else the one that speaks.
    const { parts } = await this.readings.look(file.originalname, bytes, {});
    const of = (c: MeasurementCondition | null) => parts.findIndex((p) => (p.measurementCondition ?? null) === c);
    const inTurn = [...promisedUnder(profile).conditions, ...PRECEDENCE];
    const part = inTurn.map(of).find((i) => i >= 0) ?? 0;
    const granted = takenForGrantedOf(profile, parts[part]?.measurementCondition ?? null);
    const result = await this.workshop.run(
      'checkProfileOf',
      {
        profile,
        source: { bytes, part, stated: {} },
        others: await this.otherSettings(conditionId),
        boxes: await this.otherBoxes(conditionId, parts[part]?.measurementCondition ?? null),
      },
      file.originalname,
    );
    const contentHash = await this.files.keepFile(file.path);
    return this.keepCheck(
      row,
      { ...result, off: [...granted, ...result.off] },
      { fileName: file.originalname.slice(0, 200), contentHash, part },
      conditionId,
    );
  }

  /**
   * What may have gone wrong with a print of a condition: its other settings and boxes, as they were read.
   * @param measured measurement condition of what was read
   * @throws RakuenError (409) where its profile is another light’s, or was built from another measurement condition
   */
  async suppositions(
    { id, profileId }: { readonly id: string; readonly profileId?: string },
    measured: MeasurementCondition | null,
  ): Promise<{ others: OtherSetting[]; boxes: OtherBox[]; granted: string[] }> {
    const profile = profileId && (await this.bytesOf(profileId));
    const granted = profile ? takenForGrantedOf(profile, measured) : [];
    const others = (await this.otherSettings(id)).filter((o) => o.fitted.condition === (measured ?? undefined));
    return { others, boxes: await this.otherBoxes(id, measured), granted };
  }

  private async keepCheck(
    profile: ProfileRow,
    result: HeldCheck,
    { fileName, contentHash, part }: Pick<ReadingRow, 'fileName' | 'contentHash' | 'part'>,
    conditionId?: string,
  ): Promise<CheckView> {
    const check = this.checkRows.create({
      id: randomUUID(),
      at: new Date().toISOString(),
      profileId: profile.id,
      conditionId: conditionId ?? null,
      fileName,
      contentHash,
      part,
      result: { ...result, own: await this.ownMean(conditionId) },
    });
    await this.checkRows.insert(whole(check));
    return checkView(check, profile);
  }

  /** What a profile of one's own is foretold to reach; undefined where the condition was not read as a whole. */
  private async ownMean(conditionId: string | undefined): Promise<number | undefined> {
    if (!conditionId) return undefined;
    return this.models.fitted(conditionId).then(
      (fitted) => fitted.error.stated.all.mean,
      () => undefined,
    );
  }

  /**
   * Other media settings of the same paper in the same printer, as far as they were read: a strip printed by mistake
   * in one of them is known by it.
   */
  private async otherSettings(conditionId: string | undefined): Promise<OtherSetting[]> {
    if (!conditionId) return [];
    const own = await this.conditions.view(conditionId);
    const others = (await this.conditions.list()).filter(
      (c) =>
        c.id !== conditionId && c.paperId === own.paperId && c.printer === own.printer && c.printMode === own.printMode,
    );
    const found: OtherSetting[] = [];
    for (const c of others) {
      const fitted = await this.models.fitted(c.id).catch(() => undefined);
      if (fitted?.deviceSpace === 'RGB') found.push({ which: c.mediaSetting, fitted });
    }
    return found;
  }

  /** Boxes of the paper as they were read in this condition, under the same measurement condition: the newest of each. */
  private async otherBoxes(conditionId: string | undefined, measured: string | null): Promise<OtherBox[]> {
    if (!conditionId) return [];
    const { readings } = await this.conditions.view(conditionId);
    const newest = new Map(
      readings
        .filter((r) => r.source === 'measured' && (r.measurementCondition ?? null) === measured)
        .map((r) => [r.batch, r.id]),
    );
    // One box alone tells nothing of another.
    if (newest.size < 2) return [];
    const found: OtherBox[] = [];
    for (const [batch, id] of [...newest].slice(-MOST_BOXES)) {
      const row = await this.readingRows.findOneBy({ id });
      if (row) found.push({ which: batch || 'the first box', source: await readingSource(this.files, row) });
    }
    return found;
  }

  private async ownChart(name: string, purpose: OwnPurpose, patches: readonly Rgb[]): Promise<ChartView> {
    const seed = 1 + (Date.now() % 900_000);
    const design = designOwnChart(purpose, patches, { ...SMALL_CHART, seed });
    return this.writer.run('chart laid out', () => this.charts.keep(name.slice(0, 80), design));
  }

  private async get(id: string): Promise<ProfileRow> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('profile');
    return row;
  }

  private async kept(id: string): Promise<ProfileRow> {
    const row = await this.get(id);
    if (!row.contentHash)
      throw new RakuenError(409, `${row.name} is known by its name alone; there is no file of it here.`, {
        remedy: 'Bring the profile’s file first.',
      });
    return row;
  }

  /** A name that no other profile has: by it the record of a print condition's changes says which it was printed through. */
  private async freeName(wanted: string): Promise<string> {
    const taken = new Set((await this.rows.find({ select: { name: true } })).map((p) => p.name.toLowerCase()));
    let name = wanted;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${wanted} (${n})`;
    return name;
  }

  private async views(rows: readonly ProfileRow[]): Promise<ProfileView[]> {
    const users = await this.conditionRows.find({
      select: { id: true, createdAt: true, profile: true, profileId: true },
    });
    const uses = namedUses(users, await this.conditionRows.query<NameChange[]>(NAME_CHANGES));
    const all = await this.rows.find({ select: { name: true } });
    const counts = await this.checkRows
      .createQueryBuilder('c')
      .select('c.profileId', 'id')
      .addSelect('COUNT(*)', 'count')
      .groupBy('c.profileId')
      .getRawMany<{ id: string; count: number }>();
    return rows.map((row) => ({
      id: row.id,
      createdAt: row.createdAt,
      name: row.name,
      source: row.source,
      kept: row.contentHash !== null,
      space: row.space ?? undefined,
      volume: row.volume ?? undefined,
      conditionId: row.conditionId ?? undefined,
      settings: row.settings ?? undefined,
      error: row.error ? readModelError(row.error) : undefined,
      supersededBy: row.supersededBy ?? undefined,
      usedBy: users.filter((u) => u.profileId === row.id).map((u) => u.id),
      uses: usesOf(row, uses, all),
      checks: Number(counts.find((c) => c.id === row.id)?.count ?? 0),
    }));
  }
}

const sameUse = (p: ProfileSettingsInput | null, q: ProfileSettingsInput) =>
  p?.light === q.light && p.greys === q.greys && (p.builtFrom ?? q.builtFrom) === q.builtFrom;

/** Said of a strip that was read before it was dry. */
const WET = 'the strip was read before its print had dried: inks lie deeper once they are dry';

/** What holding readings against a profile takes for granted. @throws RakuenError (409) where they can't be held against it */
function takenForGrantedOf(profile: Uint8Array, condition: MeasurementCondition | null): string[] {
  const under = promisedUnder(profile);
  const fault = whyNotHeld(under, condition ?? undefined);
  if (fault) throw new RakuenError(409, fault.message, { remedy: fault.remedy });
  return takenForGranted(under, condition ?? undefined);
}

const jobView = ({ about: _, result, ...job }: Job<string>): ProfileJob => ({ ...job, profileId: result });

const checkView = (
  { id, at, profileId, conditionId, fileName, result }: ProfileCheckRow,
  { source }: ProfileRow,
): CheckView => ({
  id,
  at,
  profileId,
  conditionId: conditionId ?? undefined,
  fileName,
  result,
  words: checkInWords(result, { own: result.own, made: source === 'made' }),
});
