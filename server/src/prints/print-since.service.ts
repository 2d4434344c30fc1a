import { dayOf } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { boxRefusal } from '@rakuen/core/layout/box-for';
import { since, type Since } from '@rakuen/core/print/since';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PrintFilesService, recipeRecord } from '../print-files/print-files.service.ts';
import { ProfileRow } from '../profiles/profiles.entity.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { BoxRow } from '../stock/stock.entity.ts';
import { StockService } from '../stock/stock.service.ts';
import { boxesApart } from './boxes-apart.ts';
import { fromCondition } from './carried-over.ts';
import { PrintRow } from './prints.entity.ts';

/** What changed between a print and the one that repeats it. */
@Injectable()
export class PrintSince {
  constructor(
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    @InjectRepository(BoxRow) private readonly boxes: Repository<BoxRow>,
    @InjectRepository(ProfileRow) private readonly profiles: Repository<ProfileRow>,
    private readonly conditions: ConditionsService,
    private readonly readings: ReadingsService,
    private readonly printFiles: PrintFilesService,
    private readonly stock: StockService,
  ) {}

  /** Empty for a print that repeats none. */
  async of(row: PrintRow): Promise<Since[]> {
    const earlier = row.fromPrintId ? await this.prints.findOneBy({ id: row.fromPrintId }) : null;
    if (!earlier) return [];
    const condition = await this.conditions.view(row.conditionId);
    const day = dayOf(earlier.printedOn);
    const profile = condition.profileId ? await this.profiles.findOneBy({ id: condition.profileId }) : null;
    const today = await this.printFiles.madeWith(row.pictureId, row.conditionId);
    const newest = await this.printFiles.newestRecipe(row.pictureId, row.conditionId);
    const { entries } = await this.readings.history(row.conditionId);
    const measured = entries.filter((e) => e.source === 'measured');
    // By the box its sheet came from where that is known and was read, else by the day.
    const box = earlier.boxId ? await this.boxes.findOneBy({ id: earlier.boxId }) : null;
    const ofBox = box?.batch ? measured.filter((e) => e.batch === box.batch).at(-1) : undefined;
    const madeOn = ofBox ?? measured.filter((e) => dayOf(e.at) <= day).at(-1) ?? measured[0];
    // Of each later box the newest reading speaks.
    const later = new Map(
      measured.filter((e) => e.batch && e.batch !== madeOn.batch && dayOf(e.at) > day).map((e) => [e.batch, e]),
    );
    return since({
      printedOn: earlier.printedOn,
      then: earlier.settings,
      now: fromCondition(await this.conditions.get(row.conditionId), today.profileName),
      laterBoxes: [...later.values()].map((e) => ({ batch: e.batch, readOn: e.at, apart: boxesApart(madeOn, e) })),
      profileMadeOn: profile?.source === 'made' ? profile.createdAt : undefined,
      profileHash: { then: earlier.profileHash, now: today.profileHash },
      pictureHash: { then: earlier.pictureHash, now: today.pictureHash },
      recipe: { then: earlier.recipe ?? undefined, now: newest ? recipeRecord(newest) : undefined },
      box: box ? { label: box.label, why: await this.boxWhy(box.id, row) } : undefined,
    });
  }

  /** Why the box of the earlier print can't be taken again. */
  private async boxWhy(boxId: string, row: PrintRow) {
    if (row.state !== 'waiting') return undefined;
    return boxRefusal(await this.stock.view(boxId), row, row.copies)?.why;
  }
}
