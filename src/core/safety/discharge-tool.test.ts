import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { dischargeSequence } from "./discharge-sequence";
import { bodyVolts, sizeTool, toolDoubts, toolProved, wattsWanted } from "./discharge-tool";
import { tiesOf } from "./separate-reservoirs";
import { decayOf, reservoirsOf } from "../supply/reservoirs";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

describe("sizing the tool", () => {
  test("hand-worked: 100 µF at 500 V to 10 V in 10 s is 25.6 kΩ at most: 22 kΩ, 22.7 mA, 11.4 W at first, 8.6 s", () => {
    const t = sizeTool(100e-6, 500, 10);
    expect(t.ohms).toBe(22e3);
    expect(t.plan.peakAmps).toBeCloseTo(500 / 22e3, 6);
    expect(t.plan.peakWatts).toBeCloseTo(11.36, 2);
    expect(t.plan.seconds).toBeCloseTo(2.2 * Math.log(50), 3);
    // Longer than the five seconds of a pulse, so the average counts: 12.5 J less 5 mJ over 8.6 s.
    expect(wattsWanted(t.plan)).toBeCloseTo((12.5 - 0.005) / (2.2 * Math.log(50)), 3);
    expect(t.watts).toBe(2);
    expect(t.bodies).toBe(2);
    expect(t.bodies * bodyVolts(t.wattsEach)).toBeGreaterThanOrEqual(500);
  });
  test("no value is offered that sparks, however much is stored", () => {
    for (const volts of [60, 150, 320, 505, 900])
      for (const farads of [8e-6, 47e-6, 220e-6, 2000e-6]) {
        const t = sizeTool(farads, volts, 10);
        expect(t.plan.peakAmps).toBeLessThanOrEqual(0.4 + 1e-9);
      }
    expect(sizeTool(2000e-6, 500, 10).ohms).toBe(1500);
  });
  test("a tool that is at hand: a short, a small body, low volts, slow", () => {
    expect(toolDoubts({ ohms: 0.5 }, 100e-6, 400, 10)[0]).toMatchObject({ refuse: true, says: expect.stringContaining("plain short") });
    expect(toolDoubts({ ohms: 220, watts: 100 }, 100e-6, 400, 10)).toMatchObject([
      { refuse: false, says: expect.stringContaining("sparks") },
    ]);
    expect(toolDoubts({ ohms: 2200, watts: 0.5, volts: 1000 }, 100e-6, 400, 10)).toMatchObject([
      { refuse: true, says: expect.stringContaining("10 W") },
    ]);
    expect(toolDoubts({ ohms: 2200, watts: 10, volts: 250 }, 100e-6, 400, 10)).toMatchObject([
      { refuse: true, says: expect.stringContaining("Put 2 in series") },
    ]);
    expect(toolDoubts({ ohms: 1e6, watts: 2 }, 100e-6, 400, 10)).toMatchObject([{ refuse: false, says: expect.stringContaining("Slow") }]);
    expect(toolDoubts({ ohms: 2200, watts: 10 }, 100e-6, 400, 10)).toEqual([]);
  });
  test("proved within a fifth of its marking", () => {
    expect([2200, 1900, 2600, 2700, 1e9, 0].map((r) => toolProved(2200, r))).toEqual([true, true, true, false, false, false]);
  });
});

