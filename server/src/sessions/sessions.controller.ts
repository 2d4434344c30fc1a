import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import {
  FinishInput,
  MendInput,
  PatchPlace,
  SessionHead,
  SessionInput,
  SessionQuery,
  SessionView,
  SheetPlace,
  StripPlace,
} from '@rakuen/contract/sessions';
import { SessionsService } from './sessions.service.ts';

@ApiTags('reading sessions')
@Controller('sessions')
export class SessionsController {
  constructor(private readonly sessions: SessionsService) {}

  @Get()
  @ApiOkResponse({ type: [SessionHead] })
  list(@Query() { conditionId }: SessionQuery): Promise<SessionHead[]> {
    return this.sessions.list(conditionId);
  }

  @Post()
  @ApiCreatedResponse({ type: SessionView })
  begin(@Body() input: SessionInput): Promise<SessionView> {
    return this.sessions.begin(input);
  }

  @Get(':id')
  @ApiOkResponse({ type: SessionView })
  one(@Param('id', ParseUUIDPipe) id: string): Promise<SessionView> {
    return this.sessions.view(id);
  }

  /** Reads the next strip. */
  @Post(':id/read')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  read(@Param('id', ParseUUIDPipe) id: string): Promise<SessionView> {
    return this.sessions.read(id);
  }

  /** Withdraws the strip read last. */
  @Post(':id/undo')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  undo(@Param('id', ParseUUIDPipe) id: string): Promise<SessionView> {
    return this.sessions.undo(id);
  }

  /** Withdraws a strip, so that it is read again next. */
  @Post(':id/again')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  again(@Param('id', ParseUUIDPipe) id: string, @Body() place: StripPlace): Promise<SessionView> {
    return this.sessions.again(id, place);
  }

  /** Says what is done with a strip in question. */
  @Post(':id/mend')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  mend(@Param('id', ParseUUIDPipe) id: string, @Body() input: MendInput): Promise<SessionView> {
    return this.sessions.mend(id, input);
  }

  /** Leaves a patch of one pass out, or takes it back in. */
  @Post(':id/patches')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  leaveOut(@Param('id', ParseUUIDPipe) id: string, @Body() place: PatchPlace): Promise<SessionView> {
    return this.sessions.leaveOut(id, place);
  }

  /** Says which sheet of the chart lies under the instrument. */
  @Post(':id/lay')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  lay(@Param('id', ParseUUIDPipe) id: string, @Body() place: SheetPlace): Promise<SessionView> {
    return this.sessions.lay(id, place);
  }

  @Post(':id/calibrate')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  calibrate(@Param('id', ParseUUIDPipe) id: string): Promise<SessionView> {
    return this.sessions.calibrate(id);
  }

  /** Makes the readings and keeps them for the print condition. */
  @Post(':id/finish')
  @HttpCode(200)
  @ApiOkResponse({ type: SessionView })
  finish(@Param('id', ParseUUIDPipe) id: string, @Body() input: FinishInput): Promise<SessionView> {
    return this.sessions.finish(id, input);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.sessions.remove(id);
  }
}
