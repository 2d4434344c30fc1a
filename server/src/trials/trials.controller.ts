import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { TrialInput, TrialView } from '@rakuen/contract/trials';
import { TrialsService } from './trials.service.ts';

@ApiTags('trials')
@Controller('trials')
export class TrialsController {
  constructor(private readonly trials: TrialsService) {}

  @Get()
  @ApiOkResponse({ type: [TrialView] })
  list(): Promise<TrialView[]> {
    return this.trials.list();
  }

  @Post()
  @ApiCreatedResponse({ type: TrialView })
  stamp(@Body() input: TrialInput): Promise<TrialView> {
    return this.trials.stamp(input);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.trials.remove(id);
  }
}
