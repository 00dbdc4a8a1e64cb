import { NextResponse } from "next/server";
import { jobNumber, readText, respond } from "@/app/api/respond";
import { conditionsNow, foldJob } from "@/core/tape/fold";
import { csvToEvents, readingsToCsv } from "@/server/csv";
import { db } from "@/server/db";
import { UserError } from "@/server/errors";
import { viewOf, wholeJob } from "@/server/shop";
import { append, type IncomingEvent } from "@/server/tape";

type Context = { params: Promise<{ id: string }> };

/** The standing readings as CSV. */
export function GET(_request: Request, { params }: Context) {
  return respond(async () => {
    const job = await wholeJob(await db(), jobNumber((await params).id));
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
    const job = await wholeJob(database, jobNumber((await params).id));
    const text = await readText(request);
    const who = new URL(request.url).searchParams.get("who") ?? job.settings.technicians[0]!;
    let events: IncomingEvent[];
    if (request.headers.get("content-type")?.includes("json")) {
      let body: { who?: string; readings?: Record<string, unknown>[] };
      try {
        body = JSON.parse(text) as typeof body;
      } catch {
        throw new UserError(400, `The request is not JSON; it starts ${JSON.stringify(text.slice(0, 40))}.`);
      }
      if (!Array.isArray(body?.readings)) throw new UserError(400, "readings: a list is wanted.");
      const state = foldJob(job.events);
      const time = (at: unknown) => (typeof at === "string" && Date.parse(at)) || Date.now();
      events = body.readings.map(
        ({ id, at, conditions, ...rest }) =>
          ({
            type: "reading",
            // A bridge knows its meter; how the amp stands is on the tape.
            payload: { ...rest, conditions: conditions ?? conditionsNow(state, time(at)) },
            who: body.who ?? who,
            id,
            at,
          }) as unknown as IncomingEvent,
      );
    } else events = csvToEvents(text, viewOf(job).circuit, who);
    return NextResponse.json({ events: await append(database, job.head.id, events) }, { status: 201 });
  });
}
