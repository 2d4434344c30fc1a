import { randomUUID } from 'node:crypto';
import type { EntityManager } from 'typeorm';
import { LedgerSheet, type LedgerCondition, type LedgerPaper } from '@rakuen/contract/ledger';
import type { LedgerEntry } from '@rakuen/contract/ledger';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';

/** Why an entry is left out. */
export class Left extends Error {}

const HOW = [
  'printer',
  'inkSet',
  'blackInk',
  'mediaSetting',
  'resolution',
  'printMode',
  'profile',
  'blackOvercoat',
] as const satisfies readonly (keyof LedgerCondition)[];

/**
 * What the entries of a ledger speak of, found in this studio: by its id where it is the same studio, else by its name.
 * Papers and print conditions that are not here are added; a picture is not, for a ledger holds no pictures.
 */
export class NamedThings {
  papers = 0;
  conditions = 0;

  constructor(
    private readonly manager: EntityManager,
    private readonly checkedSheet: (sheet: object) => LedgerSheet,
  ) {}

  /** @returns the entry with the ids of this studio. @throws Left */
  async of(entry: LedgerEntry): Promise<LedgerEntry> {
    const pictureId = entry.pictureId === undefined ? undefined : await this.picture(entry.pictureId, entry.picture);
    const { conditionId, paperId } = await this.sheet(entry);
    return {
      ...entry,
      ...(pictureId && { pictureId }),
      ...(conditionId && { conditionId }),
      ...(paperId && { paperId }),
    };
  }

  private async picture(id: string, title: unknown): Promise<string> {
    if (await this.manager.existsBy(PictureRow, { id })) return id;
    const named = typeof title === 'string' ? await this.manager.findBy(PictureRow, { title }) : [];
    if (named.length === 1) return named[0].id;
    throw new Left(
      named.length === 0
        ? `The picture “${String(title)}” is not here. Import its file under this title, and read the ledger again.`
        : `${named.length} pictures here are called “${String(title)}”. Give them different titles, and read the ledger again.`,
    );
  }

  private async sheet(entry: LedgerEntry): Promise<{ conditionId?: string; paperId?: string }> {
    const { conditionId, paperId } = entry;
    const condition = conditionId ? await this.manager.findOneBy(ConditionRow, { id: conditionId }) : null;
    if (condition) return { conditionId, paperId: paperId && condition.paperId };
    if (!conditionId && paperId && (await this.manager.existsBy(PaperRow, { id: paperId }))) return { paperId };
    if (!conditionId && !paperId) return {};
    if (!entry.sheet)
      throw new Left(
        `“${entry.paper}” is not here, and the file does not describe it. Export the ledger again as JSON from the studio it comes from.`,
      );
    const sheet = this.checkedSheet(entry.sheet);
    const paper = await this.paper(sheet.paper);
    if (!conditionId) return { paperId: paper };
    if (!sheet.condition) throw new Left(`The file does not say how “${entry.paper}” was printed.`);
    return { conditionId: await this.condition(paper, sheet.condition), ...(paperId && { paperId: paper }) };
  }

  private async paper(paper: LedgerPaper): Promise<string> {
    const named = await this.manager
      .createQueryBuilder(PaperRow, 'p')
      .where('p.maker = :maker COLLATE NOCASE AND p.name = :name COLLATE NOCASE AND p.weightGsm IS :weightGsm', {
        maker: paper.maker.trim(),
        name: paper.name.trim(),
        weightGsm: paper.weightGsm ?? null,
      })
      .getOne();
    if (named) return named.id;
    const id = randomUUID();
    await this.manager.insert(PaperRow, {
      id,
      createdAt: new Date().toISOString(),
      maker: paper.maker.trim(),
      name: paper.name.trim(),
      coating: paper.coating ?? null,
      base: paper.base ?? null,
      surface: paper.surface ?? null,
      brightenerClaim: paper.brightenerClaim,
      weightGsm: paper.weightGsm ?? null,
      thicknessUm: paper.thicknessUm ?? null,
      sizes: [],
      currency: paper.currency,
      notes: 'Added by name from a ledger.',
    });
    this.papers++;
    return id;
  }

  private async condition(paperId: string, condition: LedgerCondition): Promise<string> {
    const same = (row: ConditionRow) => HOW.every((key) => row[key] === condition[key]);
    const known = (await this.manager.findBy(ConditionRow, { paperId })).find(same);
    if (known) return known.id;
    const id = randomUUID();
    await this.manager.insert(ConditionRow, {
      id,
      createdAt: new Date().toISOString(),
      paperId,
      ...condition,
      notes: 'Added by name from a ledger.',
      figuresFrom: null,
    });
    this.conditions++;
    return id;
  }
}
