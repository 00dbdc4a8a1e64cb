import { NextResponse } from "next/server";
import { EventsBody, readBody } from "@/app/api/bodies";
import { numberIn, respond } from "@/app/api/respond";
import { MOST_LINES } from "@/core/tape/events/words";
import { db } from "@/server/db";
import { signedEvents } from "@/server/door/door";
import { UserError } from "@/server/errors";
import { append } from "@/server/tape";
import { getJob, readTape } from "@/server/tape-read";

type Context = { params: Promise<{ id: string }> };

/** The tape after line `after`. */
export function GET(request: Request, { params }: Context) {
  return respond(async () => {
    const id = numberIn((await params).id);
    const after = Number(new URL(request.url).searchParams.get("after") ?? 0);
    if (!Number.isInteger(after) || after < 0 || after > MOST_LINES) throw new UserError(400, "after: the number of a line is wanted.");
    const sql = await db();
    await getJob(sql, id);
    return NextResponse.json({ events: await readTape(sql, id, after), now: new Date().toISOString() });
  });
}

/** Appends events: `{events: [{id, at, who, type, payload, supersedes?, reason?}]}`. */
export function POST(request: Request, { params }: Context) {
  return respond(async () => {
    const id = numberIn((await params).id);
    const { events, role } = await signedEvents(request, (await readBody(request, EventsBody)).events);
    return NextResponse.json({ events: await append(await db(), id, events, role) });
  });
}
