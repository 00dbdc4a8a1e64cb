import { NextResponse } from "next/server";
import { jobNumber, readText, respond } from "@/app/api/respond";
import { benchChannel } from "@/server/bench";
import { UserError } from "@/server/errors";

type Context = { params: Promise<{ id: string }> };

const STILL_HERE_MS = 5000;

/** The lines of the job's instruments as server-sent events; with `?as=instrument` what Scutum wants of them. */
export function GET(request: Request, { params }: Context) {
  return respond(async () => {
    const channel = await benchChannel(jobNumber((await params).id));
    const role = new URL(request.url).searchParams.get("as") ?? "screen";
    if (role !== "screen" && role !== "instrument")
      throw new UserError(400, `as: ${JSON.stringify(role.slice(0, 20))} was read; screen or instrument are wanted.`);
    const text = new TextEncoder();
    let leave = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const send = (chunk: string) => {
          try {
            controller.enqueue(text.encode(chunk));
          } catch {
            leave();
          }
        };
        send(": Scutum bench\n\n");
        const quit = channel.join(role, (line) => send(`data: ${line}\n\n`));
        // A line of its own now and then: so that both ends find out when the other is gone.
        const beat = setInterval(() => send(": still here\n\n"), STILL_HERE_MS);
        leave = () => {
          clearInterval(beat);
          quit();
        };
        request.signal.addEventListener("abort", leave);
      },
      cancel: () => leave(),
    });
    return new Response(stream, {
      headers: { "content-type": "text/event-stream; charset=utf-8", "cache-control": "no-cache, no-transform", "x-accel-buffering": "no" },
    });
  });
}

/** Lines of the protocol, one each: from a bridge what its instruments show, from a screen what is wanted. */
export function POST(request: Request, { params }: Context) {
  return respond(async () => {
    const channel = await benchChannel(jobNumber((await params).id));
    const lines = (await readText(request, 100_000)).split("\n").filter((l) => l.trim() !== "");
    if (lines.length === 0) throw new UserError(400, "Nothing was sent: lines of the instruments' protocol are wanted.");
    const taken = channel.post(lines);
    const [first] = taken.refused;
    if (first && taken.taken + taken.dropped === 0)
      throw new UserError(422, `${first.why}; read ${JSON.stringify(first.read)}; accepted: ${first.accepted}`);
    return NextResponse.json(taken);
  });
}
