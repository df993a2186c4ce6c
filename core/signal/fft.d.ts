declare module "fft.js" {
  /** Radix-4 FFT of a fixed power-of-two size. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[], input: ArrayLike<number>): void;
    /** Of complex numbers, their parts in turn. */
    transform(out: number[], input: ArrayLike<number>): void;
  }
}
