import { eventStream } from "@/app/api/event-stream";
import { respond } from "@/app/api/respond";
import { live } from "@/server/live";

/** Tells the board that some tape has grown: `changed`, without saying which. */
export function GET(request: Request) {
  return respond(async () => eventStream(request, (send) => live().watchAll(() => send("event: changed\ndata: \n\n"))));
}
