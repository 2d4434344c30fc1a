import { Body, Controller, Header, HttpCode, Injectable, Module, Post, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { bordersOf } from '@rakuen/core/layout/borders';
import { orderOfCuts } from '@rakuen/core/layout/cuts';
import { nest, printable } from '@rakuen/core/layout/nest';
import { LayoutInput, LayoutView, type LaidPiece } from '@rakuen/contract/layouts';
import { RakuenError } from '../app/errors.ts';
import { Beside } from '../store/one-at-a-time.ts';
import { layoutPdf } from './layout-pdf.ts';

/** More pieces than lie on any table. */
const MOST_PIECES = 200;

/** Prints, strips and cards laid on sheets and rolls. Nothing is kept: a layout follows from what is asked. */
@Injectable()
class LayoutsService {
  plan({ stock, pieces, gapMm }: LayoutInput): LayoutView {
    const { price, currency, top, right, bottom, left, ...bare } = stock;
    const asked = pieces.flatMap((p, i) =>
      Array.from({ length: p.copies }, (_, n): LaidPiece => {
        const borders = bordersOf(p.border, p.borderMm);
        return {
          key: `${i}-${n}`,
          name: p.name,
          mayTurn: p.mayTurn,
          pictureId: p.pictureId,
          borders,
          widthMm: p.widthMm + borders.left + borders.right,
          heightMm: p.heightMm + borders.top + borders.bottom,
        };
      }),
    );
    if (asked.length > MOST_PIECES)
      throw new RakuenError(400, `${asked.length} pieces are more than can be laid at once.`, {
        field: 'pieces',
        remedy: `Lay ${MOST_PIECES} or fewer.`,
      });
    const { sheets, lacking } = nest(printable(bare, { top, right, bottom, left }), asked, { gapMm });
    const whole = sheets.map((s) => bare.widthMm * (bare.kind === 'roll' ? s.heightMm + top + bottom : bare.heightMm));
    const laid = sheets.flatMap((s) => s.placed).reduce((sum, p) => sum + p.widthMm * p.heightMm, 0);
    const area = whole.reduce((a, b) => a + b, 0);
    const waste = area > 0 ? 1 - laid / area : 0;
    const each = price === undefined ? undefined : price / (bare.widthMm * bare.heightMm);
    return {
      sheets: sheets.map((s) => ({
        ...s,
        placed: s.placed.map((p) => ({ ...p, xMm: p.xMm + left, yMm: p.yMm + top })),
        cuts: (orderOfCuts(s.placed) ?? []).map((c) => ({ ...c, atMm: c.atMm + (c.way === 'across' ? top : left) })),
      })),
      lacking: [...lacking],
      waste,
      ...(each !== undefined && currency && { wasted: each * area * waste, currency }),
    };
  }
}

@ApiTags('layouts')
@Controller('layouts')
class LayoutsController {
  constructor(private readonly layouts: LayoutsService) {}

  @Post()
  @Beside()
  @HttpCode(200)
  @ApiOkResponse({ type: LayoutView })
  plan(@Body() input: LayoutInput): LayoutView {
    return this.layouts.plan(input);
  }

  /** The same at true size, with its cuts. */
  @Post('pdf')
  @Beside()
  @HttpCode(200)
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  async pdf(@Body() input: LayoutInput): Promise<StreamableFile> {
    return new StreamableFile(await layoutPdf(input.stock, this.layouts.plan(input)));
  }
}

@Module({ controllers: [LayoutsController], providers: [LayoutsService] })
export class LayoutsModule {}
