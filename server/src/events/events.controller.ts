import { Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { BinEntry, EventsQuery, EventView } from '@rakuen/contract/events';
import { EventsService } from './events.service.ts';

@ApiTags('what happened')
@Controller()
export class EventsController {
  constructor(private readonly events: EventsService) {}

  @Get('events')
  @ApiOkResponse({ type: [EventView] })
  list(@Query() query: EventsQuery): Promise<EventView[]> {
    return this.events.list(query);
  }

  @Get('bin')
  @ApiOkResponse({ type: [BinEntry] })
  bin(): Promise<BinEntry[]> {
    return this.events.bin();
  }

  /** Brings back what a deed removed or changed. */
  @Post('events/:change/undo')
  @HttpCode(204)
  undo(@Param('change') change: string): Promise<void> {
    return this.events.undo(change);
  }
}
