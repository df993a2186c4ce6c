declare module "fft.js" {
  /** Radix-4 FFT of a fixed power-of-two size. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[], input: ArrayLike<number>): void;
    /** An array of complex numbers, real and imaginary parts in turn. */
    transform(out: number[], input: ArrayLike<number>): void;
  }
}
