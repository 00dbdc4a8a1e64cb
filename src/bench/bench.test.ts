/** The simulated bench: what its instruments show of an amp with a known fault. */

import { readFileSync } from "node:fs";
import { readLine, type MainsLine, type MeterLine } from "@/core/instrument/protocol";
import { feedHold, startHold, type HoldState } from "@/core/instrument/hold";
import { BenchAmp, type BenchFault, type Stands } from "./amp";
import { SimulatedMeter } from "./meter";
import { BenchSession, type BenchState } from "./session";

const netlist = (name: string) => readFileSync(`demo/amps/${name}.cir`, "utf8");
const WREN = netlist("wren-5");
const AS_IS: Stands = { mains: 230, without: [], set: [], warmMinutes: 10, noted: "" };
const ON: BenchState = { without: [], set: [], warmMinutes: 10, noted: "", on: true, seconds: 600, lamp: false };
const T0 = 1_764_070_000_000;

const lines = <T extends "meter" | "mains">(texts: string[], tell: T) =>
  texts.flatMap((t) => {
    const read = readLine(t);
    if (!read.ok) throw new Error(`${t}: ${read.why}`);
    return read.line.tell === tell ? [read.line as T extends "meter" ? MeterLine : MainsLine] : [];
  });

function session(state: Partial<BenchState> = {}, faults: BenchFault[] = [], model = WREN) {
  return new BenchSession(new BenchAmp(model, 11, faults), { ...ON, ...state }, { seed: 3, wall: 230 });
}

/** Sends the hand to a point and holds; gives the held value, or the last state. */
function held(bench: BenchSession, point: string, from: number, want = "kind=dcv"): HoldState {
  bench.until(from);
  bench.tell(`want n=1 point=${point} ${want}`, from);
  let state = startHold();
  for (const line of lines(bench.until(from + 9000), "meter")) {
    state = feedHold(state, line);
    if (state.phase === "held") return state;
  }
  return state;
}

describe("the amp", () => {
  test("a leaky coupling capacitor puts volts on the grid, with the meter's own load in them", () => {
    const sound = new BenchAmp(WREN, 11);
    const leaky = new BenchAmp(WREN, 11, [{ set: "C6=leak:14M" }]);
    expect(Math.abs(sound.volts("g2", AS_IS))).toBeLessThan(0.05);
    // By hand: V1B plate about 130 V through 14 MΩ onto 470 kΩ beside 10 MΩ, while no grid current flows.
    const plate = leaky.volts("p1b", AS_IS);
    const grid = (470e3 * 10e6) / (470e3 + 10e6);
    expect(leaky.volts("g2", AS_IS)).toBeCloseTo((plate * grid) / (grid + 14e6), 0);
    // One leg lifted: V·10M/(10M + 14M).
    expect(leaky.leakage("C6", AS_IS)).toBeCloseTo((plate * 10) / 24, 0);
    expect(sound.leakage("C6", AS_IS)).toBeLessThan(1);
  });

  test("a fault with a condition shows only under it", () => {
    const amp = new BenchAmp(WREN, 11, [
      { set: "R8=400k", afterMinutes: 40 },
      { set: "C6=leak:5M", when: "panel on" },
    ]);
    const sound = new BenchAmp(WREN, 11);
    expect(amp.volts("p1a", AS_IS)).toBeCloseTo(sound.volts("p1a", AS_IS), 6);
    expect(amp.volts("p1a", { ...AS_IS, warmMinutes: 45 })).toBeLessThan(0.8 * sound.volts("p1a", AS_IS));
    expect(amp.volts("g2", { ...AS_IS, noted: "Panel on, volume at zero" })).toBeGreaterThan(2);
    expect(amp.showing(AS_IS)).toEqual([]);
  });

  test("of two faults of one part the later one counts; a wrong primary tap raises everything", () => {
    const amp = new BenchAmp(WREN, 11, [{ set: "C6=leak:60M" }, { set: "C6=leak:14M", afterMinutes: 12 }]);
    expect(amp.showing({ warmMinutes: 3, noted: "" })).toEqual(["C6=leak:60M"]);
    expect(amp.showing({ warmMinutes: 13, noted: "" })).toEqual(["C6=leak:14M"]);
    const tapped = new BenchAmp(WREN, 11, [{ set: "TAP=1.09" }]);
    const sound = new BenchAmp(WREN, 11);
    expect(tapped.showing(AS_IS)).toEqual([]);
    expect(tapped.volts("b1", AS_IS)).toBeCloseTo(sound.volts("b1", { ...AS_IS, mains: 230 * 1.09 }), 0);
    const later = new BenchAmp(WREN, 11, [{ set: "TAP=1.09", afterMinutes: 30 }]);
    expect(later.volts("b1", AS_IS)).toBeCloseTo(sound.volts("b1", AS_IS), 9);
    expect(later.volts("b1", { ...AS_IS, warmMinutes: 31 })).toBeCloseTo(tapped.volts("b1", AS_IS), 9);
    expect(tapped.draw(AS_IS).amps).toBeGreaterThan(1.1 * sound.draw(AS_IS).amps);
  });

  test("between whole volts of mains the voltages go on evenly", () => {
    const amp = new BenchAmp(WREN, 11);
    const [low, middle, high] = [229, 229.5, 230].map((mains) => amp.volts("b1", { ...AS_IS, mains }));
    expect(middle).toBeCloseTo((low! + high!) / 2, 9);
    expect(high! - low!).toBeGreaterThan(0.5);
  });

  test("resistors are this amp's own for the ohmmeter too, and a fault's value stands", () => {
    const amp = new BenchAmp(WREN, 11, [{ set: "R4=310" }]);
    const { warmMinutes, noted, without, set } = AS_IS;
    const stands = { warmMinutes, noted, without, set };
    expect(amp.ohms("k2", "0", stands)).toBeCloseTo(310, 0);
    const r1 = amp.ohms("b1", "b2", stands)!;
    expect(Math.abs(r1 / 2200 - 1)).toBeGreaterThan(1e-4);
    expect(Math.abs(r1 / 2200 - 1)).toBeLessThan(0.1);
    expect(amp.ohms("b1", "nowhere", stands)).toBeUndefined();
  });

  test("ripple of the first capacitor: two thirds lost, nearly three times the ripple", () => {
    const whole = new BenchAmp(netlist("lantern-15"), 23).ripple("b1", AS_IS);
    const lost = new BenchAmp(netlist("lantern-15"), 23, [{ set: "C1=9u" }]).ripple("b1", AS_IS);
    expect(lost / whole).toBeGreaterThan(2.5);
    expect(lost / whole).toBeLessThan(4.5);
  });

  test("a tube tester shows what is left of a weak tube", () => {
    const amp = new BenchAmp(netlist("picture-house"), 59, [{ set: "V6=weak:0.25" }]);
    expect(amp.percentOfNew("V6", AS_IS)).toBeCloseTo(0.25 * 95, -1);
    expect(amp.percentOfNew("V4", AS_IS)).toBeGreaterThan(60);
    expect(amp.milliamps("V6", AS_IS)).toBeLessThan(0.5 * amp.milliamps("V4", AS_IS));
  });

  test("a netlist that cannot be read is refused with its line", () => {
    expect(() => new BenchAmp("A title\nR1 a 0 1k\nR2 a\n.end\n", 1)).toThrow(/line 3/);
  });
});

