import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { LightFields, LightView, ProfileView, SheetView, SolidView } from '@rakuen/contract/sheets';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { LightRow, ProfileRow } from '../store/entities.ts';
import { Workshop } from '../work/workshop.ts';

/** Sheets are dear to ready and change with their readings alone: the last of them stay. */
const MOST_KNOWN = 24;

/** What the comparison looks at besides figures: spectra, solids, lamps, profiles. */
@Injectable()
export class SheetsService {
  private readonly known = new Map<string, SheetView>();

  constructor(
    @InjectRepository(LightRow) private readonly lightRows: Repository<LightRow>,
    @InjectRepository(ProfileRow) private readonly profileRows: Repository<ProfileRow>,
    private readonly readings: ReadingsService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
  ) {}

  async sheet(conditionId: string): Promise<SheetView> {
    const speaking = await this.readings.speaking(conditionId);
    if (!speaking)
      throw new RakuenError(404, 'Nothing was read of this print condition yet.', { remedy: 'Bring readings first.' });
    const { primary, companions } = speaking;
    const key = [primary.id, ...companions.map((c) => c.id)].join();
    const known = this.known.get(key);
    if (known) return known;
    const view: SheetView = {
      conditionId,
      readingId: primary.id,
      ...(await this.workshop.run('sheetOf', {
        ...(await this.readings.sources(speaking)),
      })),
    };
    this.known.set(key, view);
    if (this.known.size > MOST_KNOWN) this.known.delete(this.known.keys().next().value!);
    return view;
  }

  async lights(): Promise<LightView[]> {
    return (await this.lightRows.find({ order: { createdAt: 'ASC' } })).map(lightView);
  }

  async addLight(file: IncomingFile, { name }: LightFields): Promise<LightView> {
    const spectrum = await this.workshop.run('lightSpectrum', { bytes: await readFile(file.path) }, file.originalname);
    await this.files.discard(file.path);
    const row = this.lightRows.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      name: name.trim(),
      spectrum,
    });
    await this.lightRows.insert(row as never);
    return lightView(row);
  }

  async removeLight(id: string): Promise<void> {
    if (!(await this.lightRows.delete(id)).affected) throw notFound('light');
  }

  async profiles(): Promise<ProfileView[]> {
    return (await this.profileRows.find({ order: { createdAt: 'ASC' } })).map(profileView);
  }

  async addProfile(file: IncomingFile): Promise<ProfileView> {
    const { name, space, volume, mesh } = await this.workshop.run(
      'profileSolid',
      { bytes: await readFile(file.path) },
      file.originalname,
    );
    const contentHash = await this.files.keepFile(file.path);
    const twin = await this.profileRows.findOneBy({ contentHash });
    if (twin) return profileView(twin);
    const row = this.profileRows.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      name: name || file.originalname,
      contentHash,
      space,
      volume,
      mesh,
    });
    await this.profileRows.insert(row as never);
    return profileView(row);
  }

  async solid(id: string): Promise<SolidView> {
    const row = await this.profileRows.findOne({ where: { id }, select: { id: true, mesh: true } });
    if (!row) throw notFound('profile');
    return { id, mesh: row.mesh };
  }

  async removeProfile(id: string): Promise<void> {
    if (!(await this.profileRows.delete(id)).affected) throw notFound('profile');
  }
}

const lightView = ({ id, createdAt, name, spectrum }: LightRow): LightView => ({
  id,
  createdAt,
  name,
  startNm: spectrum.startNm,
  stepNm: spectrum.stepNm,
  values: [...spectrum.values],
});
const profileView = ({ id, createdAt, name, space, volume }: ProfileRow): ProfileView => ({
  id,
  createdAt,
  name,
  space,
  volume,
});
