import { draws } from "../numeric/draws-for-tests";
import { AMPS, demoAmp } from "../solver/circuits-for-tests";
import { alter } from "../circuit/alter";
import { exportSpice } from "../solver/spice-export";
import { hasSpice, runSpice } from "../solver/spice-for-tests";
import { crossoverGone, frameAt, idleFrames } from "./idle-frames";
import { outputStages } from "./output-stage";
import { aligned, readScope } from "./scope-file";
import { playAtClip, playAtWatts, toneAmp } from "./tone";
import { waveFigures } from "./wave-figures";

const wave = (n: number, f: (angle: number) => number, periods = 1) =>
  Array.from({ length: n }, (_, i) => f((2 * Math.PI * periods * i) / n));

describe("figures of a waveform, worked by hand", () => {
  test("a sine of 2 V with 0.2 V of third harmonic: 10 %", () => {
    const f = waveFigures(wave(256, (a) => 2 * Math.sin(a) + 0.2 * Math.sin(3 * a)));
    expect(f.harmonics[0]).toBeCloseTo(2, 6);
    expect(f.harmonics[2]).toBeCloseTo(0.2, 6);
    expect(f.distortion).toBeCloseTo(0.1, 6);
    expect(f.rms).toBeCloseTo(Math.sqrt(2.02), 6);
  });
  test("a dead band of a fifth of the peak: its depth is the time that it takes beside what the wave takes next to it", () => {
    const f = waveFigures(wave(4000, (a) => (Math.sign(Math.sin(a)) * Math.max(0, Math.abs(Math.sin(a)) - 0.2)) / 0.8));
    // A level L is reached where the sine is 0.2 + 0.8 L; a clean sine takes asin(L + 0.1) − asin(L − 0.1).
    const time = (level: number) => {
      const at = (l: number) => Math.sign(l) * Math.asin(0.2 + 0.8 * Math.abs(l));
      return (at(level + 0.1) - at(level - 0.1)) / (Math.asin(level + 0.1) - Math.asin(level - 0.1));
    };
    expect(f.notch).toBeCloseTo(1 - time(0.3) / time(0), 2);
  });
  test("a clean sine, a bent one and a flattened one have no notch", () => {
    expect(waveFigures(wave(400, Math.sin)).notch).toBeLessThan(0.02);
    expect(waveFigures(wave(400, (a) => Math.sin(a) + 0.06 * Math.sin(2 * a + 1))).notch).toBeLessThan(0.03);
    expect(waveFigures(wave(400, (a) => Math.max(-0.9, Math.min(0.9, Math.sin(a))))).notch).toBeLessThan(0.02);
  });
  test("a notch beside zero, as an unbalanced pair has it, is found there", () => {
    const beside = (a: number) => {
      const s = Math.sin(a) - 0.4;
      return 0.4 + Math.sign(s) * Math.max(0, Math.abs(s) - 0.12);
    };
    expect(waveFigures(wave(800, beside)).notch).toBeGreaterThan(0.3);
  });
  test("a flattened top is an asymmetry; an offset is none", () => {
    const flat = waveFigures(wave(400, (a) => Math.min(0.8, Math.sin(a)) + 3));
    expect(flat.top).toBeLessThan(-flat.bottom);
    expect(waveFigures(wave(400, (a) => Math.sin(a) + 5)).asymmetry).toBeLessThan(1e-6);
  });
  test("nothing that moves, and too few samples, are refused", () => {
    expect(() => waveFigures(new Array(64).fill(1))).toThrow("nothing moves");
    expect(() => waveFigures([1, 2])).toThrow("at least 32");
  });
});

describe("the waveform of an amp", () => {
  const withSpice = hasSpice() ? test : test.skip;
  withSpice.each(["0.1", "0.7"])("harmonics at 4 W are those of a general SPICE, cold and warm: wiper at %s", (position) => {
    const amp = alter(demoAmp("halberd-120"), [`P9=${position}`, "P1=0.5", "P2=0.5"]);
    const played = playAtWatts(toneAmp(amp, outputStages(amp)[0]!), 4);
    const deck = exportSpice(amp).replace(/\n\.end\s*$/i, `\nVTONE in 0 SIN(0 ${played.peak} 1000)\n.end\n`);
    const out = runSpice(deck, ["tran 2u 5m 4m 4u", "linearize v(out)", "print v(out)"], 120);
    // One period: its last row repeats the first.
    const rows = [...out.matchAll(/^\d+\t([-+.\de]+)\s*$/gm)].map((m) => Number(m[1]));
    expect(rows.length).toBeGreaterThan(400);
    const spice = waveFigures(rows.slice(0, 500));
    const theirs = spice.harmonics;
    const own = played.figures.harmonics;
    expect(own[0]! / theirs[0]!).toBeCloseTo(1, 1);
    for (const h of [1, 2, 4]) expect(Math.abs(own[h]! - theirs[h]!) / theirs[0]!).toBeLessThan(0.006);
    expect(Math.abs(played.figures.distortion - spice.distortion)).toBeLessThan(0.01);
    expect(Math.abs(played.figures.notch - spice.notch)).toBeLessThan(0.05);
  });

  test("the notch of the Halberd goes between a cold idle and its target, and its distortion at 1 W falls more than threefold", () => {
    const amp = demoAmp("halberd-120");
    const { frames } = idleFrames(amp, outputStages(amp)[0]!, { low: 0.005, high: 0.034, count: 4, watts: 1 });
    const [cold, warm] = [frames[0]!, frames.at(-1)!];
    expect(cold.figures.notch).toBeGreaterThan(0.15);
    expect(warm.figures.notch).toBeLessThan(0.02);
    expect(cold.figures.distortion / warm.figures.distortion).toBeGreaterThan(3);
    for (const f of frames) expect(f.watts).toBeCloseTo(1, 1);
    const gone = crossoverGone(frames, 0.05)!;
    expect(gone).toBeGreaterThan(0.005);
    expect(frameAt(frames, gone)!.figures.notch).toBeCloseTo(0.05, 1);
    expect(crossoverGone(frames, -1)).toBeUndefined();
  });

  test("power at clip is what a published table gives such tubes, and no more than the stage can pass", () => {
    const amp = demoAmp("wren-5");
    // EL84 single-ended, published data sheet: 5.7 W at 250 V and 5.2 kΩ, at 10 % distortion; less here before a peak is flattened.
    const { watts, first } = playAtClip(toneAmp(amp, outputStages(amp)[0]!));
    expect(watts).toBeGreaterThan(2.8);
    expect(watts).toBeLessThan(5.7);
    expect(first).toBe("bottom");
  });

  test("an amp without a load, or with its volume off the way, is named", () => {
    const amp = demoAmp("wren-5");
    const [stage] = outputStages(amp);
    expect(() => toneAmp(amp, { ...stage!, load: undefined })).toThrow("a load");
    expect(() => toneAmp(alter(amp, ["C6=open"]), stage!)).toThrow("no signal");
  });
});

