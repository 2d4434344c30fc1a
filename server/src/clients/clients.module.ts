import { Module } from '@nestjs/common';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { ClientsController } from './clients.controller.ts';
import { ClientsService } from './clients.service.ts';
import { MovesService } from './moves.service.ts';
import { OrdersService } from './orders.service.ts';

/** Who orders prints, where they hang, and where every print is. */
@Module({
  imports: [ProfilesModule],
  controllers: [ClientsController],
  providers: [ClientsService, OrdersService, MovesService],
  exports: [ClientsService, OrdersService, MovesService],
})
export class ClientsModule {}
