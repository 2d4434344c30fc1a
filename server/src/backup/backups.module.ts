import { Module } from '@nestjs/common';
import { BackupsService } from './backups.service.ts';
import { BackupsController } from './backups.controller.ts';

@Module({ controllers: [BackupsController], providers: [BackupsService] })
export class BackupsModule {}
