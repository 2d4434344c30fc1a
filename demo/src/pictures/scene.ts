/** A picture drawn by code: linear light in the wide RGB space it is saved in, for x across and y down, both in heights. */
export interface Scene {
  readonly fileName: string;
  readonly title: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly shade: (x: number, y: number) => readonly [r: number, g: number, b: number];
}
