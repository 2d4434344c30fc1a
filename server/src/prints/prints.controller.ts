import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
  Query,
  Req,
  Res,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import {
  PrintBegin,
  PrintDone,
  PrintInput,
  PrintLook,
  PrintProposal,
  PrintSettle,
  PrintsQuery,
  PrintView,
  ProposalQuery,
  SettingWordsQuery,
  SettingWordsView,
} from '@rakuen/contract/prints';
import { CaptionsQuery, CaptionsView, LabelsQuery } from '@rakuen/contract/labels';
import { PhotographFields, PhotographView } from '@rakuen/contract/photographs';
import { CauseView, MisprintInput, MisprintView } from '@rakuen/contract/runs';
import { IfMatch } from '../app/revision.ts';
import { attachment } from '../app/outgoing.ts';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { LabelsService } from './labels.service.ts';
import { PhotographsService } from './photographs.service.ts';
import { MisprintsService } from './misprints.service.ts';
import { PrintProofs } from './print-proofs.service.ts';
import { PrintsService } from './prints.service.ts';

const PhotographUpload = upload('pictureBytes');

/** Where this studio is reached, as the one who asks reached it. */
const originOf = (request: Request): string => `${request.protocol}://${request.get('host')}`;

/** A letter by its number in Unicode, as U+1F600. */
const unicodeNumber = (letter: string): string =>
  `U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`;

@ApiTags('prints')
@Controller('prints')
export class PrintsController {
  constructor(
    private readonly prints: PrintsService,
    private readonly misprints: MisprintsService,
    private readonly labels: LabelsService,
    private readonly photographs: PhotographsService,
    private readonly settings: SettingsService,
    private readonly proofs: PrintProofs,
  ) {}

  @Get()
  @ApiOkResponse({ type: [PrintView] })
  list(@Query() { state }: PrintsQuery): Promise<PrintView[]> {
    return this.prints.list(state);
  }

  /** Settings to begin with, each with where it was carried over from. */
  @Get('proposal')
  @ApiOkResponse({ type: PrintProposal })
  propose(@Query() query: ProposalQuery): Promise<PrintProposal> {
    return this.prints.propose(query.pictureId, query.conditionId);
  }

  /** Words each setting had on a printer. */
  @Get('words')
  @ApiOkResponse({ type: SettingWordsView })
  async words(@Query() { printer }: SettingWordsQuery): Promise<SettingWordsView> {
    return { words: await this.prints.words(printer) };
  }

  /** Labels for the backs of prints, one each or many on a sheet of labels; settings strips for the margin. */
  @Get('labels.pdf')
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  async labelSheet(
    @Query() query: LabelsQuery,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { address } = await this.settings.get();
    const { pdf, notSet } = await this.labels.pdf(query, address ?? originOf(request));
    // By their numbers: a header holds no letters of every script.
    if (notSet.length > 0) response.setHeader('X-Not-Set', notSet.map(unicodeNumber).join(' '));
    return new StreamableFile(pdf);
  }

  /** Prints by the short code on their label; two only where two have one code. */
  @Get('code/:code')
  @ApiOkResponse({ type: [PrintView] })
  byCode(@Param('code') code: string): Promise<PrintView[]> {
    return this.prints.byCode(code);
  }

  /** What may stand under a picture, as its prints bear it. */
  @Get('captions')
  @ApiOkResponse({ type: CaptionsView })
  async captions(@Query() { pictureId }: CaptionsQuery): Promise<CaptionsView> {
    return { captions: await this.labels.captions(pictureId) };
  }

  /** What spoils sheets, the commonest first. */
  @Get('causes')
  @ApiOkResponse({ type: [CauseView] })
  causes(): Promise<CauseView[]> {
    return this.misprints.list();
  }

  @Get(':id')
  @ApiOkResponse({ type: PrintView })
  one(@Param('id', ParseUUIDPipe) id: string): Promise<PrintView> {
    return this.prints.view(id);
  }

  /** What differs from what went before, what changed since, what was learned. */
  @Get(':id/look')
  @ApiOkResponse({ type: PrintLook })
  look(@Param('id', ParseUUIDPipe) id: string): Promise<PrintLook> {
    return this.prints.look(id);
  }

  /** How its proof looked when it was printed; for a screen of sRGB. */
  @Get(':id/proof')
  @ApiProduces('image/jpeg')
  @Header('Content-Type', 'image/jpeg')
  async proof(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return new StreamableFile(await this.proofs.file(id));
  }

  /** Keeps a photograph or a scan with its print. */
  @Post(':id/photographs')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: PhotographView })
  @UseInterceptors(PhotographUpload)
  photograph(
    @Param('id', ParseUUIDPipe) id: string,
    @UploadedFile() file: IncomingFile,
    @Body() fields: PhotographFields,
  ): Promise<PhotographView> {
    return this.photographs.add(id, file, fields);
  }

  @Get('photographs/:id')
  async photographFile(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    const { bytes, type, name } = await this.photographs.file(id);
    return new StreamableFile(bytes, { type, disposition: attachment(name) });
  }

  @Get('photographs/:id/preview')
  @Header('Content-Type', 'image/jpeg')
  async photographPreview(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return new StreamableFile(await this.photographs.preview(id));
  }

  @Delete('photographs/:id')
  @HttpCode(204)
  withoutPhotograph(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.photographs.remove(id);
  }

  @Get(':id/misprints')
  @ApiOkResponse({ type: [MisprintView] })
  spoilt(@Param('id', ParseUUIDPipe) id: string): Promise<MisprintView[]> {
    return this.misprints.ofPrint(id);
  }

  @Post()
  @ApiCreatedResponse({ type: PrintView })
  record(@Body() input: PrintInput): Promise<PrintView> {
    return this.prints.record(input);
  }

  /** Begins a print that waits for the printer. */
  @Post('begin')
  @ApiCreatedResponse({ type: PrintView })
  begin(@Body() input: PrintBegin): Promise<PrintView> {
    return this.prints.begin(input);
  }

  @Patch(':id')
  @ApiOkResponse({ type: PrintView })
  settle(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() change: PrintSettle,
    @IfMatch() from?: number,
  ): Promise<PrintView> {
    return this.prints.settle(id, change, from);
  }

  @Post(':id/done')
  @HttpCode(200)
  @ApiOkResponse({ type: PrintView })
  done(@Param('id', ParseUUIDPipe) id: string, @Body() done: PrintDone): Promise<PrintView> {
    return this.prints.done(id, done);
  }

  @Post(':id/misprints')
  @ApiCreatedResponse({ type: MisprintView })
  spoil(@Param('id', ParseUUIDPipe) id: string, @Body() input: MisprintInput): Promise<MisprintView> {
    return this.prints.spoil(id, input);
  }

  @Delete('misprints/:id')
  @HttpCode(204)
  takeBack(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.misprints.remove(id);
  }

  @Put(':id')
  @ApiOkResponse({ type: PrintView })
  replace(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: PrintInput,
    @IfMatch() from?: number,
  ): Promise<PrintView> {
    return this.prints.replace(id, input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.prints.remove(id);
  }
}
