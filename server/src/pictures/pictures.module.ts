import { Module } from '@nestjs/common';
import { LabImages } from './lab-images.ts';
import { PicturesService } from './pictures.service.ts';
import { PicturesController } from './pictures.controller.ts';

@Module({
  controllers: [PicturesController],
  providers: [PicturesService, LabImages],
  exports: [PicturesService, LabImages],
})
export class PicturesModule {}
