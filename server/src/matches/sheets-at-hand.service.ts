import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import type { ConditionView } from '@rakuen/contract/conditions';
import { RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { LaidService, type Where } from '../profiles/laid.service.ts';
import { TrialsService } from '../trials/trials.service.ts';
import type { PackedReady } from '../work/lay-tasks.ts';
import { qualitiesOf } from './qualities.ts';

/** A sheet where a print will hang, or why that is not known. */
export type SheetAtHand =
  { readonly qualities: SheetQualities; readonly ready: PackedReady } | { readonly why: string };

/** What is known beside the readings, for one question. */
export interface BesideReadings {
  readonly papers: ReadonlyMap<string, PaperRow>;
  /** Minutes at the printer as timed, by condition. */
  readonly minutes: ReadonlyMap<string, number>;
  /** Conditions that are not offered, with the reason. */
  readonly superseded: ReadonlyMap<string, string>;
}

/** Sheets as a match weighs them: what is known of them, and what they print of every colour in a light, behind a glass. */
@Injectable()
export class SheetsAtHand {
  constructor(
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
    private readonly conditions: ConditionsService,
    private readonly trials: TrialsService,
    private readonly laid: LaidService,
  ) {}

  async beside(): Promise<BesideReadings> {
    return {
      papers: new Map((await this.papers.find()).map((p) => [p.id, p])),
      minutes: new Map((await this.conditions.minutesTimed()).map((t) => [t.conditionId, t.minutes])),
      superseded: await this.trials.superseded(),
    };
  }

  async of(
    condition: ConditionView,
    where: Where,
    { papers, minutes, superseded }: BesideReadings,
    rendering: RenderingKey = 'relative',
  ): Promise<SheetAtHand> {
    const why = condition.facts?.readingId ? superseded.get(condition.id) : 'Nothing was measured of it yet.';
    if (why) return { why };
    try {
      const { sheet, modelError, brightenerUnknown, estimatedWhite } = await this.laid.ready(
        condition,
        where,
        rendering,
      );
      return {
        qualities: {
          ...qualitiesOf(condition, papers.get(condition.paperId)!),
          minutesEach: minutes.get(condition.id),
          modelError,
          brightenerUnknown,
          estimatedWhite,
        },
        ready: sheet,
      };
    } catch (error) {
      // What a sheet’s readings can’t say is reported with it; anything else is a fault.
      if (!(error instanceof RakuenError) || error.getStatus() >= 500 || error.getStatus() === 404) throw error;
      return { why: (error.getResponse() as { message: string }).message };
    }
  }
}
