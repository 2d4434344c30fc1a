import { Body, Controller, Delete, Get, HttpCode, Module, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ConditionInput, ConditionView } from '@rakuen/contract/conditions';
import { PapersModule } from '../papers/papers.module.ts';
import { ConditionsService } from './conditions.service.ts';
import { ObservationsService } from './observations.service.ts';
import { IfMatch } from '../app/revision.ts';

@ApiTags('print conditions')
@Controller('conditions')
class ConditionsController {
  constructor(private readonly conditions: ConditionsService) {}

  @Get()
  @ApiOkResponse({ type: [ConditionView] })
  list(): Promise<ConditionView[]> {
    return this.conditions.list();
  }

  @Get(':id')
  @ApiOkResponse({ type: ConditionView })
  one(@Param('id', ParseUUIDPipe) id: string): Promise<ConditionView> {
    return this.conditions.view(id);
  }

  @Post()
  @ApiCreatedResponse({ type: ConditionView })
  create(@Body() input: ConditionInput): Promise<ConditionView> {
    return this.conditions.create(input);
  }

  @Put(':id')
  @ApiOkResponse({ type: ConditionView })
  replace(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: ConditionInput,
    @IfMatch() from?: number,
  ): Promise<ConditionView> {
    return this.conditions.replace(id, input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.conditions.remove(id);
  }
}

@Module({
  imports: [PapersModule],
  controllers: [ConditionsController],
  providers: [ConditionsService, ObservationsService],
  exports: [ConditionsService, ObservationsService],
})
export class ConditionsModule {}
