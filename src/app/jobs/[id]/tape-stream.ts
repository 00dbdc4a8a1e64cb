/** The job as it goes on, from the server's stream, joined again where it broke off. */

import type { JobEvent } from "@/core/tape/events/event";
import type { LiveListener, Present } from "@/ui/job/job-port";
import { newId } from "@/ui/job/new-id";
import { seenStream } from "../../seen-stream";

/** @param after gives the last line that is here: asked each time the stream is joined. @returns the way to stop. */
export function liveTape(address: string, who: string, after: () => number, listener: LiveListener): () => void {
  // This page, for as long as it is open.
  const screen = newId();
  const open = () => {
    const source = new EventSource(`${address}?${new URLSearchParams({ after: String(after()), who, screen })}`);
    source.onopen = () => listener.joined(true);
    source.onerror = () => listener.joined(false);
    source.addEventListener("lines", (e: MessageEvent<string>) => listener.lines(JSON.parse(e.data) as JobEvent[]));
    source.addEventListener("circuit", (e: MessageEvent<string>) => listener.circuit(JSON.parse(e.data) as number | null));
    source.addEventListener("present", (e: MessageEvent<string>) =>
      listener.present((JSON.parse(e.data) as Present[]).filter((p) => p.screen !== screen)),
    );
    return source;
  };
  return seenStream(open, () => listener.joined(false));
}
