import { Body, Controller, Delete, Get, HttpCode, Module, Param, ParseUUIDPipe, Post, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { DecisionInput, DecisionQuery, DecisionView, MatchRequest, MatchView } from '@rakuen/contract/matches';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { MatchesService } from './matches.service.ts';
import { Beside } from '../store/one-at-a-time.ts';

@ApiTags('matches')
@Controller()
class MatchesController {
  constructor(private readonly matches: MatchesService) {}

  /** Ranks print conditions for a picture, each with its reasons. */
  @Beside()
  @Post('matches')
  @HttpCode(200)
  @ApiOkResponse({ type: MatchView })
  match(@Body() request: MatchRequest): Promise<MatchView> {
    return this.matches.match(request);
  }

  @Get('decisions')
  @ApiOkResponse({ type: [DecisionView] })
  list(@Query() query: DecisionQuery): Promise<DecisionView[]> {
    return this.matches.list(query.pictureId);
  }

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

@Module({
  imports: [ConditionsModule, PicturesModule],
  controllers: [MatchesController],
  providers: [MatchesService],
  exports: [MatchesService],
})
export class MatchesModule {}
