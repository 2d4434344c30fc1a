import { Injectable } from '@nestjs/common';
import type { EstimatedWhite, PackedSheet } from '@rakuen/core/characterisation/packed';
import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import { GLASSES } from '@rakuen/core/light/glass';
import type { ViewingLight } from '@rakuen/core/light/table-lights';
import { brightenerKnown } from '@rakuen/core/match/lay';
import { MATCH_VERSION } from '@rakuen/core/match/on-sheet';
import type { ConditionView } from '@rakuen/contract/conditions';
import { notFound, RakuenError } from '../app/errors.ts';
import { FactsService } from '../conditions/facts.service.ts';
import { SheetsService } from '../sheets/sheets.service.ts';
import { Derived } from '../store/derived.ts';
import { keyFrom } from '../store/keys.ts';
import type { PackedLaid, PackedReady, PackedSent } from '../work/lay-tasks.ts';
import { Workshop } from '../work/workshop.ts';
import { ModelsService } from './models.service.ts';

/** Where a print is looked at: keys of a light and a glass. */
export interface Where {
  readonly light: string;
  readonly glass: string;
}

/** A sheet ready for pictures, and by how much it may be off. */
export interface Laid extends PackedLaid {
  /** Mean ΔE00 to be expected of the model at colours as pictures have them; absent where only the solid of its colours is known. */
  readonly modelError?: number;
  /** Seen as if it had no brightener, in a light that bears on it: it was neither read with and without UV nor can it be estimated. */
  readonly brightenerUnknown?: boolean;
  /** Between what its white lies where the brightener is estimated. */
  readonly estimatedWhite?: EstimatedWhite;
}

/** A sheet ready to be matched with any picture. */
export interface Ready extends Pick<Laid, 'modelError' | 'brightenerUnknown' | 'estimatedWhite'> {
  readonly sheet: PackedReady;
}

/** Print conditions laid out for pictures: what comes out for every colour of a file. Computed once, and kept. */
@Injectable()
export class LaidService {
  constructor(
    private readonly facts: FactsService,
    private readonly models: ModelsService,
    private readonly sheets: SheetsService,
    private readonly derived: Derived,
    private readonly workshop: Workshop,
  ) {}

  async lightOf(key: string): Promise<ViewingLight> {
    const light = (await this.sheets.allLights()).find((l) => l.key === key);
    if (!light)
      throw new RakuenError(404, 'The light is not known here: the lamp may have been removed since.', {
        field: 'light',
        remedy: 'Choose another one under “Where it will hang”.',
      });
    return light;
  }

  /** @throws RakuenError (409) where what was read can't tell it */
  async laid(condition: ConditionView, where: Where, rendering: RenderingKey = 'relative'): Promise<Laid> {
    if (!GLASSES.some((g) => g.key === where.glass)) throw notFound('glass');
    const light = await this.lightOf(where.light);
    if (!condition.facts?.figures.white)
      throw new RakuenError(409, 'Nothing was read of this print condition: how it looks is not known.', {
        remedy: 'Import readings of its chart under Readings.',
      });
    if (!hasModel(condition)) return this.fromSolid(condition, where);
    const { id, paper } = condition;
    const fitted = await this.models.fitted(id);
    const plain = light.key === 'D50' && where.glass === 'none';
    if (!fitted.spectral && !plain)
      throw new RakuenError(409, 'Its readings hold no spectra: how it looks in that light is not known.', {
        remedy: 'Read its chart with a spectrophotometer, or match in D50 without glass.',
      });
    const key = await this.models.keyOf(id);
    const sent = await this.sent(condition, rendering);
    const laid = await this.derived.get(id, `laid ${rendering} ${light.key} ${where.glass}`, async () => ({
      key: await this.modelKey(condition, light),
      compute: () =>
        this.workshop.run('layModel', {
          key,
          fitted,
          sent,
          rendering,
          coating: paper.coating,
          light,
          glassKey: where.glass,
        }),
    }));
    return {
      ...laid,
      modelError: fitted.error.stated.pictures.mean,
      ...brightenerKnown(!plain && !fitted.spectral?.luminous, laid.seen),
    };
  }

