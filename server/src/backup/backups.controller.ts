import { createReadStream } from 'node:fs';
import { Controller, Get, HttpCode, Param, Post, StreamableFile, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { BackupView } from '@rakuen/contract/backups';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { Beside } from '../store/one-at-a-time.ts';
import { BackupsService } from './backups.service.ts';

/** A studio is larger than a picture: so many times the limit of one. */
const TIMES_A_PICTURE = 64;

@ApiTags('backups')
@Controller('backups')
export class BackupsController {
  constructor(private readonly backups: BackupsService) {}

  @Get()
  @ApiOkResponse({ type: [BackupView] })
  list(): Promise<BackupView[]> {
    return this.backups.list();
  }

  /** Makes a backup now; the studio goes on beside it. */
  @Beside('takes its own turn')
  @Post()
  @ApiCreatedResponse({ type: BackupView })
  make(): Promise<BackupView> {
    return this.backups.make('asked');
  }

  @Get(':name')
  file(@Param('name') name: string): StreamableFile {
    return new StreamableFile(createReadStream(this.backups.pathOf(name)), {
      type: 'application/zip',
      disposition: `attachment; filename="${name}"`,
    });
  }

  /** Looks a backup over; the next start puts it in place. */
  @Beside()
  @Post('restore')
  @HttpCode(202)
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(upload('pictureBytes', TIMES_A_PICTURE))
  restore(@UploadedFile() file: IncomingFile): Promise<void> {
    return this.backups.take(file);
  }
}
