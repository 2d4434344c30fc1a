import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { EyeService } from './eye.service.ts';
import { EyeController } from './eye.controller.ts';

@Module({ imports: [ConditionsModule], controllers: [EyeController], providers: [EyeService], exports: [EyeService] })
export class EyeModule {}
