import { readFileSync } from 'node:fs';
import { KEPT_BYTES, readLast } from '@rakuen/server/work/read-last';
import { fixture } from './rakuen.ts';

const bytes = readFileSync(fixture('fogra29l.cgats.txt'));

describe('a file of readings that is asked for again', () => {
  it('is not taken apart a second time, and is known by what it holds', () => {
    const once = readLast(bytes);
    expect(once[0].reading.patches.length).toBeGreaterThan(100);
    expect(readLast(Uint8Array.from(bytes))).toBe(once);
  });

  it('is another where a byte differs, or its columns are said to hold something else', () => {
    const once = readLast(bytes);
    const other = Buffer.from(
      bytes.toString('latin1').replace(/M0|ORIGINATOR/, (m) => m.toLowerCase()),
      'latin1',
    );
    expect(readLast(other)).not.toBe(once);
    const table = Buffer.from('A,B,C\n50,1,2\n60,1,2\n');
    const labs = readLast(table, { roles: ['lab.0', 'lab.1', 'lab.2'] });
    expect(readLast(table, { roles: ['lab.0', 'lab.2', 'lab.1'] })[0].reading.patches[0].lab).not.toEqual(
      labs[0].reading.patches[0].lab,
    );
  });

  it('stays refused where it was, with its reason', () => {
    const cut = Buffer.from('<?xml version="1.0"?><CxF><Resources>');
    for (let i = 0; i < 2; i++) expect(() => readLast(cut)).toThrow(/broken|end|closed/i);
  });

  it('is taken apart anew once so many others came that they are too much to keep in mind; a huge one is not kept', () => {
    const once = readLast(bytes);
    const others = 6;
    const wide = Buffer.concat([bytes, Buffer.alloc(Math.ceil(KEPT_BYTES / others), ' ')]);
    for (let i = 0; i < others - 2; i++)
      readLast(Buffer.concat([wide, Buffer.from(String.fromCharCode(10).repeat(i))]));
    expect(readLast(bytes)).toBe(once);
    for (let i = 0; i < others; i++) readLast(Buffer.concat([wide, Buffer.from('\n \n'.repeat(i + 1))]));
    const again = readLast(bytes);
    expect(again).not.toBe(once);
    expect(again).toEqual(once);
    const huge = Buffer.concat([bytes, Buffer.alloc(KEPT_BYTES, ' ')]);
    expect(readLast(huge)).not.toBe(readLast(huge));
  });
});
