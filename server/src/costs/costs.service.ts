import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { labToXyz } from '@rakuen/core/colour/lab';
import { inkOf, SOLID_ML_PER_M2, type InkCell } from '@rakuen/core/cost/ink';
import { printCost } from '@rakuen/core/cost/print-cost';
import { boxFor } from '@rakuen/core/layout/box-for';
import { taken } from '@rakuen/core/layout/taken';
import { minutesEach, type MinutesEach } from '@rakuen/core/print/minutes';
import { rateOf } from '@rakuen/core/cost/spoilage';
import type { CostQuery, CostView, RatesInput, RatesView } from '@rakuen/contract/costs';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PaperHead } from '@rakuen/contract/papers';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { BenchService } from '../bench/bench.service.ts';
import { hasModel, LaidService } from '../profiles/laid.service.ts';
import type { PackedSent } from '../work/lay-tasks.ts';
import { Workshop } from '../work/workshop.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { StockService } from '../stock/stock.service.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { timedPrint } from '../prints/timed-print.ts';
import { RuleRow } from '../store/rules.entity.ts';
import { ruleOf, setRule } from '../store/rules.ts';

/** What a studio reckons with until it says otherwise (our own start). */
export const DEFAULT_RATES: RatesInput = {
  currency: 'EUR',
  perHour: 35,
  inkPerMl: 0.7,
  solidMlPerM2: SOLID_ML_PER_M2,
  finishing: 2,
  asOf: '2026-01-01',
};
/** Density of full black where none was measured (our own estimate). */
const USUAL_DENSITY = 2;
/** Pairs of picture and sheet whose ink is kept in memory. */
const MAX_INKS = 5_000;
/** Prints whose minutes are counted, the newest. */
const TIMED_PRINTS = 20;
/** Minutes to trim, sleeve and enter a print (our own estimate). */
const DESK_MINUTES = 5;

/** What a good print costs: paper, ink, minutes, the spoilt on the way, sleeve and board. */
@Injectable()
export class CostsService {
  /** Ink of pictures on sheets by all it depends on. */
  private readonly inks = new Map<string, InkPerM2>();

  constructor(
    @InjectRepository(RuleRow) private readonly rules: Repository<RuleRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    private readonly conditions: ConditionsService,
    private readonly pictures: PicturesService,
    private readonly stock: StockService,
    private readonly bench: BenchService,
    private readonly laid: LaidService,
    private readonly workshop: Workshop,
  ) {}

  /** What the studio said, or what it begins with. */
  async rates(): Promise<RatesView> {
    const { value, revision } = await ruleOf<RatesInput>(this.rules, 'rates');
    return { ...(value ?? DEFAULT_RATES), revision, said: value !== undefined };
  }

  /** @param from revision the change was made from; whatever it is now where absent */
  async setRates(rates: RatesInput, from?: number): Promise<RatesView> {
    const called = 'What the studio reckons with';
    await setRule(this.rules, 'rates', rates, { called, from, view: await this.rates() });
    return this.rates();
  }

  async cost({ pictureId, conditionId, widthMm, heightMm, printId }: CostQuery): Promise<CostView> {
    const { said, revision: _, ...rates } = await this.rates();
    const condition = await this.conditions.view(conditionId);
    const print = printId ? await this.printOf(printId, conditionId) : undefined;
    const paper = await this.paperPrice(condition.paper, rates.currency, { widthMm, heightMm }, print);
    if (paper.currency !== rates.currency)
      throw new RakuenError(409, `The paper is priced in ${paper.currency}, the studio reckons in ${rates.currency}.`, {
        field: 'currency',
        remedy: 'Enter the box’s price in the studio’s currency; no rate of exchange is known here.',
      });
    const ink = await this.ink(pictureId, condition, widthMm, heightMm, rates.solidMlPerM2);
    const spoilage = await this.spoilageOf(conditionId);
    const minutes = await this.minutesOf(conditionId, widthMm * heightMm * 1e-6, print?.settings.feed);
    return {
      conditionId,
      currency: rates.currency,
      cost: printCost({
        paper: paper.amount,
        inkMl: ink.ml,
        inkPerMl: rates.inkPerMl,
        minutes: minutes.each,
        perHour: rates.perHour,
        finishing: rates.finishing,
        spoilage,
      }),
      paperFrom: paper.from,
      inkFrom: ink.from,
      inkMl: ink.ml,
      minutes: minutes.each,
      minutesFrom: minutes.from,
      spoilage,
      ...(said && { asOf: rates.asOf }),
    };
  }

  /** Ink of a picture on a sheet: counted where the printer is simulated, else from area and mean density of what is printed. */
  async ink(
    pictureId: string,
    condition: ConditionView,
    widthMm: number,
    heightMm: number,
    solid: number,
  ): Promise<{ ml: number; from: CostView['inkFrom'] }> {
    const areaM2 = widthMm * heightMm * 1e-6;
    const perM2 = await this.inkPerM2(pictureId, condition, solid);
    return { ml: perM2.ml * areaM2, from: perM2.from };
  }

