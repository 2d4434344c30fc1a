import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { TableDeedInput, TableState } from '@rakuen/contract/settings';
import { TableService } from './table.service.ts';

@ApiTags('table')
@Controller('table')
export class TableController {
  constructor(private readonly table: TableService) {}

  @Get()
  @ApiOkResponse({ type: TableState })
  get(): Promise<TableState> {
    return this.table.get();
  }

  /** Does one thing at the table; what other windows did meanwhile stays done. */
  @Post('deeds')
  @HttpCode(200)
  @ApiOkResponse({ type: TableState })
  deed(@Body() deed: TableDeedInput): Promise<TableState> {
    return this.table.deed(deed);
  }
}
