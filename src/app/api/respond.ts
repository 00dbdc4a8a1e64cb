/** What every route handler shares: errors in words, bodies of bounded size. */

import { NextResponse } from "next/server";
import { refusalOf } from "@/app/same-site";
import { getAttachment } from "@/server/attachments";
import { db } from "@/server/db";
import { refuseStranger } from "@/server/door/door";
import { explain, UserError } from "@/server/errors";
import { parseJson } from "@/server/json";

/** Runs a handler; what the person can mend comes back as `{error, details}`, anything else as a plain 500. */
export async function respond(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (thrown) {
    const error = explain(thrown);
    if (error instanceof UserError) return NextResponse.json({ error: error.message, details: error.details }, { status: error.status });
    console.error(error);
    return NextResponse.json(
      { error: "Something failed inside Scutum. What you typed is kept; the server's log says more." },
      { status: 500 },
    );
  }
}

/** For the routes that the proxy leaves out: no foreign site, nobody who is not signed in. @throws UserError 401, 403 or 421. */
export async function atTheDoor(request: Request): Promise<void> {
  const refused = refusalOf(request);
  if (refused) throw new UserError(refused.status, refused.error);
  await refuseStranger(request);
}

/** Reads a body up to `most` bytes. @throws UserError 413 with `tooLarge(bytes)` once it is longer. */
export async function readBytes(request: Request, most: number, tooLarge: (bytes: number) => string): Promise<Uint8Array> {
  const declared = Number(request.headers.get("content-length") ?? 0);
  if (declared > most) throw new UserError(413, tooLarge(declared));
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > most) {
      await reader.cancel();
      throw new UserError(413, tooLarge(size));
    }
    parts.push(value);
  }
  const out = new Uint8Array(size);
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}

/** @throws UserError 400 when the bytes are no UTF-8 or hold a NUL, 413 when there are too many. */
export async function readText(request: Request, most = 2_000_000): Promise<string> {
  const bytes = await readBytes(request, most, (n) => `The request has ${n} bytes; up to ${most} are read.`);
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new UserError(400, "The request is not text in UTF-8.");
  }
  if (text.includes("\0")) throw new UserError(400, "The request holds a NUL character; text is wanted.");
  return text;
}

export async function readJson(request: Request, most?: number): Promise<unknown> {
  return parseJson(await readText(request, most));
}

/** The number in the address. @param of what it is one of. @throws UserError 404 when it is none. */
export function numberIn(text: string, of = "job"): number {
  if (!/^\d{1,9}$/.test(text)) throw new UserError(404, `There is no ${of} ${JSON.stringify(text.slice(0, 20))} here.`);
  return Number(text);
}

/** A stored photo or recording for somebody of the shop. */
export async function attachmentResponse(request: Request, hash: string): Promise<Response> {
  await atTheDoor(request);
  return attachmentAnswer(hash);
}

/** A stored photo or recording with its checked type; its hash is its name, so that it may be kept for ever. */
export async function attachmentAnswer(hash: string): Promise<Response> {
  const { type, bytes } = await getAttachment(await db(), hash);
  return new Response(Buffer.from(bytes), {
    headers: {
      "content-type": type,
      "cache-control": "private, max-age=31536000, immutable",
      "content-security-policy": "default-src 'none'; sandbox",
      "x-content-type-options": "nosniff",
      "cross-origin-resource-policy": "same-origin",
    },
  });
}
