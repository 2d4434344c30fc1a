import { Module } from '@nestjs/common';
import { PapersModule } from '../papers/papers.module.ts';
import { StockController } from './stock.controller.ts';
import { StockService } from './stock.service.ts';

@Module({ imports: [PapersModule], controllers: [StockController], providers: [StockService], exports: [StockService] })
export class StockModule {}
