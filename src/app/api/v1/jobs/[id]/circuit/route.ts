import { NextResponse } from "next/server";
import { CircuitBody, readBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { UserError } from "@/server/errors";
import { giveCircuit } from "@/server/shop";

/** Gives the job a circuit, or another one: `{who, netlist}` or `{who, modelId}`. The change is a line on the tape. */
export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const id = numberIn((await params).id);
    const { who, netlist, modelId } = await readBody(request, CircuitBody);
    const circuit = netlist ?? modelId;
    if (circuit === undefined) throw new UserError(400, "A circuit file (netlist) or a model of the library (modelId) is wanted.");
    return NextResponse.json(await giveCircuit(await db(), id, (await signerOf(request, who)).initials, circuit));
  });
}
