import { fileKind } from './file-kind.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const bands = (between: string) =>
  Array.from({ length: 40 }, (_, i) => `${380 + i * 10}${between}${(0.5 + i / 50).toFixed(3)}`).join('\n') + '\n';

describe('what a file is, by how it begins', () => {
  it.each([
    ['picture', Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 0, 0)],
    ['picture', Uint8Array.of(0x49, 0x49, 42, 0, 8, 0, 0, 0)],
    ['picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10)],
    ['bundle', bytes('{"rakuen":"paper","paper":{}}')],
    ['readings', bytes('CGATS.17\nNUMBER_OF_FIELDS 4\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\n')],
    ['readings', bytes('<?xml version="1.0"?><cc:CxF xmlns:cc="x"/>')],
    ['readings', bytes('SampleID,Lab_L,Lab_a,Lab_b\nA1,95.1,0.2,-1.1\nA2,20.2,1,1\n')],
    ['lamp', bytes(bands(','))],
    ['lamp', bytes(`nm\tpower\n${bands('\t')}`)],
    ['lamp', bytes(`# a lamp\n${bands(';')}`)],
    ['lamp', bytes(bands(';').replaceAll('.', ','))],
    ['lamp', bytes(bands(' '))],
  ] as const)('%s', (kind, head) => {
    expect(fileKind(head)).toBe(kind);
  });

  it('a profile is readings: its colours are told by it', () => {
    const head = new Uint8Array(128);
    head.set(bytes('acsp'), 36);
    expect(fileKind(head)).toBe('readings');
  });

  it('wavelengths that fall back are no lamp, and neither is a short table', () => {
    expect(fileKind(bytes(bands(',') + bands(',')))).toBe('readings');
    expect(fileKind(bytes('400,1\n410,2\n420,3\n'))).toBe('readings');
  });

  it('anything else is none of them', () => {
    expect(fileKind(Uint8Array.of(0x50, 0x4b, 3, 4, 0, 0, 0, 8))).toBeUndefined();
    expect(fileKind(new Uint8Array())).toBeUndefined();
    expect(fileKind(bytes('   \n'))).toBeUndefined();
  });
});
