import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Not, Repository } from 'typeorm';
import { openChecks, sheetChecks, uncheckedSettings, type SheetState } from '@rakuen/core/print/checks';
import { differences, type Difference, type Earlier } from '@rakuen/core/print/differences';
import { SETTINGS } from '@rakuen/core/print/settings';
import type { PrintSettings } from '@rakuen/contract/prints';
import type { SettingKey } from '@rakuen/contract/vocabulary';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { PapersService } from '../papers/papers.service.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { RunItemRow, RunRow } from '../runs/runs.entity.ts';
import { TrialRow } from '../trials/trials.entity.ts';
import { PrintRow } from './prints.entity.ts';

const NEWEST = { printedOn: 'DESC', recordedAt: 'DESC' } as const;

/** What of a print is compared, and where the comparison is not with the last sheet through the printer, with which. */
interface Compared {
  readonly print: PrintRow;
  /** The sheet that goes in before it. */
  readonly before?: PrintRow;
}

/** What differs of a print from what went before, and which checks are open. */
@Injectable()
export class PrintChecks {
  constructor(
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    @InjectRepository(TrialRow) private readonly trials: Repository<TrialRow>,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(RunRow) private readonly runs: Repository<RunRow>,
    @InjectRepository(RunItemRow) private readonly items: Repository<RunItemRow>,
    private readonly papers: PapersService,
  ) {}

  /** What differs from the sheet before it, from the last print of the picture, and from the setting that was stamped. */
  async differences({ print, before }: Compared): Promise<Difference[]> {
    const { pictureId, conditionId } = print;
    const condition = await this.conditions.findOneByOrFail({ id: conditionId });
    return differences(print.settings, {
      atPrinter: await this.earlier(before ?? (await this.lastAt(print.settings.printer, print.id))),
      ofPicture: await this.earlier(
        await this.prints.findOne({
          where: { pictureId, conditionId, id: Not(print.id), state: 'printed' },
          order: NEWEST,
        }),
      ),
      standing: (await this.standing(condition.paperId, print.settings)) ?? undefined,
    });
  }

  /** Of prints that wait: settings that differ and were not checked; by their ids. */
  async unchecked(rows: readonly PrintRow[]): Promise<Map<string, SettingKey[]>> {
    const found = new Map<string, SettingKey[]>();
    for (const print of rows) {
      if (print.state !== 'waiting') continue;
      const differs = keysOf(await this.differences({ print }));
      found.set(print.id, uncheckedSettings({ differs, carriedOver: print.carriedOver }));
    }
    return found;
  }

  /** Checks that are open and can spoil the sheet, in words. */
  async open(print: PrintRow): Promise<string[]> {
    const session = await this.sessionOf(print);
    return openInWords({
      differs: keysOf(await this.differences({ print })),
      carriedOver: print.carriedOver,
      boxProposed: boxProposed(print),
      session: session && (await this.asked(session.run, session.item, print)),
    });
  }

  /** What is asked of a sheet in a session at the printer, and what of it was checked. */
  private async asked(run: RunRow, item: RunItemRow, print: PrintRow): Promise<NonNullable<SheetState['session']>> {
    const before = await this.beforeIn(run.id, print);
    return {
      checked: run.looked,
      asked: sheetChecks(print.settings, before?.settings),
      sheetChecked: item.looked,
    };
  }

  /** The last sheet that was printed in a session; null for its first. */
  async beforeIn(runId: string, print: Pick<PrintRow, 'id'>): Promise<PrintRow | null> {
    const made = await this.items.findBy({ runId, state: 'printed' });
    return this.prints.findOne({
      where: { id: In(made.map((i) => i.printId).filter((id) => id !== print.id)), state: 'printed' },
      order: NEWEST,
    });
  }

  private async sessionOf(print: PrintRow): Promise<{ run: RunRow; item: RunItemRow } | undefined> {
    for (const item of await this.items.findBy({ printId: print.id, state: 'waiting' })) {
      const run = await this.runs.findOneBy({ id: item.runId, state: 'open' });
      if (run) return { run, item };
    }
    return undefined;
  }

  /** The last sheet through a printer. */
  lastAt(printer: string, except = ''): Promise<PrintRow | null> {
    return this.prints
      .createQueryBuilder('p')
      .where(`p.state = 'printed' AND p.id <> :except AND json_extract(p.settings, '$.printer') = :printer`, {
        except,
        printer,
      })
      .orderBy('p.printedOn', 'DESC')
      .addOrderBy('p.recordedAt', 'DESC')
      .getOne();
  }

  private async earlier(row: PrintRow | null): Promise<Earlier | undefined> {
    if (!row) return undefined;
    const picture = await this.pictures.findOneByOrFail({ id: row.pictureId });
    const condition = await this.conditions.findOneByOrFail({ id: row.conditionId });
    const paper = await this.papers.get(condition.paperId);
    return { printedOn: row.printedOn, settings: row.settings, on: `${picture.title} on ${paper.name}` };
  }

  /** The media setting that was stamped for a paper on a printer, in the mode of the print: another mode’s says nothing about it. */
  standing(paperId: string, { printer, printMode }: PrintSettings): Promise<TrialRow | null> {
    return this.trials
      .createQueryBuilder('t')
      .innerJoin(ConditionRow, 'c', 'c.id = t.conditionId')
      .where('t.paperId = :paperId AND t.printer = :printer AND c.printMode = :printMode', {
        paperId,
        printer,
        printMode,
      })
      .orderBy('t.stampedAt', 'DESC')
      .getOne();
  }
}

/** Its box is the one of the print it repeats, and nobody confirmed it. */
export const boxProposed = (print: Pick<PrintRow, 'boxId' | 'carriedFrom'>): boolean =>
  print.boxId !== null && print.carriedFrom.box !== undefined;

const keysOf = (list: readonly Difference[]): SettingKey[] => [...new Set(list.map((d) => d.key))];

/** Open checks in words, as a refusal and the page name them. */
export function openInWords(state: SheetState): string[] {
  const { checks, settings } = openChecks(state);
  return [...checks, ...settings.map((key) => SETTINGS[key].name.toLowerCase())];
}
