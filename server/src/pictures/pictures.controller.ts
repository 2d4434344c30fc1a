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
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiAcceptedResponse, ApiConsumes, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import {
  CommissionedMany,
  CommissionForMany,
  PictureChange,
  PictureFields,
  PictureJob,
  PictureView,
} from '@rakuen/contract/pictures';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { IfMatch } from '../app/revision.ts';
import { PicturesService } from './pictures.service.ts';
import { Beside } from '../store/one-at-a-time.ts';

@ApiTags('pictures')
@Controller('pictures')
export class PicturesController {
  constructor(private readonly pictures: PicturesService) {}

  @Get()
  @ApiOkResponse({ type: [PictureView] })
  list(): Promise<PictureView[]> {
    return this.pictures.list();
  }

  /** Takes a JPEG, PNG or TIFF in and begins to read it. */
  @Beside()
  @Post()
  @HttpCode(202)
  @ApiConsumes('multipart/form-data')
  @ApiAcceptedResponse({ type: PictureJob })
  @UseInterceptors(upload('pictureBytes'))
  add(@UploadedFile() file: IncomingFile, @Body() fields: PictureFields): PictureJob {
    return this.pictures.begin(file, fields);
  }

  @Get('jobs/:id')
  @ApiOkResponse({ type: PictureJob })
  job(@Param('id', ParseUUIDPipe) id: string): PictureJob {
    return this.pictures.job(id);
  }

  @Beside()
  @Delete('jobs/:id')
  @ApiOkResponse({ type: PictureJob })
  cancel(@Param('id', ParseUUIDPipe) id: string): PictureJob {
    return this.pictures.cancel(id);
  }

  @Get(':id')
  @ApiOkResponse({ type: PictureView })
  one(@Param('id', ParseUUIDPipe) id: string): Promise<PictureView> {
    return this.pictures.view(id);
  }

  @Get(':id/preview')
  @ApiProduces('image/jpeg')
  @Header('Cache-Control', 'private, max-age=31536000, immutable')
  async preview(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return new StreamableFile(await this.pictures.preview(id), { type: 'image/jpeg' });
  }

  /** Sets where many pictures will hang, in one operation. */
  @Put('commissions')
  @ApiOkResponse({ type: CommissionedMany })
  async commission(@Body() { pictureIds, commission }: CommissionForMany): Promise<CommissionedMany> {
    return { changed: await this.pictures.commission(pictureIds, commission) };
  }

  @Patch(':id')
  @ApiOkResponse({ type: PictureView })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() body: PictureChange,
    @IfMatch() from?: number,
  ): Promise<PictureView> {
    return this.pictures.change(id, body, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.pictures.remove(id);
  }
}
