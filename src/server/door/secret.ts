/** Signing of what leaves the shop and comes back: session cookies, links to a report. */

import { createHash, createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import type { Sql } from "../database";

/** The door is shut where other machines can reach it: everybody has to say who they are. `scripts/serve.mjs` sets it by the address it listens on. */
export const doorShut = (): boolean => process.env.SCUTUM_DOOR === "shut";

const kept = new WeakMap<Sql, string>();

async function secretOf(sql: Sql): Promise<string> {
  const known = kept.get(sql);
  if (known) return known;
  await sql.query("insert into door (id, secret) values (1, $1) on conflict (id) do nothing", [randomBytes(32).toString("base64url")]);
  const [row] = await sql.query<{ secret: string }>("select secret from door where id = 1");
  kept.set(sql, row!.secret);
  return row!.secret;
}

const macOf = (secret: string, value: string) => createHmac("sha256", secret).update(value).digest("base64url");

/** "value.signature" */
export async function signed(sql: Sql, value: string): Promise<string> {
  return `${value}.${macOf(await secretOf(sql), value)}`;
}

/** The value of a signed text, or undefined when the signature is not this shop's. */
export async function unsigned(sql: Sql, text: string): Promise<string | undefined> {
  const dot = text.lastIndexOf(".");
  if (dot < 1 || text.length > 300) return undefined;
  const value = text.slice(0, dot);
  const [given, right] = [Buffer.from(text.slice(dot + 1)), Buffer.from(macOf(await secretOf(sql), value))];
  return given.length === right.length && timingSafeEqual(given, right) ? value : undefined;
}

export const hashOf = (text: string): string => createHash("sha256").update(text).digest("hex");
