import { Global, Module } from '@nestjs/common';
import { SettingsService } from './settings.service.ts';
import { SettingsController } from './settings.controller.ts';

@Global()
@Module({ controllers: [SettingsController], providers: [SettingsService], exports: [SettingsService] })
export class SettingsModule {}
