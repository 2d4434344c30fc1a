import { Body, Controller, Get, Put, Query } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { AccountQuery, CostQuery, CostView, RatesInput, RatesView, SpoilageView } from '@rakuen/contract/costs';
import { IfMatch } from '../app/revision.ts';
import { CostsService } from './costs.service.ts';
import { SpoilageService } from './spoilage.service.ts';

@ApiTags('costs')
@Controller()
export class CostsController {
  constructor(
    private readonly costs: CostsService,
    private readonly spoilage: SpoilageService,
  ) {}

  @Get('rates')
  @ApiOkResponse({ type: RatesView })
  rates(): Promise<RatesView> {
    return this.costs.rates();
  }

  @Put('rates')
  @ApiOkResponse({ type: RatesView })
  setRates(@Body() rates: RatesInput, @IfMatch() from?: number): Promise<RatesView> {
    return this.costs.setRates(rates, from);
  }

  /** What a good print of a picture on a sheet costs. */
  @Get('costs')
  @ApiOkResponse({ type: CostView })
  cost(@Query() query: CostQuery): Promise<CostView> {
    return this.costs.cost(query);
  }

  /** What was spoilt, by paper, printer, feed and cause. */
  @Get('spoilage')
  @ApiOkResponse({ type: SpoilageView })
  account(@Query() query: AccountQuery): Promise<SpoilageView> {
    return this.spoilage.account(query);
  }
}
