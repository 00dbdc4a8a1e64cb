/** Where instruments and screens meet: nothing twice, nothing late, and a word when an instrument falls silent. */

import { BenchChannel, type Simulator } from "./channel";

const meter = (n: number, value: number) => `meter n=${n} at=${1000 + n * 250} kind=dcv value=${value} digit=0.1 range=1000`;

function bench() {
  const calls = { started: 0, stopped: 0, told: [] as string[] };
  let send: (line: string) => void = () => {};
  const channel = new BenchChannel(async (to): Promise<Simulator> => {
    calls.started++;
    send = to;
    return { tell: (line) => calls.told.push(line), stop: () => calls.stopped++ };
  });
  return { channel, calls, simulated: (line: string) => send(line) };
}
const settled = () => new Promise((r) => setImmediate(r));

beforeEach(() => jest.useFakeTimers({ doNotFake: ["setImmediate"] }));
afterEach(() => jest.useRealTimers());

test("lines from a bridge reach every screen once, in order, whatever comes twice or late", () => {
  const { channel } = bench();
  const [a, b]: [string[], string[]] = [[], []];
  channel.join("screen", (l) => a.push(l));
  channel.join("screen", (l) => b.push(l));
  const taken = channel.post([meter(1, 10), meter(2, 20), meter(2, 20), meter(1, 10), meter(3, 30)]);
  expect(taken).toEqual({ taken: 3, dropped: 2, refused: [] });
  expect(a).toEqual([meter(1, 10), meter(2, 20), meter(3, 30)]);
  expect(b).toEqual(a);
});

test("a bad line is refused with its reason and does not stop the others", () => {
  const taken = bench().channel.post(["meter 12 volts", meter(1, 10)]);
  expect(taken.taken).toBe(1);
  expect(taken.refused).toEqual([expect.objectContaining({ read: "meter 12 volts" })]);
});

test("an instrument that falls silent is told as gone, and is heard again", () => {
  const { channel } = bench();
  const seen: string[] = [];
  channel.join("screen", (l) => seen.push(l));
  channel.post([meter(1, 10)]);
  jest.advanceTimersByTime(2900);
  channel.post([meter(2, 10)]);
  jest.advanceTimersByTime(2900);
  expect(seen).toHaveLength(2);
  jest.advanceTimersByTime(200);
  expect(seen.at(-1)).toBe("gone meter");
  channel.post([meter(3, 11)]);
  expect(seen.at(-1)).toBe(meter(3, 11));
});

test("the simulated instruments start with the first screen, stop with the last, and hear what is wanted", async () => {
  const { channel, calls, simulated } = bench();
  channel.post(["want n=1 point=B1 kind=dcv"]);
  const seen: string[] = [];
  const leave = channel.join("screen", (l) => seen.push(l));
  const leaveToo = channel.join("screen", () => {});
  await settled();
  expect(calls.started).toBe(1);
  expect(calls.told).toEqual(["want n=1 point=B1 kind=dcv"]);
  simulated(meter(5, 318));
  expect(seen).toEqual([meter(5, 318)]);
  // A screen that joins in between gets the newest line at once.
  const late: string[] = [];
  channel.join("screen", (l) => late.push(l))();
  expect(late).toEqual([meter(5, 318)]);
  leave();
  expect(calls.stopped).toBe(0);
  leaveToo();
  expect(calls.stopped).toBe(1);
});

test("a real instrument silences the simulated one", async () => {
  const { channel, calls } = bench();
  const seen: string[] = [];
  channel.join("screen", (l) => seen.push(l));
  await settled();
  channel.post([meter(1, 10)]);
  expect(calls.stopped).toBe(1);
  // The screens are told that it is another instrument, whose clock is its own.
  expect(seen).toEqual(["gone meter", "gone mains", "gone tester", meter(1, 10)]);
  channel.join("screen", () => {});
  await settled();
  expect(calls.started).toBe(1);
});

test("a bridge that joins as an instrument hears what is wanted, also what was wanted before", () => {
  const { channel } = bench();
  channel.post(["want n=1 point=B1 kind=dcv range=1000"]);
  const heard: string[] = [];
  const leave = channel.join("instrument", (l) => heard.push(l));
  channel.post(["want n=2 point=V2.k kind=dcv", "set mains=115"]);
  leave();
  channel.post(["want n=3 point=V2.p kind=dcv"]);
  expect(heard).toEqual(["want n=1 point=B1 kind=dcv range=1000", "want n=2 point=V2.k kind=dcv", "set mains=115"]);
});
