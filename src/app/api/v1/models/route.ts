import { NextResponse } from "next/server";
import { readJson, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { addModel } from "@/server/models";

/** Stores a circuit file as its model's next version: `{netlist}`. Its `*@fact maker=` and `model=` say which model it is. */
export function POST(request: Request) {
  return respond(async () => {
    const body = (await readJson(request)) as { netlist?: unknown } | null;
    if (typeof body?.netlist !== "string" || body.netlist.trim() === "") throw new UserError(400, "A circuit file (netlist) is wanted.");
    const model = await addModel(await db(), body.netlist);
    return NextResponse.json({ id: model.id, maker: model.maker, name: model.name, version: model.version }, { status: 201 });
  });
}
