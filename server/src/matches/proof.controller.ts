import { createReadStream } from 'node:fs';
import { Controller, Get, Header, Param, ParseUUIDPipe, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { CopyQuery, LaidQuery, LaidView, OnSheetQuery } from '@rakuen/contract/proofs';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { RakuenError } from '../app/errors.ts';
import { FileStore } from '../files/file-store.ts';
import { LabImages } from '../pictures/lab-images.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { LaidService } from '../profiles/laid.service.ts';
import { ProfilesService } from '../profiles/profiles.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { Workshop } from '../work/workshop.ts';

const SMALL_PX = 400;
const MOST_PX = 1280;
const DEFAULT_PPI = 360;

/** Pictures on sheets: as an image for the eye, and as what a proof is drawn from. */
@ApiTags('proofs')
@Controller()
export class ProofController {
  constructor(
    private readonly pictures: PicturesService,
    private readonly conditions: ConditionsService,
    private readonly images: LabImages,
    private readonly laid: LaidService,
    private readonly profiles: ProfilesService,
    private readonly files: FileStore,
    private readonly settings: SettingsService,
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

  /** The print copy of a picture for a print condition: a 16-bit TIFF with the condition's own profile embedded. */
  @Get('pictures/:id/copy')
  @ApiProduces('image/tiff')
  async copy(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() { conditionId, rendering = 'relative', ppi = DEFAULT_PPI, lift = 0 }: CopyQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const row = await this.pictures.get(id);
    const { commission, title } = await this.pictures.view(id);
    const condition = await this.conditions.view(conditionId);
    const profile = condition.profileId ? await this.profiles.bytesOf(condition.profileId) : undefined;
    if (!profile)
      throw new RakuenError(409, 'No profile of this print condition is kept here: only its name is known.', {
        remedy: 'Write one in Readings, under Profile, or bring its file there.',
      });
    const { limits } = await this.settings.get();
    const out = this.files.incomingPath();
    const landscape = row.widthPx >= row.heightPx;
    const short = (commission.longSideMm * Math.min(row.widthPx, row.heightPx)) / Math.max(row.widthPx, row.heightPx);
    const gone = () => void this.files.discard(out);
    try {
      await this.files.scratch((scratch) =>
        this.workshop.run('writeCopy', {
          path: this.files.pathOf(row.contentHash),
          assumeSrgb: row.profileAssumed,
          maxPixels: Math.max(limits.picturePixels, row.widthPx * row.heightPx),
          icc: profile,
          rendering,
          widthMm: landscape ? commission.longSideMm : short,
          heightMm: landscape ? short : commission.longSideMm,
          ppi,
          liftStops: lift / 100,
          out,
          scratch,
        }),
      );
      const file = createReadStream(out);
      file.on('close', gone);
      const name = `${title}, ${condition.paper.name}, ${commission.longSideMm.toFixed(0)} mm.tif`.replace(
        /[/\\]/g,
        '-',
      );
      response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
      return new StreamableFile(file, { type: 'image/tiff' });
    } catch (error) {
      gone();
      throw error;
    }
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
