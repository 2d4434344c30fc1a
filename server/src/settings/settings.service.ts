import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import type { Settings } from '@rakuen/contract/settings';
import { refuseStale } from '../app/revision.ts';
import { DocumentRow } from '../store/entities.ts';

const KEY = 'settings';

export const DEFAULT_SETTINGS: Settings = {
  thresholds: DEFAULT_THRESHOLDS,
  limits: { readingBytes: 20 * 2 ** 20, pictureBytes: 1024 * 2 ** 20, picturePixels: 250_000_000 },
};

@Injectable()
export class SettingsService {
  private readonly listeners: (() => Promise<void>)[] = [];

  constructor(@InjectRepository(DocumentRow) private readonly documents: Repository<DocumentRow>) {}

  async get(): Promise<Settings> {
    const row = await this.documents.findOneBy({ key: KEY });
    return row ? { revision: 1, ...(row.value as Settings) } : { revision: 1, ...DEFAULT_SETTINGS };
  }

  /** What follows from the settings is computed anew before a change of them is answered. */
  whenTold(listener: () => Promise<void>): void {
    this.listeners.push(listener);
  }

  /** @param from revision the change was made from; whatever it is now where absent */
  async set(settings: Settings, from?: number): Promise<Settings> {
    const known = await this.get();
    const revision = known.revision ?? 1;
    refuseStale('The settings', { revision }, from, { ...known, revision });
    await this.documents.save({ key: KEY, value: { ...settings, revision: revision + 1 } });
    for (const listener of this.listeners) await listener();
    return this.get();
  }
}
