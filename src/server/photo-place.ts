/**
 * A photo without what its camera wrote about the place and itself: the picture is kept byte for byte, its metadata is left out but for the way
 * up. A phone writes where it stood into every photo, and an archive or a report goes to the owner.
 *
 * Sources: JPEG segments, ITU-T T.81 annex B; Exif orientation, CIPA DC-008 (tag 0x0112); PNG chunks, W3C PNG; WebP chunks, RFC 9649.
 */

const ASCII = (bytes: Uint8Array, at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length));

const joined = (parts: Uint8Array[]): Uint8Array => {
  const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
};

/** An Exif segment that says which way up and nothing else. */
function uprightSegment(orientation: number): Uint8Array {
  // Big-endian TIFF: one entry, tag 0x0112, a 16-bit number.
  const tiff = [0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0, 0, 0, 0, 0];
  const exif = [...new TextEncoder().encode("Exif\0\0"), ...tiff];
  return Uint8Array.from([0xff, 0xe1, 0, exif.length + 2, ...exif]);
}

/** APP0 (JFIF), APP2 with a colour profile and APP14 (how colours are coded) belong to the picture; the other APPs and comments do not. */
function keepsJpegSegment(marker: number, bytes: Uint8Array, at: number): boolean {
  if (marker === 0xfe) return false;
  if (marker < 0xe0 || marker > 0xef) return true;
  return marker === 0xe0 || marker === 0xee || (marker === 0xe2 && ASCII(bytes, at + 4, 11) === "ICC_PROFILE");
}

function cleanJpeg(bytes: Uint8Array, orientation: number): Uint8Array {
  const parts = [bytes.subarray(0, 2)];
  let at = 2;
  let dropped = false;
  while (at + 4 <= bytes.length && bytes[at] === 0xff && bytes[at + 1] !== 0xda) {
    const end = at + 2 + ((bytes[at + 2]! << 8) | bytes[at + 3]!);
    if (keepsJpegSegment(bytes[at + 1]!, bytes, at)) parts.push(bytes.subarray(at, end));
    else dropped = true;
    at = end;
  }
  if (!dropped) return bytes;
  // Behind JFIF, which has to be the first.
  if (orientation > 1) parts.splice(parts[1]?.[1] === 0xe0 ? 2 : 1, 0, uprightSegment(orientation));
  return joined([...parts, bytes.subarray(at)]);
}

const PNG_METADATA = new Set(["eXIf", "tEXt", "zTXt", "iTXt", "tIME"]);

function cleanPng(bytes: Uint8Array): Uint8Array {
  const parts = [bytes.subarray(0, 8)];
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 8; at + 12 <= bytes.length;) {
    const end = at + 12 + view.getUint32(at);
    if (!PNG_METADATA.has(ASCII(bytes, at + 4, 4))) parts.push(bytes.subarray(at, end));
    at = end;
  }
  const out = joined(parts);
  return out.length === bytes.length ? bytes : out;
}

const EXIF_FLAG = 0x08;
const XMP_FLAG = 0x04;

function cleanWebp(bytes: Uint8Array): Uint8Array {
  const parts: Uint8Array[] = [];
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    const end = at + 8 + size + (size % 2);
    const name = ASCII(bytes, at, 4);
    const chunk = bytes.slice(at, end);
    if (name === "VP8X") chunk[8]! &= ~(EXIF_FLAG | XMP_FLAG);
    if (name !== "EXIF" && name !== "XMP ") parts.push(chunk);
    at = end;
  }
  const body = joined(parts);
  if (body.length + 12 === bytes.length) return bytes;
  const head = bytes.slice(0, 12);
  new DataView(head.buffer).setUint32(4, body.length + 4, true);
  return joined([head, body]);
}

/**
 * @param format as sharp names it: "jpeg", "png" or "webp".
 * @param orientation of the Exif data, 1 to 8. Of PNG and WebP it is dropped: cameras write JPEG.
 * @returns the same bytes where there is nothing to leave out.
 */
export function withoutPlace(bytes: Uint8Array, format: string, orientation = 1): Uint8Array {
  if (format === "jpeg") return cleanJpeg(bytes, orientation);
  return format === "png" ? cleanPng(bytes) : cleanWebp(bytes);
}
