declare module 'delatin' {
  /** Triangles over a raster of heights, refined where they are farthest off. */
  export default class Delatin {
    constructor(heights: ArrayLike<number>, width: number, height: number);
    /** Places as x, y by columns and rows, one after the other; triangles as three places each. */
    readonly coords: readonly number[];
    readonly triangles: readonly number[];
    refine(): void;
    getMaxError(): number;
  }
}
