import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { PackDone, PackInput, PackLook, PackLookInput, PackView } from '@rakuen/contract/packs';
import { Beside } from '../store/one-at-a-time.ts';
import { PacksService } from './packs.service.ts';

@ApiTags('packs')
@Controller('packs')
export class PacksController {
  constructor(private readonly packs: PacksService) {}

  @Get()
  @ApiOkResponse({ type: [PackView] })
  list(): Promise<PackView[]> {
    return this.packs.list();
  }

  @Post()
  @ApiCreatedResponse({ type: PackView })
  plan(@Body() input: PackInput): Promise<PackView> {
    return this.packs.plan(input);
  }

  /** How the sheets would lie. Nothing is kept. */
  @Beside()
  @Post('look')
  @HttpCode(200)
  @ApiOkResponse({ type: PackLook })
  look(@Body() input: PackLookInput): Promise<PackLook> {
    return this.packs.look(input);
  }

  /** Says of a sheet that it was printed, or was not. */
  @Post(':id/sheets')
  @HttpCode(200)
  @ApiOkResponse({ type: PackView })
  done(@Param('id', ParseUUIDPipe) id: string, @Body() done: PackDone): Promise<PackView> {
    return this.packs.done(id, done);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.packs.remove(id);
  }
}
