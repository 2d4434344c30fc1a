import { Body, Controller, Get, Put } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { Settings } from '@rakuen/contract/settings';
import { RakuenError } from '../app/errors.ts';
import { IfMatch } from '../app/revision.ts';
import { SettingsService } from './settings.service.ts';

@ApiTags('settings')
@Controller('settings')
export class SettingsController {
  constructor(private readonly settings: SettingsService) {}

  @Get()
  @ApiOkResponse({ type: Settings })
  get(): Promise<Settings> {
    return this.settings.get();
  }

  @Put()
  @ApiOkResponse({ type: Settings })
  async put(@Body() settings: Settings, @IfMatch() from?: number): Promise<Settings> {
    for (const [scale, seen] of Object.entries(settings.thresholds) as [
      string,
      { edgeToEdge: number; acrossRoom: number },
    ][]) {
      if (seen.acrossRoom < seen.edgeToEdge) {
        throw new RakuenError(400, 'What is seen across the room is seen edge to edge too.', {
          field: `thresholds.${scale}.acrossRoom`,
          remedy: 'Make the room’s threshold the larger.',
        });
      }
    }
    return this.settings.set(settings, from);
  }
}
