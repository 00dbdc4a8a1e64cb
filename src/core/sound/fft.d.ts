/** What is used of fft.js, which brings no types of its own. */
declare module "fft.js" {
  export default class FFT {
    /** @param size a power of two, 2 or more. */
    constructor(size: number);
    readonly size: number;
    createComplexArray(): number[];
    /** Transforms `size` real samples; fills the first half of `out`, real and imaginary parts in turn. */
    realTransform(out: number[] | Float64Array, data: ArrayLike<number>): void;
  }
}
