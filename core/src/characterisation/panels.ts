import { PRODUCTS_BINARY } from './products-binary.ts';

/**
 * Rows of numbers, four side by side: entry k of row 4·p + r stands at (p · width + k) · 4 + r. So lie they as they are multiplied, sixteen sums at a time. Rows beyond
 * the last fill up the last panel.
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

/** Where panels lie while they are worked with. Room is taken from the beginning again by the next that asks for one: nothing in it outlives its work. */
export interface PanelRoom {
  /** Panels of zeros. */
  readonly take: (rows: number, width: number) => Panels;
  /** Sixteen sums: at 4·i + j of row i of a panel of `a` times row j of a panel of `b`, over the first `n` entries. Overwritten by the next. */
  readonly products: (a: Panels, panelA: number, b: Panels, panelB: number, n: number) => Float64Array;
}

/** The part of WebAssembly that is used here, where neither a browser's nor a server's own types are known. */
interface Assembly {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: unknown };
}
interface Exports {
  readonly memory: { readonly buffer: ArrayBuffer; readonly grow: (pages: number) => number };
  readonly products: (a: number, b: number, n: number, out: number) => void;
}

let known: Exports | undefined;
function instance(): Exports {
  const { Instance, Module } = (globalThis as unknown as { WebAssembly: Assembly }).WebAssembly;
  known ??= new Instance(new Module(Uint8Array.from(atob(PRODUCTS_BINARY), (c) => c.charCodeAt(0)))).exports as Exports;
  return known;
}

/** @param sizes rows and width of everything that will be taken */
export function panelRoom(sizes: readonly (readonly [rows: number, width: number])[]): PanelRoom {
  const { memory, products } = instance();
  const whole = SUMS + sizes.reduce((sum, [rows, width]) => sum + lengthOf(rows, width), 0);
  const lacking = whole * BYTES - memory.buffer.byteLength;
  if (lacking > 0) memory.grow(Math.ceil(lacking / PAGE));
  const sums = new Float64Array(memory.buffer, 0, SUMS);
  let next = SUMS;
  return {
    take(rows, width) {
      const values = new Float64Array(memory.buffer, next * BYTES, lengthOf(rows, width)).fill(0);
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
