import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { CARD_COLOURS } from '@rakuen/core/scan/card';
import { ChartError, designChart, designOwnChart, type ChartDesign } from '@rakuen/core/chart/chart-design';
import { barReference, writeChartReference } from '@rakuen/core/chart/chart-reference';
import { SHEET_SIZES } from '@rakuen/core/chart/sheet-sizes';
import type { ChartFileQuery, ChartInput, ChartView, TestPageQuery } from '@rakuen/contract/charts';
import { notFound, RakuenError } from '../app/errors.ts';
import { fits } from '../drawing/sheet-limits.ts';
import { ChartRow } from './charts.entity.ts';
import { SessionRow } from '../sessions/sessions.entity.ts';
import type { OutgoingFile } from '../files/file-store.ts';
import { Workshop } from '../work/workshop.ts';
import { whole } from '../store/rows.ts';

const MEDIA = { tiff: 'image/tiff', pdf: 'application/pdf', png: 'image/png', cgats: 'text/plain' } as const;

const CARD = { sheet: 'card', patchMm: 8, dpi: 300, seed: 1 } as const;

/** Charts laid out, kept with their layout, and given out to be printed. */
@Injectable()
export class ChartsService {
  constructor(
    @InjectRepository(ChartRow) private readonly charts: Repository<ChartRow>,
    @InjectRepository(SessionRow) private readonly sessions: Repository<SessionRow>,
    private readonly workshop: Workshop,
  ) {}

  async list(): Promise<ChartView[]> {
    return Promise.all((await this.charts.find({ order: { createdAt: 'DESC' } })).map((row) => this.view(row)));
  }

  create({ name, spec }: ChartInput): Promise<ChartView> {
    return this.keep(name.trim(), laidOut({ ...spec }));
  }

  /** The card that lies beside a print on a flatbed: colours all over what a printer gives, and greys. */
  async card(): Promise<ChartView> {
    const known = await this.knownCard();
    if (known) return this.view(known);
    return this.keep('Card for a scanner', designOwnChart('card', CARD_COLOURS, CARD)).catch(
      async (error: { code?: string }) => {
        // Another window laid it out first: there is one.
        const first = error.code === 'SQLITE_CONSTRAINT_UNIQUE' ? await this.knownCard() : undefined;
        if (!first) throw error;
        return this.view(first);
      },
    );
  }

  async knownCard(): Promise<ChartRow | undefined> {
    return (await this.charts.find({ order: { createdAt: 'ASC' } })).find((c) => c.spec.purpose === 'card');
  }

  /** Keeps a chart that is laid out. */
  async keep(name: string, design: ChartDesign): Promise<ChartView> {
    const row = this.charts.create({
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      name,
      spec: { ...design.spec },
      design,
    });
    await this.charts.insert(whole(row));
    return this.view(row);
  }

  async get(id: string): Promise<ChartRow> {
    const row = await this.charts.findOneBy({ id });
    if (!row) throw notFound('chart');
    return row;
  }

  async remove(id: string): Promise<void> {
    const { name } = await this.get(id);
    if ((await this.sessions.countBy({ chartId: id })) > 0)
      throw new RakuenError(409, `${name} was read in a session.`, {
        remedy: 'It stays, so that the session can still be read.',
      });
    await this.charts.delete(id);
  }

  async file(id: string, query: ChartFileQuery): Promise<OutgoingFile> {
    const { name, design } = await this.get(id);
    const stem = name.replace(/[^\p{L}\p{N}.-]+/gu, '-');
    if (query.as === 'cgats')
      return { name: `${stem}.txt`, mediaType: MEDIA.cgats, bytes: Buffer.from(writeChartReference(design)) };
    const page = (query.page ?? 1) - 1;
    const sheet = design.pages[page];
    if (!sheet)
      throw new RakuenError(404, `The chart has ${design.pages.length} sheets; there is no sheet ${page + 1}.`, {
        field: 'page',
        remedy: 'Choose one it has.',
      });
    if (query.as === 'tiff') refuseLarge(sheet.widthMm, sheet.heightMm, design.spec.dpi);
    const bytes = await this.workshop.run('drawChart', { design, as: query.as, page });
    return {
      name: `${stem}${query.as === 'tiff' && design.pages.length > 1 ? `-${page + 1}` : ''}.${query.as === 'tiff' ? 'tif' : 'pdf'}`,
      mediaType: MEDIA[query.as],
      bytes,
    };
  }

  async testPage({ as, sheet, dpi, ...settings }: TestPageQuery): Promise<OutgoingFile> {
    if (as === 'cgats')
      return { name: 'test-page-greys.txt', mediaType: MEDIA.cgats, bytes: Buffer.from(barReference()) };
    const { widthMm, heightMm } = SHEET_SIZES[sheet];
    refuseLarge(widthMm, heightMm, dpi);
    return {
      name: `test-page.${as === 'tiff' ? 'tif' : as}`,
      mediaType: MEDIA[as],
      bytes: await this.workshop.run('drawTestPage', { sheet, dpi, settings, as }),
    };
  }

  private async view({ id, name, createdAt, spec, design }: ChartRow): Promise<ChartView> {
    return {
      id,
      createdAt,
      name,
      spec,
      patchCount: design.patchCount,
      stripCount: design.strips.length,
      pageCount: design.pages.length,
      sessionCount: await this.sessions.countBy({ chartId: id }),
    };
  }
}

function laidOut(spec: ChartInput['spec']): ChartDesign {
  try {
    return designChart(spec);
  } catch (error) {
    if (error instanceof ChartError)
      throw new RakuenError(422, error.message, { field: `spec.${error.field}`, remedy: error.remedy });
    throw error;
  }
}

function refuseLarge(widthMm: number, heightMm: number, dpi: number): void {
  if (!fits(widthMm, heightMm, dpi))
    throw new RakuenError(422, `At ${dpi} dpi this sheet is too large for one picture.`, {
      field: 'dpi',
      remedy: 'Choose a lower resolution, or take the PDF.',
    });
}
