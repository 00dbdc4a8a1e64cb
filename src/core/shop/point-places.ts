/** A test point on a photo of the chassis. */
export interface PointPlace {
  /** Name of the test point. */
  point: string;
  /** Of the photo. */
  hash: string;
  /** Parts of the width and of the height, from the upper left corner of the picture as it is shown. */
  x: number;
  y: number;
}
