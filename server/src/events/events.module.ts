import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { EventsService } from './events.service.ts';
import { EventsController } from './events.controller.ts';

@Module({ imports: [ConditionsModule], controllers: [EventsController], providers: [EventsService] })
export class EventsModule {}
