import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { viewingLight, type LampUv } from '@rakuen/core/light/own-lamp';
import { TABLE_LIGHTS, type ViewingLight } from '@rakuen/core/light/table-lights';
import { FIGURES_VERSION } from '@rakuen/core/measurement/measures/registry';
import type { LightFields, LightView, SheetView } from '@rakuen/contract/sheets';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { setKey, setSources } from '../readings/reading-source.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { Derived } from '../store/derived.ts';
import { keyFrom } from '../store/keys.ts';
import { LightRow } from './sheets.entity.ts';
import { Workshop } from '../work/workshop.ts';
import { whole } from '../store/rows.ts';

/** What the comparison looks at besides figures: spectra, solids, lamps. */
@Injectable()
export class SheetsService {
  constructor(
    @InjectRepository(LightRow) private readonly lightRows: Repository<LightRow>,
    private readonly readings: ReadingsService,
    private readonly derived: Derived,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
  ) {}

  async sheet(conditionId: string): Promise<SheetView> {
    return this.derived.get(conditionId, 'sheet', async () => {
      const sets = await this.readings.speakingSets(conditionId);
      const [speaking] = sets;
      if (!speaking)
        throw new RakuenError(404, 'Nothing was read of this print condition yet.', {
          remedy: 'Bring readings first.',
        });
      return {
        key: keyFrom('sheet', FIGURES_VERSION, sets.map(setKey)),
        compute: async (): Promise<SheetView> => ({
          conditionId,
          readingId: speaking.primary.id,
          ...(await this.workshop.run('sheetOf', {
            sets: await Promise.all(sets.map((set) => setSources(this.files, set))),
          })),
        }),
      };
    });
  }

  async lights(): Promise<LightView[]> {
    return (await this.lightRows.find({ order: { createdAt: 'ASC' } })).map(lightView);
  }

  async addLight(file: IncomingFile, { name }: LightFields): Promise<LightView> {
    const { spectrum, fileStepNm } = await this.workshop.run(
      'lightSpectrum',
      { bytes: await readFile(file.path) },
      file.originalname,
    );
    await this.files.discard(file.path);
    const row = this.lightRows.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      name: name.trim(),
      spectrum,
      uv: 'unknown',
      fileStepNm,
    });
    await this.lightRows.insert(whole(row));
    return lightView(row);
  }

  /** Says what is known of a lamp's UV. */
  async setLightUv(id: string, uv: LampUv): Promise<LightView> {
    if (!(await this.lightRows.update(id, { uv })).affected) throw notFound('light');
    return lightView(await this.lightRows.findOneByOrFail({ id }));
  }

  /** Every light there is: those of the table, and the lamps that were imported. */
  async allLights(): Promise<ViewingLight[]> {
    const own = await this.lightRows.find({ order: { createdAt: 'ASC' } });
    return [...TABLE_LIGHTS, ...own.map(viewingLight)];
  }

  async removeLight(id: string): Promise<void> {
    if (!(await this.lightRows.delete(id)).affected) throw notFound('light');
  }
}

const lightView = ({ id, createdAt, name, spectrum, uv, fileStepNm }: LightRow): LightView => ({
  id,
  createdAt,
  name,
  startNm: spectrum.startNm,
  stepNm: spectrum.stepNm,
  values: [...spectrum.values],
  uv,
  fileStepNm: fileStepNm ?? undefined,
});
