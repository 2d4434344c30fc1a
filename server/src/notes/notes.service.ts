import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, Not, Repository } from 'typeorm';
import type { NoteInput, NoteView } from '@rakuen/contract/notes';
import { RECIPE_PARTS } from '@rakuen/core/proof/recipe';
import { notFound, RakuenError } from '../app/errors.ts';
import { NoteRow } from './notes.entity.ts';

/** Notes of the ledger. One is written and taken away, never rewritten: what was said stays said. */
@Injectable()
export class NotesService {
  constructor(@InjectRepository(NoteRow) private readonly notes: Repository<NoteRow>) {}

  async write({ text, by, pictureId, paperId, conditionId, finding }: NoteInput): Promise<NoteView> {
    if (finding && !(pictureId && conditionId))
      throw new RakuenError(422, 'Strips are of a picture on a print condition; one of them is not named.', {
        field: 'finding',
        remedy: 'Enter it from the strips of the picture.',
      });
    const part = finding && RECIPE_PARTS[finding.part];
    if (part && !(finding.value >= part.least && finding.value <= part.most))
      throw new RakuenError(422, `${part.name} goes from ${part.least} to ${part.most}.`, {
        field: 'finding',
        remedy: 'Enter a step that was on the strip.',
      });
    const row: NoteRow = {
      id: randomUUID(),
      at: new Date().toISOString(),
      text: text.trim(),
      by: by?.trim() ?? '',
      pictureId: pictureId ?? null,
      paperId: paperId ?? null,
      conditionId: conditionId ?? null,
      finding: finding ? { ...finding } : null,
    };
    await this.notes.insert(row).catch((error: { code?: string }) => {
      throw error.code === 'SQLITE_CONSTRAINT_FOREIGNKEY' ? notFound('picture, paper or print condition') : error;
    });
    return noteView(row);
  }

  /** What the eye found on strips of a picture: by sheet and part of the recipe the newest word. */
  async found(pictureId: string): Promise<NoteView[]> {
    const rows = await this.notes.find({
      where: { pictureId, finding: Not(IsNull()) },
      order: { at: 'ASC', id: 'ASC' },
    });
    return [...new Map(rows.map((n) => [`${n.conditionId} ${n.finding!.part}`, noteView(n)])).values()];
  }

  /** Takes a note away; it lies in the bin. */
  async remove(id: string): Promise<void> {
    if ((await this.notes.delete(id)).affected !== 1) throw notFound('note');
  }
}

const noteView = ({ id, at, text, by, pictureId, paperId, conditionId, finding }: NoteRow): NoteView => ({
  id,
  at,
  text,
  by,
  ...(pictureId && { pictureId }),
  ...(paperId && { paperId }),
  ...(conditionId && { conditionId }),
  ...(finding && { finding }),
});
