import { today } from '@rakuen/core/day';
import { noProfileFile } from '../profiles/no-profile-file.ts';
import { createReadStream } from 'node:fs';
import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Query,
  Res,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { RENDERING_NAMES } from '@rakuen/core/characterisation/renderings';
import { markName } from '@rakuen/core/picture/marks';
import { PLAIN, RECIPE_PARTS } from '@rakuen/core/proof/recipe';
import { fitStrips } from '@rakuen/core/proof/fit-strips';
import { planStrips, type StripsAsked } from '@rakuen/core/proof/strips';
import { CardView, ScanFields, ScanView, StripsQuery, StripsView } from '@rakuen/contract/strips';
import { notFound, RakuenError } from '../app/errors.ts';
import { upload } from '../app/upload.ts';
import { ChartsService } from '../charts/charts.service.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { Beside } from '../store/one-at-a-time.ts';
import { ReadingsService } from '../readings/readings.service.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { ProfilesService } from '../profiles/profiles.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { Workshop } from '../work/workshop.ts';
import { RecipesService } from './recipes.service.ts';

/** None, a quarter and half a stop (practice). */
const LADDER = [0, 0.25, 0.5];
const CROP_MM = { width: 48, height: 48 } as const;
/** A5, turned. */
const SHEET_MM = { widthMm: 210, heightMm: 148 } as const;
const PPI = 360;
const MOST_STEPS = 12;
const TYPES = { tif: 'image/tiff', pdf: 'application/pdf' } as const;

/** Crops on paper before a whole sheet is spent. */
@ApiTags('strips')
@Controller('pictures/:id')
export class StripsController {
  constructor(
    private readonly pictures: PicturesService,
    private readonly conditions: ConditionsService,
    private readonly recipes: RecipesService,
    private readonly profiles: ProfilesService,
    private readonly charts: ChartsService,
    private readonly readings: ReadingsService,
    private readonly files: FileStore,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
  ) {}

  /** How the strips lie on the small sheets. */
  @Get('strips')
  @ApiOkResponse({ type: StripsView })
  async plan(@Param('id', ParseUUIDPipe) id: string, @Query() query: StripsQuery): Promise<StripsView> {
    const asked = await this.asked(id, query);
    const { sheets, lacking } = planStrips(asked);
    return {
      sheets: sheets.length,
      cropMm: asked.cropMm,
      sheetMm: { width: asked.sheet.widthMm, height: asked.sheet.heightMm },
      on: sheets.map((s) => ({
        places: s.placed.map((p) => p.name),
        crops: s.placed.reduce((n, p) => n + p.crops.length, 0),
      })),
      lacking: lacking.map((l) => l.name),
      used: sheets.map((s) => s.used),
    };
  }

  /** A small sheet of strips: a 16-bit TIFF with the condition’s own profile embedded. */
  @Get('strips.tif')
  @ApiProduces('image/tiff')
  sheet(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() query: StripsQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    return this.written(id, query, 'tif', response);
  }

  /** The same as a page of true size, its device values in 8 bits. */
  @Get('strips.pdf')
  @ApiProduces('application/pdf')
  page(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() query: StripsQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    return this.written(id, query, 'pdf', response);
  }

  /** The card for a scanner, and the readings that may be of it. */
  @Get('strips/card')
  @ApiOkResponse({ type: CardView })
  async card(): Promise<CardView> {
    const known = await this.charts.knownCard();
    if (!known) return { readings: [] };
    return { chartId: known.id, readings: await this.readings.ofSize(known.design.patchCount) };
  }

  /** A scan of a small sheet, with a card beside it, laid over its proof: how far off, and what may have gone wrong. Nothing is kept. */
  @Beside()
  @Post('strips/scan')
  @HttpCode(200)
  @UseInterceptors(upload('pictureBytes'))
  @ApiOkResponse({ type: ScanView })
  async scan(
    @Param('id', ParseUUIDPipe) id: string,
    @UploadedFile() file: IncomingFile,
    @Body() fields: ScanFields,
  ): Promise<ScanView> {
    try {
      const { strips, condition } = await this.sheetOf(id, fields);
      const { design } = await this.charts.get(fields.chartId);
      const { source, measurementCondition } = await this.readings.spoken(fields.readingId);
      const { limits } = await this.settings.get();
      const { granted, ...suppositions } = await this.profiles.suppositions(condition, measurementCondition);
      const held = await this.files.scratch((scratch) =>
        this.workshop.run(
          'holdScan',
          {
            scan: { path: file.path, assumeSrgb: true, maxPixels: limits.picturePixels },
            strips: { ...strips, scratch },
            card: { design, source },
            ...suppositions,
          },
          file.originalname,
        ),
      );
      return { ...held, off: [...granted, ...held.off] };
    } finally {
      await this.files.discard(file.path);
    }
  }

