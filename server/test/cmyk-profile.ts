import type { Lab } from '@rakuen/core/colour/types';

/** Lab printed for CMYK 0–1. */
type Ink = (c: number, m: number, y: number, k: number) => Lab;

const GRID = 9;

/**
 * A CMYK output profile (ICC.1, version 2) with one colorimetric A2B table of 16-bit Lab, made from a function; relative to the
 * white that `ink(0,0,0,0)` gives. For tests: a printer profile whose colours are known.
 */
export function cmykProfile(ink: Ink, whiteXyz: readonly [number, number, number]): Buffer {
  const text = (name: string) => {
    const body = Buffer.alloc(12 + name.length + 1 + 78);
    body.write('desc', 0, 'latin1');
    body.writeUInt32BE(name.length + 1, 8);
    body.write(name, 12, 'latin1');
    return body;
  };
  const xyz = Buffer.alloc(20);
  xyz.write('XYZ ', 0, 'latin1');
  whiteXyz.forEach((v, i) => xyz.writeInt32BE(Math.round((v / 100) * 65_536), 8 + i * 4));

  const entries = 2;
  const table = GRID ** 4 * 3;
  const lut = Buffer.alloc(52 + (4 * entries + table + 3 * entries) * 2);
  lut.write('mft2', 0, 'latin1');
  lut.writeUInt8(4, 8);
  lut.writeUInt8(3, 9);
  lut.writeUInt8(GRID, 10);
  [1, 0, 0, 0, 1, 0, 0, 0, 1].forEach((v, i) => lut.writeInt32BE(v * 65_536, 12 + i * 4));
  lut.writeUInt16BE(entries, 48);
  lut.writeUInt16BE(entries, 50);
  let at = 52;
  const put = (v: number) => (at = lut.writeUInt16BE(Math.max(0, Math.min(65_535, Math.round(v))), at));
  for (let i = 0; i < 4; i++) [0, 65_535].forEach(put);
  const levels = Array.from({ length: GRID }, (_, i) => i / (GRID - 1));
  for (const c of levels) {
    for (const m of levels) {
      for (const y of levels) {
        for (const k of levels) {
          const [L, a, b] = ink(c, m, y, k);
          // Version 2 encodes L* 100 as FF00 and a*, b* 0 as 8000.
          put((L * 65_280) / 100);
          put((a + 128) * 256);
          put((b + 128) * 256);
        }
      }
    }
  }
  for (let i = 0; i < 3; i++) [0, 65_535].forEach(put);

  const tags: [string, Buffer][] = [
    ['desc', text('Test press')],
    ['wtpt', xyz],
    ['A2B0', lut],
  ];
  const directory = 128 + 4 + tags.length * 12;
  const bodies = tags.map(([, b]) => Buffer.concat([b, Buffer.alloc((4 - (b.length % 4)) % 4)]));
  const head = Buffer.alloc(directory);
  head.writeUInt32BE(directory + bodies.reduce((s, b) => s + b.length, 0), 0);
  head.writeUInt32BE(0x02400000, 8);
  head.write('prtrCMYKLab ', 12, 'latin1');
  head.write('acsp', 36, 'latin1');
  [0.9642, 1, 0.8249].forEach((v, i) => head.writeInt32BE(Math.round(v * 65_536), 68 + i * 4));
  head.writeUInt32BE(tags.length, 128);
  let offset = directory;
  tags.forEach(([name, body], i) => {
    head.write(name, 132 + i * 12, 'latin1');
    head.writeUInt32BE(offset, 136 + i * 12);
    head.writeUInt32BE(body.length, 140 + i * 12);
    offset += bodies[i].length;
  });
  return Buffer.concat([head, ...bodies]);
}