  /** What a match asks of it, whatever the picture. @throws RakuenError (409) where what was read can't tell it */
  async ready(condition: ConditionView, where: Where, rendering: RenderingKey = 'relative'): Promise<Ready> {
    // What was seen in a lamp that was removed since is not told as if it hung there still.
    const light = await this.lightOf(where.light);
    if (!GLASSES.some((g) => g.key === where.glass)) throw notFound('glass');
    if (rendering !== 'relative' && !hasModel(condition))
      throw new RakuenError(
        409,
        'Only the solid of its colours is known: no other rendering than relative can be computed.',
        {
          remedy: 'Read its chart with device values.',
        },
      );
    const by = rendering === 'relative' ? '' : ` ${rendering}`;
    return this.derived.get(condition.id, `matched ${where.light} ${where.glass}${by}`, async () => ({
      key: hasModel(condition) ? await this.modelKey(condition, light) : await this.solidKey(condition.id, light),
      compute: async () => {
        const { modelError, brightenerUnknown, estimatedWhite, ...laid } = await this.laid(condition, where, rendering);
        return { sheet: await this.workshop.run('readyFor', laid), modelError, brightenerUnknown, estimatedWhite };
      },
    }));
  }

  /** What is sent for every colour of a file. @param condition one that has a model */
  async sent({ id }: ConditionView, rendering: RenderingKey = 'relative'): Promise<PackedSent> {
    const fitted = await this.models.fitted(id);
    const key = await this.models.keyOf(id);
    return this.derived.get(id, `sent ${rendering}`, async () => ({
      key: keyFrom('sent', MATCH_VERSION, await this.models.keyOf(id)),
      compute: () => this.workshop.run('sendFor', { key, fitted, rendering }),
    }));
  }

  /** Changes with everything that is sent for a colour on a sheet. */
  keyOf({ id }: ConditionView): Promise<string> {
    return this.models.keyOf(id);
  }

  /** The lamp is part of it: what is known of the UV of one that was imported may change. */
  private async modelKey({ id, paper }: ConditionView, { power }: ViewingLight): Promise<string> {
    return keyFrom('laid', MATCH_VERSION, paper.coating, power.values, await this.models.keyOf(id));
  }

  private async solidKey(id: string, { power }: ViewingLight): Promise<string> {
    return keyFrom('laid', MATCH_VERSION, power.values, await this.facts.keyOf(id));
  }

  /** A set without device values, of CMYK, or told by a profile: its solid is all that is known. */
  private async fromSolid({ id, facts }: ConditionView, where: Where): Promise<Laid> {
    const { white, black, gamutVolume } = facts!.figures;
    const mesh = await this.facts.solid(id);
    if (white?.shape !== 'colour' || black?.shape !== 'colour' || !mesh)
      throw new RakuenError(
        409,
        gamutVolume?.shape === 'missing' ? gamutVolume.why : 'Its readings enclose no solid of colours.',
        { remedy: 'Read a chart that holds more than greys.' },
      );
    if (where.light !== 'D50' || where.glass !== 'none')
      throw new RakuenError(
        409,
        'Only the solid of its colours is known, as it was read: how it looks in another light or behind glass is not.',
        { remedy: 'Read its chart with device values and spectra, or match in D50 without glass.' },
      );
    const sheet: PackedSheet = await this.derived.get(id, 'laid solid', async () => ({
      key: await this.solidKey(id, await this.lightOf(where.light)),
      compute: () => this.workshop.run('layFromSolid', { mesh, white: white.lab, black: black.lab }),
    }));
    return { bare: sheet, seen: sheet };
  }
}

/** Is there enough to learn a model from: measured, driven in RGB? */
export const hasModel = ({ readings }: ConditionView): boolean =>
  readings.some(
    (r) => r.source === 'measured' && r.deviceSpace === 'RGB' && r.patchCount >= 24 && (!r.apart || r.primary),
  );
