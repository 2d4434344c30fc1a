import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { PrintInput, PrintProposal, PrintSettings, PrintView } from '@rakuen/contract/prints';
import { SETTING_KEYS } from '@rakuen/contract/vocabulary';
import { refuseStale } from '../app/revision.ts';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { type ConditionRow, PrintRow } from '../store/entities.ts';

/** Settings a print condition fixes; the others come from the last print of the paper on the printer. */
const FIXED = [
  'printer',
  'inkSet',
  'blackInk',
  'mediaSetting',
  'resolution',
  'printMode',
  'profile',
  'blackOvercoat',
] as const;

/** Prints of a list: what a screen shows at once. */
const MOST_LISTED = 200;

@Injectable()
export class PrintsService {
  constructor(
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
  ) {}

  /** The newest of them; the ledger pages through all. */
  async list(): Promise<PrintView[]> {
    return (await this.prints.find({ order: { printedOn: 'DESC', recordedAt: 'DESC' }, take: MOST_LISTED })).map(view);
  }

  /** Settings to begin a print with, and where each was carried over from. */
  async propose(pictureId: string, conditionId: string): Promise<PrintProposal> {
    await this.pictures.get(pictureId);
    const condition = await this.conditions.get(conditionId);
    const last = await this.prints.findOne({
      where: { conditionId },
      order: { printedOn: 'DESC', recordedAt: 'DESC' },
    });
    const lastOfPicture = await this.prints.findOne({
      where: { conditionId, pictureId },
      order: { printedOn: 'DESC', recordedAt: 'DESC' },
    });
    const settings = { ...fromCondition(condition), ...(last && pickLoose(last.settings)) };
    const carriedFrom = Object.fromEntries(
      SETTING_KEYS.map((key) => [
        key,
        (FIXED as readonly string[]).includes(key)
          ? 'the print condition'
          : last
            ? `the print of ${last.printedOn.slice(0, 10)}`
            : 'the usual start',
      ]),
    );
    return { settings, carriedFrom, widthMm: lastOfPicture?.widthMm, heightMm: lastOfPicture?.heightMm };
  }

  async record(input: PrintInput): Promise<PrintView> {
    await this.pictures.get(input.pictureId);
    await this.conditions.get(input.conditionId);
    check(input);
    const row = this.prints.create({
      ...input,
      notes: input.notes ?? '',
      id: randomUUID(),
      recordedAt: new Date().toISOString(),
    });
    await this.prints.insert(row);
    return view(await this.get(row.id));
  }

  /**
   * Corrects a record: a verdict is often given a day later.
   * @param from revision the change was made from; whatever it is now where absent
   */
  async replace(id: string, input: PrintInput, from?: number): Promise<PrintView> {
    const known = await this.get(id);
    refuseStale('This print', known, from, view(known));
    if (input.pictureId !== known.pictureId || input.conditionId !== known.conditionId) {
      throw new RakuenError(409, 'A print stays with its picture and its print condition.', {
        field: 'pictureId, conditionId',
        remedy: 'Record another print instead.',
      });
    }
    check(input);
    await this.prints.save(this.prints.merge(known, { ...input, notes: input.notes ?? '' }));
    return view(await this.get(id));
  }

  private async get(id: string): Promise<PrintRow> {
    const row = await this.prints.findOneBy({ id });
    if (!row) throw notFound('print');
    return row;
  }

  async remove(id: string): Promise<void> {
    if ((await this.prints.delete(id)).affected !== 1) throw notFound('print');
  }
}

function check(input: PrintInput): void {
  if (input.misprints > 0 && !input.misprintCause.trim()) {
    throw new RakuenError(400, 'A misprint wants its cause.', {
      field: 'misprintCause',
      remedy: 'Say in a word what spoilt the sheet, so that it spoils no other.',
    });
  }
  const stray = input.carriedOver.find((key) => !(SETTING_KEYS as readonly string[]).includes(key));
  if (stray)
    throw new RakuenError(400, `“${stray}” is not a setting.`, {
      field: 'carriedOver',
      remedy: 'Name settings of the print.',
    });
}

function fromCondition(c: ConditionRow): PrintSettings {
  return {
    printer: c.printer,
    inkSet: c.inkSet,
    blackInk: c.blackInk as PrintSettings['blackInk'],
    mediaSetting: c.mediaSetting,
    resolution: c.resolution,
    printMode: c.printMode as PrintSettings['printMode'],
    profile: c.profile,
    blackOvercoat: c.blackOvercoat,
    intent: c.printMode === 'colour through a profile' ? 'relative colorimetric' : 'driver',
    blackPointCompensation: c.printMode === 'colour through a profile',
    sharpening: 'none',
    feed: '',
  };
}

const pickLoose = ({ intent, blackPointCompensation, sharpening, feed }: PrintSettings) => ({
  intent,
  blackPointCompensation,
  sharpening,
  feed,
});
const view = (row: PrintRow): PrintView => ({ ...row }) as unknown as PrintView;
