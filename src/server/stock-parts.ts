/** The shop's stock of parts in the database: parts are added, their pieces come and go as lines. */

import type { NewStockPart, PartWanted, StockPart } from "@/core/shop/stock-parts";
import type { Database, Sql } from "./database";
import { UserError } from "./errors";

type Optional<T> = { [K in keyof T]: T[K] | null };

/** Every part with the pieces at hand, by number. */
export async function stockParts(sql: Sql): Promise<StockPart[]> {
  const rows = await sql.query<Optional<StockPart>>(
    `select p.id as number, letter, value, rating, kind, celsius, hours, ripple, diameter, length, mounting, safety_class as "safetyClass",
       (select minimum from stock_part_minimums where part = p.id order by id desc limit 1) as minimum,
       sections, price::float8 as price, place, coalesce((select sum(pieces) from stock_part_pieces where part = p.id), 0)::int as pieces
     from stock_parts p order by p.id`,
  );
  return rows.map((row) => Object.fromEntries(Object.entries(row).filter(([, value]) => value !== null)) as unknown as StockPart);
}

/** Takes a part in; gives its number. */
export async function addStockPart(database: Database, part: NewStockPart, who: string): Promise<number> {
  return database.transaction(async (sql) => {
    const [row] = await sql.query<{ number: number }>(
      `insert into stock_parts (letter, value, rating, kind, celsius, hours, ripple, diameter, length, mounting, safety_class, sections, price, place, made_by)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12::jsonb, $13, $14, $15) returning id as number`,
      [
        part.letter,
        part.value,
        part.rating,
        part.kind.trim(),
        part.celsius ?? null,
        part.hours ?? null,
        part.ripple ?? null,
        part.diameter ?? null,
        part.length ?? null,
        part.mounting?.trim() || null,
        part.safetyClass ?? null,
        part.sections ? JSON.stringify(part.sections) : null,
        part.price ?? null,
        part.place?.trim() || null,
        who,
      ],
    );
    if (part.pieces > 0)
      await sql.query("insert into stock_part_pieces (part, who, pieces, why) values ($1, $2, $3, $4)", [
        row!.number,
        who,
        part.pieces,
        "taken in",
      ]);
    return row!.number;
  });
}

/** Says how many the shop wants to have at least. @throws UserError 404 for a number that is not there. */
export async function setMinimum(database: Database, number: number, minimum: number, who: string): Promise<void> {
  const [row] = await database.query<{ id: number }>("select id from stock_parts where id = $1", [number]);
  if (!row) throw new UserError(404, `There is no part number ${number} in this shop's stock.`);
  await database.query("insert into stock_part_minimums (part, who, minimum) values ($1, $2, $3)", [number, who, minimum]);
}

/** Open jobs that wait for a part, each with what for. */
export async function waitingForParts(sql: Sql): Promise<PartWanted[]> {
  return sql.query<PartWanted>(
    `select job_id as job, amp, waiting_what as what, waiting_since as since, (digest #>> '{waits,stock}')::int as stock
     from job_summaries where waiting_on = 'part' order by waiting_since`,
  );
}

/** Pieces that came or went. @throws UserError 404 for a number that is not there, 409 for more than there are. */
export async function moveStockPart(
  database: Database,
  number: number,
  pieces: number,
  why: string | undefined,
  who: string,
): Promise<void> {
  await database.transaction((sql) => movePieces(sql, number, pieces, why, who));
}

/** The same inside a transaction that is open already: the drawer and the tape are one act. */
export async function movePieces(sql: Sql, number: number, pieces: number, why: string | undefined, who: string): Promise<void> {
  // Two benches that take the last piece: the second one waits here, and then there is none.
  const [row] = await sql.query<{ id: number }>("select id from stock_parts where id = $1 for update", [number]);
  if (!row) throw new UserError(404, `There is no part number ${number} in this shop's stock.`);
  const [sum] = await sql.query<{ there: number }>("select coalesce(sum(pieces), 0)::int as there from stock_part_pieces where part = $1", [
    number,
  ]);
  if (sum!.there + pieces < 0) throw new UserError(409, `There are ${sum!.there} pieces of number ${number}; ${-pieces} cannot be taken.`);
  await sql.query("insert into stock_part_pieces (part, who, pieces, why) values ($1, $2, $3, $4)", [
    number,
    who,
    pieces,
    why?.trim() || null,
  ]);
}
