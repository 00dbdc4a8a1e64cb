import { readFileSync } from "node:fs";
import { energyOf, viewJob } from "../job/job-view";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { at, tape } from "../tape/tape-for-tests";
import type { EventDraft } from "../tape/events/event";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const on: EventDraft = { type: "power", payload: { state: "on", plug: "in" } };
const off: EventDraft = { type: "power", payload: { state: "off", plug: "out" } };
const meter = (read = 9): EventDraft => ({ type: "meter-check", payload: { source: "9 V battery", expected: 9, read } });
const charge = (reservoir: string, volts: number): EventDraft => ({ type: "discharge-reading", payload: { reservoir, volts } });
const reading = (point: string, value: number): EventDraft => ({ type: "reading", payload: { point, kind: "dcv", value, conditions: {} } });

const state = (seconds: number, ...lines: [number, EventDraft][]) => {
  const events = tape(...lines);
  return energyOf(viewJob(events, WREN, DEFAULT_SETTINGS, at(seconds)), at(seconds));
};

/** A sound proof: meter, three reservoirs twice, a minute apart, meter. */
const proof = (from: number): [number, EventDraft][] => [
  [from, meter()],
  [from + 5, charge("C1", 0.4)],
  [from + 10, charge("C2", 0.2)],
  [from + 15, charge("C3", 0.1)],
  [from + 70, charge("C1", 0.6)],
  [from + 75, charge("C2", 0.2)],
  [from + 80, charge("C3", 0.1)],
  [from + 90, meter(8.95)],
];

