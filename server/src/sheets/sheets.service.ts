import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { LightFields, LightView, SheetView } from '@rakuen/contract/sheets';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { LightRow } from '../store/entities/readings.ts';
import { Workshop } from '../work/workshop.ts';
import { whole } from '../store/rows.ts';

/** Sheets are dear to ready and change with their readings alone: the last of them stay. */
const MOST_KNOWN = 24;

/** What the comparison looks at besides figures: spectra, solids, lamps. */
@Injectable()
export class SheetsService {
  private readonly known = new Map<string, SheetView>();

  constructor(
    @InjectRepository(LightRow) private readonly lightRows: Repository<LightRow>,
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
    await this.lightRows.insert(whole(row));
    return lightView(row);
  }

  async removeLight(id: string): Promise<void> {
    if (!(await this.lightRows.delete(id)).affected) throw notFound('light');
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
