/** Photos and recordings: bytes in the database, named by their hash, checked to be what they are said to be. */

import { fixed } from "@/core/language/language";
import { createHash } from "node:crypto";
import sharp from "sharp";
import type { FieldError } from "@/core/checks/class-errors";
import type { StoredReference } from "@/core/tape/references";
import { HEAD_BYTES, readWavHead } from "@/core/sound/wav";
import type { Sql } from "./database";
import { UserError } from "./errors";
import { withoutPlace } from "./photo-place";

/** Largest photo that is taken; a phone's camera gives 3 to 12 MB. */
export const MOST_PHOTO_BYTES = 20 * 1024 * 1024;
const KINDS: Record<string, string> = { jpeg: "image/jpeg", png: "image/png", webp: "image/webp" };

export interface Attachment {
  hash: string;
  type: string;
  bytes: Uint8Array;
}

/**
 * Checks that the bytes are a picture and stores it without the place where it was taken; the same picture is stored once.
 * @param as "it came" for one of an archive, which is known by the hash that it has.
 */
export async function storePhoto(
  sql: Sql,
  sent: Uint8Array,
  as: "cleaned" | "it came" = "cleaned",
): Promise<{ hash: string; type: string }> {
  if (sent.length === 0) throw new UserError(422, "The photo is empty: a JPEG, PNG or WebP picture is wanted.");
  if (sent.length > MOST_PHOTO_BYTES) throw new UserError(413, tooLarge(sent.length));
  let format: string | undefined;
  let orientation: number | undefined;
  try {
    const picture = sharp(sent, { failOn: "error", limitInputPixels: 200_000_000 });
    ({ format, orientation } = await picture.metadata());
    // Metadata alone is read from the head: decoding shows that the rest of the file is there.
    await picture.resize(16, 16, { fit: "fill" }).raw().toBuffer();
  } catch {
    throw new UserError(
      422,
      `This file (${size(sent.length)}, starting "${headOf(sent)}") is not a picture that can be read. A whole JPEG, PNG or WebP is wanted.`,
    );
  }
  const type = format && KINDS[format];
  if (!type) throw new UserError(422, `The picture is of the kind ${format}; JPEG, PNG and WebP are accepted.`);
  const bytes = as === "cleaned" ? withoutPlace(sent, format!, orientation) : sent;
  const hash = createHash("sha256").update(bytes).digest("hex");
  await sql.query("insert into attachments (hash, type, bytes) values ($1, $2, $3) on conflict (hash) do nothing", [hash, type, bytes]);
  return { hash, type };
}

/** Largest recording that is kept: five minutes of 48 kHz stereo at 16 bits. */
export const MOST_RECORDING_BYTES = 60 * 1024 * 1024;

/** Checks that the bytes are a WAV and stores them; the same recording is stored once. */
export async function storeRecording(sql: Sql, bytes: Uint8Array): Promise<{ hash: string; type: string }> {
  if (bytes.length > MOST_RECORDING_BYTES) throw new UserError(413, recordingTooLarge(bytes.length));
  try {
    readWavHead(bytes.subarray(0, HEAD_BYTES), bytes.length);
  } catch (error) {
    throw new UserError(422, `This is no recording that can be read: ${(error as Error).message}.`);
  }
  const hash = createHash("sha256").update(bytes).digest("hex");
  const type = "audio/wav";
  await sql.query("insert into attachments (hash, type, bytes) values ($1, $2, $3) on conflict (hash) do nothing", [hash, type, bytes]);
  return { hash, type };
}

export function recordingTooLarge(bytes: number): string {
  return `The recording has ${size(bytes)}; up to ${size(MOST_RECORDING_BYTES)} are kept. It was looked at all the same: cut it shorter to keep it.`;
}

/** Of the photos and recordings that lines refer to, those that this shop does not have, or has as the other of the two. */
export async function missingOf(sql: Sql, references: StoredReference[]): Promise<(StoredReference & FieldError)[]> {
  if (references.length === 0) return [];
  const rows = await sql.query<{ hash: string; type: string }>("select hash, type from attachments where hash = any($1::text[])", [
    [...new Set(references.map((r) => r.hash))],
  ]);
  const kindOf = new Map(rows.map((r) => [r.hash, r.type.startsWith("audio/") ? "recording" : "photo"]));
  return references
    .filter((r) => kindOf.get(r.hash) !== r.kind)
    .map((r) => ({
      ...r,
      field: r.kind,
      message: `a ${r.kind} that is stored here is wanted; ${r.hash.slice(0, 8)}… is ${kindOf.has(r.hash) ? `a ${kindOf.get(r.hash)}` : "not stored"}`,
    }));
}

export async function getAttachment(sql: Sql, hash: string): Promise<Attachment> {
  const [row] = await sql.query<Attachment>("select hash, type, bytes from attachments where hash = $1", [hash]);
  if (!row) throw new UserError(404, "There is no such photo or recording here.");
  return row;
}

export function tooLarge(bytes: number): string {
  return `The photo has ${size(bytes)}; up to ${size(MOST_PHOTO_BYTES)} are taken. Make it smaller in the camera's settings or crop it.`;
}

const size = (bytes: number) => (bytes >= 1024 * 1024 ? `${fixed(bytes / 1024 / 1024, 1)} MB` : `${Math.ceil(bytes / 1024)} kB`);
const headOf = (bytes: Uint8Array) => Array.from(bytes.slice(0, 8), (b) => (b >= 32 && b < 127 ? String.fromCharCode(b) : "·")).join("");