describe("energy state", () => {
  test("a new job is unknown, whatever anybody hopes", () => {
    expect(state(0)).toMatchObject({
      kind: "unknown",
      proof: {
        missing: [
          { do: "unplug" },
          { do: "meter", when: "before" },
          { do: "read", reservoir: "C1", round: 1, wait: 0 },
          { do: "read" },
          { do: "read" },
          { do: "read", round: 2 },
          { do: "read" },
          { do: "read" },
          { do: "meter", when: "after" },
        ],
      },
    });
  });

  test("on is live; off is stored from the last live reading, falling only as the circuit bleeds it", () => {
    expect(state(5, [0, on])).toMatchObject({ kind: "live" });
    const s = state(70, [0, on], [10, reading("B1", 292)], [60, off]);
    expect(s).toMatchObject({ kind: "stored", plug: "out" });
    if (s.kind !== "stored") throw new Error();
    // The Wren has no bleeder: nothing cold leads from its rails to ground, so the charge stays.
    expect(s.secondsToSafe).toBe(Infinity);
    // Ten seconds on, the three capacitors have shared their charge through R1 and R2: 32 µF at 292 V, 32 µF at the
    // chart's 240 V and 16 µF at its 210 V settle at the mean.
    const mean = (32 * 292 + 32 * 240 + 16 * 210) / 80;
    expect(s.volts).toBeCloseTo(mean, 1);
    expect(s.joules).toBeCloseTo(0.5 * 80e-6 * mean ** 2, 3);
  });

  test("an unread rail starts from the chart scaled to the mains, not from zero", () => {
    const s = state(60, [0, { type: "mains", payload: { volts: 242 } }], [1, on], [60, off]);
    expect(s.kind === "stored" && s.volts).toBeCloseTo(255 * 1.1, 0);
  });

  test("proven dead needs the plug out, the meter before and after, and two readings a minute apart at every reservoir", () => {
    const lines: [number, EventDraft][] = [[0, on], [60, off], ...proof(100)];
    expect(state(200, ...lines)).toMatchObject({ kind: "proven-dead", at: new Date(at(190)).toISOString() });
    for (let drop = 1; drop < lines.length; drop++) {
      const partial = lines.filter((_, i) => i !== drop);
      expect([drop, state(200, ...partial).kind]).not.toEqual([drop, "proven-dead"]);
    }
    expect(state(200, [0, on], [60, { type: "power", payload: { state: "off", plug: "in" } }], ...proof(100)).kind).toBe("stored");
  });

  test("how long the second reading has to wait: a minute from the first one of each reservoir", () => {
    const { proof: p } = state(40, [0, off], ...proof(10).slice(0, 3)) as { proof: { reservoirs: { name: string; secondIn?: number }[] } };
    // C1 was read at 15 s, C2 at 20 s, C3 not yet.
    expect(p.reservoirs.map((r) => [r.name, r.secondIn])).toEqual([
      ["C1", 35],
      ["C2", 40],
      ["C3", undefined],
    ]);
  });

  test("a second reading too soon does not count", () => {
    const hurried: [number, EventDraft][] = [
      [0, off],
      [10, meter()],
      [11, charge("C1", 0.4)],
      [12, charge("C2", 0.2)],
      [13, charge("C3", 0.1)],
      [50, charge("C1", 0.4)],
      [51, charge("C2", 0.2)],
      [52, charge("C3", 0.1)],
      [53, meter()],
    ];
    const s = state(60, ...hurried);
    expect(s.kind).not.toBe("proven-dead");
    expect(s.kind === "stored" && s.proof.missing.filter((m) => m.do === "read" && m.round === 2)).toHaveLength(3);
  });

  test("a reservoir that comes back above the safe voltage starts again", () => {
    const lines = proof(100);
    lines[4] = [170, charge("C1", 40)];
    const s = state(200, [0, on], [60, off], ...lines);
    expect(s).toMatchObject({ kind: "stored" });
    if (s.kind !== "stored") throw new Error();
    // Before anything is bled, the tool that bleeds it is measured.
    expect(s.proof.missing.slice(0, 2)).toEqual([
      { do: "tool", when: "before" },
      { do: "discharge", reservoir: "C1", volts: expect.closeTo(0.4 * 40, 0) },
    ]);
    expect(s.proof.reservoirs[0]).toMatchObject({ rebounded: { from: 0.4, to: 40 } });
  });

  test("a meter that is wrong on the known source undoes what it read", () => {
    const lines = proof(100);
    lines[7] = [190, meter(0.2)];
    const s = state(200, [0, on], [60, off], ...lines);
    expect(s.kind === "stored" && s.proof.missing[0]).toEqual({ do: "meter", when: "before" });
  });

  test("power, the plug and the hours end the proof", () => {
    const proven: [number, EventDraft][] = [[0, on], [60, off], ...proof(100)];
    expect(state(210, ...proven, [200, on]).kind).toBe("live");
    expect(state(210, ...proven, [200, { type: "power", payload: { state: "off", plug: "in" } }]).kind).toBe("stored");
    expect(state(4 * 3600 + 200, ...proven)).toMatchObject({ kind: "unknown", why: "the proof is older than 4 h" });
  });

  const tool = (read: number): EventDraft => ({ type: "tool-check", payload: { marked: 2200, read } });

  test("a tool that bled anything is measured before and after; an open one does not count", () => {
    const bled: [number, EventDraft][] = [
      [0, on],
      [60, off],
      [61, meter()],
      [62, charge("C1", 280)],
      [63, tool(2210)],
    ];
    const s = state(70, ...bled);
    expect(s.kind === "stored" && s.proof.missing[0]).toMatchObject({ do: "discharge", reservoir: "C1" });
    const done: [number, EventDraft][] = [...bled, ...proof(100)];
    const after = state(200, ...done);
    expect(after.kind === "stored" && after.proof.missing).toEqual([{ do: "tool", when: "after" }]);
    expect(state(200, ...done, [195, tool(2190)]).kind).toBe("proven-dead");
    expect(state(200, ...done, [195, tool(4e6)]).kind).toBe("stored");
    const open = state(70, ...bled.slice(0, 4), [63, tool(1e9)]);
    expect(open.kind === "stored" && open.proof.missing[0]).toEqual({ do: "tool", when: "before" });
  });

  test("two readings that cannot both be true: the low one is not believed until it is read again", () => {
    const lines: [number, EventDraft][] = [
      [0, on],
      [60, off],
      [61, meter()],
      [62, charge("C1", 280)],
      [70, charge("C1", 0.3)],
    ];
    const doubted = state(71, ...lines);
    if (doubted.kind !== "stored") throw new Error();
    expect(doubted.proof.reservoirs[0]).toMatchObject({ first: undefined, conflict: expect.stringContaining("should still be there") });
    expect(doubted.volts).toBeGreaterThan(200);
    const again = state(80, ...lines, [75, charge("C1", 0.3)]);
    expect(again.kind === "stored" && again.proof.reservoirs[0]).toMatchObject({ first: { volts: 0.3 }, conflict: undefined });
    // The other way round: dead first, then hundreds of volts.
    const risen = state(120, [0, on], [60, off], [99, meter()], [100, charge("C1", 0.3)], [110, charge("C1", 260)]);
    expect(risen.kind === "stored" && risen.proof.reservoirs[0]).toMatchObject({
      first: undefined,
      conflict: expect.stringContaining("Is the plug out?"),
    });
  });

  test("a reservoir that cannot be reached is never proven, until it is read after all", () => {
    const unread: EventDraft = { type: "reservoir-unread", payload: { reservoir: "C2", reason: "potted under the choke" } };
    const lines: [number, EventDraft][] = [[0, on], [60, off], ...proof(100), [195, unread]];
    const s = state(200, ...lines);
    expect(s.kind === "stored" && s.proof.missing).toEqual([{ do: "reach", reservoir: "C2", reason: "potted under the choke" }]);
    const read = state(300, ...lines, [200, charge("C2", 0.2)], [261, charge("C2", 0.2)], [262, meter()]);
    expect(read.kind).toBe("proven-dead");
  });

  test("without a circuit the technician names the reservoirs", () => {
    const events = tape([0, off]);
    const blank = energyOf(viewJob(events, undefined, DEFAULT_SETTINGS, at(1)), at(1));
    expect(blank).toMatchObject({ kind: "unknown", proof: { missing: [{ do: "name-reservoirs" }, { do: "meter" }, { do: "meter" }] } });
    const named = tape([0, { type: "reservoir", payload: { name: "big can", farads: 100e-6, volts: 450 } }], [1, on], [60, off]);
    const s = energyOf(viewJob(named, undefined, DEFAULT_SETTINGS, at(61)), at(61));
    expect(s).toMatchObject({ kind: "stored", volts: 450, secondsToSafe: Infinity });
    expect(s.kind === "stored" && s.joules).toBeCloseTo(0.5 * 100e-6 * 450 ** 2, 6);
  });

  test("a line about power that cannot be read never ends LIVE, and takes off, plug and proof for unsaid", () => {
    const unread = { type: "unreadable", payload: { type: "power", why: "an older program wrote it" } } as unknown as EventDraft;
    expect(state(20, [0, on], [10, unread]).kind).toBe("live");
    expect(state(110, [0, off], ...proof(5), [100, unread])).toMatchObject({
      kind: "unknown",
      // The meter that was proved a minute ago is proved all the same.
      proof: {
        missing: [{ do: "unplug" }, { do: "read", round: 1 }, {}, {}, { do: "read", round: 2 }, {}, {}, { do: "meter", when: "after" }],
      },
    });
  });

  test("undoing a proof reading takes the proof with it", () => {
    const events = tape([0, on], [60, off], ...proof(100), [195, { type: "undo", supersedes: 6, reason: "probe was off", payload: {} }]);
    expect(energyOf(viewJob(events, WREN, DEFAULT_SETTINGS, at(200)), at(200)).kind).toBe("stored");
  });
});

