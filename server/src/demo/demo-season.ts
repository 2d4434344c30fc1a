import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { PAPERS } from '@rakuen/demo/studio';
import {
  BLIND,
  BOXES,
  CLIENTS,
  DECISIONS,
  EDITION,
  MOVES,
  ORDERS,
  PACK,
  PRINTS,
  TRIAL,
  WAITING,
  type DemoPrint,
} from '@rakuen/demo/season';
import type { SceneName } from '@rakuen/demo/pictures/draw';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { ClientsService } from '../clients/clients.service.ts';
import { MovesService } from '../clients/moves.service.ts';
import { OrdersService } from '../clients/orders.service.ts';
import { EditionsService } from '../editions/editions.service.ts';
import { EyeService } from '../eye/eye.service.ts';
import { MatchesService } from '../matches/matches.service.ts';
import { PacksService } from '../packs/packs.service.ts';
import { MisprintsService } from '../prints/misprints.service.ts';
import { PrintsService } from '../prints/prints.service.ts';
import { StockService } from '../stock/stock.service.ts';
import { TrialRow } from '../trials/trials.entity.ts';
import { DecisionRow } from '../matches/matches.entity.ts';
import { TrialsService } from '../trials/trials.service.ts';

/** What stands in the studio when the season is laid. */
interface Standing {
  readonly paperIds: ReadonlyMap<string, string>;
  readonly conditions: readonly ConditionView[];
  readonly pictures: ReadonlyMap<SceneName, PictureView>;
}

/** Three months of decisions, prints and misprints, an edition, the drawer: entered through the same services as anyone’s. */
@Injectable()
export class DemoSeason {
  constructor(
    @InjectRepository(DecisionRow) private readonly decisions: Repository<DecisionRow>,
    @InjectRepository(TrialRow) private readonly trialRows: Repository<TrialRow>,
    private readonly matches: MatchesService,
    private readonly prints: PrintsService,
    private readonly misprints: MisprintsService,
    private readonly editions: EditionsService,
    private readonly stock: StockService,
    private readonly trials: TrialsService,
    private readonly eye: EyeService,
    private readonly packs: PacksService,
    private readonly clients: ClientsService,
    private readonly orders: OrdersService,
    private readonly moves: MovesService,
  ) {}

  async lay(standing: Standing): Promise<void> {
    const { conditions, pictures } = standing;
    const { on, condition, ...trial } = TRIAL;
    const stamped = await this.trials.stamp({ ...trial, conditionId: conditions[condition].id });
    await this.trialRows.update(stamped.id, { stampedAt: at(on, 17) });
    const boxes = await this.fillDrawer(standing);
    for (const d of DECISIONS) {
      const { id } = await this.matches.decide({
        pictureId: pictures.get(d.picture)!.id,
        conditionId: conditions[d.condition].id,
        stamp: d.stamp,
        reason: d.reason,
        decidedBy: d.by,
      });
      // They were decided when they were; the match of that day is the match of today.
      await this.decisions.update(id, { decidedAt: at(d.on, 11) });
    }
    const made: string[] = [];
    for (const p of PRINTS) made.push(await this.print(p, standing, boxes));
    const numbers = await this.number(
      standing,
      made.filter((_, i) => PRINTS[i].picture === EDITION.picture && PRINTS[i].condition === EDITION.condition),
    );
    await this.sell(standing, made, numbers);
    for (const w of WAITING)
      await this.prints.begin({ pictureId: pictures.get(w.picture)!.id, conditionId: conditions[w.condition].id });
    await this.compareBlind(standing);
    await this.packs.plan({
      name: PACK.name,
      widthMm: 210,
      heightMm: 297,
      marginMm: 5,
      types: PACK.types.map((n) => ({ conditionId: conditions[n].id, sheets: 2 })),
      testPage: true,
      crops: PACK.crops.map((name) => ({ pictureId: pictures.get(name)!.id, widthMm: 120, heightMm: 80 })),
    });
  }

  private async fillDrawer({ paperIds }: Standing): Promise<ReadonlyMap<string, string>> {
    const boxes = new Map<string, string>();
    for (const b of BOXES) {
      const size = PAPERS.find((p) => p.key === b.paper)!.sizes.find((s) => s.label === b.size)!;
      const { id } = await this.stock.add({
        paperId: paperIds.get(b.paper)!,
        kind: size.sheets === 1 ? 'roll' : 'sheet',
        label: b.size,
        widthMm: size.widthMm,
        heightMm: size.heightMm,
        sheets: size.sheets,
        batch: b.batch,
        boughtOn: b.on,
        price: size.packPrice,
        currency: 'EUR',
      });
      if (!boxes.has(b.paper)) boxes.set(b.paper, id);
    }
    return boxes;
  }

