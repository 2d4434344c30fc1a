import { Controller, Get, Header, Param, ParseUUIDPipe, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { LaidQuery, LaidView, OnSheetQuery } from '@rakuen/contract/proofs';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { LabImages } from '../pictures/lab-images.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { LaidService } from '../profiles/laid.service.ts';
import { Workshop } from '../work/workshop.ts';

const SMALL_PX = 400;
const MOST_PX = 1280;

/** Pictures on sheets: as an image for the eye, and as what a proof is drawn from. */
@ApiTags('proofs')
@Controller()
export class ProofController {
  constructor(
    private readonly pictures: PicturesService,
    private readonly conditions: ConditionsService,
    private readonly images: LabImages,
    private readonly laid: LaidService,
    private readonly workshop: Workshop,
  ) {}

  /** A picture as it looks on a sheet, in a light, behind a glass; for a screen of sRGB. */
  @Get('pictures/:id/on/:conditionId')
  @ApiProduces('image/jpeg')
  @Header('Cache-Control', 'private, max-age=60')
  async on(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('conditionId', ParseUUIDPipe) conditionId: string,
    @Query() { light = 'D50', glass = 'none', rendering = 'relative', px = SMALL_PX }: OnSheetQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const [row, condition] = [await this.pictures.get(id), await this.conditions.view(conditionId)];
    const [image, { seen }] = await Promise.all([
      this.images.of(row),
      this.laid.laid(condition, { light, glass }, rendering),
    ]);
    const { jpeg, beyondScreen } = await this.workshop.run('drawOnSheet', {
      image,
      sheet: seen,
      longerPx: Math.min(MOST_PX, px),
    });
    response.setHeader('X-Beyond-Screen', beyondScreen.toFixed(4));
    return new StreamableFile(Buffer.from(jpeg), { type: 'image/jpeg' });
  }

  /** A picture as Lab: 32-bit width and height, then L*, a*, b* of each pixel as 16-bit units of 1/250, little-endian. */
  @Get('pictures/:id/lab')
  @ApiProduces('application/octet-stream')
  @Header('Cache-Control', 'private, max-age=3600')
  async lab(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    const { widthPx, heightPx, lab } = await this.images.of(await this.pictures.get(id));
    const head = Buffer.alloc(8);
    head.writeUInt32LE(widthPx, 0);
    head.writeUInt32LE(heightPx, 4);
    return new StreamableFile(Buffer.concat([head, Buffer.from(lab.buffer, lab.byteOffset, lab.byteLength)]), {
      type: 'application/octet-stream',
    });
  }

  /** What comes out of a sheet for every colour of a file: as read, and as seen in a light behind a glass. */
  @Get('conditions/:id/laid')
  @ApiOkResponse({ type: LaidView })
  async sheet(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() { light = 'D50', glass = 'none', rendering = 'relative' }: LaidQuery,
  ): Promise<LaidView> {
    const { bare, seen, modelError } = await this.laid.laid(
      await this.conditions.view(id),
      { light, glass },
      rendering,
    );
    return { bare, seen, modelError };
  }
}
