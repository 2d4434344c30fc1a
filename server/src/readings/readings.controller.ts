import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { attachment } from '../app/outgoing.ts';
import { ConditionView } from '@rakuen/contract/conditions';
import {
  FiguresFrom,
  HistoryView,
  SetComparisonView,
  LeftOutPatches,
  ReadingFields,
  ReadingFileQuery,
  ReadingPreview,
} from '@rakuen/contract/readings';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { ReadingsService } from './readings.service.ts';
import { Beside } from '../store/one-at-a-time.ts';

const ReadingUpload = upload('readingBytes');

@ApiTags('readings')
@Controller()
export class ReadingsController {
  constructor(private readonly readings: ReadingsService) {}

  /** Shows what a file of readings holds; keeps nothing. */
  @Beside()
  @Post('readings/preview')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  @ApiOkResponse({ type: ReadingPreview })
  @UseInterceptors(ReadingUpload)
  preview(@UploadedFile() file: IncomingFile, @Body() fields: ReadingFields): Promise<ReadingPreview> {
    return this.readings.preview(file, fields);
  }

  /** Keeps a file as readings of a print condition. */
  @Post('conditions/:id/readings')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: ConditionView })
  @UseInterceptors(ReadingUpload)
  keep(
    @Param('id', ParseUUIDPipe) id: string,
    @UploadedFile() file: IncomingFile,
    @Body() fields: ReadingFields,
  ): Promise<ConditionView> {
    return this.readings.keep(id, file, fields);
  }

  /** Every set of readings of a print condition, with figures of its own. */
  @Get('conditions/:id/history')
  @ApiOkResponse({ type: HistoryView })
  history(@Param('id', ParseUUIDPipe) id: string): Promise<HistoryView> {
    return this.readings.history(id);
  }

  /** A set of readings against an earlier one, patch by patch. */
  @Get('readings/:id/against/:first')
  @ApiOkResponse({ type: SetComparisonView })
  against(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('first', ParseUUIDPipe) first: string,
  ): Promise<SetComparisonView> {
    return this.readings.against(id, first);
  }

  /** Chooses the reading that gives the figures. */
  @Put('conditions/:id/figures-from')
  @ApiOkResponse({ type: ConditionView })
  figuresFrom(@Param('id', ParseUUIDPipe) id: string, @Body() choice: FiguresFrom): Promise<ConditionView> {
    return this.readings.takeFiguresFrom(id, choice.readingId);
  }

  @Get('readings/:id/file')
  @ApiProduces('text/plain', 'application/xml', 'text/csv')
  async file(@Param('id', ParseUUIDPipe) id: string, @Query() query: ReadingFileQuery): Promise<StreamableFile> {
    const { name, bytes, mediaType } = query.as
      ? await this.readings.written(id, query.as)
      : { ...(await this.readings.file(id)), mediaType: 'text/plain' };
    return new StreamableFile(bytes, {
      type: mediaType,
      disposition: attachment(name),
    });
  }

  /** Leaves patches out of a reading: all that are named, and no others. */
  @Put('readings/:id/left-out')
  @ApiOkResponse({ type: ConditionView })
  leaveOut(@Param('id', ParseUUIDPipe) id: string, @Body() { patches }: LeftOutPatches): Promise<ConditionView> {
    return this.readings.leaveOut(id, patches);
  }

  /** Readings that were kept apart join the others of their print condition. */
  @Delete('readings/:id/apart')
  @ApiOkResponse({ type: ConditionView })
  join(@Param('id', ParseUUIDPipe) id: string): Promise<ConditionView> {
    return this.readings.join(id);
  }

  @Delete('readings/:id')
  @ApiOkResponse({ type: ConditionView })
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<ConditionView> {
    return this.readings.remove(id);
  }
}
