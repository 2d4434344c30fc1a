import { randomUUID } from 'node:crypto';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Injectable,
  Module,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { BoxInput, BoxView } from '@rakuen/contract/stock';
import { notFound } from '../app/errors.ts';
import { IfMatch, refuseStale } from '../app/revision.ts';
import { PapersModule } from '../papers/papers.module.ts';
import { PapersService } from '../papers/papers.service.ts';
import { BoxRow } from '../store/entities.ts';

const A_YEAR_MS = 365.25 * 24 * 3_600_000;

interface Taken {
  readonly boxId: string;
  /** Sheets, or mm of a roll. */
  readonly taken: number;
  readonly touchedOn: string;
}

/**
 * What each print and each misprint took from its box: a sheet a copy; of a roll the length its longer side takes, turned so that the shorter lies across
 * where it fits.
 */
const TAKEN = `
  SELECT boxId, SUM(taken) AS taken, MAX(at) AS touchedOn FROM (
    SELECT p.boxId, p.printedOn AS at, p.copies * CASE b.kind WHEN 'sheet' THEN 1 ELSE
      CASE WHEN MAX(p.widthMm, p.heightMm) <= b.widthMm THEN MIN(p.widthMm, p.heightMm) ELSE MAX(p.widthMm, p.heightMm) END END AS taken
    FROM prints p JOIN boxes b ON b.id = p.boxId WHERE p.state = 'printed'
    UNION ALL
    SELECT m.boxId, m.at, m.sheets * CASE b.kind WHEN 'sheet' THEN 1 ELSE
      COALESCE((SELECT CASE WHEN MAX(p.widthMm, p.heightMm) <= b.widthMm THEN MIN(p.widthMm, p.heightMm) ELSE MAX(p.widthMm, p.heightMm) END
        FROM prints p WHERE p.id = m.printId), 0) END
    FROM misprints m JOIN boxes b ON b.id = m.boxId
  ) GROUP BY boxId`;

/** Boxes and rolls in the drawer, and what is left in them. */
@Injectable()
export class StockService {
  constructor(
    @InjectRepository(BoxRow) private readonly rows: Repository<BoxRow>,
    private readonly papers: PapersService,
  ) {}

  async list(): Promise<BoxView[]> {
    const taken = new Map((await this.rows.query<Taken[]>(TAKEN)).map((t) => [t.boxId, t]));
    const rows = await this.rows.find({ order: { boughtOn: 'ASC', createdAt: 'ASC' } });
    return rows.map((r) => boxView(r, taken.get(r.id)));
  }

  async view(id: string): Promise<BoxView> {
    const box = (await this.list()).find((b) => b.id === id);
    if (!box) throw notFound('box');
    return box;
  }

  async add(input: BoxInput): Promise<BoxView> {
    await this.papers.get(input.paperId);
    const row = this.rows.create({ ...columns(input), id: randomUUID(), createdAt: new Date().toISOString() });
    await this.rows.insert(row);
    return this.view(row.id);
  }

  async change(id: string, input: BoxInput, from?: number): Promise<BoxView> {
    const known = await this.view(id);
    refuseStale('This box', known, from, known);
    await this.papers.get(input.paperId);
    await this.rows.update(id, columns(input));
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    if ((await this.rows.delete(id)).affected !== 1) throw notFound('box');
  }
}

const columns = (input: BoxInput) => ({
  ...input,
  label: input.label.trim(),
  batch: input.batch.trim(),
  price: input.price ?? null,
  note: input.note?.trim() ?? '',
});

function boxView({ price, ...row }: BoxRow, taken?: Taken): BoxView {
  const whole = row.kind === 'sheet' ? row.sheets : row.heightMm;
  const left = whole - (taken?.taken ?? 0);
  const each = price === null ? undefined : row.kind === 'sheet' ? price / row.sheets : (price / row.heightMm) * 1000;
  const worth = price === null ? undefined : (Math.max(0, left) / whole) * price;
  const touchedOn = taken?.touchedOn;
  const idle = Date.now() - Date.parse(touchedOn ?? row.boughtOn) > A_YEAR_MS;
  return {
    ...row,
    left,
    idle,
    ...(price !== null && { price }),
    ...(each !== undefined && { each }),
    ...(worth !== undefined && { worth }),
    ...(touchedOn && { touchedOn }),
  };
}

@ApiTags('boxes')
@Controller('boxes')
class StockController {
  constructor(private readonly stock: StockService) {}

  @Get()
  @ApiOkResponse({ type: [BoxView] })
  list(): Promise<BoxView[]> {
    return this.stock.list();
  }

  @Post()
  @ApiCreatedResponse({ type: BoxView })
  add(@Body() input: BoxInput): Promise<BoxView> {
    return this.stock.add(input);
  }

  @Put(':id')
  @ApiOkResponse({ type: BoxView })
  change(@Param('id', ParseUUIDPipe) id: string, @Body() input: BoxInput, @IfMatch() from?: number): Promise<BoxView> {
    return this.stock.change(id, input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.stock.remove(id);
  }
}

@Module({ imports: [PapersModule], controllers: [StockController], providers: [StockService], exports: [StockService] })
export class StockModule {}
