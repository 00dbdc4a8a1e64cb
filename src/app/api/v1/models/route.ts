import { NextResponse } from "next/server";
import { ModelBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { addModel } from "@/server/models";

/** Stores a circuit file as its model's next version: `{netlist}`. Its `*@fact maker=` and `model=` say which model it is. */
export function POST(request: Request) {
  return respond(async () => {
    const body = await readBody(request, ModelBody);
    const model = await addModel(await db(), body.netlist);
    return NextResponse.json({ id: model.id, maker: model.maker, name: model.name, version: model.version }, { status: 201 });
  });
}
