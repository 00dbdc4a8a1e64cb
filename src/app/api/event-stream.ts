/** Answers that go on: server-sent events, with a sign of life now and then so that both ends find out when the other is gone. */

const STILL_HERE_MS = 5000;

/** @param start is given what sends a chunk; gives what ends it. */
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
      const beat = setInterval(() => send(": still here\n\n"), STILL_HERE_MS);
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
