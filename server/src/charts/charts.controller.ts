import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Query,
  StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { attachment } from '../app/outgoing.ts';
import { ChartFileQuery, ChartInput, ChartView, TestPageQuery } from '@rakuen/contract/charts';
import { ChartsService } from './charts.service.ts';
import type { OutgoingFile } from '../files/file-store.ts';

@ApiTags('charts')
@Controller()
export class ChartsController {
  constructor(private readonly charts: ChartsService) {}

  @Get('charts')
  @ApiOkResponse({ type: [ChartView] })
  list(): Promise<ChartView[]> {
    return this.charts.list();
  }

  /** Lays a chart out and keeps the layout. */
  @Post('charts')
  @ApiCreatedResponse({ type: ChartView })
  create(@Body() input: ChartInput): Promise<ChartView> {
    return this.charts.create(input);
  }

  /** Lays out the card that lies beside a print on a flatbed; the one that is there already where there is one. */
  @Post('charts/card')
  @HttpCode(200)
  @ApiOkResponse({ type: ChartView })
  card(): Promise<ChartView> {
    return this.charts.card();
  }

  @Delete('charts/:id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.charts.remove(id);
  }

  /** A chart to print (TIFF, a sheet at a time; PDF), or its reference (CGATS). */
  @Get('charts/:id/file')
  @ApiProduces('image/tiff', 'application/pdf', 'text/plain')
  async file(@Param('id', ParseUUIDPipe) id: string, @Query() query: ChartFileQuery): Promise<StreamableFile> {
    return streamed(await this.charts.file(id, query));
  }

  /** The visual test page, with the settings in its margin. */
  @Get('test-page')
  @ApiProduces('image/tiff', 'application/pdf', 'image/png', 'text/plain')
  async testPage(@Query() query: TestPageQuery): Promise<StreamableFile> {
    return streamed(await this.charts.testPage(query));
  }
}

/** A picture for the screen is shown; everything else is taken away. */
function streamed({ name, mediaType, bytes }: OutgoingFile): StreamableFile {
  return new StreamableFile(bytes, {
    type: mediaType,
    disposition: mediaType === 'image/png' ? 'inline' : attachment(name),
  });
}
