/** Parts with a bad name in this shop, in the database: names and evidence are added; a name is withdrawn by a line that says why. */

import type { BadName, NewBadName } from "@/core/shop/bad-names";
import type { Database, Sql } from "./database";
import { UserError } from "./errors";

/** Those that stand, each with its evidence, oldest first. */
export async function badNames(sql: Sql): Promise<BadName[]> {
  const names = await sql.query<{
    id: number;
    letter: BadName["letter"];
    words: string;
    from: number | null;
    to: number | null;
    does: string;
  }>(`select id, letter, words, from_year as "from", to_year as "to", does from bad_names order by id`);
  const lines = await sql.query<{
    name: number;
    job: number | null;
    line: number | null;
    text: string;
    at: Date | string;
    who: string;
    withdraws: boolean;
  }>("select name, job, line, text, at, who, withdraws from bad_name_evidence order by id");
  return names.flatMap(({ id, letter, words, from, to, does }): BadName[] => {
    const own = lines.filter((l) => l.name === id);
    if (own.at(-1)?.withdraws) return [];
    return [
      {
        id,
        letter,
        words,
        ...(from === null ? {} : { fromYear: from }),
        ...(to === null ? {} : { toYear: to }),
        does,
        evidence: own
          .filter((l) => !l.withdraws)
          .map((l) => ({
            text: l.text,
            at: new Date(l.at).toISOString(),
            who: l.who,
            ...(l.job === null ? {} : { job: l.job }),
            ...(l.line === null ? {} : { line: l.line }),
          })),
      },
    ];
  });
}

/** Remembers a name with its first evidence. */
export async function addBadName(database: Database, { evidence, ...name }: NewBadName, who: string): Promise<number> {
  return database.transaction(async (sql) => {
    const [row] = await sql.query<{ id: number }>(
      "insert into bad_names (letter, words, from_year, to_year, does, made_by) values ($1, $2, $3, $4, $5, $6) returning id",
      [name.letter, name.words.trim(), name.fromYear ?? null, name.toYear ?? null, name.does.trim(), who],
    );
    await addEvidence(sql, row!.id, evidence, who);
    return row!.id;
  });
}

/** One more case of it, or why it no longer stands. @throws UserError 404 for a name that is not there. */
export async function addEvidence(
  sql: Sql,
  name: number,
  { job, line, text, withdraws = false }: NewBadName["evidence"] & { withdraws?: boolean },
  who: string,
): Promise<void> {
  const [row] = await sql.query("select 1 from bad_names where id = $1", [name]);
  if (!row) throw new UserError(404, `There is no bad name number ${name} in this shop.`);
  await sql.query("insert into bad_name_evidence (name, who, job, line, text, withdraws) values ($1, $2, $3, $4, $5, $6)", [
    name,
    who,
    job ?? null,
    line ?? null,
    text.trim(),
    withdraws,
  ]);
}
