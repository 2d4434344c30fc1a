import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { LightFields, LightUvInput, LightView, SheetView } from '@rakuen/contract/sheets';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { SheetsService } from './sheets.service.ts';

const FileUpload = upload('readingBytes');

@ApiTags('comparison')
@Controller()
export class SheetsController {
  constructor(private readonly sheets: SheetsService) {}

  /** Solid and spectra of the reading that gives a print condition its figures. */
  @Get('conditions/:id/sheet')
  @ApiOkResponse({ type: SheetView })
  sheet(@Param('id', ParseUUIDPipe) id: string): Promise<SheetView> {
    return this.sheets.sheet(id);
  }

  @Get('lights')
  @ApiOkResponse({ type: [LightView] })
  lights(): Promise<LightView[]> {
    return this.sheets.lights();
  }

  /** Takes a lamp's spectrum in: two columns, nm and power. */
  @Post('lights')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: LightView })
  @UseInterceptors(FileUpload)
  addLight(@UploadedFile() file: IncomingFile, @Body() fields: LightFields): Promise<LightView> {
    return this.sheets.addLight(file, fields);
  }

  /** Says what is known of a lamp's UV, where its spectrum does not show it. */
  @Patch('lights/:id')
  @ApiOkResponse({ type: LightView })
  setLightUv(@Param('id', ParseUUIDPipe) id: string, @Body() { uv }: LightUvInput): Promise<LightView> {
    return this.sheets.setLightUv(id, uv);
  }

  @Delete('lights/:id')
  @HttpCode(204)
  removeLight(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.sheets.removeLight(id);
  }
}
