import { Module } from '@nestjs/common';
import { ChartsService } from './charts.service.ts';
import { ChartsController } from './charts.controller.ts';

@Module({ controllers: [ChartsController], providers: [ChartsService], exports: [ChartsService] })
export class ChartsModule {}
