import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { afterDeed, TableFull } from '@rakuen/core/table/table';
import type { TableDeedInput, TableState } from '@rakuen/contract/settings';
import { RakuenError } from '../app/errors.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { DocumentRow } from './table.entity.ts';

const KEY = 'table';

@Injectable()
export class TableService {
  constructor(
    @InjectRepository(DocumentRow) private readonly documents: Repository<DocumentRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
  ) {}

  /** What lies on the table and still exists. */
  async get(): Promise<TableState> {
    const row = await this.documents.findOneBy({ key: KEY });
    return this.existing(row ? (row.value as TableState) : { conditionIds: [], pictureIds: [] });
  }

  async deed(deed: TableDeedInput): Promise<TableState> {
    try {
      const { conditionIds, pictureIds, ...rest } = afterDeed(await this.get(), deed);
      return await this.set({ ...rest, conditionIds: [...conditionIds], pictureIds: [...pictureIds] });
    } catch (error) {
      if (error instanceof TableFull)
        throw new RakuenError(409, error.message, { field: 'id', remedy: 'Put something back first.' });
      throw error;
    }
  }

  async set(table: TableState): Promise<TableState> {
    const value = await this.existing(table);
    await this.documents.save({ key: KEY, value });
    return value;
  }

  private async existing(table: TableState): Promise<TableState> {
    const present = async (rows: Repository<ConditionRow> | Repository<PictureRow>, ids: string[]) => {
      const found = new Set(
        (await (rows as Repository<{ id: string }>).find({ select: { id: true }, where: { id: In(ids) } })).map(
          (r) => r.id,
        ),
      );
      return [...new Set(ids)].filter((id) => found.has(id));
    };
    const conditionIds = await present(this.conditions, table.conditionIds);
    const pictureIds = await present(this.pictures, table.pictureIds);
    const kept = (id: string | undefined, among: string[]) => (id && among.includes(id) ? id : undefined);
    return {
      conditionIds,
      pictureIds,
      leftHand: kept(table.leftHand, conditionIds),
      rightHand: kept(table.rightHand, conditionIds),
      pictureInHand: kept(table.pictureInHand, pictureIds),
      light: table.light,
      glass: table.glass,
    };
  }
}