describe("the meter", () => {
  test("manual range overloads; its own choice steps up with a blank display between", () => {
    const meter = new SimulatedMeter(1);
    meter.choose("dcv", 20, T0);
    let at = T0;
    const next = (volts: number) => meter.show(volts, (at += 250));
    for (let i = 0; i < 6; i++) next(245);
    expect(next(245)).toMatchObject({ over: true, range: 20, auto: false });
    meter.choose("dcv", undefined, at);
    const shown = Array.from({ length: 12 }, () => next(245));
    expect(shown.some((l) => l.value === undefined && !l.over)).toBe(true);
    expect(shown.at(-1)).toMatchObject({ range: 1000, auto: true, digit: 0.05 });
    expect(Math.abs(shown.at(-1)!.value! - 245)).toBeLessThan(245 * 0.002);
  });

  test("left to itself it goes down to millivolts without a word: the unit changes, the figures look alike", () => {
    const meter = new SimulatedMeter(1);
    let at = T0;
    const settle = (volts: number) => Array.from({ length: 20 }, () => meter.show(volts, (at += 250))).at(-1)!;
    meter.choose("dcv", undefined, at);
    expect(settle(124).range).toBe(200);
    expect(settle(0.124).range).toBe(0.2);
    expect(settle(0.124).value).toBeCloseTo(0.124, 3);
  });

  test("accuracy, offset and noise stay within its figures; every meter has its own error", () => {
    const errors = Array.from({ length: 12 }, (_, seed) => {
      const meter = new SimulatedMeter(seed);
      meter.choose("dcv", 1000, T0);
      let at = T0;
      const values = Array.from({ length: 40 }, () => meter.show(300, (at += 250)).value).slice(10) as number[];
      expect(Math.max(...values) - Math.min(...values)).toBeLessThan(8 * 0.05);
      return values.reduce((a, b) => a + b, 0) / values.length / 300 - 1;
    });
    expect(Math.max(...errors.map(Math.abs))).toBeLessThan(0.002);
    expect(new Set(errors.map((e) => e.toFixed(5))).size).toBeGreaterThan(8);
  });
});

