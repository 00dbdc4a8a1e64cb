/** Capacitors on a reforming supply: live while it is on, charged after it, dead only by a proof that came later. */

import { demoAmp } from "../solver/circuits-for-tests";
import { reservoirsOf } from "../supply/reservoirs";
import { foldJob } from "../tape/fold";
import type { EventDraft } from "../tape/events/event";
import { at, tape } from "../tape/tape-for-tests";
import { planDischarge } from "./discharge-planner";
import { energyAt } from "./energy";
import { apart } from "./reservoirs-of-job";
import type { EnergyContext } from "./energy-context";

const circuit = demoAmp("lantern-15");
const context: EnergyContext = {
  circuit,
  reservoirs: reservoirsOf(circuit),
  safeVolts: 10,
  proofHours: 4,
  meterMinutes: 30,
  meterSource: "",
  expectedVolts: () => undefined,
};
const begun = (lifted: boolean, part = "C1"): EventDraft => ({
  type: "reform-begun",
  payload: {
    parts: [{ part, farads: 32e-6, rated: 500, target: 400, limit: 1e-3 }],
    ohms: 33e3,
    steps: [200, 400],
    dwellMinutes: 10,
    lifted,
  },
});
const turn = (what: "step" | "paused" | "resumed" | "ended", supply: number, more: object = {}): EventDraft => ({
  type: "reform-turn",
  payload: { reform: 1, what, supply, ...more },
});
const energy = (seconds: number, ...lines: [number, EventDraft][]) => energyAt(foldJob(tape(...lines)), at(seconds), context);
const meter: EventDraft = { type: "meter-check", payload: { source: "battery", expected: 9, read: 9 } };
const read = (reservoir: string, volts = 1): EventDraft => ({ type: "discharge-reading", payload: { reservoir, volts } });

test("live while the supply is on, with what it holds", () => {
  const state = energy(60, [0, begun(true)], [30, turn("step", 400)]);
  // ½·32 µF·400² = 2.56 J.
  expect(state).toMatchObject({ kind: "live", reforming: { parts: ["C1"], volts: 400, joules: expect.closeTo(2.56, 6) as number } });
});

test("one part that is settled leaves the supply on; the pause takes it off", () => {
  expect(energy(60, [0, begun(true)], [30, turn("ended", 200, { part: "C1", result: "keep" })])).toMatchObject({ kind: "live" });
  expect(energy(60, [0, begun(true)], [30, turn("paused", 0)])).toMatchObject({ kind: "stored" });
  expect(energy(60, [0, begun(true)], [30, turn("paused", 0)], [40, turn("resumed", 200)])).toMatchObject({ kind: "live" });
});

test("an off of a tablet that had no server, stored after the supply went on again, does not call it off", () => {
  const late = tape([0, begun(true)], [30, turn("paused", 0)], [300, turn("resumed", 200)], [60, turn("paused", 0)]);
  expect(energyAt(foldJob(late), at(400), context)).toMatchObject({ kind: "live" });
});

test("lifted off the amp nothing bleeds it: a day later it is taken to hold what it held", () => {
  const lifted = energy(24 * 3600, [0, begun(true)], [30, turn("ended", 0)]);
  expect(lifted).toMatchObject({ kind: "stored", volts: expect.closeTo(200, 1) as number, secondsToSafe: Infinity });
  // Each is discharged on its own: clipped on another, the tool does nothing for C1.
  const plan = planDischarge(
    circuit,
    apart(context.reservoirs, new Set(["C1"])),
    [200, 200, 0, 0],
    [200, 200, 0, 0],
    { ohms: 2200 },
    10,
    10,
  )!;
  expect(plan.sequence.clips.map((c) => c.reservoir)).toContain("C1");
  expect(plan.sequence.clips.filter((c) => c.reservoir !== "C1").flatMap((c) => c.brings)).not.toContain("C1");
  expect(lifted.kind === "stored" && lifted.lifted).toEqual(["C1"]);
  const inAmp = energy(600, [0, begun(false)], [30, turn("ended", 0)]);
  expect(inAmp.kind === "stored" && inAmp.volts).toBeLessThan(10);
});

test("a proof from before does not hold after it; one from after does", () => {
  const all = ["C1", "C2", "C3", "C4"];
  const proof = (from: number): [number, EventDraft][] => [
    [from, meter],
    ...all.map((r): [number, EventDraft] => [from + 1, read(r)]),
    ...all.map((r): [number, EventDraft] => [from + 70, read(r)]),
    [from + 80, meter],
  ];
  const off: [number, EventDraft] = [0, { type: "power", payload: { state: "off", plug: "out" } }];
  expect(energy(200, off, ...proof(10)).kind).toBe("proven-dead");
  const lines = [off, ...proof(10)];
  const reform = lines.length + 1;
  const run: [number, EventDraft][] = [
    [200, begun(true)],
    [300, { type: "reform-turn", payload: { reform, what: "ended", supply: 0 } }],
  ];
  expect(energy(400, ...lines, ...run).kind).toBe("stored");
  expect(
    energy(700, ...lines, ...run, [310, { type: "tool-check", payload: { marked: 2200, read: 2200 } }], ...proof(400), [
      600,
      { type: "tool-check", payload: { marked: 2200, read: 2200 } },
    ]).kind,
  ).toBe("proven-dead");
});

test("a capacitor that is no reservoir of the circuit is one while it is reformed", () => {
  const state = energy(60, [0, begun(true, "C99")], [30, turn("ended", 0)]);
  expect(state.kind === "stored" && state.proof.reservoirs.map((r) => r.name)).toContain("C99");
});
