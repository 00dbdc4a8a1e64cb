/** The job as it goes on, from the server's stream: held while the page is seen, joined again where it broke off. */

import type { JobEvent } from "@/core/tape/events/event";
import type { LiveListener, Present } from "@/ui/frame/job-port";

/** This page, for as long as it is open. */
const screen = typeof crypto === "undefined" ? "" : crypto.randomUUID();

/** @param after gives the last line that is here: asked each time the stream is joined. @returns the way to stop. */
export function liveTape(address: string, who: string, after: () => number, listener: LiveListener): () => void {
  let source: EventSource | undefined;
  const turn = () => {
    source?.close();
    source = undefined;
    listener.joined(false);
    // A page that nobody sees must not hold a stream: a browser keeps few open at a time. Nor is anybody there.
    if (document.hidden) return;
    source = new EventSource(`${address}?${new URLSearchParams({ after: String(after()), who, screen })}`);
    source.onopen = () => listener.joined(true);
    source.onerror = () => listener.joined(false);
    source.addEventListener("lines", (e: MessageEvent<string>) => listener.lines(JSON.parse(e.data) as JobEvent[]));
    source.addEventListener("present", (e: MessageEvent<string>) =>
      listener.present((JSON.parse(e.data) as Present[]).filter((p) => p.screen !== screen)),
    );
  };
  document.addEventListener("visibilitychange", turn);
  turn();
  return () => {
    document.removeEventListener("visibilitychange", turn);
    source?.close();
  };
}
