import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import type { Settings } from '@rakuen/contract/settings';
import { RuleRow } from '../store/rules.entity.ts';
import { ruleOf, setRule } from '../store/rules.ts';

export const DEFAULT_SETTINGS: Settings = {
  thresholds: DEFAULT_THRESHOLDS,
  limits: { readingBytes: 20 * 2 ** 20, pictureBytes: 1024 * 2 ** 20, picturePixels: 250_000_000 },
};

@Injectable()
export class SettingsService {
  private readonly listeners: (() => Promise<void>)[] = [];

  constructor(@InjectRepository(RuleRow) private readonly rules: Repository<RuleRow>) {}

  async get(): Promise<Settings & { revision: number }> {
    const { value, revision } = await ruleOf<Settings>(this.rules, 'settings');
    return { ...(value ?? DEFAULT_SETTINGS), revision };
  }

  /** What follows from the settings is computed anew before a change of them is answered. */
  whenTold(listener: () => Promise<void>): void {
    this.listeners.push(listener);
  }

  /** @param from revision the change was made from; whatever it is now where absent */
  async set({ revision: _, ...settings }: Settings, from?: number): Promise<Settings> {
    await setRule(this.rules, 'settings', settings, { called: 'The settings', from, view: await this.get() });
    await this.follow();
    return this.get();
  }

  /** Computes anew what rests on the settings. */
  async follow(): Promise<void> {
    for (const listener of this.listeners) await listener();
  }
}
