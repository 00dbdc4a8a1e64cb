import { readFileSync } from "node:fs";
import { readLine } from "@/core/instrument/protocol";
import { BenchAmp } from "./amp";
import { BenchSession, type BenchState } from "./session";

const off: BenchState = { on: false, seconds: Infinity, without: [], set: [], warmMinutes: 0, noted: "", lamp: false };
const on = (without: string[], lamp = false): BenchState => ({ ...off, on: true, seconds: 60, warmMinutes: 1, without, lamp });
const every = ["V1", "V2", "V3", "V4", "V5", "V6"];

const amp = (name: string, ...faults: string[]) =>
  new BenchAmp(
    readFileSync(`demo/amps/${name}.cir`, "utf8"),
    5,
    faults.map((set) => ({ set })),
  );
const session = (a: BenchAmp, wall = 230) => new BenchSession(a, off, { seed: 3, wall });
/** The last mains line up to a time. */
const mainsAt = (s: BenchSession, at: number) => {
  const lines = s
    .until(at)
    .map((l) => readLine(l))
    .flatMap((r) => (r.ok && r.line.tell === "mains" ? [r.line] : []));
  return lines.at(-1)!;
};

describe("the simulated mains side in a bring-up", () => {
  test("a shorted winding half: the lamp burns bright with every tube out, and a fuse alone goes and stays gone until it is renewed", () => {
    const s = session(amp("lantern-15", "V6=winding-short"));
    s.stands(on(every, true));
    const lamp = mainsAt(s, 1_000_000);
    expect(lamp.glow).toBeGreaterThanOrEqual(0.8);
    expect(lamp.fuse).toBeUndefined();
    expect(lamp.volts).toBeLessThan(80);
    s.stands(off);
    s.until(1_003_000);
    s.stands(on(every));
    expect(mainsAt(s, 1_010_000)).toMatchObject({ fuse: "blown", amps: 0, volts: 0 });
    s.stands(off);
    s.until(1_012_000);
    s.tell("set mains=20", 1_012_000);
    s.until(1_020_000);
    s.stands(on(every));
    expect(mainsAt(s, 1_023_000).fuse).toBeUndefined();
  });
  test("a sound Lantern draws a few percent with every tube out, and its fuse holds at full mains", () => {
    const s = session(amp("lantern-15"));
    s.stands(on(every));
    expect(mainsAt(s, 1_005_000).amps).toBeLessThan(0.06);
    s.stands(on([]));
    const full = mainsAt(s, 1_040_000);
    expect(full.amps).toBeGreaterThan(0.22);
    expect(full.fuse).toBeUndefined();
  });
  test("windings: halves alike in a sound amp, one of them low in this one; volts of each", () => {
    const sound = amp("lantern-15");
    const shorted = amp("lantern-15", "V6=winding-short");
    const ratio = (a: BenchAmp) => a.windingOhms("HT.1", off)! / a.windingOhms("HT.2", off)!;
    expect(ratio(sound)).toBeGreaterThan(0.9);
    expect(ratio(shorted)).toBeLessThan(0.2);
    const stands = { ...on(every), mains: 230 };
    expect(sound.windingVolts("HT.1", stands)).toBeCloseTo(270 * 1.06, 0);
    expect(sound.windingVolts("H1", { ...stands, without: [] })).toBeCloseTo(6.3, 1);
    expect(sound.windingVolts("V1.p", stands)).toBeUndefined();
  });
  test("the Minor with an open heater: overload across it, nothing drawn, no high tension", () => {
    const a = amp("minor", "V2=heater-open");
    expect(a.windingOhms("V2.heater", off)).toBe(Infinity);
    expect(a.windingOhms("V3.heater", off)).toBeCloseTo(35 / 0.15 / 6, 3);
    expect(a.windingOhms("H1.string", off)).toBe(Infinity);
    const s = session(a, 117);
    s.stands(on([]));
    expect(mainsAt(s, 1_030_000).amps).toBeLessThan(0.02);
    expect(Math.abs(a.volts("b1", { ...on([]), mains: 117 }))).toBeLessThan(1);
  });
});
