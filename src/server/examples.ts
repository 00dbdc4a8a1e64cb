/** The circuits that come with the program: laid into a library once, marked as examples, taken out by whoever does not want them. */

import { existsSync } from "node:fs";
import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { readCircuit } from "@/core/circuit/read";
import type { Database, Sql } from "./database";
import { UserError } from "./errors";
import { addModel } from "./models";

const FOLDER = join(/* turbopackIgnore: true */ process.cwd(), "demo/amps");

/** @returns how many were laid in; none where it was done before, or where the program was installed without them. A model that the shop has under that name stays as it is. */
export async function layExamples(database: Database, folder = FOLDER): Promise<number> {
  if (!existsSync(/* turbopackIgnore: true */ folder)) return 0;
  return database.transaction(async (sql) => {
    const [done] = await sql.query("insert into done_once (what) values ('examples') on conflict do nothing returning what");
    if (!done) return 0;
    let laid = 0;
    for (const file of (await readdir(/* turbopackIgnore: true */ folder)).filter((f) => f.endsWith(".cir")).sort()) {
      const netlist = await readFile(/* turbopackIgnore: true */ join(folder, file), "utf8");
      const { maker, model } = readCircuit(netlist).circuit.facts;
      const there = await sql.query("select 1 from amp_models where maker = $1 and name = $2", [maker, model]);
      if (there.length > 0) continue;
      const { id } = await addModel(sql, netlist);
      await sql.query("update amp_models set example = true where id = $1", [id]);
      laid += 1;
    }
    return laid;
  });
}

/**
 * Takes an example out of the library with all its versions.
 * @throws UserError 404 where there is no such model, 409 where it is the shop's own or a job uses it.
 */
export async function removeExample(sql: Sql, id: number): Promise<void> {
  const [model] = await sql.query<{ maker: string; name: string; example: boolean }>(
    "select maker, name, example from amp_models where id = $1",
    [id],
  );
  if (!model) throw new UserError(404, `There is no amp model ${id} here.`);
  if (!model.example) throw new UserError(409, `${model.maker} ${model.name} is a model of this shop. Only examples can be taken out.`);
  const [job] = await sql.query<{ id: number }>(
    "select j.id from jobs j join amp_models m on m.id = j.model_id where m.maker = $1 and m.name = $2 order by j.id limit 1",
    [model.maker, model.name],
  );
  if (job) throw new UserError(409, `Job ${job.id} uses ${model.maker} ${model.name}: it stays in the library.`);
  await sql.query("delete from amp_models where maker = $1 and name = $2", [model.maker, model.name]);
}
