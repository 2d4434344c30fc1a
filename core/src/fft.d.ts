declare module 'fft.js' {
  /** Radix-4 FFT of a power-of-two length; complex arrays hold real and imaginary parts in turn. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[], input: ArrayLike<number>): void;
    completeSpectrum(out: number[]): void;
    transform(out: number[], input: ArrayLike<number>): void;
  }
}
