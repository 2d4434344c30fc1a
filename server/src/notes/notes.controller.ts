import { Body, Controller, Delete, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiCreatedResponse, ApiTags } from '@nestjs/swagger';
import { NoteInput, NoteView } from '@rakuen/contract/notes';
import { NotesService } from './notes.service.ts';

@ApiTags('ledger')
@Controller('notes')
export class NotesController {
  constructor(private readonly notes: NotesService) {}

  @Post()
  @ApiCreatedResponse({ type: NoteView })
  write(@Body() input: NoteInput): Promise<NoteView> {
    return this.notes.write(input);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.notes.remove(id);
  }
}
