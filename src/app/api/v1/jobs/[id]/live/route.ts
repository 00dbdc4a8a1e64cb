import { eventStream } from "@/app/api/event-stream";
import { numberIn, respond } from "@/app/api/respond";
import { MOST_LINES } from "@/core/tape/events/words";
import { db } from "@/server/db";
import { signerOf } from "@/server/door/door";
import { UserError } from "@/server/errors";
import { live } from "@/server/live";
import { getJob, readTape } from "@/server/tape-read";

type Context = { params: Promise<{ id: string }> };

/**
 * The job as it goes on, as server-sent events: `lines` with new lines of the tape, `present` with who has the job open, `circuit` with the
 * model of the library that it has, or null.
 * After a break the browser says which line it has (Last-Event-ID) and is sent what came since.
 */
export function GET(request: Request, { params }: Context) {
  return respond(async () => {
    const id = numberIn((await params).id);
    const asked = new URL(request.url).searchParams;
    const from = request.headers.get("last-event-id") ?? asked.get("after") ?? "0";
    let after = Number(from);
    if (!Number.isInteger(after) || after < 0 || after > MOST_LINES)
      throw new UserError(400, `after: ${JSON.stringify(from.slice(0, 20))} was read; the number of a line is wanted.`);
    const sql = await db();
    await getJob(sql, id);
    const { initials } = await signerOf(request, (asked.get("who") ?? "").slice(0, 12));
    const screen = (asked.get("screen") ?? "").slice(0, 40);

    return eventStream(request, (send) => {
      let busy = false;
      let again = false;
      let told = "";
      let circuit: number | null | undefined;
      const tell = async () => {
        if (busy) return void (again = true);
        busy = true;
        try {
          do {
            again = false;
            const lines = await readTape(sql, id, after);
            after = lines.at(-1)?.seq ?? after;
            if (lines.length > 0) send(`id: ${after}\nevent: lines\ndata: ${JSON.stringify(lines)}\n\n`);
            const { modelId } = await getJob(sql, id);
            if (modelId !== circuit) send(`event: circuit\ndata: ${JSON.stringify((circuit = modelId))}\n\n`);
            const present = JSON.stringify(live().present(id));
            if (present !== told) send(`event: present\ndata: ${(told = present)}\n\n`);
          } while (again);
        } catch (error) {
          // The browser joins again and is told from where it stood.
          console.error("scutum: a live stream broke:", error);
          stop();
        } finally {
          busy = false;
        }
      };
      const leave = [live().watch(id, () => void tell()), ...(screen && initials ? [live().enter(id, { screen, who: initials })] : [])];
      const stop = () => leave.splice(0).forEach((quit) => quit());
      void tell();
      return stop;
    });
  });
}
