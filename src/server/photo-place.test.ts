/** Photos are kept without the place where they were taken; the picture itself stays as it was, the right way up. */

import sharp from "sharp";
import { withoutPlace } from "./photo-place";

const GPS = { IFD3: { GPSLatitudeRef: "N", GPSLatitude: "52/1 30/1 0/1", GPSLongitudeRef: "E", GPSLongitude: "13/1 24/1 0/1" } };
const picture = () =>
  sharp({ create: { width: 64, height: 40, channels: 3, background: "#884422" } }).composite([
    { input: { create: { width: 20, height: 10, channels: 3, background: "#22ccee" } }, left: 0, top: 0 },
  ]);
const pixels = (bytes: Uint8Array) => sharp(bytes).rotate().raw().toBuffer();

test.each(["jpeg", "png", "webp"] as const)("%s: Exif with a place goes, the pixels stay", async (format) => {
  const taken = await picture()
    .withExif({ IFD0: { Make: "Camera of somebody" }, ...GPS })
    .toFormat(format)
    .toBuffer();
  expect((await sharp(taken).metadata()).exif).toBeDefined();
  const kept = withoutPlace(taken, format);
  expect((await sharp(kept).metadata()).exif).toBeUndefined();
  expect(Buffer.from(kept).includes("Camera of somebody")).toBe(false);
  expect(await pixels(kept)).toEqual(await pixels(taken));
  // Clean already: the same bytes, so that the same photo is stored once.
  expect(withoutPlace(kept, format)).toBe(kept);
});

test.each([3, 6, 8])("a JPEG taken with the camera turned (%i) stays the right way up", async (orientation) => {
  const taken = await picture().withExif(GPS).withMetadata({ orientation }).jpeg().toBuffer();
  const kept = withoutPlace(taken, "jpeg", orientation);
  const meta = await sharp(kept).metadata();
  expect(meta.orientation).toBe(orientation);
  expect(meta.exif!.length).toBeLessThan(60);
  expect(await pixels(kept)).toEqual(await pixels(taken));
});

test("a colour profile and a comment: the profile belongs to the picture, the comment does not", async () => {
  const plain = await picture().withMetadata({ icc: "p3" }).jpeg().toBuffer();
  const comment = Buffer.from("at home, 12 Mill Lane");
  const segment = Buffer.concat([Buffer.from([0xff, 0xfe, 0, comment.length + 2]), comment]);
  const kept = withoutPlace(Buffer.concat([plain.subarray(0, 2), segment, plain.subarray(2)]), "jpeg");
  expect(Buffer.from(kept).includes("Mill Lane")).toBe(false);
  expect((await sharp(kept).metadata()).icc).toEqual((await sharp(plain).metadata()).icc);
});
