import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { SHEET_SIZES } from '@rakuen/core/chart/sheet-sizes';
import { planPack, type PackItem } from '@rakuen/core/layout/pack-plan';
import { PackDone, PackInput, PackLook, PackLookInput, PackView } from '@rakuen/contract/packs';
import { notFound, RakuenError } from '../app/errors.ts';
import { ChartsService } from '../charts/charts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PackRow } from './packs.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { columns, whole } from '../store/rows.ts';

const TEST_PAGE = SHEET_SIZES.A4;

/** Sample packs: what goes on which sheet, what was printed, what is still unread, what is left. */
@Injectable()
export class PacksService {
  constructor(
    @InjectRepository(PackRow) private readonly rows: Repository<PackRow>,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    private readonly charts: ChartsService,
    private readonly conditions: ConditionsService,
  ) {}

  async list(): Promise<PackView[]> {
    return Promise.all((await this.rows.find({ order: { createdAt: 'DESC' } })).map((r) => this.view(r)));
  }

  async plan(input: PackInput): Promise<PackView> {
    if (input.types.length === 0)
      throw new RakuenError(400, 'A pack holds one type of paper or more.', {
        field: 'types',
        remedy: 'Choose the print conditions whose samples are in the pack.',
      });
    for (const { conditionId } of input.types) await this.conditions.get(conditionId);
    const items = await this.items(input);
    if (items.length === 0)
      throw new RakuenError(400, 'Nothing would be printed.', {
        field: 'crops',
        remedy: 'Choose a chart, the test page, or a crop of a picture.',
      });
    const row = this.rows.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      spec: { ...input, name: input.name.trim() },
      items,
      printed: [],
    });
    await this.rows.insert(whole(row));
    return this.view(row);
  }

  /** How the sheets of each type would lie; nothing is kept. */
  async look(input: PackLookInput): Promise<PackLook> {
    const type = { id: 'each', sheets: input.sheets };
    const [{ id: _, ...each }] = planPack(
      input.widthMm,
      input.heightMm,
      [type],
      await this.items(input),
      input.marginMm,
    );
    return { each };
  }

  async done(id: string, { sheet, printed }: PackDone): Promise<PackView> {
    const row = await this.get(id);
    const view = await this.view(row);
    const known = view.plan.flatMap((t) => t.sheets.map((_, n) => `${t.id}/${n}`));
    if (!known.includes(sheet)) throw notFound('sheet of this pack');
    row.printed = printed ? [...new Set([...row.printed, sheet])] : row.printed.filter((s) => s !== sheet);
    await this.rows.update(id, columns<PackRow>({ printed: row.printed }));
    return this.view(row);
  }

  async remove(id: string): Promise<void> {
    await this.get(id);
    await this.rows.delete(id);
  }

  private async get(id: string): Promise<PackRow> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('pack');
    return row;
  }

  /** What goes on the sheets of every type; kept with the pack, so that a plan stays what it was. */
  private async items({ chartId, testPage, crops }: PackInput | PackLookInput): Promise<PackItem[]> {
    const chart = chartId ? await this.charts.get(chartId) : undefined;
    const pictures = await this.pictures.find({
      select: { id: true, title: true },
      where: { id: In(crops.map((c) => c.pictureId)) },
    });
    return [
      ...(chart?.design.pages.map((p, i): PackItem => ({
        key: `chart-${i}`,
        kind: 'chart',
        name: chart.design.pages.length > 1 ? `${chart.name}, sheet ${i + 1}` : chart.name,
        widthMm: p.widthMm,
        heightMm: p.heightMm,
      })) ?? []),
      ...(testPage
        ? [
            {
              key: 'test-page',
              kind: 'test page' as const,
              name: 'Test page',
              widthMm: TEST_PAGE.widthMm,
              heightMm: TEST_PAGE.heightMm,
            },
          ]
        : []),
      ...crops.map(({ pictureId, widthMm, heightMm }, i): PackItem => {
        const picture = pictures.find((p) => p.id === pictureId);
        if (!picture) throw notFound('picture');
        return { key: `crop-${i}`, kind: 'crop', name: picture.title, widthMm, heightMm };
      }),
    ];
  }

  private async view({ id, createdAt, spec, items, printed }: PackRow): Promise<PackView> {
    const plan = planPack(
      spec.widthMm,
      spec.heightMm,
      spec.types.map((t) => ({ id: t.conditionId, sheets: t.sheets })),
      items,
      spec.marginMm,
    );
    const all = await this.conditions.list();
    const charted = items.some((i) => i.kind === 'chart');
    const unread = spec.types
      .map((t) => t.conditionId)
      .filter(
        (c) =>
          charted &&
          !all.find((v) => v.id === c)?.readings.some((r) => r.source === 'measured' && r.importedAt >= createdAt),
      );
    return { id, createdAt, spec, plan, printed, unread };
  }
}
