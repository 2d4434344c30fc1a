import { PRODUCTS_BINARY } from './products-binary.ts';

/**
 * Rows of numbers, four side by side: entry k of row 4·p + r stands at (p · width + k) · 4 + r. So lie they as they are
 * multiplied, sixteen sums at a time. Rows beyond the last fill up the last panel.
 */
export interface Panels {
  /** How many panels of four rows. */
  readonly count: number;
  /** Entries of a row. */
  readonly width: number;
  readonly values: Float64Array;
}

export const PANEL = 4;
const BYTES = 8;
const PAGE = 65_536;
/** Sums come first in the room, what is multiplied behind them. */
const SUMS = PANEL * PANEL;

/**
 * Where panels lie while they are worked with. Room is taken from the beginning again by the next that asks for one:
 * nothing in it outlives its work.
 */
export interface PanelRoom {
  /** Panels of zeros. */
  readonly take: (rows: number, width: number) => Panels;
  /**
   * Sixteen sums: at 4·i + j of row i of a panel of `a` times row j of a panel of `b`, over the first `n` entries.
   * Overwritten by the next.
   */
  readonly products: (a: Panels, panelA: number, b: Panels, panelB: number, n: number) => Float64Array;
}

/** The part of WebAssembly that is used here, where neither a browser's nor a server's own types are known. */
interface Assembly {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Memory: new (size: { readonly initial: number }) => { readonly buffer: ArrayBuffer };
  readonly Instance: new (module: object, imports: object) => { readonly exports: unknown };
}
const { Module, Memory, Instance } = (globalThis as unknown as { WebAssembly: Assembly }).WebAssembly;

type Products = (a: number, b: number, n: number, out: number) => void;
interface Kernel {
  readonly buffer: ArrayBuffer;
  readonly products: Products;
}

const MIB = 2 ** 20;
/** What is taken at first: enough for most charts. Pages that nothing is written to cost nothing. */
const FIRST_BYTES = 32 * MIB;

let known: Kernel | undefined;
/**
 * The kernel with a memory of so many bytes at least. One that is too small is left for a new one and not grown:
 * growing detaches what lay in it, after which the engine checks every access to every array anew.
 */
function kernelOf(bytes: number): Kernel {
  if (known && known.buffer.byteLength >= bytes) return known;
  const memory = new Memory({ initial: Math.ceil(Math.max(bytes, FIRST_BYTES) / PAGE) });
  const module = new Module(Uint8Array.from(atob(PRODUCTS_BINARY), (c) => c.charCodeAt(0)));
  const { products } = new Instance(module, { room: { memory } }).exports as { products: Products };
  return (known = { buffer: memory.buffer, products });
}

/** @param sizes rows and width of everything that will be taken */
export function panelRoom(sizes: readonly (readonly [rows: number, width: number])[]): PanelRoom {
  const whole = SUMS + sizes.reduce((sum, [rows, width]) => sum + lengthOf(rows, width), 0);
  const { buffer, products } = kernelOf(whole * BYTES);
  const sums = new Float64Array(buffer, 0, SUMS);
  let next = SUMS;
  return {
    take(rows, width) {
      const values = new Float64Array(buffer, next * BYTES, lengthOf(rows, width)).fill(0);
      next += values.length;
      return { count: Math.ceil(rows / PANEL), width, values };
    },
    products(a, panelA, b, panelB, n) {
      products(addressOf(a, panelA), addressOf(b, panelB), n, 0);
      return sums;
    },
  };
}

const lengthOf = (rows: number, width: number) => Math.ceil(rows / PANEL) * PANEL * width;
const addressOf = ({ values, width }: Panels, panel: number) => values.byteOffset + panel * width * PANEL * BYTES;
