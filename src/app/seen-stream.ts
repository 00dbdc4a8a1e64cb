/**
 * A stream of the server that is held while the page is seen: a browser keeps few open at a time, and a page that nobody sees is nobody there.
 * The browser joins again by itself when it breaks.
 * @param open makes it, with what listens; asked anew each time the page is seen again.
 * @param closed told when it is let go because the page is hidden, and before it is opened.
 * @returns the way to stop.
 */
export function seenStream(open: () => EventSource, closed = () => {}): () => void {
  let source: EventSource | undefined;
  const turn = () => {
    source?.close();
    closed();
    source = document.hidden ? undefined : open();
  };
  document.addEventListener("visibilitychange", turn);
  turn();
  return () => {
    document.removeEventListener("visibilitychange", turn);
    source?.close();
    closed();
  };
}
