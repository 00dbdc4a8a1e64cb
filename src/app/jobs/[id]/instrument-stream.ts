/** One stream from the job's bench for all that listens on a page: a browser keeps few of them open at a time. */

import { seenStream } from "../../seen-stream";

type Listener = { line(text: string): void; state(joined: boolean): void };

/** Listeners join and leave; the stream stands while there is one and the page is seen. @returns the way to join. */
export function sharedStream(address: string): (listener: Listener) => () => void {
  const listeners = new Set<Listener>();
  /** The newest line of each kind: who joins later is told what stands. */
  const newest = new Map<string, string>();
  let stop: (() => void) | undefined;
  let open = false;

  const tell = (joined: boolean) => {
    open = joined;
    if (!joined) newest.clear();
    for (const l of listeners) l.state(joined);
  };
  const opened = () => {
    const source = new EventSource(address);
    source.onopen = () => tell(true);
    source.onerror = () => tell(false);
    source.onmessage = (event: MessageEvent<string>) => {
      const [word = "", what = ""] = event.data.split(" ", 2);
      if (word === "gone") newest.delete(what);
      newest.set(word === "gone" ? `gone ${what}` : word, event.data);
      if (word !== "gone") newest.delete(`gone ${word}`);
      for (const l of [...listeners]) l.line(event.data);
    };
    return source;
  };
  const closed = () => {
    open = false;
    newest.clear();
  };
  return (listener) => {
    listeners.add(listener);
    if (listeners.size === 1) stop = seenStream(opened, closed);
    else {
      if (open) listener.state(true);
      for (const line of newest.values()) listener.line(line);
    }
    return () => {
      listeners.delete(listener);
      if (listeners.size === 0) stop?.();
    };
  };
}
