import {
  Controller,
  Get,
  Param,
  ParseUUIDPipe,
  Post,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { attachment } from '../app/outgoing.ts';
import { PaperBundle } from '@rakuen/contract/bundle';
import { PaperView } from '@rakuen/contract/papers';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { BundlesService } from './bundles.service.ts';

const BundleUpload = upload('readingBytes', 8);

@ApiTags('papers')
@Controller('papers')
export class BundlesController {
  constructor(private readonly bundles: BundlesService) {}

  /** A paper with everything known of it, as one JSON file. */
  @Get(':id/bundle')
  @ApiOkResponse({ type: PaperBundle })
  async write(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    const { name, bundle } = await this.bundles.write(id);
    return new StreamableFile(Buffer.from(JSON.stringify(bundle, undefined, 1)), {
      type: 'application/json',
      disposition: attachment(name),
    });
  }

  /** Takes such a file in. */
  @Post('bundle')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: PaperView })
  @UseInterceptors(BundleUpload)
  take(@UploadedFile() file: IncomingFile): Promise<PaperView> {
    return this.bundles.take(file);
  }
}
