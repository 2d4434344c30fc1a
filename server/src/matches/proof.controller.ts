import { USUAL_COMMISSION } from '@rakuen/core/match/commission';
import { aspectOf } from '@rakuen/core/picture/aspect';
import {
  Body,
  Controller,
  Get,
  Header,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Query,
  Res,
  StreamableFile,
} from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { paperLabel } from '@rakuen/core/paper';
import { CopyQuery, CropQuery, LabQuery, LaidQuery, LaidView, OnSheetQuery } from '@rakuen/contract/proofs';
import { WORKING_SPACES } from '@rakuen/core/gamut/working-spaces';
import { Beside } from '../store/one-at-a-time.ts';
import { Writer } from '../store/writer.ts';
import { attachment } from '../app/outgoing.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { LabImages } from '../pictures/lab-images.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { LaidService } from '../profiles/laid.service.ts';
import { suggest } from '@rakuen/core/proof/suggest';
import { SuggestQuery, SuggestView } from '@rakuen/contract/recipes';
import type { Part } from '@rakuen/core/proof/part';
import { PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { markName } from '@rakuen/core/picture/marks';
import { PrintFilesService, recipeRecord } from '../print-files/print-files.service.ts';
import { DEFAULT_PPI, ENDINGS, fileWords, PrintFileWriter, printFileName } from './print-file-writer.service.ts';
import { orderSheet } from './order-sheet.ts';
import { RecipesService } from './recipes.service.ts';
import { SheetsAtHand } from './sheets-at-hand.service.ts';
import { Workshop } from '../work/workshop.ts';

const SMALL_PX = 400;
const MOST_PX = 1280;

const partOf = ({ x = 0, y = 0, width = 1 - x, height = 1 - y }: LabQuery): Part => ({ x, y, width, height });

/** Longer side of a part over the longer side of its picture. */
const longerShareOf = (
  { widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number },
  { width, height }: Part,
): number => Math.max(width * widthPx, height * heightPx) / Math.max(widthPx, heightPx);

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
    private readonly recipes: RecipesService,
    private readonly sheets: SheetsAtHand,
    private readonly writer: PrintFileWriter,
    private readonly printFiles: PrintFilesService,
    private readonly turns: Writer,
  ) {}

  /** A picture as it looks on a sheet, in a light, behind a glass; for a screen of sRGB. */
  @Get('pictures/:id/on/:conditionId')
  @ApiProduces('image/jpeg')
  @Header('Cache-Control', 'private, max-age=60')
  async on(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('conditionId', ParseUUIDPipe) conditionId: string,
    @Query() query: OnSheetQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { light = 'D50', glass = 'none', px = SMALL_PX } = query;
    const [row, condition] = [await this.pictures.get(id), await this.conditions.view(conditionId)];
    const recipe = query.recipe ? await this.recipeOf(id, query) : undefined;
    const rendering = query.rendering ?? recipe?.rendering ?? 'relative';
    const [image, { seen }] = await Promise.all([
      this.images.of(row, partOf(query)),
      this.laid.laid(condition, { light, glass }, rendering),
    ]);
    const { jpeg, beyondScreen } = await this.workshop.run('drawOnSheet', {
      image,
      sheet: seen,
      recipe,
      longSideMm: (row.commission ?? USUAL_COMMISSION).longSideMm * longerShareOf(row, partOf(query)),
      longerPx: Math.min(MOST_PX, px),
    });
    response.setHeader('X-Beyond-Screen', beyondScreen.toFixed(4));
    return new StreamableFile(Buffer.from(jpeg), { type: 'image/jpeg' });
  }

  /** A picture, or a part of it, as its file has it; for a screen of sRGB. */
  @Get('pictures/:id/crop')
  @ApiProduces('image/jpeg')
  @Header('Cache-Control', 'private, max-age=3600')
  async crop(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() query: CropQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const image = await this.images.of(await this.pictures.get(id), partOf(query));
    const longerPx = Math.min(MOST_PX, query.px ?? SMALL_PX);
    const { jpeg, beyondScreen } = await this.workshop.run('drawOnSheet', { image, longerPx });
    response.setHeader('X-Beyond-Screen', beyondScreen.toFixed(4));
    return new StreamableFile(Buffer.from(jpeg), { type: 'image/jpeg' });
  }

  /** What could be done for a print of it on a sheet, with reasons; nothing is done. */
  @Get('pictures/:id/suggested')
  @ApiOkResponse({ type: SuggestView })
  async suggested(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() { conditionId, ppi }: SuggestQuery,
  ): Promise<SuggestView> {
    const { commission, figures, hints, marks, widthPx, heightPx } = await this.pictures.view(id);
    const condition = await this.conditions.view(conditionId);
    const texture = condition.facts?.figures.textureAmplitude;
    const suggestions = suggest({
      coating: condition.paper.coating,
      lux: commission.lux,
      viewingMm: commission.viewingMm,
      ppi: Number(ppi) || DEFAULT_PPI,
      noiseL: figures.structure?.noiseL,
      textureL: texture?.shape === 'scalar' ? texture.value : undefined,
    });
    // Asked for by name, it is proofed though another media setting was chosen since.
    const beside = { ...(await this.sheets.beside()), superseded: new Map<string, string>() };
    const sheet = await this.sheets.of(condition, commission, beside);
    const best =
      'why' in sheet
        ? undefined
        : await this.workshop.run('suggestRecipe', {
            cells: await this.pictures.cells(id),
            marks,
            question: { picture: figures, hints, commission, aspect: aspectOf({ widthPx, heightPx }) },
            sheet: sheet.qualities,
            ready: sheet.ready,
          });
    return { suggestions, best: best ?? undefined };
  }

  /** A picture, or a part of it, as Lab: 32-bit width and height, then L*, a*, b* of each pixel as 16-bit units of 1/250, little-endian. */
  @Get('pictures/:id/lab')
  @ApiProduces('application/octet-stream')
  @Header('Cache-Control', 'private, max-age=3600')
  async lab(@Param('id', ParseUUIDPipe) id: string, @Query() query: LabQuery): Promise<StreamableFile> {
    const { widthPx, heightPx, lab } = await this.images.of(await this.pictures.get(id), partOf(query));
    const head = Buffer.alloc(8);
    head.writeUInt32LE(widthPx, 0);
    head.writeUInt32LE(heightPx, 4);
    return new StreamableFile(Buffer.concat([head, Buffer.from(lab.buffer, lab.byteOffset, lab.byteLength)]), {
      type: 'application/octet-stream',
    });
  }

  /**
   * The print file of a picture for a print condition: a TIFF or a JPEG in values of the condition's own profile, or
   * of a working space, which is embedded. Nothing is recorded.
   */
  @Get('pictures/:id/copy')
  @ApiProduces('image/tiff', 'image/jpeg')
  async copy(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() query: CopyQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const file = await this.writer.write(id, query);
    response.setHeader('Content-Disposition', attachment(file.name));
    return new StreamableFile(this.writer.stream(file), { type: file.type });
  }

  /** The same file, and a record of it with its SHA-256: prints that wait for it are made from it. */
  @Post('pictures/:id/print-files')
  @Beside()
  @HttpCode(200)
  @ApiProduces('image/tiff', 'image/jpeg')
  async printFile(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() query: CopyQuery,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const file = await this.writer.write(id, query);
    try {
      const written = {
        pictureId: id,
        conditionId: query.conditionId,
        fileName: file.name,
        hash: await this.writer.hashOf(file),
        profileHash: file.profileHash,
        recipe: file.recipe ? recipeRecord(file.recipe) : null,
        widthMm: file.widthMm,
        heightMm: file.heightMm,
        ppi: file.ppi,
      };
      // The file took seconds to write: only what is kept of it takes a turn.
      await this.turns.run('print file written', () => this.printFiles.written(written));
      response.setHeader('X-File-Hash', written.hash);
    } catch (error) {
      void this.writer.discard(file);
      throw error;
    }
    response.setHeader('Content-Disposition', attachment(file.name));
    return new StreamableFile(this.writer.stream(file), { type: file.type });
  }

  /** The sheet that goes to a lab with the print file. */
  @Get('pictures/:id/order.pdf')
  @ApiProduces('application/pdf')
  @Header('Content-Type', 'application/pdf')
  async order(@Param('id', ParseUUIDPipe) id: string, @Query() query: CopyQuery): Promise<StreamableFile> {
    const { conditionId, ppi = DEFAULT_PPI } = query;
    const recipe = await this.recipeOf(id, query);
    const { title, commission, marks, widthPx, heightPx } = await this.pictures.view(id);
    const condition = await this.conditions.view(conditionId);
    const [long, short] = [
      commission.longSideMm,
      (commission.longSideMm * Math.min(widthPx, heightPx)) / Math.max(widthPx, heightPx),
    ];
    const pdf = await orderSheet({
      title,
      fileName: `${printFileName(query, fileWords(title, condition, long, query.space))}.${ENDINGS[query.as ?? 'tif']}`,
      sizeMm: widthPx >= heightPx ? [long, short] : [short, long],
      paper: paperLabel(condition.paper),
      profile: query.space ? WORKING_SPACES[query.space].name : condition.profile || 'not named',
      working: query.space !== undefined,
      ppi,
      copies: commission.copies,
      recipe,
      lookAt: marks.map((m) => `${markName(m)}: L* ${m.lab[0].toFixed(0)} in the file`),
      wishes: commission.wishes ?? '',
      preview: await this.pictures.preview(id),
    });
    return new StreamableFile(pdf);
  }

  private async recipeOf(pictureId: string, { recipe }: { recipe?: string }): Promise<Recipe> {
    return recipe ? (await this.recipes.of(recipe, pictureId)).values : PLAIN;
  }

  /** What comes out of a sheet for every colour of a file: as read, and as seen in a light behind a glass. */
  @Get('conditions/:id/laid')
  @ApiOkResponse({ type: LaidView })
  async sheet(
    @Param('id', ParseUUIDPipe) id: string,
    @Query() { light = 'D50', glass = 'none', rendering = 'relative' }: LaidQuery,
  ): Promise<LaidView> {
    const { bare, seen, modelError, brightenerUnknown, estimatedWhite } = await this.laid.laid(
      await this.conditions.view(id),
      { light, glass },
      rendering,
    );
    return { bare, seen, modelError, brightenerUnknown, estimatedWhite };
  }
}
