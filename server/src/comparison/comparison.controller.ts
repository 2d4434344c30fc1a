import { Controller, Get, Query, StreamableFile } from '@nestjs/common';
import { ApiProduces, ApiTags } from '@nestjs/swagger';
import { attachment } from '../app/outgoing.ts';
import { ComparisonQuery } from '@rakuen/contract/comparison';
import { ComparisonService } from './comparison.service.ts';

@ApiTags('comparison')
@Controller('comparison')
export class ComparisonController {
  constructor(private readonly comparison: ComparisonService) {}

  /** What lies on the table, to be taken away. */
  @Get()
  @ApiProduces('application/pdf', 'text/csv')
  async file(@Query() query: ComparisonQuery): Promise<StreamableFile> {
    const { name, mediaType, bytes } = await this.comparison.file(query);
    return new StreamableFile(bytes, {
      type: mediaType,
      disposition: attachment(name),
    });
  }
}
