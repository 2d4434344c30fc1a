import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { EyeChoice, EyeInput, EyeLabels, EyeView } from '@rakuen/contract/eye';
import { EyeService } from './eye.service.ts';

@ApiTags('by eye')
@Controller('eye')
export class EyeController {
  constructor(private readonly eye: EyeService) {}

  @Get()
  @ApiOkResponse({ type: [EyeView] })
  list(): Promise<EyeView[]> {
    return this.eye.list();
  }

  @Post()
  @ApiCreatedResponse({ type: EyeView })
  begin(@Body() input: EyeInput): Promise<EyeView> {
    return this.eye.begin(input);
  }

  @Get(':id')
  @ApiOkResponse({ type: EyeView })
  one(@Param('id', ParseUUIDPipe) id: string): Promise<EyeView> {
    return this.eye.view(id);
  }

  /** The codes, for whoever writes them on the backs of the prints. */
  @Get(':id/labels')
  @ApiOkResponse({ type: EyeLabels })
  labels(@Param('id', ParseUUIDPipe) id: string): Promise<EyeLabels> {
    return this.eye.labels(id);
  }

  /** What the eye said of the pair that was next. */
  @Post(':id/choices')
  @HttpCode(200)
  @ApiOkResponse({ type: EyeView })
  choose(@Param('id', ParseUUIDPipe) id: string, @Body() choice: EyeChoice): Promise<EyeView> {
    return this.eye.choose(id, choice);
  }

  /** Takes the last choice back. */
  @Delete(':id/choices/last')
  @ApiOkResponse({ type: EyeView })
  undo(@Param('id', ParseUUIDPipe) id: string): Promise<EyeView> {
    return this.eye.undo(id);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.eye.remove(id);
  }
}
