import { NextResponse } from "next/server";
import { ReadingsBody, readBody } from "@/app/api/bodies";
import { numberIn, readText, respond } from "@/app/api/respond";
import { conditionsNow, foldJob } from "@/core/tape/fold";
import type { Reading } from "@/core/tape/events/measuring-events";
import { csvToEvents, readingsToCsv } from "@/server/csv";
import { db } from "@/server/db";
import { signedEvents } from "@/server/door/door";
import { viewOf, wholeJob } from "@/server/shop";
import type { IncomingEvent } from "@/server/incoming";
import { append } from "@/server/tape";

type Context = { params: Promise<{ id: string }> };

/** The standing readings as CSV. */
export function GET(_request: Request, { params }: Context) {
  return respond(async () => {
    const job = await wholeJob(await db(), numberIn((await params).id));
    return new Response(readingsToCsv(job.events), {
      headers: {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="job-${job.head.id}-readings.csv"`,
      },
    });
  });
}

/** Readings from a script or an instrument bridge: CSV, or JSON `{who, readings: [{point, kind, value, conditions?, id?, at?}]}`. */
export function POST(request: Request, { params }: Context) {
  return respond(async () => {
    const database = await db();
    const job = await wholeJob(database, numberIn((await params).id));
    const who = new URL(request.url).searchParams.get("who") ?? job.settings.technicians[0]!;
    let events: IncomingEvent[];
    if (request.headers.get("content-type")?.includes("json")) {
      const body = await readBody(request, ReadingsBody);
      const state = foldJob(job.events);
      const time = (at: unknown) => (typeof at === "string" && Date.parse(at)) || Date.now();
      events = body.readings.map((sent) => {
        // A bridge knows its meter; how the amp stands is on the tape.
        const { id, at, conditions, ...rest } = { ...sent };
        const payload = { ...rest, conditions: conditions ?? conditionsNow(state, time(at)) } as unknown as Reading;
        return { type: "reading", payload, who: body.who ?? who, id, at };
      });
    } else events = csvToEvents(await readText(request), viewOf(job).circuit, who);
    const signed = await signedEvents(request, events);
    return NextResponse.json({ events: await append(database, job.head.id, signed.events, signed.role) }, { status: 201 });
  });
}