  /** Ink on a square metre of a picture on a sheet: it grows with the area, and is computed once for each pair. */
  private async inkPerM2(pictureId: string, condition: ConditionView, solid: number): Promise<InkPerM2> {
    const sent = isSimulated(condition) ? await this.sentFor(condition) : undefined;
    const stand = sent && (await this.bench.knownStandIn(condition.id));
    const { facts } = condition;
    const figures = facts?.figures as Record<string, { value?: number } | undefined> | undefined;
    const range = figures?.densityRange?.value ?? figures?.dmax?.value;
    const { contentHash } = await this.pictures.get(pictureId);
    const model = stand ? await this.laid.keyOf(condition) : '';
    const key = JSON.stringify([pictureId, contentHash, condition.id, model, stand, range, solid]);
    const known = this.inks.get(key);
    if (known) return known;
    const cells = await this.pictures.cells(pictureId);
    const found: InkPerM2 =
      sent && stand
        ? {
            ml: await this.workshop.run('countInk', { facts: stand, sent, cells, areaM2: 1, solidMlPerM2: solid }),
            from: 'simulated printer',
          }
        : { ml: inkByDensity(cells, range, solid), from: range === undefined ? 'area alone' : 'picture and sheet' };
    if (this.inks.size >= MAX_INKS) this.inks.clear();
    this.inks.set(key, found);
    return found;
  }

  /** What the model sends for each colour; undefined where too little was read for one. */
  private async sentFor(condition: ConditionView): Promise<PackedSent | undefined> {
    try {
      return await this.laid.sent(condition);
    } catch (error) {
      if (error instanceof RakuenError && error.getStatus() < 500) return undefined;
      throw error;
    }
  }

  /** A print on a print condition. */
  private async printOf(id: string, conditionId: string): Promise<PrintRow> {
    const print = await this.prints.findOneBy({ id, conditionId });
    if (!print) throw notFound('print on this print condition');
    return print;
  }

  /**
   * What its paper costs: of the box the print comes from; where none was chosen, of the box it would be taken from;
   * else of what the maker sells.
   */
  private async paperPrice(paper: PaperHead, currency: string, size: Size, print?: PrintRow) {
    const boxes = (await this.stock.list()).filter((b) => b.paperId === paper.id);
    const own = print?.boxId ? boxes.find((b) => b.id === print.boxId) : undefined;
    const priced = boxes.filter((b) => b.each !== undefined && taken(b, size) !== undefined);
    const copies = print?.copies ?? 1;
    const box =
      own ??
      boxFor(
        priced.filter((b) => b.currency === currency),
        size,
        copies,
      ) ??
      boxFor(priced, size, copies);
    const takes = box && taken(box, size);
    if (
      box &&
      box.each !== undefined &&
      takes !== undefined &&
      (own || box.currency === currency || !pricedIn(paper, currency))
    )
      return {
        amount: box.kind === 'sheet' ? box.each : (box.each * takes) / 1000,
        currency: box.currency,
        from: `${own ? '' : 'the box it would be taken from: '}${box.kind === 'sheet' ? 'a sheet of the box' : `${Math.round(takes)} mm of the roll`} ${box.label}, bought ${box.boughtOn}`,
      };
    if (paper.pricePerM2 === undefined)
      throw new RakuenError(409, own ? `The box ${own.label} has no price.` : `No price of ${paper.name} is known.`, {
        field: 'price',
        remedy: 'Enter what a box cost, under Stock, or a price with the paper.',
      });
    return {
      amount: paper.pricePerM2 * size.widthMm * size.heightMm * 1e-6,
      currency: paper.currency,
      from: `the maker’s price by area; ${own ? `the box ${own.label} has no price` : `no box with a price ${box ? `in ${currency} ` : ''}serves it`}`,
    };
  }

  private async spoilageOf(conditionId: string) {
    const [{ made, spoilt }] = await this.prints.query<{ made: number; spoilt: number }[]>(
      `SELECT (SELECT COALESCE(SUM(copies), 0) FROM prints WHERE conditionId = ? AND state = 'printed') AS made,
        (SELECT COALESCE(SUM(sheets), 0) FROM misprints WHERE conditionId = ?) AS spoilt`,
      [conditionId, conditionId],
    );
    const rate = rateOf(spoilt, made + spoilt);
    // Nothing was printed there yet: nothing is known of it, and nothing is added.
    return rate.of === 0 ? { ...rate, high: 0 } : rate;
  }

  /** Minutes at the printer and at the desk. @param feed of the print; that of the last one where none is known */
  private async minutesOf(conditionId: string, areaM2: number, feed?: string): Promise<MinutesEach> {
    const made = await this.prints.find({
      where: { conditionId, state: 'printed' },
      order: { printedOn: 'DESC' },
      take: TIMED_PRINTS,
    });
    const { each, from } = minutesEach(made.map(timedPrint), feed ?? made[0]?.settings.feed ?? '', areaM2);
    return { each: each + DESK_MINUTES, from };
  }
}

interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Whether a maker's price can be computed with. */
const pricedIn = (paper: PaperHead, currency: string): boolean =>
  paper.pricePerM2 !== undefined && paper.currency === currency;

interface InkPerM2 {
  readonly ml: number;
  readonly from: CostView['inkFrom'];
}

/** Ink by area and mean density of what is printed. @param cells L*, a*, b* and share */
function inkByDensity(cells: Float32Array, range: number | undefined, solid: number): number {
  const list: InkCell[] = [];
  for (let i = 0; i < cells.length; i += 4)
    list.push({ over: labToXyz([cells[i], cells[i + 1], cells[i + 2]])[1] / LAB_WHITE_Y, share: cells[i + 3] });
  return inkOf(list, 1, range ?? USUAL_DENSITY, solid).ml;
}

/** Read of a simulated print: its printer is known ink by ink. */
const isSimulated = (condition: ConditionView): boolean =>
  hasModel(condition) &&
  (condition.readings.find((r) => r.id === condition.facts?.readingId)?.instrument ?? '').startsWith('Simulated ');

const LAB_WHITE_Y = labToXyz([100, 0, 0])[1];