  private async print(
    p: DemoPrint,
    { conditions, pictures }: Standing,
    boxes: ReadonlyMap<string, string>,
  ): Promise<string> {
    const picture = pictures.get(p.picture)!;
    const condition = conditions[p.condition];
    const proposal = await this.prints.propose(picture.id, condition.id);
    const paper = PAPERS.find((x) => x.name === condition.paper.name)!.key;
    const boxId = boxes.get(paper);
    const { id } = await this.prints.record({
      pictureId: picture.id,
      conditionId: condition.id,
      printedOn: p.on,
      widthMm: p.widthMm,
      heightMm: Math.round((p.widthMm * picture.heightPx) / picture.widthPx),
      copies: p.copies ?? 1,
      settings: {
        ...proposal.settings,
        sharpening: p.sharpening,
        feed: p.feed,
        liftStops: p.lift ?? 0,
        dryingMinutes: 60,
      },
      carriedOver: [],
      verdict: p.verdict,
      verdictReason: p.why,
      judgedIn: p.judgedIn,
      decidedBy: p.decidedBy,
      ...(boxId && { boxId }),
    });
    await this.prints.timed(id, p.minutes);
    for (const { cause, sheets } of p.spoilt ?? [])
      await this.misprints.book(await this.prints.get(id), { cause, sheets, minutes: 6 * sheets }, at(p.on, 15));
    return id;
  }

  private async number({ conditions, pictures }: Standing, prints: readonly string[]): Promise<string[]> {
    const { picture: name, condition, ...rest } = EDITION;
    const picture = pictures.get(name)!;
    const { id } = await this.editions.found({
      ...rest,
      pictureId: picture.id,
      conditionId: conditions[condition].id,
      heightMm: Math.round((rest.widthMm * picture.heightPx) / picture.widthPx),
      batch: '',
    });
    const given: string[] = [];
    for (const printId of prints) given.push((await this.editions.number(id, { series: 'edition', printId })).id);
    return given;
  }

  /** Clients, their places and orders, and where the first prints went. */
  private async sell(
    { conditions, pictures }: Standing,
    prints: readonly string[],
    numbers: readonly string[],
  ): Promise<void> {
    const ids = new Map<string, string>();
    for (const { key, places, ...client } of CLIENTS) {
      const { id: clientId } = await this.clients.add({ ...client, notes: '' });
      ids.set(key, clientId);
      for (const place of places)
        ids.set(place.name, (await this.clients.addPlace({ ...place, clientId, notes: '' })).id);
    }
    for (const { client, place, lines, ...order } of ORDERS)
      await this.orders.add({
        ...order,
        clientId: ids.get(client)!,
        placeId: ids.get(place)!,
        currency: 'EUR',
        notes: '',
        lines: lines.map(({ picture: name, condition, widthMm, copies }) => {
          const picture = pictures.get(name)!;
          return {
            pictureId: picture.id,
            conditionId: conditions[condition].id,
            widthMm,
            heightMm: Math.round((widthMm * picture.heightPx) / picture.widthPx),
            copies,
          };
        }),
      });
    for (const { client, price, ...move } of MOVES) {
      const of = 'number' in move ? { numberId: numbers[move.number - 1] } : { printId: prints[move.print] };
      await this.moves.add({
        ...of,
        to: move.to,
        copies: move.copies,
        on: move.on,
        note: move.note,
        clientId: ids.get(client)!,
        ...('until' in move && { until: move.until }),
        ...(price !== undefined && { price, currency: 'EUR' }),
      });
    }
  }

  /** The eye prefers what prints blacker, with a doubt now and then: the prints are listed from deep to weak black. */
  private async compareBlind({ conditions }: Standing): Promise<void> {
    const { conditions: numbers, ...asked } = BLIND;
    const ids = numbers.map((n) => conditions[n].id);
    let view = await this.eye.begin({ ...asked, conditionIds: ids });
    const { labels } = await this.eye.labels(view.id);
    const rank = (code: string) => ids.indexOf(labels.find((l) => l.code === code)!.conditionId);
    for (let turn = 0; view.left; turn++) {
      const said = turn % 7 === 6 ? 'neither' : rank(view.left) < rank(view.right!) ? 'left' : 'right';
      view = await this.eye.choose(view.id, { turn, said });
    }
  }
}

const at = (day: string, hour: number) => `${day}T${hour}:00:00.000Z`;
