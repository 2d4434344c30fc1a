import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ShowHead, ShowInput, ShowPlanRequest, ShowPlanView, ShowView } from '@rakuen/contract/shows';
import { IfMatch } from '../app/revision.ts';
import { Beside } from '../store/one-at-a-time.ts';
import { ShowPlanService } from './show-plan.service.ts';
import { ShowsService } from './shows.service.ts';

@ApiTags('shows')
@Controller('shows')
export class ShowsController {
  constructor(
    private readonly shows: ShowsService,
    private readonly plans: ShowPlanService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [ShowHead] })
  list(): Promise<ShowHead[]> {
    return this.shows.list();
  }

  @Post()
  @ApiCreatedResponse({ type: ShowView })
  add(@Body() input: ShowInput): Promise<ShowView> {
    return this.shows.add(input);
  }

  @Get(':id')
  @ApiOkResponse({ type: ShowView })
  view(@Param('id', ParseUUIDPipe) id: string): Promise<ShowView> {
    return this.shows.view(id);
  }

  @Put(':id')
  @ApiOkResponse({ type: ShowView })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: ShowInput,
    @IfMatch() from?: number,
  ): Promise<ShowView> {
    return this.shows.change(id, input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.shows.remove(id);
  }

  /** Scores every picture of the show on every paper, and finds the fewest papers that carry it. */
  @Beside()
  @Post(':id/plan')
  @HttpCode(200)
  @ApiOkResponse({ type: ShowPlanView })
  plan(@Param('id', ParseUUIDPipe) id: string, @Body() request: ShowPlanRequest): Promise<ShowPlanView> {
    return this.plans.plan(id, request);
  }
}
