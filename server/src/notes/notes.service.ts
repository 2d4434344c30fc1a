import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { NoteInput, NoteView } from '@rakuen/contract/notes';
import { notFound } from '../app/errors.ts';
import { NoteRow } from '../store/entities.ts';

/** Notes of the ledger. One is written and taken away, never rewritten: what was said stays said. */
@Injectable()
export class NotesService {
  constructor(@InjectRepository(NoteRow) private readonly notes: Repository<NoteRow>) {}

  async write({ text, by, pictureId, paperId, conditionId }: NoteInput): Promise<NoteView> {
    const row: NoteRow = {
      id: randomUUID(),
      at: new Date().toISOString(),
      text: text.trim(),
      by: by?.trim() ?? '',
      pictureId: pictureId ?? null,
      paperId: paperId ?? null,
      conditionId: conditionId ?? null,
    };
    await this.notes.insert(row).catch((error: { code?: string }) => {
      throw error.code === 'SQLITE_CONSTRAINT_FOREIGNKEY' ? notFound('picture, paper or print condition') : error;
    });
    return noteView(row);
  }

  /** Takes a note away; it lies in the bin. */
  async remove(id: string): Promise<void> {
    if ((await this.notes.delete(id)).affected !== 1) throw notFound('note');
  }
}

const noteView = ({ id, at, text, by, pictureId, paperId, conditionId }: NoteRow): NoteView => ({
  id,
  at,
  text,
  by,
  ...(pictureId && { pictureId }),
  ...(paperId && { paperId }),
  ...(conditionId && { conditionId }),
});
