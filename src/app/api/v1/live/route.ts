import { eventStream } from "@/app/api/event-stream";
import { respond } from "@/app/api/respond";
import { live } from "@/server/live";

/** Tells the board that some tape has grown: `changed`, without saying which; at once where it has since `?seen=`, the state that the page was drawn with. */
export function GET(request: Request) {
  return respond(async () => {
    const seen = new URL(request.url).searchParams.get("seen");
    return eventStream(request, (send) => {
      const tell = () => send("event: changed\ndata: \n\n");
      if (seen !== live().state) tell();
      return live().watchAll(tell);
    });
  });
}
