import { Controller, Get, Header, Module, Query } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LedgerQuery, LedgerView } from '@rakuen/contract/ledger';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { MatchesModule } from '../matches/matches.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { PrintsModule } from '../prints/prints.module.ts';
import { LedgerService } from './ledger.service.ts';

@ApiTags('ledger')
@Controller()
class LedgerController {
  constructor(private readonly ledger: LedgerService) {}

  @Get('ledger')
  @ApiOkResponse({ type: LedgerView })
  async list(@Query() query: LedgerQuery): Promise<LedgerView> {
    return { entries: await this.ledger.entries(query) };
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
  async json(@Query() query: LedgerQuery): Promise<LedgerView> {
    return this.list(query);
  }
}

@Module({
  imports: [ConditionsModule, MatchesModule, PicturesModule, PrintsModule],
  controllers: [LedgerController],
  providers: [LedgerService],
})
export class LedgerModule {}
