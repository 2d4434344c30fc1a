import { Module } from '@nestjs/common';
import { EditionsModule } from '../editions/editions.module.ts';
import { PrintsModule } from '../prints/prints.module.ts';
import { StockModule } from '../stock/stock.module.ts';
import { ContactSheetService } from './contact-sheet.service.ts';
import { LearnedModule } from './learned.module.ts';
import { LedgerService } from './ledger.service.ts';
import { LivesService } from './lives.service.ts';
import { ReadBackService } from './read-back.service.ts';
import { LedgerController } from './ledger.controller.ts';

@Module({
  imports: [EditionsModule, StockModule, LearnedModule, PrintsModule],
  controllers: [LedgerController],
  providers: [LedgerService, LivesService, ContactSheetService, ReadBackService],
})
export class LedgerModule {}
