/** Tokens of instruments and bridges: each belongs to a bench, opens the ways of instruments only, and can be revoked. */

import { randomBytes } from "node:crypto";
import type { Sql } from "../database";
import { UserError } from "../errors";
import { hashOf } from "./secret";

export interface BenchToken {
  id: number;
  bench: string;
  madeAt: string;
  madeBy: string;
}

export async function listTokens(sql: Sql): Promise<BenchToken[]> {
  const rows = await sql.query<BenchToken>(`select id, bench, made_at as "madeAt", made_by as "madeBy" from bench_tokens order by id`);
  return rows.map((r) => ({ ...r, madeAt: new Date(r.madeAt).toISOString() }));
}

/** Makes a token. Its text is given once and is not kept. */
export async function addToken(sql: Sql, bench: string, by: string): Promise<{ id: number; token: string }> {
  const token = `scutum-${randomBytes(24).toString("base64url")}`;
  const [row] = await sql.query<{ id: number }>("insert into bench_tokens (bench, hash, made_by) values ($1, $2, $3) returning id", [
    bench,
    hashOf(token),
    by,
  ]);
  return { id: row!.id, token };
}

/** @throws UserError 404 when there is none. */
export async function revokeToken(sql: Sql, id: number): Promise<void> {
  const gone = await sql.query("delete from bench_tokens where id = $1 returning id", [id]);
  if (gone.length === 0) throw new UserError(404, `There is no token ${id} here.`);
}

/** The bench of a token and who made it, or undefined. */
export async function benchOfToken(sql: Sql, token: string): Promise<Pick<BenchToken, "bench" | "madeBy"> | undefined> {
  const [row] = await sql.query<Pick<BenchToken, "bench" | "madeBy">>(
    `select bench, made_by as "madeBy" from bench_tokens where hash = $1`,
    [hashOf(token)],
  );
  return row;
}

/** What an instrument may ask for: its bench's lines, and readings handed in. */
export const instrumentMay = (method: string, path: string): boolean =>
  /^\/api\/v1\/jobs\/\d{1,9}\/bench$/.test(path) || (method === "POST" && /^\/api\/v1\/jobs\/\d{1,9}\/readings$/.test(path));
