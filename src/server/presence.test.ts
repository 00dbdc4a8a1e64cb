/** Two processes of one shop: each knows who is at the other, until it is heard no more. */

import { live, Live } from "./live";
import { Presence, PRESENCE_CHANNEL } from "./presence";

const shared = globalThis as typeof globalThis & { scutumLive?: Live };

/** Two processes in this one: each has a Live of its own while it acts, and hears all that is said. */
function twoProcesses() {
  const processes: { live: Live; presence: Presence; dead: boolean }[] = [];
  const as = <T>(p: { live: Live }, act: () => T): T => {
    const before = shared.scutumLive;
    shared.scutumLive = p.live;
    try {
      return act();
    } finally {
      shared.scutumLive = before;
    }
  };
  for (let i = 0; i < 2; i++) {
    const p = {
      live: new Live(),
      dead: false,
      presence: new Presence(async (channel, text) => {
        expect(channel).toBe(PRESENCE_CHANNEL);
        if (!p.dead) for (const other of processes) as(other, () => other.presence.hear(text));
      }),
    };
    processes.push(p);
  }
  processes.forEach((p) => as(p, () => p.presence.begin()));
  return { one: processes[0]!, two: processes[1]!, as };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
afterAll(() => void (shared.scutumLive = undefined));

test("who comes to a job at one process is told to its screens at the other, and who leaves too", () => {
  const { one, two, as } = twoProcesses();
  let told = 0;
  two.live.watch(1001, () => told++);
  const leave = as(one, () => live().enter(1001, { screen: "a", who: "J.M." }));
  two.live.enter(1001, { screen: "b", who: "R.T." });
  expect(two.live.present(1001).map((p) => p.who)).toEqual(["J.M.", "R.T."]);
  expect(told).toBeGreaterThan(0);
  as(one, leave);
  expect(two.live.present(1001).map((p) => p.who)).toEqual(["R.T."]);
});

test("a process that is killed is forgotten with all who were at it, in a quarter of a minute", () => {
  const { one, two, as } = twoProcesses();
  as(one, () => live().enter(1001, { screen: "a", who: "J.M." }));
  expect(two.live.present(1001)).toHaveLength(1);
  one.dead = true;
  as(two, () => jest.advanceTimersByTime(10_000));
  expect(two.live.present(1001)).toHaveLength(1);
  as(two, () => jest.advanceTimersByTime(11_000));
  expect(two.live.present(1001)).toHaveLength(0);
});

test("what cannot be read is told and left", () => {
  const said = jest.spyOn(console, "error").mockImplementation(() => {});
  const { one, as } = twoProcesses();
  as(one, () => one.presence.hear("{"));
  expect(said).toHaveBeenCalledWith(expect.stringContaining("cannot be read"));
  said.mockRestore();
});
