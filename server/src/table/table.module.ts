import { Body, Controller, Get, Module, Put } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { TableState } from '@rakuen/contract/settings';
import { TableService } from './table.service.ts';

@ApiTags('table')
@Controller('table')
class TableController {
  constructor(private readonly table: TableService) {}

  @Get()
  @ApiOkResponse({ type: TableState })
  get(): Promise<TableState> {
    return this.table.get();
  }

  @Put()
  @ApiOkResponse({ type: TableState })
  put(@Body() table: TableState): Promise<TableState> {
    return this.table.set(table);
  }
}

@Module({ controllers: [TableController], providers: [TableService], exports: [TableService] })
export class TableModule {}
