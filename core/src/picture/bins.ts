import { halton } from '../halton.ts';
import type { PixelKind } from './pixels.ts';

/**
 * Colours of a file as its codes, and how many pixels have each: what is told from Lab is told from these, once each
 * and not a pixel at a time.
 */
export interface BinnedCodes {
  /** Codes 0–1 of each colour, `channels` after one another. */
  readonly codes: Float32Array;
  /** Pixels of each. */
  readonly pixels: Float64Array;
}

/** A bin that holds more of a picture than this is divided: a bound that runs through it then parts no more than this wrongly. */
const MOST_SHARE = 0.0002;
/** So many places before they come again. */
const SCATTERED = 1009;
const SCATTER = [2, 3, 5].map((base) => Float64Array.from({ length: SCATTERED }, (_, i) => halton(i + 1, base)));
/**
 * Of a larger picture the parts of a full bin are told by every fourth of its pixels, taken out of step: there are a
 * thousand and more of them.
 */
const SPARING_PX = 2e6;
const OUT_OF_STEP = 0x9e3779b1;
/** Bits of a channel that tell bins apart, and those that tell the parts of a full one apart. */
const COARSE_BITS = 7;
const FINE_BITS = 3;

/** Bins in the making: plain data, of one shape for every picture, or each would have its loop compiled anew. */
interface Bins {
  readonly channels: 1 | 3;
  readonly bits: 8 | 16;
  readonly fineBits: number;
  /** Pixels at which a bin is full. */
  readonly most: number;
  /** Of 2³² steps those at which a pixel of a full bin is looked at more closely. */
  readonly closely: number;
  /** Pixels of each bin; where codes that differ were met in it, the complement of their number: one look tells both. */
  readonly coarse: Int32Array;
  /** The code first met in each bin: a colour that stands alone is known exactly. */
  readonly first: Float64Array;
  /** Where the parts of a full bin begin; 0 where it has none. */
  readonly partsAt: Int32Array;
  /** Room for the parts of as many bins as may be full. */
  readonly parts: Int32Array;
  /** Where the next parts begin. */
  readonly next: Int32Array;
}

function emptyBins({ widthPx, heightPx, channels, bits }: PixelKind): Bins {
  const fineBits = Math.min(FINE_BITS, bits - COARSE_BITS);
  const count = 1 << (COARSE_BITS * channels);
  const each = 1 << (fineBits * channels);
  const total = widthPx * heightPx;
  const most = Math.max(1, Math.floor(total * MOST_SHARE));
  return {
    channels,
    bits,
    fineBits,
    most,
    closely: total > SPARING_PX ? 2 ** 30 : 2 ** 32,
    coarse: new Int32Array(count),
    first: new Float64Array(count),
    partsAt: new Int32Array(count),
    parts: new Int32Array(each * (2 + Math.min(count, Math.ceil(total / most)))),
    next: Int32Array.of(each),
  };
}

function countColours(bins: Bins, samples: Uint8Array | Uint16Array): void {
  const { coarse, first, most, closely } = bins;
  const high = bins.bits - COARSE_BITS;
  for (let i = 0; i < samples.length; i += 3) {
    const r = samples[i]!;
    const g = samples[i + 1]!;
    const b = samples[i + 2]!;
    const bin = ((r >> high) << (2 * COARSE_BITS)) | ((g >> high) << COARSE_BITS) | (b >> high);
    const held = coarse[bin]!;
    if (held < 0) {
      coarse[bin] = held - 1;
      if (~held >= most && Math.imul(held, OUT_OF_STEP) >>> 0 < closely) lookAt(bins, bin, r, g, b, 1);
      continue;
    }
    const code = r * 4_294_967_296 + g * 65_536 + b;
    if (held === 0) first[bin] = code;
    if (first[bin] === code) coarse[bin] = held + 1;
    else unlike(bins, bin, held);
  }
}

function countGreys(bins: Bins, samples: Uint8Array | Uint16Array): void {
  const { coarse, first, most, closely } = bins;
  const high = bins.bits - COARSE_BITS;
  for (const v of samples) {
    const bin = v >> high;
    const held = coarse[bin]!;
    if (held < 0) {
      coarse[bin] = held - 1;
      if (~held >= most && Math.imul(held, OUT_OF_STEP) >>> 0 < closely) lookAt(bins, bin, 0, 0, v, 1);
      continue;
    }
    if (held === 0) first[bin] = v;
    if (first[bin] === v) coarse[bin] = held + 1;
    else unlike(bins, bin, held);
  }
}

