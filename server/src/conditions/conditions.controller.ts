import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ConditionHead, ConditionInput, ConditionView, LikesView, WholeQuery } from '@rakuen/contract/conditions';
import { ConditionsService } from './conditions.service.ts';
import { IfMatch } from '../app/revision.ts';

@ApiTags('print conditions')
@Controller('conditions')
export class ConditionsController {
  constructor(private readonly conditions: ConditionsService) {}

  @Get()
  @ApiOkResponse({ type: [ConditionHead] })
  list(): Promise<ConditionHead[]> {
    return this.conditions.heads();
  }

  /** Several of them with everything that is known. */
  @Get('whole')
  @ApiOkResponse({ type: [ConditionView] })
  whole(@Query() { ids }: WholeQuery): Promise<ConditionView[]> {
    return this.conditions.whole(ids);
  }

  /** What may stand in for one. */
  @Get(':id/likes')
  @ApiOkResponse({ type: LikesView })
  likes(@Param('id', ParseUUIDPipe) id: string): Promise<LikesView> {
    return this.conditions.likes(id);
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
