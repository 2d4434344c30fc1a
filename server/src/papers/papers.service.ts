import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { pricePerM2 } from '@rakuen/core/cost/price-per-m2';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { PaperHead, PaperInput, PaperView } from '@rakuen/contract/papers';
import { refuseStale } from '../app/revision.ts';
import { paperLabel } from '@rakuen/core/paper';
import { notFound, RakuenError } from '../app/errors.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { PaperRow } from './papers.entity.ts';

@Injectable()
export class PapersService {
  constructor(
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
  ) {}

  async list(): Promise<PaperView[]> {
    const rows = await this.papers.find({ order: { name: 'ASC' } });
    return Promise.all(rows.map((row) => this.view(row)));
  }

  async one(id: string): Promise<PaperView> {
    return this.view(await this.get(id));
  }

  async create(input: PaperInput): Promise<PaperView> {
    await this.refuseTwin(input);
    const { id } = await this.papers.save(this.row(input));
    return this.one(id);
  }

  /** @param from revision the change was made from; whatever it is now where absent */
  async replace(id: string, input: PaperInput, from?: number): Promise<PaperView> {
    const known = await this.get(id);
    refuseStale(`${known.maker} ${known.name}`, known, from, await this.view(known));
    await this.refuseTwin(input, id);
    await this.papers.save(this.papers.merge(known, plain(input)));
    return this.one(id);
  }

  async remove(id: string): Promise<void> {
    const paper = await this.get(id);
    const used = await this.conditions.countBy({ paperId: id });
    if (used > 0)
      throw new RakuenError(409, `${paper.name} has ${used} print condition${used === 1 ? '' : 's'}.`, {
        remedy: 'Remove those first.',
      });
    await this.papers.delete(id);
  }

  async get(id: string): Promise<PaperRow> {
    const paper = await this.papers.findOneBy({ id });
    if (!paper) throw notFound('paper');
    return paper;
  }

  /** A new paper's row, not saved. */
  row(input: PaperInput): PaperRow {
    return this.papers.create({ ...plain(input), id: randomUUID(), createdAt: new Date().toISOString() });
  }

  /** @throws RakuenError (409) when there is such a paper already */
  async refuseTwin(input: PaperInput, except?: string): Promise<void> {
    const twin = await this.papers
      .createQueryBuilder('p')
      .where('p.maker = :maker COLLATE NOCASE AND p.name = :name COLLATE NOCASE AND p.weightGsm IS :weightGsm', {
        maker: input.maker.trim(),
        name: input.name.trim(),
        weightGsm: input.weightGsm ?? null,
      })
      .getOne();
    if (twin && twin.id !== except) {
      throw new RakuenError(409, `${paperLabel(input)} is in the drawer already.`, {
        field: 'name',
        remedy: 'Use that one, or name this one apart (a new formulation, say).',
      });
    }
  }

  private async view(paper: PaperRow): Promise<PaperView> {
    return {
      ...paperHead(paper),
      revision: paper.revision,
      createdAt: paper.createdAt,
      base: paper.base ?? undefined,
      sizes: paper.sizes,
      notes: paper.notes,
      conditionCount: await this.conditions.countBy({ paperId: paper.id }),
    };
  }
}

/** What is left open is not claimed: nothing of an earlier claim stays. */
const plain = (input: PaperInput) => ({
  ...input,
  coating: input.coating ?? null,
  base: input.base ?? null,
  surface: input.surface ?? null,
  weightGsm: input.weightGsm ?? null,
  thicknessUm: input.thicknessUm ?? null,
  maker: input.maker.trim(),
  name: input.name.trim(),
  notes: input.notes ?? '',
});

export function paperHead(paper: PaperRow): PaperHead {
  return {
    id: paper.id,
    maker: paper.maker,
    name: paper.name,
    coating: paper.coating ?? undefined,
    surface: paper.surface ?? undefined,
    weightGsm: paper.weightGsm ?? undefined,
    thicknessUm: paper.thicknessUm ?? undefined,
    brightenerClaim: paper.brightenerClaim,
    pricePerM2: pricePerM2(paper.sizes),
    currency: paper.currency,
  };
}
