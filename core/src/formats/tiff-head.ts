/** An uncompressed TIFF of three channels of 16 bits, little-endian: its head is made first, its pixels follow as they come (TIFF 6.0). */
export interface TiffKind {
  readonly widthPx: number;
  readonly heightPx: number;
  /** RGB, or CIELAB: L* 0–65535 for 0–100, a* and b* signed in units of 1/256. */
  readonly colour: 'RGB' | 'CIELAB';
  readonly ppi?: number;
  readonly icc?: Uint8Array;
  readonly xmp?: Uint8Array;
  readonly iptc?: Uint8Array;
}

const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;
const UNDEFINED = 7;
const SIZES: Readonly<Record<number, number>> = { [SHORT]: 2, [LONG]: 4, [RATIONAL]: 8, [UNDEFINED]: 1 };
const PHOTOMETRIC = { RGB: 2, CIELAB: 8 } as const;
const BYTES_PER_PIXEL = 6;
/** Strips of about this size are quick to read one by one. */
const STRIP_BYTES = 1 << 18;
/** A TIFF of this kind can't be longer: its addresses have 32 bits. */
const MOST_BYTES = 2 ** 32 - 2 ** 20;

/** @throws RangeError where the picture is too large for the format */
export function tiffHead({ widthPx, heightPx, colour, ppi = 300, icc, xmp, iptc }: TiffKind): Uint8Array {
  const rowBytes = widthPx * BYTES_PER_PIXEL;
  if (rowBytes * heightPx > MOST_BYTES) throw new RangeError('A TIFF file holds four gigabytes at most.');
  const rowsPerStrip = Math.max(1, Math.floor(STRIP_BYTES / rowBytes));
  const strips = Math.ceil(heightPx / rowsPerStrip);
  const stripBytes = Array.from(
    { length: strips },
    (_, i) => Math.min(rowsPerStrip, heightPx - i * rowsPerStrip) * rowBytes,
  );
  const resolution = [Math.round(ppi * 1000), 1000];
  const fields: [tag: number, type: number, values: readonly number[] | Uint8Array][] = [
    [256, LONG, [widthPx]],
    [257, LONG, [heightPx]],
    [258, SHORT, [16, 16, 16]],
    [259, SHORT, [1]],
    [262, SHORT, [PHOTOMETRIC[colour]]],
    [273, LONG, new Array<number>(strips).fill(0)],
    [277, SHORT, [3]],
    [278, LONG, [rowsPerStrip]],
    [279, LONG, stripBytes],
    [282, RATIONAL, resolution],
    [283, RATIONAL, resolution],
    [284, SHORT, [1]],
    [296, SHORT, [2]],
    ...(xmp ? [[700, UNDEFINED, xmp] as [number, number, Uint8Array]] : []),
    ...(iptc ? [[33723, UNDEFINED, iptc] as [number, number, Uint8Array]] : []),
    ...(icc ? [[34675, UNDEFINED, icc] as [number, number, Uint8Array]] : []),
  ];
  const count = (type: number, values: ArrayLike<number>) => (type === RATIONAL ? values.length / 2 : values.length);
  const IFD = 8;
  let after = IFD + 2 + fields.length * 12 + 4;
  const places = fields.map(([, type, values]) => {
    const bytes = count(type, values) * SIZES[type]!;
    if (bytes <= 4) return undefined;
    const at = after;
    after += bytes + (bytes % 2);
    return at;
  });
  const head = new Uint8Array(after + (after % 2));
  const view = new DataView(head.buffer);
  head.set([0x49, 0x49, 42, 0]);
  view.setUint32(4, IFD, true);
  view.setUint16(IFD, fields.length, true);
  let offset = head.length;
  const offsets = stripBytes.map((bytes) => {
    const at = offset;
    offset += bytes;
    return at;
  });
  fields.forEach(([tag, type, given], i) => {
    const values = tag === 273 ? offsets : given;
    const entry = IFD + 2 + i * 12;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, type, true);
    view.setUint32(entry + 4, count(type, values), true);
    const at = places[i] ?? entry + 8;
    if (places[i] !== undefined) view.setUint32(entry + 8, at, true);
    if (values instanceof Uint8Array) head.set(values, at);
    else
      values.forEach((v, n) => {
        if (type === SHORT) view.setUint16(at + n * 2, v, true);
        else view.setUint32(at + n * 4, v, true);
      });
  });
  return head;
}

/** Lab as the pixels of a CIELAB TIFF. @param labs L*, a*, b* one after another */
export function tiffLab(labs: Float32Array): Uint16Array {
  const out = new Uint16Array(labs.length);
  const signed = (v: number) => Math.max(-32_768, Math.min(32_767, Math.round(v * 256))) & 0xffff;
  for (let p = 0; p < labs.length; p += 3) {
    out[p] = Math.round(Math.max(0, Math.min(100, labs[p]!)) * 655.35);
    out[p + 1] = signed(labs[p + 1]!);
    out[p + 2] = signed(labs[p + 2]!);
  }
  return out;
}