describe("the session", () => {
  test("the hand arrives, the meter settles, the hold takes: each point within a meter's accuracy of the truth", () => {
    const bench = session();
    const amp = new BenchAmp(WREN, 11);
    ["B1", "V2.k", "V1A.p", "V2.g"].forEach((point, i) => {
      const state = held(bench, point, T0 + i * 10_000);
      expect(state.phase).toBe("held");
      const truth = amp.volts(amp.nodeOf(point)!, AS_IS);
      expect(Math.abs(state.value! - truth)).toBeLessThan(0.008 * Math.abs(truth) + 0.01);
    });
  });

  test("a probe that was sent nowhere is never held", () => {
    const bench = session();
    let state = startHold();
    for (const line of lines(bench.until(T0), "meter").concat(lines(bench.until(T0 + 20_000), "meter"))) {
      state = feedHold(state, line);
      // On the coarse range an open lead shows a steady nought: without an expectation that is all a meter can tell.
      if (line.range < 20) expect(state.phase).not.toBe("held");
    }
  });

  test("the mains line: volts wander about the wall's, amperes are the model's, and fall with the dial", () => {
    const bench = session();
    const first = lines([...bench.until(T0), ...bench.until(T0 + 30_000)], "mains");
    expect(first.length).toBeGreaterThan(28);
    for (const line of first) expect(Math.abs(line.volts / 230 - 1)).toBeLessThan(0.01);
    expect(new Set(first.map((l) => l.volts)).size).toBeGreaterThan(3);
    expect(first.at(-1)!.amps).toBeCloseTo(new BenchAmp(WREN, 11).draw(AS_IS).amps, 2);
    bench.tell("set mains=115", T0 + 30_000);
    const half = lines(bench.until(T0 + 40_000), "mains").at(-1)!;
    expect(half.volts).toBeCloseTo(115, -1);
    expect(half.amps).toBeLessThan(first.at(-1)!.amps);
  });

  test("behind a lamp the amp gets less, and a shorted reservoir lights it", () => {
    const glow = (faults: BenchFault[]) =>
      lines([...session({ lamp: true }, faults).until(T0), ...session({ lamp: true }, faults).until(T0 + 100)], "mains")[0]!;
    const sound = glow([]);
    const shorted = glow([{ set: "C1=short" }]);
    expect(sound.lamp).toBe(100);
    expect(sound.volts).toBeLessThan(225);
    expect(shorted.glow!).toBeGreaterThan(sound.glow! + 0.2);
    expect(shorted.volts).toBeLessThan(sound.volts);
  });

  test("switched on cold the rail stands high and comes down as the tubes warm", () => {
    const cold = held(session({ seconds: 2, warmMinutes: 0 }), "B1", T0).value!;
    const warm = held(session(), "B1", T0).value!;
    expect(cold).toBeGreaterThan(warm + 15);
  });

  test("switched off, the reservoir keeps its charge and falls; grids and cathodes are at nothing", () => {
    const bench = session();
    const live = held(bench, "B1", T0).value!;
    bench.stands({ ...ON, on: false, seconds: 1 });
    const soon = held(bench, "B1", T0 + 20_000, "kind=dcv range=1000").value!;
    bench.stands({ ...ON, on: false, seconds: 600 });
    const later = held(bench, "B2", T0 + 40_000).value!;
    expect(soon).toBeLessThanOrEqual(live * 1.01);
    expect(soon).toBeGreaterThan(0.3 * live);
    expect(later).toBeLessThan(soon);
    expect(Math.abs(held(bench, "V2.k", T0 + 60_000).value!)).toBeLessThan(0.5);
    expect(session({ on: false, seconds: Infinity }).until(T0).length).toBe(2);
  });

  test("an ohmmeter shows nothing of use on a live amp, and the part on a dead one", () => {
    const live = held(session(), "R4", T0, "kind=ohm");
    expect(live.phase).toBe("over");
    const dead = held(session({ on: false, seconds: 900 }), "R4", T0, "kind=ohm");
    expect(dead.phase).toBe("held");
    expect(dead.value! / 180).toBeCloseTo(1, 1);
  });

  test("asked for the point that it is on, the hand lifts the probe and sets it down: the same volts are held a second time", () => {
    const bench = session();
    const first = held(bench, "B1", T0).value!;
    bench.tell("want n=2 point=B1 kind=dcv", T0 + 12_000);
    let state = startHold({}, { value: first, digit: 0.05 });
    for (const line of lines(bench.until(T0 + 20_000), "meter")) if (state.phase !== "held") state = feedHold(state, line);
    expect(state.phase).toBe("held");
  });

  test("a line that is no request is refused with what is accepted", () => {
    expect(() => session().tell("please measure", T0)).toThrow(/no word of an instrument; accepted: meter/);
  });
});
