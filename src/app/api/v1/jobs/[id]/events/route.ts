import { NextResponse } from "next/server";
import { jobNumber, readJson, respond } from "@/app/api/respond";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { append, getJob, readTape, type IncomingEvent } from "@/server/tape";

type Context = { params: Promise<{ id: string }> };

/** The tape after line `after`. */
export function GET(request: Request, { params }: Context) {
  return respond(async () => {
    const id = jobNumber((await params).id);
    const after = Number(new URL(request.url).searchParams.get("after") ?? 0);
    if (!Number.isInteger(after) || after < 0) throw new UserError(400, "after: the number of a line is wanted.");
    const sql = await db();
    await getJob(sql, id);
    return NextResponse.json({ events: await readTape(sql, id, after), now: new Date().toISOString() });
  });
}

/** Appends events: `{events: [{id, at, who, type, payload, supersedes?, reason?}]}`. */
export function POST(request: Request, { params }: Context) {
  return respond(async () => {
    const id = jobNumber((await params).id);
    const body = (await readJson(request)) as { events?: IncomingEvent[] } | null;
    return NextResponse.json({ events: await append(await db(), id, body?.events ?? []) });
  });
}
