import { Module } from '@nestjs/common';
import { ClientsModule } from '../clients/clients.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { CertificateService } from './certificate.service.ts';
import { EditionsService } from './editions.service.ts';
import { EditionsController } from './editions.controller.ts';

@Module({
  imports: [ClientsModule, ConditionsModule],
  controllers: [EditionsController],
  providers: [EditionsService, CertificateService],
  exports: [EditionsService],
})
export class EditionsModule {}