  /** What a small sheet of strips holds. @throws RakuenError (404, 409) */
  private async sheetOf(id: string, query: StripsQuery) {
    const asked = await this.asked(id, query);
    const { sheets } = planStrips(asked);
    const found = sheets[query.page ?? 0];
    if (!found) throw notFound('sheet of these strips');
    const row = await this.pictures.get(id);
    const condition = await this.conditions.view(query.conditionId);
    const icc = condition.profileId ? await this.profiles.bytesOf(condition.profileId) : undefined;
    if (!icc) throw noProfileFile(condition);
    const { limits } = await this.settings.get();
    const strips = {
      path: this.files.pathOf(row.contentHash),
      assumeSrgb: row.profileAssumed,
      maxPixels: Math.max(limits.picturePixels, row.widthPx * row.heightPx),
      icc,
      rendering: asked.recipe.rendering,
      placed: found.placed,
      printMm: asked.printMm,
      sheet: asked.sheet,
    };
    return { strips, row, condition };
  }

  private async written(
    id: string,
    query: StripsQuery,
    as: 'tif' | 'pdf',
    response: Response,
  ): Promise<StreamableFile> {
    const { page = 0, ppi = PPI } = query;
    const { strips, row, condition } = await this.sheetOf(id, query);
    const out = this.files.incomingPath();
    const gone = () => void this.files.discard(out);
    try {
      await this.files.scratch((scratch) =>
        this.workshop.run('writeStrips', {
          ...strips,
          ppi,
          as,
          foot: `${row.title}   ${condition.paper.name}   ${condition.printer}, ${condition.mediaSetting}   ${RENDERING_NAMES[strips.rendering]}   ${today()}`,
          out,
          scratch,
        }),
      );
    } catch (error) {
      gone();
      throw error;
    }
    const file = createReadStream(out);
    file.on('close', gone);
    const name = `${row.title}, strips ${page + 1}, ${condition.paper.name}.${as}`.replace(/[/\\]/g, '-');
    response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`);
    return new StreamableFile(file, { type: TYPES[as] });
  }

  private async asked(id: string, query: StripsQuery): Promise<StripsAsked> {
    const { marks, commission, widthPx, heightPx } = await this.pictures.view(id);
    await this.conditions.get(query.conditionId);
    const key = query.part ?? 'liftStops';
    const { least, most } = RECIPE_PARTS[key];
    const values = query.steps ? numbers(query.steps) : LADDER;
    if (values.length === 0 || values.length > MOST_STEPS || values.some((v) => !(v >= least && v <= most)))
      throw new RakuenError(
        400,
        `The steps of ${RECIPE_PARTS[key].name.toLowerCase()} are one to ${MOST_STEPS} numbers from ${least} to ${most}.`,
        {
          field: 'steps',
          remedy: 'Say them with commas between, as 0,0.25,0.5.',
        },
      );
    const wanted = query.places ? numbers(query.places) : undefined;
    const places = marks
      .map((m, i) => ({ name: markName(m), x: m.x, y: m.y, number: i + 1 }))
      .filter((p) => !wanted || wanted.includes(p.number));
    if (places.length === 0)
      throw new RakuenError(409, 'No place of the picture is marked, or none of those that were asked for.', {
        field: 'places',
        remedy: 'Mark the places where it will be decided, in Pictures.',
      });
    const long = commission.longSideMm;
    const short = (long * Math.min(widthPx, heightPx)) / Math.max(widthPx, heightPx);
    const recipe = (await this.recipes.list(id)).find((r) => r.conditionId === query.conditionId && r.name === '');
    const small = {
      widthMm: query.sheetWidth ?? SHEET_MM.widthMm,
      heightMm: query.sheetHeight ?? SHEET_MM.heightMm,
      edgeMm: query.margin,
    };
    const crop = { width: query.cropWidth ?? CROP_MM.width, height: query.cropHeight ?? CROP_MM.height };
    const { cropMm, sheet } =
      query.fit === 'sheet' ? fitStrips(places.length, values.length, small) : { cropMm: crop, sheet: small };
    return {
      places,
      ladder: { key, values },
      recipe: recipe?.values ?? PLAIN,
      cropMm,
      sheet,
      printMm: widthPx >= heightPx ? { width: long, height: short } : { width: short, height: long },
    };
  }
}

const numbers = (text: string): number[] => text.split(',').map((v) => Number(v.trim()));
