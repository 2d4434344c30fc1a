import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { PaperInput, PaperView } from '@rakuen/contract/papers';
import { PapersService } from './papers.service.ts';
import { IfMatch } from '../app/revision.ts';

@ApiTags('papers')
@Controller('papers')
export class PapersController {
  constructor(private readonly papers: PapersService) {}

  @Get()
  @ApiOkResponse({ type: [PaperView] })
  list(): Promise<PaperView[]> {
    return this.papers.list();
  }

  @Post()
  @ApiCreatedResponse({ type: PaperView })
  create(@Body() input: PaperInput): Promise<PaperView> {
    return this.papers.create(input);
  }

  @Put(':id')
  @ApiOkResponse({ type: PaperView })
  replace(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: PaperInput,
    @IfMatch() from?: number,
  ): Promise<PaperView> {
    return this.papers.replace(id, input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.papers.remove(id);
  }
}
