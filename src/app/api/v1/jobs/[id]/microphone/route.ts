import { numberIn, respond, atTheDoor } from "@/app/api/respond";
import { recordAmp } from "@/server/bench";
import { UserError } from "@/server/errors";

type Context = { params: Promise<{ id: string }> };

const MOST_SECONDS = 30;

/** What the simulated microphone hears of this job's amp now: a WAV. */
export function GET(request: Request, { params }: Context) {
  return respond(async () => {
    await atTheDoor(request);
    const asked = new URL(request.url).searchParams;
    const seconds = Number(asked.get("seconds") ?? 5);
    if (!(seconds >= 1 && seconds <= MOST_SECONDS))
      throw new UserError(400, `seconds: ${JSON.stringify(asked.get("seconds")?.slice(0, 20))} was read; 1 to ${MOST_SECONDS} are wanted.`);
    const wav = await recordAmp(numberIn((await params).id), seconds, (asked.get("noted") ?? "").slice(0, 500));
    return new Response(Buffer.from(wav), { headers: { "content-type": "audio/wav", "cache-control": "no-store" } });
  });
}
