import { NextResponse } from "next/server";
import { eventStream } from "@/app/api/event-stream";
import { numberIn, readText, respond } from "@/app/api/respond";
import { benchChannel } from "@/server/bench";
import { UserError } from "@/server/errors";

type Context = { params: Promise<{ id: string }> };

/** The lines of the job's instruments as server-sent events; with `?as=instrument` what Scutum wants of them. */
export function GET(request: Request, { params }: Context) {
  return respond(async () => {
    const channel = await benchChannel(numberIn((await params).id));
    const role = new URL(request.url).searchParams.get("as") ?? "screen";
    if (role !== "screen" && role !== "instrument")
      throw new UserError(400, `as: ${JSON.stringify(role.slice(0, 20))} was read; screen or instrument are wanted.`);
    return eventStream(request, (send) => channel.join(role, (line) => send(`data: ${line}\n\n`)));
  });
}

/** Lines of the protocol, one each: from a bridge what its instruments show, from a screen what is wanted. */
export function POST(request: Request, { params }: Context) {
  return respond(async () => {
    const channel = await benchChannel(numberIn((await params).id));
    const lines = (await readText(request, 100_000)).split("\n").filter((l) => l.trim() !== "");
    if (lines.length === 0) throw new UserError(400, "Nothing was sent: lines of the instruments' protocol are wanted.");
    const taken = channel.post(lines);
    const [first] = taken.refused;
    if (first && taken.taken + taken.dropped === 0)
      throw new UserError(422, `${first.why}; read ${JSON.stringify(first.read)}; accepted: ${first.accepted}`);
    return NextResponse.json(taken);
  });
}
