import { randomInt } from 'node:crypto';
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
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes, ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { ConditionView } from '@rakuen/contract/conditions';
import {
  BenchRequest,
  BenchValue,
  ObservationsInput,
  ScanFields,
  ScanQuery,
  SimulatedScanInput,
} from '@rakuen/contract/observations';
import { upload } from '../app/upload.ts';
import type { IncomingFile } from '../files/file-store.ts';
import { BenchService } from './bench.service.ts';

const SEEDS = 1_000_000;
const ScanUpload = upload('pictureBytes');

@ApiTags('the bench')
@Controller()
export class BenchController {
  constructor(private readonly bench: BenchService) {}

  /** Keeps what was weighed, measured or judged of a print condition. */
  @Post('conditions/:id/observations')
  @ApiCreatedResponse({ type: ConditionView })
  observe(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { observations, sure }: ObservationsInput,
  ): Promise<ConditionView> {
    return this.bench.observe(id, observations, sure);
  }

  @Delete('observations/:id')
  @ApiOkResponse({ type: ConditionView })
  forget(@Param('id', ParseUUIDPipe) id: string): Promise<ConditionView> {
    return this.bench.forget(id);
  }

  /** Measures the texture in a scan of the bare sheet and keeps both. */
  @Post('conditions/:id/scans')
  @ApiConsumes('multipart/form-data')
  @ApiCreatedResponse({ type: ConditionView })
  @UseInterceptors(ScanUpload)
  scan(
    @Param('id', ParseUUIDPipe) id: string,
    @UploadedFile() file: IncomingFile,
    @Body() fields: ScanFields,
  ): Promise<ConditionView> {
    return this.bench.scan(id, file, fields);
  }

  /** A scan as the simulated raking-light scanner makes it. */
  @Post('conditions/:id/scans/simulated')
  @ApiCreatedResponse({ type: ConditionView })
  simulatedScan(@Param('id', ParseUUIDPipe) id: string, @Body() { by }: SimulatedScanInput): Promise<ConditionView> {
    return this.bench.simulatedScan(id, by, randomInt(SEEDS));
  }

  @Get('observations/:id/scan')
  @ApiProduces('image/png')
  async scanFile(@Param('id', ParseUUIDPipe) id: string, @Query() query: ScanQuery): Promise<StreamableFile> {
    return new StreamableFile(await this.bench.scanFile(id, query), { type: 'image/png' });
  }

  /** What a simulated instrument reads; nothing is kept. */
  @Post('conditions/:id/bench')
  @HttpCode(200)
  @ApiOkResponse({ type: BenchValue })
  read(@Param('id', ParseUUIDPipe) id: string, @Body() { kind }: BenchRequest): Promise<BenchValue> {
    return this.bench.read(id, kind, randomInt(SEEDS));
  }
}
