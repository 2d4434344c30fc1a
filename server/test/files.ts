import sharp from 'sharp';

/** A minimal TIFF that claims to be as large as told and holds one byte. */
export function liarTiff(width: number, height: number): Buffer {
  const tags: [tag: number, type: number, count: number, value: number][] = [
    [256, 4, 1, width],
    [257, 4, 1, height],
    [258, 3, 1, 8],
    [259, 3, 1, 1],
    [262, 3, 1, 1],
    [273, 4, 1, 8],
    [277, 3, 1, 1],
    [278, 4, 1, height],
    [279, 4, 1, 1],
  ];
  const out = Buffer.alloc(16 + 2 + tags.length * 12 + 4);
  out.write('II*\0', 0, 'latin1');
  out.writeUInt32LE(16, 4);
  out.writeUInt16LE(tags.length, 16);
  tags.forEach(([tag, type, count, value], i) => {
    const at = 18 + i * 12;
    out.writeUInt16LE(tag, at);
    out.writeUInt16LE(type, at + 2);
    out.writeUInt32LE(count, at + 4);
    if (type === 3) out.writeUInt16LE(value, at + 8);
    else out.writeUInt32LE(value, at + 8);
  });
  return out;
}

/** A small file that unpacks to many pixels. */
export function bombPng(side: number): Promise<Buffer> {
  return sharp({ create: { width: side, height: side, channels: 3, background: '#000' }, limitInputPixels: false })
    .png({ compressionLevel: 9 })
    .toBuffer();
}

/** A sound JPEG with a profile inside that is not one. */
export async function brokenProfileJpeg(): Promise<Buffer> {
  const jpeg = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#a05030' } })
    .jpeg()
    .toBuffer();
  const profile = Buffer.alloc(400, 0x5a);
  profile.writeUInt32BE(400, 0);
  profile.write('RGB XYZ ', 16, 'latin1');
  profile.write('acsp', 36, 'latin1');
  const head = Buffer.from('ICC_PROFILE\0\x01\x01', 'latin1');
  const segment = Buffer.alloc(4 + head.length + profile.length);
  segment.writeUInt16BE(0xffe2, 0);
  segment.writeUInt16BE(segment.length - 2, 2);
  head.copy(segment, 4);
  profile.copy(segment, 4 + head.length);
  return Buffer.concat([jpeg.subarray(0, 2), segment, jpeg.subarray(2)]);
}

/** A 16-bit picture of the given device colours (0–1), each a block, with the profile named embedded, or none. */
export function blocks(
  colours: readonly (readonly [number, number, number])[],
  profile?: 'p3' | 'srgb',
  format: 'tiff' | 'png' = 'tiff',
): Promise<Buffer> {
  const side = 20;
  const pixels = new Uint16Array(colours.length * side * side * 3);
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < colours.length * side; x++) {
      for (let c = 0; c < 3; c++)
        pixels[(y * colours.length * side + x) * 3 + c] = Math.round(65_535 * colours[Math.floor(x / side)][c]);
    }
  }
  let image = sharp(pixels, { raw: { width: colours.length * side, height: side, channels: 3 } }).toColourspace(
    'rgb16',
  );
  if (profile) image = image.withIccProfile(profile);
  return (format === 'tiff' ? image.tiff({ compression: 'none' }) : image.png()).toBuffer();
}
