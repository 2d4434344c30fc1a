import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { InboxFields, InboxFile, InboxImport, InboxView } from '@rakuen/contract/inbox';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { InboxService } from './inbox.service.ts';

@ApiTags('inbox')
@Controller('inbox')
export class InboxController {
  constructor(private readonly inbox: InboxService) {}

  @Get()
  @ApiOkResponse({ type: InboxView })
  list(): Promise<InboxView> {
    return this.inbox.list();
  }

  /** Takes one file in; what it is, its content says. */
  @Post()
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: InboxFile })
  @UseInterceptors(upload('pictureBytes'))
  add(@UploadedFile() file: IncomingFile, @Body() fields: InboxFields): Promise<InboxFile> {
    return this.inbox.add(file, fields);
  }

  /** Imports everything of which it is certain where it belongs. */
  @Post('certain')
  @HttpCode(200)
  @ApiOkResponse({ type: InboxView })
  importCertain(): Promise<InboxView> {
    return this.inbox.importCertain();
  }

  /** Takes what was imported or refused off the list. */
  @Post('clear')
  @HttpCode(200)
  @ApiOkResponse({ type: InboxView })
  clear(): Promise<InboxView> {
    return this.inbox.clear();
  }

  @Post(':id/import')
  @HttpCode(200)
  @ApiOkResponse({ type: InboxFile })
  import(@Param('id', ParseUUIDPipe) id: string, @Body() to: InboxImport): Promise<InboxFile> {
    return this.inbox.import(id, to);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.inbox.remove(id);
  }
}
