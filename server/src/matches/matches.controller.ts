import { Readable } from 'node:stream';
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
  Res,
  StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import {
  DecisionInput,
  DecisionQuery,
  DecisionView,
  KeepMatch,
  KeptMatch,
  LearnedEyeView,
  MatchRequest,
  MatchView,
  SchoolInput,
  SchoolView,
  SuitsRequest,
} from '@rakuen/contract/matches';
import { Beside } from '../store/one-at-a-time.ts';
import { PicturesForSheet } from './pictures-for-sheet.service.ts';
import { MatchesService } from './matches.service.ts';

@ApiTags('matches')
@Controller()
export class MatchesController {
  constructor(
    private readonly matches: MatchesService,
    private readonly picturesFor: PicturesForSheet,
  ) {}

  /** Ranks print conditions for a picture, each with its reasons. */
  @Beside()
  @Post('matches')
  @HttpCode(200)
  @ApiOkResponse({ type: MatchView })
  match(@Body() request: MatchRequest): Promise<MatchView> {
    return this.matches.match(request);
  }

  /**
   * Which pictures suit a print condition: one JSON line a picture, as they are computed; the best follow once more from all
   * their colours; the last line says of how many.
   */
  @Beside()
  @Post('matches/pictures')
  @HttpCode(200)
  @ApiProduces('application/x-ndjson')
  async suits(@Body() request: SuitsRequest, @Res({ passthrough: true }) response: Response): Promise<StreamableFile> {
    const pages = this.picturesFor.pages(request);
    // What can't be asked at all is refused before the answer begins.
    const first = await pages.next();
    const written = (page: readonly object[]) => page.map((line) => `${JSON.stringify(line)}\n`).join('');
    const all = async function* () {
      if (!first.done) yield written(first.value);
      for await (const page of pages) yield written(page);
    };
    const stream = Readable.from(all());
    response.once('close', () => stream.destroy());
    return new StreamableFile(stream, { type: 'application/x-ndjson' });
  }

  @Beside('takes its own turn')
  @Post('matches/kept')
  @ApiCreatedResponse({ type: KeptMatch })
  keep(@Body() request: KeepMatch): Promise<KeptMatch> {
    return this.matches.keep(request);
  }

  @Get('pictures/:id/matches')
  @ApiOkResponse({ type: [KeptMatch] })
  kept(@Param('id', ParseUUIDPipe) id: string): Promise<KeptMatch[]> {
    return this.matches.keptOf(id);
  }

  @Delete('matches/kept/:id')
  @HttpCode(204)
  forget(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.matches.forget(id);
  }

  /** How often each school would have chosen as it was decided here. */
  @Get('matches/learned')
  @ApiOkResponse({ type: LearnedEyeView })
  learned(): Promise<LearnedEyeView> {
    return this.matches.learned();
  }

  @Get('schools')
  @ApiOkResponse({ type: [SchoolView] })
  schools(): Promise<SchoolView[]> {
    return this.matches.ownSchools();
  }

  @Post('schools')
  @ApiCreatedResponse({ type: SchoolView })
  found(@Body() input: SchoolInput): Promise<SchoolView> {
    return this.matches.found(input);
  }

  @Delete('schools/:id')
  @HttpCode(204)
  dissolve(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.matches.dissolve(id);
  }

  @Get('decisions')
  @ApiOkResponse({ type: [DecisionView] })
  list(@Query() query: DecisionQuery): Promise<DecisionView[]> {
    return this.matches.list(query.pictureId);
  }

  /** Beside the others: the sheets may have to be learned first, and nobody waits for that. */
  @Beside('takes its own turn')
  @Post('decisions')
  @ApiCreatedResponse({ type: DecisionView })
  decide(@Body() input: DecisionInput): Promise<DecisionView> {
    return this.matches.decide(input);
  }

  @Delete('decisions/:id')
  @HttpCode(204)
  takeBack(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.matches.takeBack(id);
  }
}
