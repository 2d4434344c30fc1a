import { Injectable } from '@nestjs/common';
import { FileStore } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import type { PictureRow } from '../store/entities.ts';
import type { LabImage } from '../work/lab-image-task.ts';
import { Workshop } from '../work/workshop.ts';

/** Pictures kept ready for proofs: a few megabytes each. */
const MOST_READY = 6;

/** Pictures as Lab, as large as a screen: made when they are first looked at on a sheet. */
@Injectable()
export class LabImages {
  private readonly ready = new Map<string, Promise<LabImage>>();

  constructor(
    private readonly files: FileStore,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
  ) {}

  async of(row: PictureRow): Promise<LabImage> {
    const key = `${row.contentHash} ${row.profileAssumed}`;
    const known = this.ready.get(key);
    if (known) return known;
    const { limits } = await this.settings.get();
    const made = this.workshop.run('labImageOf', {
      path: this.files.pathOf(row.contentHash),
      assumeSrgb: row.profileAssumed,
      maxPixels: Math.max(limits.picturePixels, row.widthPx * row.heightPx),
    });
    this.ready.set(key, made);
    made.catch(() => this.ready.delete(key));
    if (this.ready.size > MOST_READY) this.ready.delete(this.ready.keys().next().value!);
    return made;
  }
}
