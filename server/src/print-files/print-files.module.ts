import { Module } from '@nestjs/common';
import { PrintFilesService } from './print-files.service.ts';

@Module({ providers: [PrintFilesService], exports: [PrintFilesService] })
export class PrintFilesModule {}
