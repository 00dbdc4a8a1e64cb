/** @jest-environment jsdom */
import { seenStream } from "./seen-stream";

test("a stream is held while the page is seen, let go when it is hidden, and ended by who began it", () => {
  const log: string[] = [];
  let count = 0;
  const open = () => {
    const name = `stream ${++count}`;
    log.push(`${name} opens`);
    return { close: () => log.push(`${name} closes`) } as unknown as EventSource;
  };
  const turn = (hidden: boolean) => {
    Object.defineProperty(document, "hidden", { value: hidden, configurable: true });
    document.dispatchEvent(new Event("visibilitychange"));
  };
  const stop = seenStream(open);
  turn(true);
  turn(false);
  expect(log.splice(0)).toEqual(["stream 1 opens", "stream 1 closes", "stream 2 opens"]);
  stop();
  turn(true);
  turn(false);
  expect(log).toEqual(["stream 2 closes"]);
});