test("of two capacitors in series each is taken to hold what lies between its own ends", () => {
  const halberd = readFileSync("demo/amps/halberd-120.cir", "utf8");
  const events = tape([0, { type: "mains", payload: { volts: 240 } }], [1, on], [60, off]);
  const s = energyOf(viewJob(events, halberd, DEFAULT_SETTINGS, at(60)), at(60));
  if (s.kind !== "stored") throw new Error();
  // By the chart 500 V on top and, misprinted, 320 V in the middle: 180 and 320, not 500 and 320.
  expect(s.proof.reservoirs.slice(0, 2).map((r) => Math.round(r.volts!))).toEqual([180, 320]);
});

describe("rails that nothing loaded", () => {
  const halberd = readFileSync("demo/amps/halberd-120.cir", "utf8");
  const screens = (...lines: [number, EventDraft][]) => {
    const events = tape(...lines);
    const off = lines.at(-1)![0];
    const s = energyOf(viewJob(events, halberd, DEFAULT_SETTINGS, at(off)), at(off));
    return s.kind === "stored" && s.proof.reservoirs.find((r) => r.name === "C3")!.volts;
  };
  const mains: [number, EventDraft] = [0, { type: "mains", payload: { volts: 240 } }];
  const without: EventDraft = { type: "power", payload: { state: "on", plug: "in", without: ["V4", "V5", "V6", "V7"] } };
  test("warm and loaded it is what the chart says; with tubes out, or off before they are warm, the winding's peak", () => {
    expect(screens(mains, [1, on], [60, off])).toBeCloseTo(505, 0);
    const peak = Math.SQRT2 * 365 * (240 / 230);
    expect(screens(mains, [1, without], [60, off])).toBeCloseTo(peak, 0);
    expect(screens(mains, [1, on], [11, off])).toBeCloseTo(peak, 0);
    // What was read while live stands all the same.
    expect(screens(mains, [1, without], [30, reading("B2", 488)], [60, off])).toBeCloseTo(488, 6);
  });
});