/** Another code is met in a bin of one alone: those that came before keep their weight. */
function unlike(bins: Bins, bin: number, held: number): void {
  bins.coarse[bin] = ~(held + 1);
  const before = Math.round((held * bins.closely) / 2 ** 32);
  if (held < bins.most || before < 1) return;
  const code = bins.first[bin]!;
  lookAt(bins, bin, Math.floor(code / 2 ** 32), Math.floor(code / 65_536) % 65_536, code % 65_536, before);
}

/** Counts pixels of a full bin among its parts. */
function lookAt(bins: Bins, bin: number, r: number, g: number, b: number, count: number): void {
  const { bits, fineBits, channels, partsAt, parts, next } = bins;
  const low = bits - COARSE_BITS - fineBits;
  const mask = (1 << fineBits) - 1;
  let at = partsAt[bin]!;
  if (at === 0) {
    partsAt[bin] = at = next[0]!;
    next[0]! += 1 << (fineBits * channels);
  }
  parts[at + ((((r >> low) & mask) << (2 * fineBits)) | (((g >> low) & mask) << fineBits) | ((b >> low) & mask))]! +=
    count;
}

/**
 * Counts the pixels of a picture by their codes. Every pixel is counted; where a picture crowds (a night sky, a wall)
 * its bins are shared out over parts a thousandth of a channel wide, elsewhere they are a hundredth wide.
 */
export class CodeBins {
  private readonly bins: Bins;

  constructor(kind: PixelKind) {
    this.bins = emptyBins(kind);
  }

  add(samples: Uint8Array | Uint16Array): void {
    if (this.bins.channels === 1) countGreys(this.bins, samples);
    else countColours(this.bins, samples);
  }

  /** The colours counted, each somewhere in its bin. */
  counted(): BinnedCodes {
    const { coarse, first, partsAt, parts, channels, bits, fineBits } = this.bins;
    const codes: number[] = [];
    const pixels: number[] = [];
    const top = 2 ** bits - 1;
    const mask = (1 << fineBits) - 1;
    const whole = (1 << COARSE_BITS) - 1;
    const widths = { coarse: 2 ** (bits - COARSE_BITS), fine: 2 ** (bits - COARSE_BITS - fineBits) };
    /** A place in a bin, 0–1: scattered evenly over the bins (Halton 1960), or bounds would find them in rows. */
    const within = (place: number, width: number, channel: number) =>
      (place * width + (width - 1) * SCATTER[channel]![pixels.length % SCATTERED]!) / top;
    for (let bin = 0; bin < coarse.length; bin++) {
      const held = coarse[bin]!;
      if (held === 0) continue;
      const at = partsAt[bin]!;
      if (held > 0) {
        // One code alone, known exactly.
        for (let c = channels - 1; c >= 0; c--) codes.push((Math.floor(first[bin]! / 65_536 ** c) % 65_536) / top);
        pixels.push(held);
      } else if (at === 0) {
        for (let c = channels - 1; c >= 0; c--)
          codes.push(within((bin >> (c * COARSE_BITS)) & whole, widths.coarse, c));
        pixels.push(~held);
      } else {
        // Shared out over its parts as those were that were looked at.
        const each = ~held / this.partsOf(at);
        for (let part = 0; part < 1 << (fineBits * channels); part++) {
          const n = parts[at + part]!;
          if (n === 0) continue;
          for (let c = channels - 1; c >= 0; c--) {
            const place = (((bin >> (c * COARSE_BITS)) & whole) << fineBits) | ((part >> (c * fineBits)) & mask);
            codes.push(within(place, widths.fine, c));
          }
          pixels.push(n * each);
        }
      }
    }
    return { codes: new Float32Array(codes), pixels: new Float64Array(pixels) };
  }

  /** Pixels in all parts of a bin. */
  private partsOf(at: number): number {
    let sum = 0;
    const { parts, fineBits, channels } = this.bins;
    for (let i = 0; i < 1 << (fineBits * channels); i++) sum += parts[at + i]!;
    return sum;
  }
}
