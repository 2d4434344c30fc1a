import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { COLUMN_ROLES, DEVICE_SCALES, type ColumnMapping } from '@rakuen/core/formats/column-mapping';
import { RakuenError } from '../app/errors.ts';
import { ColumnMappingRow } from './readings.entity.ts';

const LONGEST_NM = 2500;

/** What spreadsheets' columns held the last time, by the names of their columns. */
@Injectable()
export class MappingMemory {
  constructor(@InjectRepository(ColumnMappingRow) private readonly rows: Repository<ColumnMappingRow>) {}

  async recall(columns: readonly string[]): Promise<ColumnMapping | undefined> {
    return (await this.rows.findOneBy({ signature: signatureOf(columns) }))?.mapping;
  }

  async remember(columns: readonly string[], mapping: ColumnMapping): Promise<void> {
    await this.rows.save({ signature: signatureOf(columns), mapping, savedAt: new Date().toISOString() });
  }
}

const signatureOf = (columns: readonly string[]) => createHash('sha256').update(columns.join('\n')).digest('hex');

/** A mapping as it comes with a form. @throws RakuenError when it is none */
export function parseMapping(text: string | undefined): ColumnMapping | undefined {
  if (!text) return undefined;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw badMapping('it is not JSON');
  }
  const { roles, startNm, stepNm, deviceScale, ...stray } = (value ?? {}) as Record<string, unknown>;
  if (Object.keys(stray).length > 0) throw badMapping(`“${Object.keys(stray)[0]}” is not known`);
  if (!Array.isArray(roles) || !roles.every((r) => typeof r === 'string' && Object.hasOwn(COLUMN_ROLES, r)))
    throw badMapping('roles must be a list of what columns hold');
  for (const nm of [startNm, stepNm])
    if (nm !== undefined && !(typeof nm === 'number' && nm > 0 && nm < LONGEST_NM))
      throw badMapping('wavelengths must be numbers in nm');
  if (deviceScale !== undefined && !DEVICE_SCALES.some((s) => s === deviceScale))
    throw badMapping(`device values run to ${DEVICE_SCALES.join(', ')}`);
  return {
    roles: roles as ColumnMapping['roles'],
    startNm: startNm as number | undefined,
    stepNm: stepNm as number | undefined,
    deviceScale: deviceScale as ColumnMapping['deviceScale'],
  };
}

const badMapping = (why: string) =>
  new RakuenError(400, `The mapping of the columns can’t be used: ${why}.`, {
    field: 'mapping',
    remedy: 'Say again which column holds what.',
  });