describe("an oscilloscope's file", () => {
  const csv = (rows: number, f: (t: number) => number, hertz = 1000, seconds = 0.005) =>
    Array.from(
      { length: rows },
      (_, i) => `${((seconds * i) / rows).toExponential(6)},${f((2 * Math.PI * hertz * seconds * i) / rows).toFixed(5)}`,
    ).join("\n");
  const read = (text: string, options?: Parameters<typeof readScope>[1]) => {
    const r = readScope(text, options);
    if (!r.ok) throw new Error(r.why);
    return r.wave;
  };
  test("header lines and an offset are passed over; five periods become one", () => {
    const w = read(`Model,X\nSource,CH1\nSecond,Volt\n${csv(1000, (a) => 3 * Math.sin(a + 0.7) + 12)}`);
    expect(w.skipped).toBe(3);
    expect(w.hertz).toBeCloseTo(1000, 0);
    expect(w.periods).toBe(5);
    expect(w.offset).toBeCloseTo(12, 1);
    expect(w.figures.distortion).toBeLessThan(0.005);
    expect(w.figures.harmonics[0]).toBeCloseTo(3, 1);
    // It begins where it rises through zero.
    expect(Math.abs(w.wave[0]!)).toBeLessThan(0.15);
    expect(w.wave[50]).toBeGreaterThan(2.9);
  });
  test("one period alone, decimal commas with semicolons, a second channel", () => {
    expect(read(csv(400, Math.sin, 1000, 0.001)).periods).toBe(1);
    const german = csv(600, (a) => 2 * Math.sin(a))
      .replaceAll(",", ";")
      .replaceAll(".", ",");
    expect(read(german).figures.harmonics[0]).toBeCloseTo(2, 1);
    const two = csv(600, Math.sin)
      .split("\n")
      .map((l) => `${l},${(2 * Number(l.split(",")[1])).toFixed(5)}`)
      .join("\n");
    expect(read(two, { column: 2 }).figures.harmonics[0]).toBeCloseTo(2, 1);
  });
  test("a measured notch is judged in the same figures as a computed one", () => {
    const notched = (a: number) => Math.sign(Math.sin(a)) * Math.max(0, Math.abs(Math.sin(a)) - 0.15);
    const direct = waveFigures(wave(4000, notched));
    expect(read(csv(5000, notched)).figures.notch).toBeCloseTo(direct.notch, 1);
  });
  const ROWS = draws(400_000, 2_000_000);
  test(`${ROWS} rows are read`, () => {
    const part = csv(10_000, Math.sin, 1000, 0.001)
      .split("\n")
      .map((l) => l.split(",")[1]!);
    const rows: string[] = [];
    for (let i = 0; i < ROWS; i++) rows.push(`${i}e-7,${part[i % 10_000]!}`);
    const w = read(rows.join("\n"));
    expect(w.rows).toBe(ROWS);
    expect(w.hertz).toBeCloseTo(1000, 0);
  });
  test.each([
    ["words", "nothing here\nto be read", "0 rows"],
    ["time that goes back", csv(100, Math.sin).split("\n").reverse().join("\n"), "does not rise"],
    ["a flat line", csv(100, () => 1), "no whole period"],
    ["half a period", csv(200, Math.sin, 1000, 0.0004), "no whole period"],
  ])("%s is refused with what is accepted", (_, text, why) => {
    const r = readScope(text);
    expect(r.ok ? "" : `${r.why} | ${r.accepted}`).toContain(why);
  });
  test("a computed wave is turned to begin as a read one does", () => {
    const turned = aligned(wave(200, (a) => Math.sin(a + 2)));
    turned.forEach((v, i) => expect(v).toBeCloseTo(Math.sin((2 * Math.PI * i) / 200), 1));
  });
});

test("every demo amp plays a tone", () => {
  for (const name of AMPS) {
    const amp = demoAmp(name);
    for (const stage of outputStages(amp)) expect(playAtWatts(toneAmp(amp, stage), 0.2).watts).toBeCloseTo(0.2, 1);
  }
});
