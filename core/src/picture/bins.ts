import { halton } from '../halton.ts';

/** Colours of a file as its codes, and how many pixels have each: what is told from Lab is told from these, once each and not a pixel at a time. */
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
/** Bits of a channel that tell bins apart, and those that tell the parts of a full one apart. */
const COARSE_BITS = 7;
const FINE_BITS = 3;

/**
 * Counts the pixels of a picture by their codes. Every pixel is counted; where a picture crowds (a night sky, a wall) the bins are a thousandth of a channel
 * wide, elsewhere a hundredth.
 */
export class CodeBins {
  /** Pixels of each bin; where codes that differ were met in it, the complement of their number: one look tells both. */
  private readonly coarse: Int32Array;
  /** Where the parts of a full bin begin; 0 where it has none. */
  private readonly partsAt: Int32Array;
  /** The code first met in each bin: a colour that stands alone is known exactly. */
  private readonly first: Float64Array;
  private parts = new Uint32Array(1 << 16);
  private used: number;
  private readonly most: number;
  private readonly fineBits: number;

  /**
   * @param bits of a channel
   * @param expected number of pixels that will come, about
   */
  constructor(
    private readonly channels: 1 | 3,
    private readonly bits: 8 | 16,
    expected: number,
  ) {
    this.fineBits = Math.min(FINE_BITS, bits - COARSE_BITS);
    const count = 1 << (COARSE_BITS * channels);
    this.coarse = new Int32Array(count);
    this.partsAt = new Int32Array(count);
    this.first = new Float64Array(count).fill(-1);
    this.used = 1 << (this.fineBits * channels);
    this.most = Math.max(1, Math.floor(expected * MOST_SHARE));
  }

  add(samples: Uint8Array | Uint16Array): void {
    if (this.channels === 1) this.addGreys(samples);
    else this.addColours(samples);
  }

  private addColours(samples: Uint8Array | Uint16Array): void {
    const { coarse, partsAt, most, fineBits, first } = this;
    let { parts } = this;
    const high = this.bits - COARSE_BITS;
    const low = high - fineBits;
    const mask = (1 << fineBits) - 1;
    for (let i = 0; i < samples.length; i += 3) {
      const r = samples[i];
      const g = samples[i + 1];
      const b = samples[i + 2];
      const bin = ((r >> high) << (2 * COARSE_BITS)) | ((g >> high) << COARSE_BITS) | (b >> high);
      let held = coarse[bin];
      if (held >= 0) {
        const code = r * 4_294_967_296 + g * 65_536 + b;
        if (held === 0) first[bin] = code;
        else if (first[bin] !== code) coarse[bin] = held = ~held;
      }
      if (held < 0 ? ~held < most : held < most) {
        coarse[bin] = held < 0 ? held - 1 : held + 1;
        continue;
      }
      let at = partsAt[bin];
      if (at === 0) {
        partsAt[bin] = at = this.room();
        ({ parts } = this);
      }
      parts[at + ((((r >> low) & mask) << (2 * fineBits)) | (((g >> low) & mask) << fineBits) | ((b >> low) & mask))]++;
    }
  }

  private addGreys(samples: Uint8Array | Uint16Array): void {
    const { coarse, partsAt, most, fineBits, first } = this;
    const high = this.bits - COARSE_BITS;
    const low = high - fineBits;
    const mask = (1 << fineBits) - 1;
    for (const v of samples) {
      const bin = v >> high;
      let held = coarse[bin];
      if (held === 0) first[bin] = v;
      else if (held > 0 && first[bin] !== v) coarse[bin] = held = ~held;
      if (held < 0 ? ~held < most : held < most) coarse[bin] = held < 0 ? held - 1 : held + 1;
      else this.parts[(partsAt[bin] ||= this.room()) + ((v >> low) & mask)]++;
    }
  }

  /** Room for the parts of one bin. @returns where they begin */
  private room(): number {
    const at = this.used;
    this.used += 1 << (this.fineBits * this.channels);
    if (this.used > this.parts.length) {
      const wider = new Uint32Array(this.parts.length * 2);
      wider.set(this.parts);
      this.parts = wider;
    }
    return at;
  }

  /** The colours counted, each somewhere in its bin. */
  counted(): BinnedCodes {
    const { channels, fineBits } = this;
    const codes: number[] = [];
    const pixels: number[] = [];
    const top = 2 ** this.bits - 1;
    /** A place in a bin, 0–1: scattered evenly over the bins (Halton 1960), or bounds would find them in rows. */
    const within = (place: number, bits: number, channel: number) => {
      const width = 2 ** (this.bits - bits);
      return (place * width + (width - 1) * SCATTER[channel][pixels.length % SCATTERED]) / top;
    };
    const put = (bin: number, part: number, count: number) => {
      for (let c = channels - 1; c >= 0; c--) {
        const whole = (bin >> (c * COARSE_BITS)) & ((1 << COARSE_BITS) - 1);
        codes.push(
          part < 0
            ? within(whole, COARSE_BITS, c)
            : within(
                (whole << fineBits) | ((part >> (c * fineBits)) & ((1 << fineBits) - 1)),
                COARSE_BITS + fineBits,
                c,
              ),
        );
      }
      pixels.push(count);
    };
    /** A bin of one code alone. */
    const alone = (bin: number) => {
      const code = this.first[bin];
      for (let c = channels - 1; c >= 0; c--) codes.push((Math.floor(code / 65_536 ** c) % 65_536) / top);
      const at = this.partsAt[bin];
      let count = this.coarse[bin];
      if (at !== 0) for (let i = 0; i < 1 << (fineBits * channels); i++) count += this.parts[at + i];
      pixels.push(count);
    };
    this.coarse.forEach((held, bin) => {
      if (held === 0) return;
      const count = held < 0 ? ~held : held;
      const at = this.partsAt[bin];
      if (held > 0) return alone(bin);
      if (at === 0) return put(bin, -1, count);
      // What came before the bin was full is shared out as what came after.
      const parts = this.parts.subarray(at, at + (1 << (fineBits * channels)));
      const fine = parts.reduce((s, v) => s + v, 0);
      parts.forEach((n, part) => n > 0 && put(bin, part, n * (1 + count / fine)));
    });
    return { codes: Float32Array.from(codes), pixels: Float64Array.from(pixels) };
  }
}
