import { Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { UnderWayView } from '@rakuen/contract/under-way';
import { Beside } from '../store/one-at-a-time.ts';
import { UnderWay } from './under-way.ts';

@ApiTags('what takes long')
@Controller('under-way')
export class UnderWayController {
  constructor(private readonly underWay: UnderWay) {}

  /** How far that is which was given this name when it was asked for. */
  @Get(':id')
  @ApiOkResponse({ type: UnderWayView })
  far(@Param('id', ParseUUIDPipe) id: string): UnderWayView {
    return this.underWay.of(id);
  }

  /** Leaves it: nothing further is begun. */
  @Beside()
  @Delete(':id')
  @HttpCode(204)
  leave(@Param('id', ParseUUIDPipe) id: string): void {
    this.underWay.leave(id);
  }
}
