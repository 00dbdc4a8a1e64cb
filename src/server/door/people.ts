/** The people of the shop, with their passphrases as argon2id. */

import { hash, verify } from "argon2";
import type { Person, Role } from "@/core/shop/people";
import type { Database, Sql } from "../database";
import { UserError } from "../errors";

export interface KnownPerson extends Person {
  /** False for somebody who has left. */
  active: boolean;
}

const COLUMNS = "id, initials, name, role, active";

export async function listPeople(sql: Sql): Promise<KnownPerson[]> {
  return sql.query(`select ${COLUMNS} from people order by active desc, initials`);
}

/** Nobody is known yet: the first to come, with the code from the terminal, becomes the owner. */
export async function nobodyKnown(sql: Sql): Promise<boolean> {
  return (await sql.query("select 1 from people limit 1")).length === 0;
}

export interface NewPerson {
  initials: string;
  name: string;
  role: Role;
  passphrase: string;
}

/** @throws UserError 409 when somebody has these initials already. */
export async function addPerson(sql: Sql, { initials, name, role, passphrase }: NewPerson): Promise<KnownPerson> {
  const [row] = await sql.query<KnownPerson>(
    `insert into people (initials, name, role, passphrase) values ($1, $2, $3, $4) on conflict (initials) do nothing returning ${COLUMNS}`,
    [initials, name, role, await hash(passphrase)],
  );
  if (!row) throw new UserError(409, `Somebody has the initials ${initials} already. Choose others: the tapes are signed by them.`);
  return row;
}

export interface PersonChange {
  name?: string;
  role?: Role;
  active?: boolean;
  passphrase?: string;
}

/** Changes a person; a new passphrase, another role, or leaving ends their sessions. @throws UserError 404, or 409 when no owner would be left. */
export async function changePerson(database: Database, id: number, change: PersonChange): Promise<KnownPerson> {
  const passphrase = change.passphrase === undefined ? null : await hash(change.passphrase);
  return database.transaction(async (sql) => {
    const [row] = await sql.query<KnownPerson>(
      `update people set name = coalesce($2, name), role = coalesce($3, role), active = coalesce($4, active), passphrase = coalesce($5, passphrase)
       where id = $1 returning ${COLUMNS}`,
      [id, change.name ?? null, change.role ?? null, change.active ?? null, passphrase],
    );
    if (!row) throw new UserError(404, `There is no person ${id} here.`);
    const owners = await sql.query("select 1 from people where role = 'owner' and active limit 1");
    if (owners.length === 0) throw new UserError(409, "Nobody would be left who may change the shop: make somebody else its owner first.");
    if (passphrase !== null || change.role !== undefined || change.active === false)
      await sql.query("delete from sessions where person_id = $1", [id]);
    return row;
  });
}

/** Costs the same time whether somebody has these initials or not, so that nobody learns by it who is here. */
let nobody: Promise<string> | undefined;

/** The person with these initials and this passphrase, or undefined. */
export async function personBy(sql: Sql, initials: string, passphrase: string): Promise<Person | undefined> {
  const [row] = await sql.query<Person & { passphrase: string }>(
    "select id, initials, name, role, passphrase from people where initials = $1 and active",
    [initials],
  );
  const right = await verify(row?.passphrase ?? (await (nobody ??= hash("nobody has this passphrase"))), passphrase);
  return row && right ? { id: row.id, initials: row.initials, name: row.name, role: row.role } : undefined;
}
