import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { BoxCount, BoxInput, BoxView } from '@rakuen/contract/stock';
import { IfMatch } from '../app/revision.ts';
import { StockService } from './stock.service.ts';

@ApiTags('boxes')
@Controller('boxes')
export class StockController {
  constructor(private readonly stock: StockService) {}

  @Get()
  @ApiOkResponse({ type: [BoxView] })
  list(): Promise<BoxView[]> {
    return this.stock.list();
  }

  @Post()
  @ApiCreatedResponse({ type: BoxView })
  add(@Body() input: BoxInput): Promise<BoxView> {
    return this.stock.add(input);
  }

  @Put(':id')
  @ApiOkResponse({ type: BoxView })
  change(@Param('id', ParseUUIDPipe) id: string, @Body() input: BoxInput, @IfMatch() from?: number): Promise<BoxView> {
    return this.stock.change(id, input, from);
  }

  /** Keeps what was counted in a box. */
  @Put(':id/count')
  @ApiOkResponse({ type: BoxView })
  count(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { left }: BoxCount,
    @IfMatch() from?: number,
  ): Promise<BoxView> {
    return this.stock.count(id, left, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.stock.remove(id);
  }
}
