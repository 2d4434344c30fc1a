import { Body, Controller, Header, HttpCode, Post, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LayoutInput, LayoutView } from '@rakuen/contract/layouts';
import { Beside } from '../store/one-at-a-time.ts';
import { layoutPdf } from './layout-pdf.ts';
import { LayoutsService } from './layouts.service.ts';

@ApiTags('layouts')
@Controller('layouts')
export class LayoutsController {
  constructor(private readonly layouts: LayoutsService) {}

  @Post()
  @Beside()
  @HttpCode(200)
  @ApiOkResponse({ type: LayoutView })
  plan(@Body() input: LayoutInput): Promise<LayoutView> {
    return this.layouts.plan(input);
  }

  /** The same at true size, with its cuts. */
  @Post('pdf')
  @Beside()
  @HttpCode(200)
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  async pdf(@Body() input: LayoutInput): Promise<StreamableFile> {
    return new StreamableFile(await layoutPdf(input.stock, await this.layouts.plan(input)));
  }
}
