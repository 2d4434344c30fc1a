import { Module } from '@nestjs/common';
import { LearnedService } from './learned.service.ts';

@Module({ providers: [LearnedService], exports: [LearnedService] })
export class LearnedModule {}
