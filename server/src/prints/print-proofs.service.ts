import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { USUAL_COMMISSION } from '@rakuen/core/match/commission';
import { PLAIN } from '@rakuen/core/proof/recipe';
import type { PrintProofView } from '@rakuen/contract/prints';
import { notFound } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore } from '../files/file-store.ts';
import { LabImages } from '../pictures/lab-images.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { LaidService } from '../profiles/laid.service.ts';
import { Workshop } from '../work/workshop.ts';
import { PrintProofRow, type PrintRow } from './prints.entity.ts';

/** Longer side of the image that is kept. */
const LONGER_PX = 480;
/** Longer than this nobody waits at the printer for an image. */
const PATIENCE_MS = 4_000;

interface Drawn {
  readonly jpeg: Uint8Array;
  readonly light: string;
  readonly glass: string;
}

/** Keeps with a print how its proof looked, in the light and behind the glass it was meant for. */
@Injectable()
export class PrintProofs {
  constructor(
    @InjectRepository(PrintProofRow) private readonly rows: Repository<PrintProofRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly images: LabImages,
    private readonly laid: LaidService,
    private readonly files: FileStore,
    private readonly workshop: Workshop,
  ) {}

  /** Draws and keeps it; where the sheet was not read, or it takes too long, the print is kept without. */
  async keep(print: PrintRow): Promise<void> {
    const late = pause(PATIENCE_MS, undefined, { ref: false });
    const drawn = await Promise.race([this.draw(print), late]);
    if (!drawn) return;
    await this.rows.insert({
      id: randomUUID(),
      at: new Date().toISOString(),
      printId: print.id,
      contentHash: await this.files.keepBytes(drawn.jpeg),
      light: drawn.light,
      glass: drawn.glass,
    });
  }

  async of(printId: string): Promise<PrintProofView | undefined> {
    const row = await this.rows.findOneBy({ printId });
    return row ? { at: row.at, light: row.light, glass: row.glass } : undefined;
  }

  async file(printId: string): Promise<Buffer> {
    const row = await this.rows.findOneBy({ printId });
    if (!row) throw notFound('proof of this print');
    return this.files.read(row.contentHash);
  }

  private async draw(print: PrintRow): Promise<Drawn | undefined> {
    const picture = await this.pictures.get(print.pictureId);
    const condition = await this.conditions.view(print.conditionId);
    const { light, glass } = picture.commission ?? USUAL_COMMISSION;
    const recipe = print.recipe ? { ...PLAIN, ...print.recipe.values } : undefined;
    try {
      const [image, { seen }] = await Promise.all([
        this.images.of(picture),
        this.laid.laid(condition, { light, glass }, recipe?.rendering ?? 'relative'),
      ]);
      const { jpeg } = await this.workshop.run('drawOnSheet', {
        image,
        sheet: seen,
        recipe,
        longSideMm: Math.max(print.widthMm, print.heightMm),
        longerPx: LONGER_PX,
      });
      return { jpeg, light, glass };
    } catch {
      // The print is made and recorded: a sheet that was not read, or a file that is gone, costs its image alone.
      return undefined;
    }
  }
}
