import { NextResponse } from "next/server";
import { jobNumber, readJson, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { giveCircuit } from "@/server/shop";

/** Gives the job a circuit, or another one: `{who, netlist}` or `{who, modelId}`. The change is a line on the tape. */
export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const id = jobNumber((await params).id);
    const body = (await readJson(request)) as { who?: string; netlist?: string; modelId?: number } | null;
    const netlist = typeof body?.netlist === "string" && body.netlist.trim() ? body.netlist : undefined;
    if (!netlist && !Number.isInteger(body?.modelId))
      throw new UserError(400, "A circuit file (netlist) or a model of the library (modelId) is wanted.");
    return NextResponse.json(await giveCircuit(await db(), id, body?.who ?? "", netlist ?? body!.modelId!));
  });
}
