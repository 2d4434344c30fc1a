declare module 'lcms-wasm' {
  export const cmsInfoDescription: number;
  export const cmsFLAGS_NOCACHE: number;
  export const INTENT_ABSOLUTE_COLORIMETRIC: number;
  export const INTENT_RELATIVE_COLORIMETRIC: number;
  interface Lcms {
    cmsOpenProfileFromMem(bytes: Uint8Array, length: number): number;
    cmsCloseProfile(profile: number): void;
    cmsCreate_sRGBProfile(): number;
    cmsCreateLab4Profile(): number;
    cmsGetProfileInfoASCII(profile: number, info: number, language: string, country: string): string;
    cmsGetColorSpaceASCII(profile: number): string | null;
    cmsCreateTransform(
      from: number,
      fromFormat: number,
      to: number,
      toFormat: number,
      intent: number,
      flags: number,
    ): number;
    cmsDeleteTransform(transform: number): void;
    cmsDoTransform(transform: number, pixels: ArrayLike<number>, count: number): ArrayLike<number>;
  }
  export function instantiate(options?: object): Promise<Lcms>;
}
