import { Controller, Get, Header, Module, Query } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LedgerQuery, LedgerView } from '@rakuen/contract/ledger';
import { LedgerService } from './ledger.service.ts';

@ApiTags('ledger')
@Controller()
class LedgerController {
  constructor(private readonly ledger: LedgerService) {}

  @Get('ledger')
  @ApiOkResponse({ type: LedgerView })
  list(@Query() query: LedgerQuery): Promise<LedgerView> {
    return this.ledger.page(query);
  }

  @Get('ledger.csv')
  @ApiProduces('text/csv')
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @Header('Content-Disposition', 'attachment; filename="rakuen-ledger.csv"')
  csv(@Query() query: LedgerQuery): Promise<string> {
    return this.ledger.csv(query);
  }

  @Get('ledger.json')
  @Header('Content-Disposition', 'attachment; filename="rakuen-ledger.json"')
  @ApiOkResponse({ type: LedgerView })
  json(@Query() query: LedgerQuery): Promise<LedgerView> {
    return this.ledger.all(query);
  }
}

@Module({ controllers: [LedgerController], providers: [LedgerService] })
export class LedgerModule {}
