import {
  Controller,
  Get,
  Header,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Query,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LedgerQuery, LedgerReadView, LedgerView, PaperLife, PictureLife } from '@rakuen/contract/ledger';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { ContactSheetService } from './contact-sheet.service.ts';
import { LedgerService } from './ledger.service.ts';
import { LivesService } from './lives.service.ts';
import { ReadBackService } from './read-back.service.ts';

const LedgerUpload = upload('readingBytes');

@ApiTags('ledger')
@Controller()
export class LedgerController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly lives: LivesService,
    private readonly contactSheets: ContactSheetService,
    private readonly readBack: ReadBackService,
  ) {}

  @Get('ledger')
  @ApiOkResponse({ type: LedgerView })
  list(@Query() query: LedgerQuery): Promise<LedgerView> {
    return this.ledger.page(query);
  }

  @Get('ledger.csv')
  @ApiProduces('text/csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="rakuen-ledger.csv"')
  csv(@Query() query: LedgerQuery): Promise<string> {
    return this.ledger.csv(query);
  }

  @Get('ledger.json')
  @Header('Content-Disposition', 'attachment; filename="rakuen-ledger.json"')
  @ApiOkResponse({ type: LedgerView })
  json(@Query() query: LedgerQuery): Promise<LedgerView> {
    return this.ledger.all(query);
  }

  /** Reads a ledger back that was taken away as JSON. */
  @Post('ledger/read')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  @ApiOkResponse({ type: LedgerReadView })
  @UseInterceptors(LedgerUpload)
  read(@UploadedFile() file: IncomingFile): Promise<LedgerReadView> {
    return this.readBack.read(file.path);
  }

  /** The prints found, small, with what is said of each. */
  @Get('ledger.pdf')
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  @Header('Content-Disposition', 'inline; filename="rakuen-contact-sheet.pdf"')
  async contactSheet(@Query() query: LedgerQuery): Promise<StreamableFile> {
    return new StreamableFile(await this.contactSheets.pdf(query));
  }

  @Get('ledger/papers/:id')
  @ApiOkResponse({ type: PaperLife })
  paper(@Param('id', ParseUUIDPipe) id: string): Promise<PaperLife> {
    return this.lives.ofPaper(id);
  }

  @Get('ledger/pictures/:id')
  @ApiOkResponse({ type: PictureLife })
  picture(@Param('id', ParseUUIDPipe) id: string): Promise<PictureLife> {
    return this.lives.ofPicture(id);
  }
}
