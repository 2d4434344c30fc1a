import { readFile } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import sharp from 'sharp';
import { readGloss } from '@rakuen/core/simulation/gloss-meter';
import { measureStack, readBacking, weigh } from '@rakuen/core/simulation/scale';
import type { Observation } from '@rakuen/core/measurement/observations';
import { doubtsOf } from '@rakuen/core/measurement/plausible';
import { standIn, type StandInFacts } from '@rakuen/core/simulation/stand-in';
import type { PressModel } from '@rakuen/core/simulation/printer';
import type { ConditionView } from '@rakuen/contract/conditions';
import {
  VALUE_CLASSES,
  type BenchKind,
  type BenchValue,
  type GlossValue,
  type ObservationInput,
  type OpacityValue,
  type ScanFields,
  type ScanQuery,
  type ThicknessValue,
  type WeightValue,
} from '@rakuen/contract/observations';
import { faultsOf, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { ObservationsService, type NewObservation } from '../conditions/observations.service.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { Workshop } from '../work/workshop.ts';

const TIMES = 5;
const A4 = { widthMm: 210, heightMm: 297 };
const STACK = 10;
export const SIMULATED_SCANNER = 'Simulated raking-light scanner';

/** What the stand-ins of the bench give for a sheet in a printer. */
const STAND_INS: Record<BenchKind, { instrument: string; read: (press: PressModel, seed: number) => object[] }> = {
  gloss: {
    instrument: 'Simulated gloss meter, 20°, 60°, 85°',
    read: (press, seed) =>
      readGloss(press, TIMES, seed).map(({ angle, white, black }): GlossValue => ({ angleDeg: angle, white, black })),
  },
  weight: {
    instrument: 'Simulated scale, 0.01 g',
    read: ({ sheet }, seed): WeightValue[] => [{ ...A4, grams: weigh(sheet, A4.widthMm, A4.heightMm, TIMES, seed) }],
  },
  thickness: {
    instrument: 'Simulated micrometer, 1 µm',
    read: ({ sheet }, seed): ThicknessValue[] => [{ sheets: STACK, stackUm: measureStack(sheet, STACK, TIMES, seed) }],
  },
  opacity: {
    instrument: 'Simulated bench spectrophotometer',
    read: ({ sheet }, seed): OpacityValue[] => [readBacking(sheet, TIMES, seed)],
  },
};

/** The bench besides the spectrophotometer: what is weighed, measured, scanned and judged of a print. */
@Injectable()
export class BenchService {
  constructor(
    private readonly conditions: ConditionsService,
    private readonly observations: ObservationsService,
    private readonly settings: SettingsService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
  ) {}

  /** @throws RakuenError 409 where a value is hard to believe and nobody has said that it is right */
  async observe(conditionId: string, inputs: readonly ObservationInput[], sure = false): Promise<ConditionView> {
    await this.conditions.get(conditionId);
    const rows = await Promise.all(
      inputs.map(async (input) => {
        const value = plainToInstance(VALUE_CLASSES[input.kind] as new () => object, input.value);
        const faults = faultsOf(
          await validate(value, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true }),
          'value',
        );
        if (faults.length > 0)
          throw new RakuenError(400, faults.map((f) => f.message).join('; '), {
            field: faults.map((f) => f.field).join(', '),
            remedy: 'Correct what is named and send it again.',
          });
        return row(conditionId, input, value);
      }),
    );
    if (!sure) await this.refuseDoubtful(conditionId, rows);
    await this.observations.keep(rows);
    return this.conditions.view(conditionId);
  }

  private async refuseDoubtful(conditionId: string, rows: readonly NewObservation[]): Promise<void> {
    const { paper, facts } = await this.conditions.view(conditionId);
    const weighed = facts?.figures.weight;
    const known = {
      coating: paper.coating,
      thicknessUm: paper.thicknessUm,
      weightGsm: paper.weightGsm ?? (weighed?.shape === 'scalar' ? weighed.value : undefined),
    };
    const [doubt] = rows.flatMap((r) => doubtsOf({ kind: r.kind, ...r.value } as Observation, known));
    if (doubt)
      throw new RakuenError(409, doubt.message, {
        field: doubt.field,
        remedy: 'Correct it, or confirm that it is right.',
      });
  }

  async forget(id: string): Promise<ConditionView> {
    const known = await this.observations.get(id);
    await this.observations.remove(known);
    return this.conditions.view(known.conditionId);
  }

  /** A scan that was brought: its texture is measured, and it is kept beside it. */
  async scan(conditionId: string, file: IncomingFile, fields: ScanFields): Promise<ConditionView> {
    await this.conditions.get(conditionId);
    const ppi = Number(fields.ppi);
    if (!(ppi >= 50 && ppi <= 10_000))
      throw new RakuenError(400, `“${fields.ppi}” is no resolution of a scan.`, {
        field: 'ppi',
        remedy: 'State the pixels per inch it was scanned at, 300 or more.',
      });
    const { limits } = await this.settings.get();
    const { texture, png } = await this.workshop.run(
      'readScan',
      { path: file.path, ppi, maxPixels: limits.picturePixels },
      file.originalname,
    );
    await this.files.discard(file.path);
    return this.keepScan(conditionId, { ...texture, ppi }, png, fields.by, fields.instrument);
  }

  async simulatedScan(conditionId: string, by: string, seed: number): Promise<ConditionView> {
    const { texture, png, ppi } = await this.workshop.run('simulateScan', {
      sheet: (await this.press(conditionId)).sheet,
      seed,
    });
    return this.keepScan(conditionId, { ...texture, ppi }, png, by, SIMULATED_SCANNER);
  }

  async keepScan(
    conditionId: string,
    texture: object,
    png: Uint8Array,
    by: string,
    instrument: string,
  ): Promise<ConditionView> {
    const scanHash = await this.files.keepBytes(png);
    await this.observations.keep([
      {
        conditionId,
        kind: 'texture',
        value: texture,
        takenAt: new Date().toISOString(),
        by: by.trim(),
        instrument: instrument.trim(),
        light: '',
        note: '',
        scanHash,
      },
    ]);
    return this.conditions.view(conditionId);
  }

  async scanFile(id: string, { as }: ScanQuery): Promise<Buffer> {
    const { scanHash } = await this.observations.get(id);
    if (!scanHash)
      throw new RakuenError(404, 'No scan is kept with this observation.', { remedy: 'Look at the list again.' });
    const scan = await readFile(this.files.pathOf(scanHash));
    return as === 'raised' ? sharp(scan).normalise({ lower: 0.5, upper: 99.5 }).png().toBuffer() : scan;
  }

  /** What a stand-in reads; nothing is kept. */
  async read(conditionId: string, kind: BenchKind, seed: number): Promise<BenchValue> {
    const { instrument, read } = STAND_INS[kind];
    return { instrument, values: read(await this.press(conditionId), seed) };
  }

  /** The press that stands in for a print condition. */
  async press(conditionId: string, batch = ''): Promise<PressModel> {
    return standIn({ ...(await this.standInFacts(conditionId)), batch });
  }

  /** What a printer of its kind should give. */
  async rightPress(conditionId: string): Promise<PressModel> {
    return standIn(await this.standInFacts(conditionId), true);
  }

  /** What stands in for the printer of a print condition is made from; undefined where nobody said what kind of sheet it prints on. */
  async knownStandIn(conditionId: string): Promise<StandInFacts | undefined> {
    const { paper, ...c } = await this.conditions.view(conditionId);
    const { coating, surface, weightGsm, thicknessUm, brightenerClaim } = paper;
    if (!coating || !surface || weightGsm === undefined || thicknessUm === undefined) return undefined;
    const sheetName = `${paper.maker} ${paper.name}`;
    return { ...c, coating, surface, weightGsm, thicknessUm, brightenerClaim, sheetName };
  }

  private async standInFacts(conditionId: string): Promise<StandInFacts> {
    const known = await this.knownStandIn(conditionId);
    if (known) return known;
    const { paper } = await this.conditions.view(conditionId);
    throw new RakuenError(409, `What kind of sheet ${paper.name} is was not said: nothing can stand in for it.`, {
      remedy: 'Say its coating, surface, weight and thickness in its paper, or bring what your instrument read.',
    });
  }
}

const row = (conditionId: string, input: ObservationInput, value: object): NewObservation => ({
  conditionId,
  kind: input.kind,
  value: { ...value },
  takenAt: new Date(input.takenAt).toISOString(),
  by: input.by.trim(),
  instrument: input.instrument.trim(),
  light: input.light?.trim() ?? '',
  note: input.note?.trim() ?? '',
  scanHash: null,
});