describe("lines of a tablet that had no server", () => {
  /** A tape in the order of storing, each line with the second at which it was made. */
  const stored = (now: number, ...lines: [number, EventDraft][]) => {
    const events = tape(...lines);
    const view = viewJob(events, WREN, DEFAULT_SETTINGS, at(now));
    return { ...energyOf(view, at(now)), late: [...view.state.late] };
  };

  test("an off from before another bench switched on leaves the amp live", () => {
    expect(stored(700, [0, on], [600, on], [60, off])).toMatchObject({ kind: "live", late: [3] });
    // Said after it, it counts; and the clocks of two devices may differ a little.
    expect(stored(700, [0, on], [600, on], [660, off])).toMatchObject({ kind: "stored", late: [] });
    expect(stored(700, [0, on], [600, on], [595, off])).toMatchObject({ kind: "stored", late: [] });
  });

  test("a proof from before another bench switched it on and off proves nothing", () => {
    const elsewhere: [number, EventDraft][] = [
      [3000, on],
      [3060, off],
    ];
    const before = [[0, on], [60, off], ...proof(1000)] as [number, EventDraft][];
    expect(stored(3100, ...before)).toMatchObject({ kind: "proven-dead" });
    const after = stored(3100, [0, on], ...elsewhere, [60, off], ...proof(1000));
    expect(after.kind).toBe("stored");
    expect(after.late).toHaveLength(9);
    // Stored in the order in which it was done, the same lines prove it.
    expect(stored(4200, [0, on], ...elsewhere, ...proof(4000)).kind).toBe("proven-dead");
  });

  test("a late power-on takes a proof away: it can only warn", () => {
    expect(stored(2000, [0, on], [60, off], ...proof(1000), [900, on]).kind).toBe("live");
  });

  test("a reading of an earlier time on does not lower what the reservoirs are taken to hold", () => {
    const without = stored(4000, [0, on], [3000, on], [3900, off]) as { volts?: number };
    const late = stored(4000, [0, on], [60, off], [3000, on], [30, reading("B1", 5)], [3900, off]) as { volts?: number };
    expect(late.volts).toBeGreaterThan(0.9 * without.volts!);
  });
});
