import { Controller, Get, Module, Query, StreamableFile } from '@nestjs/common';
import { ApiProduces, ApiTags } from '@nestjs/swagger';
import { attachment } from '../app/outgoing.ts';
import { ComparisonQuery } from '@rakuen/contract/comparison';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { SheetsModule } from '../sheets/sheets.module.ts';
import { ComparisonService } from './comparison.service.ts';

@ApiTags('comparison')
@Controller('comparison')
class ComparisonController {
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

@Module({
  imports: [ConditionsModule, SheetsModule],
  controllers: [ComparisonController],
  providers: [ComparisonService],
})
export class ComparisonModule {}
