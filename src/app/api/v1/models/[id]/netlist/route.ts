import { numberIn, respond } from "@/app/api/respond";
import { readCircuit } from "@/core/circuit/read";
import { exportSpice } from "@/core/solver/spice-export";
import { db } from "@/server/db";
import { getModel } from "@/server/models";

/** The circuit file of a model as it was stored, or with `?form=spice` as a general SPICE runs it. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const model = await getModel(await db(), numberIn((await params).id, "amp model"));
    const spice = new URL(request.url).searchParams.get("form") === "spice";
    const text = spice ? exportSpice(readCircuit(model.netlist).circuit) : model.netlist;
    const file = `${model.maker}-${model.name}-${model.version}${spice ? "-spice" : ""}`.replace(/[^\w-]+/g, "-");
    return new Response(text, {
      headers: { "content-type": "text/plain; charset=utf-8", "content-disposition": `attachment; filename="${file}.cir"` },
    });
  });
}
