/** Amp models: netlists in versions. A job pins the version that it used. */

import { readCircuit, type ReadResult } from "@/core/circuit/read";
import type { Sql } from "./database";
import { UserError } from "./errors";

export interface AmpModel {
  id: number;
  maker: string;
  name: string;
  version: number;
  netlist: string;
}

/** The newest version of each model. */
export async function listModels(sql: Sql): Promise<Omit<AmpModel, "netlist">[]> {
  return sql.query("select distinct on (maker, name) id, maker, name, version from amp_models order by maker, name, version desc");
}

/** The newest version of each model with its netlist, for the library's list; those of the shop before the examples. */
export async function libraryModels(sql: Sql): Promise<(AmpModel & { example: boolean })[]> {
  return sql.query(
    `select * from (select distinct on (maker, name) id, maker, name, version, netlist, example from amp_models order by maker, name, version desc) m
     order by example, maker, name`,
  );
}

/** All versions of one model, newest first. */
export async function modelVersions(sql: Sql, maker: string, name: string): Promise<Omit<AmpModel, "netlist">[]> {
  return sql.query("select id, maker, name, version from amp_models where maker = $1 and name = $2 order by version desc", [maker, name]);
}

export async function getModel(sql: Sql, id: number): Promise<AmpModel> {
  const [model] = await sql.query<AmpModel>("select id, maker, name, version, netlist from amp_models where id = $1", [id]);
  if (!model) throw new UserError(404, `There is no amp model ${id} here.`);
  return model;
}

const MOST_BYTES = 1_000_000;

/** Stores a netlist as a model's next version; one that is already its newest is not stored twice. */
export async function addModel(sql: Sql, netlist: string, fallback: { maker?: string; name?: string } = {}): Promise<AmpModel> {
  if (netlist.length > MOST_BYTES)
    throw new UserError(413, `The circuit file has ${netlist.length} characters; up to ${MOST_BYTES} are read.`);
  const read: ReadResult = readCircuit(netlist);
  if (read.errors.length > 0) {
    const details = read.errors.map((e) => ({ line: e.line, message: `found ${e.found}; expected ${e.expected}` }));
    throw new UserError(
      422,
      `The circuit file has ${read.errors.length} ${read.errors.length === 1 ? "line" : "lines"} that cannot be read.`,
      details,
    );
  }
  const maker = read.circuit.facts.maker ?? fallback.maker ?? "Unknown maker";
  const name = read.circuit.facts.model ?? fallback.name ?? (read.circuit.title || "Unnamed");
  const [last] = await sql.query<AmpModel>(
    "select id, maker, name, version, netlist from amp_models where maker = $1 and name = $2 order by version desc limit 1",
    [maker, name],
  );
  if (last?.netlist === netlist) return last;
  const [row] = await sql.query<AmpModel>(
    "insert into amp_models (maker, name, version, netlist) values ($1, $2, $3, $4) returning id, maker, name, version, netlist",
    [maker, name, (last?.version ?? 0) + 1, netlist],
  );
  return row!;
}
