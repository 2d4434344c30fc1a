/** CIELAB, D50 and 2° unless a name says otherwise: [L* 0–100, a*, b*]. */
export type Lab = readonly [L: number, a: number, b: number];

/** CIE XYZ, scaled so that the perfect diffuser has Y = 100. */
export type Xyz = readonly [X: number, Y: number, Z: number];

/** Device RGB, 0–1 a channel. */
export type Rgb = readonly [r: number, g: number, b: number];

/** A spectrum at even steps: reflectance factors (1 = perfect diffuser) or relative power. */
export interface Spectrum {
  readonly startNm: number;
  readonly stepNm: number;
  readonly values: readonly number[];
}
