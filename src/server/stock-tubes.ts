/** The shop's stock of tubes in the database: tubes, tests and moves are added; nothing is changed or deleted. */

import type { NewStockTest, NewStockTube, StockMove, StockTest, StockTube } from "@/core/shop/stock-tubes";
import type { Sql } from "./database";
import { UserError } from "./errors";

type Optional<T> = { [K in keyof T]: T[K] | null };

const given = <T extends object>(row: Optional<T>): T => Object.fromEntries(Object.entries(row).filter(([, value]) => value !== null)) as T;

/** Every tube with its tests and moves, by number. */
export async function stockTubes(sql: Sql): Promise<StockTube[]> {
  const tubes = await sql.query<Optional<{ number: number; type: string; note: string }>>(
    "select id as number, type, note from stock_tubes order by id",
  );
  const tests = await sql.query<Optional<StockTest> & { tube: number; at: Date }>(
    `select tube, id, at, who, milliamps, gm, plate_volts as "plateVolts", screen_volts as "screenVolts", grid_volts as "gridVolts", shorts, note
     from stock_tube_tests order by id`,
  );
  const moves = await sql.query<{ tube: number; at: Date; who: string; place: string }>(
    "select tube, at, who, place from stock_tube_moves order by id",
  );
  const iso = <T extends { at: Date | string | null }>(row: T) => ({ ...row, at: new Date(row.at!).toISOString() });
  const made = new Map(
    tubes.map((t) => [
      t.number!,
      { ...given<{ number: number; type: string; note?: string }>(t), tests: [] as StockTest[], moves: [] as StockMove[] },
    ]),
  );
  for (const { tube, ...test } of tests) made.get(tube)!.tests.push(given<StockTest>(iso(test)));
  for (const { tube, ...move } of moves) made.get(tube)!.moves.push(iso(move));
  return [...made.values()];
}

/** Takes a tube in; gives its number. */
export async function addStockTube(sql: Sql, { type, place, note }: NewStockTube, who: string): Promise<number> {
  const [row] = await sql.query<{ number: number }>(
    "insert into stock_tubes (type, note, made_by) values ($1, $2, $3) returning id as number",
    [type.trim().toUpperCase(), note?.trim() || null, who],
  );
  await moveStockTube(sql, row!.number, place, who);
  return row!.number;
}

/** @throws UserError 404 for a number that is not in the stock. */
export async function testStockTube(sql: Sql, number: number, test: NewStockTest, who: string): Promise<void> {
  await wanted(sql, number);
  await sql.query(
    `insert into stock_tube_tests (tube, who, milliamps, gm, plate_volts, screen_volts, grid_volts, shorts, note)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      number,
      who,
      test.milliamps,
      test.gm ?? null,
      test.plateVolts,
      test.screenVolts ?? null,
      test.gridVolts,
      test.shorts?.trim() || null,
      test.note?.trim() || null,
    ],
  );
}

/** Says where it is from now on. @throws UserError 404 for a number that is not in the stock. */
export async function moveStockTube(sql: Sql, number: number, place: string, who: string): Promise<void> {
  await wanted(sql, number);
  await sql.query("insert into stock_tube_moves (tube, who, place) values ($1, $2, $3)", [number, who, place.trim()]);
}

async function wanted(sql: Sql, number: number): Promise<void> {
  const [row] = await sql.query("select 1 from stock_tubes where id = $1", [number]);
  if (!row) throw new UserError(404, `There is no tube number ${number} in this shop's stock.`);
}
