/** Who is signed in: a cookie that carries a random name, signed; its hash in the database, so that it can be ended from here. */

import { randomUUID } from "node:crypto";
import type { Person } from "@/core/shop/people";
import type { Sql } from "../database";
import { UserError } from "../errors";
import { personBy } from "./people";
import { hashOf, signed, unsigned } from "./secret";
import { tries } from "./tries";

export const SESSION_COOKIE = "scutum-session";
/** A session that was not used for so long has ended. */
export const SESSION_DAYS = 30;

/**
 * Signs somebody in. Gives the cookie's value.
 * @param from the address that asks, for the limit on tries.
 * @throws UserError 401 when initials and passphrase do not belong together, 429 after too many tries.
 */
export async function signIn(
  sql: Sql,
  initials: string,
  passphrase: string,
  from: string,
  device: string,
): Promise<{ cookie: string; person: Person }> {
  const keys = [`from ${from}`, `as ${initials}`];
  const wait = Math.max(...keys.map((k) => tries().waitOf(k)));
  if (wait > 0)
    throw new UserError(
      429,
      `Too many tries. Try again in ${wait < 90_000 ? `${Math.ceil(wait / 1000)} s` : `${Math.ceil(wait / 60_000)} min`}.`,
    );
  const person = await personBy(sql, initials, passphrase);
  if (!person) {
    for (const k of keys) tries().failed(k);
    throw new UserError(401, "Initials and passphrase do not belong together.");
  }
  for (const k of keys) tries().succeeded(k);
  return { cookie: await openSession(sql, person.id, device), person };
}

export async function openSession(sql: Sql, personId: number, device: string): Promise<string> {
  const name = randomUUID();
  await sql.query("delete from sessions where seen_at < now() - make_interval(days => $1)", [SESSION_DAYS]);
  await sql.query("insert into sessions (id, person_id, device) values ($1, $2, $3)", [hashOf(name), personId, device.slice(0, 200)]);
  return signed(sql, name);
}

/** The person whose session a cookie is, or undefined. */
export async function personOfCookie(sql: Sql, cookie: string | undefined): Promise<Person | undefined> {
  const name = cookie && (await unsigned(sql, cookie));
  if (!name) return undefined;
  const [row] = await sql.query<Person & { old: boolean }>(
    `select p.id, p.initials, p.name, p.role, s.seen_at < now() - interval '1 hour' as old
     from sessions s join people p on p.id = s.person_id
     where s.id = $1 and p.active and s.seen_at > now() - make_interval(days => $2)`,
    [hashOf(name), SESSION_DAYS],
  );
  if (!row) return undefined;
  if (row.old) await sql.query("update sessions set seen_at = now() where id = $1", [hashOf(name)]);
  return { id: row.id, initials: row.initials, name: row.name, role: row.role };
}

/** Ends the session of a cookie. */
export async function signOut(sql: Sql, cookie: string): Promise<void> {
  const name = await unsigned(sql, cookie);
  if (name) await sql.query("delete from sessions where id = $1", [hashOf(name)]);
}

/** Ends every session of a person, on every device. */
export async function signOutEverywhere(sql: Sql, personId: number): Promise<void> {
  await sql.query("delete from sessions where person_id = $1", [personId]);
}
