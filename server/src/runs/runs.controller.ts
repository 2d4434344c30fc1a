import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { PrintDone } from '@rakuen/contract/prints';
import { MisprintInput, RunInput, RunLooked, RunView } from '@rakuen/contract/runs';
import { RunsService } from './runs.service.ts';

@ApiTags('runs')
@Controller('runs')
export class RunsController {
  constructor(private readonly runs: RunsService) {}

  /** Runs that are under way. */
  @Get()
  @ApiOkResponse({ type: [RunView] })
  open(): Promise<RunView[]> {
    return this.runs.open();
  }

  @Get(':id')
  @ApiOkResponse({ type: RunView })
  one(@Param('id', ParseUUIDPipe) id: string): Promise<RunView> {
    return this.runs.view(id);
  }

  @Post()
  @ApiCreatedResponse({ type: RunView })
  plan(@Body() input: RunInput): Promise<RunView> {
    return this.runs.plan(input);
  }

  /** What was looked at this session. */
  @Put(':id/looked')
  @ApiOkResponse({ type: RunView })
  looked(@Param('id', ParseUUIDPipe) id: string, @Body() input: RunLooked): Promise<RunView> {
    return this.runs.looked(id, input.looked);
  }

  /** What was looked at before a sheet. */
  @Put(':id/prints/:printId/looked')
  @ApiOkResponse({ type: RunView })
  sheetLooked(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('printId', ParseUUIDPipe) printId: string,
    @Body() input: RunLooked,
  ): Promise<RunView> {
    return this.runs.sheetLooked(id, printId, input.looked);
  }

  /** It came out of the printer. */
  @Post(':id/prints/:printId/done')
  @HttpCode(200)
  @ApiOkResponse({ type: RunView })
  done(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('printId', ParseUUIDPipe) printId: string,
    @Body() done: PrintDone,
  ): Promise<RunView> {
    return this.runs.done(id, printId, done);
  }

  /** A sheet was spoilt; the print waits on. */
  @Post(':id/prints/:printId/misprints')
  @HttpCode(200)
  @ApiOkResponse({ type: RunView })
  spoil(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('printId', ParseUUIDPipe) printId: string,
    @Body() input: MisprintInput,
  ): Promise<RunView> {
    return this.runs.spoil(id, printId, input);
  }

  /** What was not printed waits for another run. */
  @Post(':id/close')
  @HttpCode(200)
  @ApiOkResponse({ type: RunView })
  close(@Param('id', ParseUUIDPipe) id: string): Promise<RunView> {
    return this.runs.close(id);
  }
}
