import { Injectable } from '@nestjs/common';
import { WHOLE, type Part } from '@rakuen/core/proof/part';
import { FileStore } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import type { PictureRow } from './pictures.entity.ts';
import type { LabImage } from '../work/lab-image-task.ts';
import { Workshop } from '../work/workshop.ts';

/** Pictures and parts of them kept ready for proofs: a few megabytes each. */
const MOST_READY = 12;

/** Pictures as Lab, as large as a screen: made when they are first looked at on a sheet. */
@Injectable()
export class LabImages {
  private readonly ready = new Map<string, Promise<LabImage>>();

  constructor(
    private readonly files: FileStore,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
  ) {}

  /** @param part in shares of the picture, drawn with as many of its own pixels as a screen has */
  async of(row: PictureRow, part: Part = WHOLE): Promise<LabImage> {
    const key = `${row.contentHash} ${row.profileAssumed} ${Object.values(part).join()}`;
    const known = this.ready.get(key);
    if (known) return known;
    const { limits } = await this.settings.get();
    const made = this.workshop.run('labImageOf', {
      path: this.files.pathOf(row.contentHash),
      assumeSrgb: row.profileAssumed,
      part,
      maxPixels: Math.max(limits.picturePixels, row.widthPx * row.heightPx),
    });
    this.ready.set(key, made);
    made.catch(() => this.ready.delete(key));
    if (this.ready.size > MOST_READY) this.ready.delete(this.ready.keys().next().value!);
    return made;
  }
}
