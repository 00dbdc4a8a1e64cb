import { NextResponse } from "next/server";
import { NewJobBody, readBody } from "@/app/api/bodies";
import { respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { UserError } from "@/server/errors";
import { addModel, getModel } from "@/server/models";
import { checkIncoming, type IncomingEvent } from "@/server/incoming";
import { refuseUnclearOwner } from "@/server/owners";
import { appendIn, openJob } from "@/server/tape";

/** Opens a job: `{who, owner, amp, …}`; the model is one of the library or comes with its circuit file. */
export function POST(request: Request) {
  return respond(async () => {
    const body = await readBody(request, NewJobBody);
    const who = (await signerOf(request, body.who)).initials;
    const text = (value?: string) => value?.trim() ?? "";
    const missing = [
      !text(body.owner) && { field: "owner", message: "The owner's name is wanted." },
      !text(body.amp) && { field: "amp", message: "What amp is it? A name is enough." },
    ].filter((x) => x !== false);
    if (missing.length > 0) throw new UserError(422, missing[0]!.message, missing);
    const opening: IncomingEvent[] = [
      {
        type: "job-opened",
        payload: { owner: text(body.owner), amp: text(body.amp), ...(text(body.contact) ? { contact: text(body.contact) } : {}) },
        who,
      },
    ];
    if (text(body.serial) || text(body.maker)) {
      opening.push({
        type: "identity",
        payload: {
          model: text(body.amp),
          ...(text(body.maker) ? { maker: text(body.maker) } : {}),
          ...(text(body.serial) ? { serial: text(body.serial) } : {}),
        },
        who,
      });
    }
    if (text(body.complaint)) opening.push({ type: "complaint", payload: { words: text(body.complaint), when: [] }, who });
    checkIncoming(opening);
    const database = await db();
    const id = await database.transaction(async (sql) => {
      // Asked here, since here somebody can answer.
      const sameOwner = body.sameOwner ?? (await refuseUnclearOwner(sql, text(body.owner), text(body.contact)));
      const model = text(body.netlist)
        ? await addModel(sql, body.netlist!, { maker: text(body.maker) || undefined, name: text(body.amp) })
        : body.modelId
          ? await getModel(sql, body.modelId)
          : undefined;
      const head = await openJob(sql, {
        owner: text(body.owner),
        contact: text(body.contact),
        sameOwner,
        amp: text(body.amp),
        serial: text(body.serial),
        modelId: model?.id,
        who,
      });
      await appendIn(sql, head.id, opening);
      return head.id;
    });
    await database.announce(id);
    return NextResponse.json({ id }, { status: 201 });
  });
}
