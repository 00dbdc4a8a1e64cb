import { numberIn, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { getModel } from "@/server/models";
import { benchSheetApart } from "@/server/paper/paper";
import { getSettings } from "@/server/settings";

const SIZES = { a4: "A4", a3: "A3", letter: "LETTER" } as const;

/** The bench sheet of a model as PDF: `?paper=a4`, `a3` or `letter`, `?mains=` volts at the wall. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return respond(async () => {
    const sql = await db();
    const model = await getModel(sql, numberIn((await params).id, "amp model"));
    const asked = new URL(request.url).searchParams;
    const paper = asked.get("paper") ?? "a4";
    if (!(paper in SIZES)) throw new UserError(422, `The paper reads "${paper}"; accepted: a4, a3, letter.`);
    const typed = asked.get("mains");
    const mains = typed === null ? undefined : Number(typed);
    if (mains !== undefined && !(mains > 0 && mains <= 500)) throw new UserError(422, `The mains reads "${typed}"; accepted: 1 to 500 V.`);
    const pdf = await benchSheetApart(await getSettings(sql), model.netlist, mains, SIZES[paper as keyof typeof SIZES]);
    const file = `${model.maker}-${model.name}-${model.version}-bench-sheet`.replace(/[^\w-]+/g, "-");
    return new Response(new Uint8Array(pdf), {
      headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="${file}.pdf"` },
    });
  });
}
