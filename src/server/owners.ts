/** The owners of amps: known by name, two of one name by where they are reached. */

import type { Sql } from "./database";
import { UserError } from "./errors";

export interface OwnerAsked {
  name: string;
  contact: string;
  /** Whether somebody of that name who is reached elsewhere is the same person. */
  same: boolean;
}

const alike = (a: string, b: string) => a.trim().toLowerCase().replace(/\s+/g, " ") === b.trim().toLowerCase().replace(/\s+/g, " ");

/** @throws UserError 409 when a name is known with another contact: it cannot be told whether it is the same person. */
export async function refuseUnclearOwner(sql: Sql, name: string, contact: string): Promise<true> {
  const known = await sql.query<{ contact: string }>("select contact from owners where name = $1 order by id", [name]);
  const other = known.at(-1);
  if (contact !== "" && other && !known.some((o) => o.contact === "" || alike(o.contact, contact))) {
    const message = `There is an owner ${name} already, reached at “${other.contact}”. Is it the same person with a new contact, or another person of that name?`;
    throw new UserError(409, message, [{ field: "sameOwner", message }]);
  }
  return true;
}

/** The owner's number; a new one where there is none. A contact that was not known is added, another one replaces it where it is the same person. */
export async function ownerOf(sql: Sql, { name, contact, same }: OwnerAsked): Promise<number> {
  const known = await sql.query<{ id: number; contact: string }>("select id, contact from owners where name = $1 order by id", [name]);
  const here =
    known.find((o) => contact !== "" && alike(o.contact, contact)) ?? (contact === "" ? known.at(-1) : known.find((o) => o.contact === ""));
  if (here) {
    if (contact !== "" && here.contact === "") await sql.query("update owners set contact = $2 where id = $1", [here.id, contact]);
    return here.id;
  }
  const other = known.at(-1);
  if (other && same) {
    await sql.query("update owners set contact = $2 where id = $1", [other.id, contact]);
    return other.id;
  }
  const [made] = await sql.query<{ id: number }>("insert into owners (name, contact) values ($1, $2) returning id", [name, contact]);
  return made!.id;
}

export async function ownerNames(sql: Sql): Promise<string[]> {
  return (await sql.query<{ name: string }>("select distinct name from owners order by name")).map((r) => r.name);
}
