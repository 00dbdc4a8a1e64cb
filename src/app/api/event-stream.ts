/** Answers that go on: server-sent events, with a sign of life now and then so that both ends find out when the other is gone. */

import { mayEnter } from "@/server/door/door";

const STILL_HERE_MS = 5000;

/**
 * Who signs out, or is signed out from elsewhere, has their streams ended within the time of a sign of life.
 * @param start is given what sends a chunk; gives what ends it.
 */
export function eventStream(request: Request, start: (send: (chunk: string) => void) => () => void): Response {
  const text = new TextEncoder();
  let leave = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (chunk: string) => {
        try {
          controller.enqueue(text.encode(chunk));
        } catch {
          // Closed by the other end: there is nobody to tell.
          leave();
        }
      };
      send(": Scutum\n\n");
      const quit = start(send);
      const path = new URL(request.url).pathname;
      const end = () => {
        leave();
        try {
          controller.close();
        } catch {
          // Closed by the other end already.
        }
      };
      const beat = setInterval(() => {
        send(": still here\n\n");
        // Where it cannot be asked, because the database is away, nobody is let go on.
        mayEnter(request, path).then((may) => may || end(), end);
      }, STILL_HERE_MS);
      leave = () => {
        leave = () => {};
        clearInterval(beat);
        quit();
      };
      request.signal.addEventListener("abort", () => leave());
    },
    cancel: () => leave(),
  });
  return new Response(stream, {
    headers: { "content-type": "text/event-stream; charset=utf-8", "cache-control": "no-cache, no-transform", "x-accel-buffering": "no" },
  });
}
