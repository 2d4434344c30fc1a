import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { lessons, type Judged, type Lesson } from '@rakuen/core/ledger/learned';
import { keyOf } from '@rakuen/core/picture/tally';

/** Judged prints that are looked through: the newest. */
const MOST = 5000;

/** What the ledger has taught about papers and kinds of pictures. */
@Injectable()
export class LearnedService {
  constructor(private readonly database: DataSource) {}

  /** Lessons of a paper, or of all. */
  async lessons(paperId?: string): Promise<Lesson[]> {
    const rows = await this.database.query<(Omit<Judged, 'trait'> & { medianL: number })[]>(
      `SELECT c.paperId, s.name AS paper, p.pictureId, json_extract(i.figures, '$.medianL') AS medianL, p.verdict, p.verdictReason AS reason
       FROM prints p JOIN conditions c ON c.id = p.conditionId JOIN papers s ON s.id = c.paperId JOIN pictures i ON i.id = p.pictureId
       WHERE p.state = 'printed' AND p.verdict <> 'not yet judged' AND (? IS NULL OR c.paperId = ?)
       ORDER BY p.printedOn DESC LIMIT ${MOST}`,
      [paperId ?? null, paperId ?? null],
    );
    return lessons(rows.map(({ medianL, ...p }) => ({ ...p, trait: traitOf(medianL) })));
  }

  /** What was learned that matters for a picture on a paper. */
  async about(pictureId: string, paperId: string): Promise<string[]> {
    const [picture] = await this.database.query<{ medianL: number }[]>(
      `SELECT json_extract(figures, '$.medianL') AS medianL FROM pictures WHERE id = ?`,
      [pictureId],
    );
    if (!picture) return [];
    const trait = traitOf(picture.medianL);
    return (await this.lessons(paperId)).filter((l) => l.trait === trait).map((l) => l.sentence);
  }
}

const traitOf = (medianL: number): string => keyOf(medianL).replace(' ', '-');
