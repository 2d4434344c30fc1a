import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import type { ConditionView } from '@rakuen/contract/conditions';
import { RakuenError } from '../app/errors.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { LaidService } from '../profiles/laid.service.ts';
import type { PackedReady } from '../work/lay-tasks.ts';
import { qualitiesOf } from './qualities.ts';

/** A sheet where a print will hang, or why that is not known. */
export type SheetAtHand =
  { readonly qualities: SheetQualities; readonly ready: PackedReady } | { readonly why: string };

/** Sheets as a match weighs them: what is known of them, and what they print of every colour in a light, behind a glass. */
@Injectable()
export class SheetsAtHand {
  constructor(
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
    private readonly laid: LaidService,
  ) {}

  async of(condition: ConditionView, where: { light: string; glass: string }): Promise<SheetAtHand> {
    if (!condition.facts?.readingId) return { why: 'Nothing was measured of it yet.' };
    const paper = await this.papers.findOneByOrFail({ id: condition.paperId });
    try {
      const { sheet, modelError, brightenerUnknown, estimatedWhite } = await this.laid.ready(condition, where);
      return {
        qualities: { ...qualitiesOf(condition, paper), modelError, brightenerUnknown, estimatedWhite },
        ready: sheet,
      };
    } catch (error) {
      // What a sheet’s readings can’t tell is said of it; anything else is a fault.
      if (!(error instanceof RakuenError) || error.getStatus() >= 500) throw error;
      return { why: (error.getResponse() as { message: string }).message };
    }
  }
}