describe("the order of clipping on", () => {
  test("one capacitor alone follows the exponential", () => {
    const c = readCircuit("t\nC1 b1 0 100u ;@volts 450\nR1 b1 0 1MEG").circuit;
    const s = dischargeSequence(c, reservoirsOf(c), [400], 2200, 10);
    expect(s.clips).toHaveLength(1);
    expect(s.clips[0]).toMatchObject({ reservoir: "C1", to: "0", brings: ["C1"] });
    expect(s.clips[0]!.seconds).toBeCloseTo((1e-4 / (1 / 2200 + 1e-6)) * Math.log(40), 1);
    expect(s.clips[0]!.joules).toBeCloseTo(8 - 0.005, 2);
    expect(s.clips[0]!.peakWatts).toBeCloseTo(72.7, 1);
    // 400 V over 2.2 kΩ.
    expect(s.clips[0]!.peakAmps).toBeCloseTo(0.1818, 4);
  });
  test("a capacitor between two nodes is bled across itself where that brings more down than to chassis", () => {
    const c = readCircuit("t\nC1 m 0 100u ;@volts 450\nC2 b m 100u ;@volts 450\nR1 b m 1MEG\nR2 m 0 1MEG").circuit;
    const reservoirs = reservoirsOf(c);
    const volts = reservoirs.map((r) => ({ C1: 300, C2: -300 })[r.name]!);
    // Node b is at nothing to chassis, yet 300 V lie across each: from m to chassis C1 is bled, and C2 only across itself.
    const s = dischargeSequence(c, reservoirs, volts, 2200, 10);
    expect(s.left).toEqual([]);
    expect(s.clips.map((clip) => [clip.reservoir, clip.from, clip.to])).toEqual([
      ["C1", "m", "0"],
      ["C2", "b", "m"],
    ]);
    // Less what 1 MΩ took of 100 µF meanwhile: 0.7 %.
    expect(s.clips[1]!.volts).toBeCloseTo(300 * Math.exp(-0.747 / 100), 1);
  });
  test("the Halberd: both halves of the stacked reservoir from their top, the bias supply on its own", () => {
    const c = load("halberd-120");
    const reservoirs = reservoirsOf(c);
    const volts = reservoirs.map((r) => ({ C1: 250, C2: 250, C3: 505, C4: 410, C5: 335, C20: -86, C21: -60 })[r.name]!);
    const s = dischargeSequence(c, reservoirs, volts, 2200, 10);
    expect(s.left).toEqual([]);
    expect(s.clips[0]).toMatchObject({ reservoir: "C1", to: "0", volts: 500 });
    // The bias cans fall through their own divider meanwhile: 50 µF behind some 40 kΩ.
    expect(s.clips).toHaveLength(1);
    expect(s.clips[0]!.brings).toEqual(["C1", "C2", "C3", "C4", "C5", "C20", "C21"]);
    const own = decayOf(c, reservoirs, volts).voltsAt(s.clips[0]!.seconds);
    expect(Math.abs(own[reservoirs.findIndex((r) => r.name === "C1")]!)).toBeGreaterThan(100);
    // ½·200 µF·250² twice, 50 µF at 505 V, 32 µF at 410 and 335 V, the bias cans: 23.4 J in all.
    const held = reservoirs.reduce((sum, r, i) => sum + 0.5 * r.farads * volts[i]! ** 2, 0);
    expect(held).toBeCloseTo(23.6, 0);
    expect(s.joules).toBeLessThanOrEqual(held);
    expect(s.joules).toBeGreaterThan(0.99 * held);
    const last = s.clips.at(-1)!.after;
    expect(Math.max(...last.map(Math.abs))).toBeLessThanOrEqual(10.001);
  });
  test("reservoirs named by hand, with no circuit, are each bled on their own", () => {
    const named = ["a", "b"].map((name) => ({ name, parts: [name], node: `hand:${name}`, returnNode: "0", farads: 40e-6, label: "" }));
    const s = dischargeSequence(undefined, named, [150, 120], 4700, 10);
    expect(s.clips.map((c) => c.brings)).toEqual([["b"], ["a"]]);
    expect(s.clips[0]!.seconds).toBeCloseTo(4700 * 40e-6 * Math.log(12), 2);
  });
  test("what a tool cannot bring down in time is named", () => {
    const c = readCircuit("t\nC1 b1 0 1000u ;@volts 450\nR1 b1 0 1MEG").circuit;
    expect(dischargeSequence(c, reservoirsOf(c), [400], 1e6, 10)).toMatchObject({ clips: [], left: ["C1"] });
  });
});

describe("separate reservoirs", () => {
  test("the Lantern: one open dropper leaves what is behind it charged, and only R30 bleeds", () => {
    const c = load("lantern-15");
    const ties = tiesOf(c, reservoirsOf(c));
    const of = (name: string) => ties.find((t) => t.reservoir === name)!;
    expect(of("C1")).toMatchObject({ first: true, joined: true, bled: true });
    expect(of("C2").cutOffBy).toEqual(["R1"]);
    expect(of("C3").cutOffBy).toEqual(["R1", "R2"]);
    expect(of("C4").cutOffBy).toEqual(["R1", "R2", "R3"]);
    expect(of("C1").bleedLostBy).toEqual(["R30"]);
    expect(of("C4").bleedLostBy).toEqual(expect.arrayContaining(["R3", "R30"]));
  });
  test("behind an open switch it stands alone, and the bias supply always does", () => {
    const c = readCircuit("t\nC1 b1 0 100u ;@volts 450\nXS1 b1 b2 SW state=open\nC2 b2 0 47u ;@volts 450\nR9 b1 0 100k").circuit;
    expect(tiesOf(c, reservoirsOf(c))).toMatchObject([
      { reservoir: "C1", first: true, bled: true },
      { reservoir: "C2", joined: false, behind: ["S1"], bled: false },
    ]);
    const h = load("halberd-120");
    expect(tiesOf(h, reservoirsOf(h)).find((t) => t.reservoir === "C20")).toMatchObject({ joined: false, behind: [] });
  });
});
