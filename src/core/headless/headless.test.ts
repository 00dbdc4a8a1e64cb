import { readFileSync } from "node:fs";
import { writeWav } from "../sound/wav";
import { runEngine } from "./headless";

const run = (...args: string[]) => runEngine(args, (file) => readFileSync(file, "utf8"));
const out = (...args: string[]) => JSON.parse(run(...args).out!);
const WREN = "demo/amps/wren-5.cir";

test("op: points, nodes, tubes", () => {
  const op = out("op", WREN, "--mains", "240", "--set", "C6=leak:5M");
  expect(op).toMatchObject({ converged: true, undetermined: [], tubes: { V2: { type: "EL84" }, V1A: { type: "12AX7" } } });
  expect(op.points["V2.g"].volts).toBeGreaterThan(3);
  expect(op.nodes.b1).toBeGreaterThan(op.points.B1.volts);
  expect(op.tubes.V1A.screenVolts).toBeUndefined();
});
test("--without takes tubes out, --meter none is the node itself", () => {
  const op = out("op", WREN, "--without", "V2", "--meter", "open");
  expect(op.tubes.V2).toBeUndefined();
  expect(op.points.B1.volts).toBe(op.nodes.b1);
});
test("a tremolo that runs is marked unstable, with mean and swing", () => {
  const op = out("op", "demo/amps/lantern-15.cir", "--set", "S1=open");
  expect(op.unstable).toBe(true);
  expect(op.points["V3B.p"].swing).toBeGreaterThan(100);
  expect(op.points.B1.swing).toBeUndefined();
  expect(out("op", "demo/amps/lantern-15.cir").unstable).toBeUndefined();
});
test("ohm, ac, tran, spice, help", () => {
  expect(out("ohm", WREN, "k2", "0").settled).toBeCloseTo(180, 6);
  expect(out("ohm", WREN, "b1", "0").settled).toBeNull();
  const ac = out("ac", WREN, "--in", "in", "--level", "0.001", "--freq", "400");
  expect(ac.points["V1A.p"].volts).toBeGreaterThan(0.03);
  const tran = out("tran", WREN, "--in", "in", "--level", "0.01", "--freq", "330", "--for", "5m", "--probe", "g2,out");
  expect(tran.t.at(-1)).toBeCloseTo(0.005, 12);
  expect(tran.v.g2).toHaveLength(tran.t.length);
  expect(Math.max(...tran.v.out)).toBeGreaterThan(0.05);
  expect(run("spice", WREN).out).toMatch(/^Wren 5[\s\S]*\.subckt EL84[\s\S]*\.end\n$/);
  expect(run("--help").out).toMatch(/npm run --silent engine -- op/);
});
test("pulsed: the ripple of the reservoir", () => {
  const tran = out("tran", WREN, "--pulsed", "--for", "60m", "--probe", "b1");
  const late = tran.v.b1.filter((_: number, k: number) => tran.t[k] > 0.02);
  const ripple = Math.max(...late) - Math.min(...late);
  // I/(f·C)·(1 − 2θ/π): about 46 mA into 32 µF at 100 Hz.
  expect(ripple).toBeGreaterThan(6);
  expect(ripple).toBeLessThan(14);
});
test.each([
  [["op", "missing.cir"], { error: expect.stringContaining("cannot be opened") }],
  [["op"], { error: expect.stringContaining("wants a circuit file") }],
  [["sing", WREN], { found: "sing", expected: expect.stringContaining("op, ohm") }],
  [["op", WREN, "--volume", "3"], { found: "--volume" }],
  [["op", WREN, "--mains", "lots"], { found: "lots" }],
  [["op", WREN, "--set", "R99=open"], { found: "R99=open" }],
  [["ohm", WREN, "b1"], { expected: "RED BLACK" }],
  [["ohm", WREN, "b1", "nowhere"], { error: "no node nowhere" }],
  [["ac", WREN, "--level", "1", "--freq", "400"], { expected: "--in with a node" }],
])("%j ends with exit 2 and one JSON error", (args, wanted) => {
  const { code, out: printed, error } = run(...args);
  expect(code).toBe(2);
  expect(printed).toBeUndefined();
  expect(JSON.parse(error!)).toMatchObject(wanted);
});
test("a file with bad lines: every one of them, with its line", () => {
  const bad = runEngine(["op", "x.cir"], () => "t\nR1 a 0 4k7\nC1 a b\nXV1 a b c 12ZZ9\n");
  expect(bad.code).toBe(2);
  expect(JSON.parse(bad.error!).map((e: { line: number }) => e.line)).toEqual(expect.arrayContaining([2, 3, 4]));
});
test("mains without *@mains is an error", () => {
  const { code, error } = runEngine(["op", "x.cir", "--mains", "117"], () => "t\nV1 a 0 5\nR1 a 0 1k\n");
  expect(code).toBe(2);
  expect(JSON.parse(error!)).toMatchObject({ expected: expect.stringContaining("*@mains") });
});
test("spectrum: a recording named, with its figures; what is no recording is refused", () => {
  const hum = Float32Array.from({ length: 16_000 }, (_, i) => 0.1 * Math.sin((2 * Math.PI * 100 * i) / 8000));
  const of = (bytes: Uint8Array, ...more: string[]) =>
    runEngine(
      ["spectrum", "amp.wav", ...more],
      () => "",
      () => bytes,
    );
  const found = JSON.parse(of(writeWav([hum], 8000), "--mains", "50").out!);
  expect(found).toMatchObject({
    kind: "hum-double",
    mains: { hz: expect.closeTo(50, 1), f1dB: -120, f2dB: expect.closeTo(-20, 0) },
    tones: [],
  });
  expect(of(new Uint8Array(9)).code).toBe(2);
  expect(JSON.parse(of(new Uint8Array(0)).error!)).toMatchObject({ found: "the file is empty" });
  expect(of(writeWav([hum], 8000), "--mains", "5000").code).toBe(2);
  expect(run("spectrum").code).toBe(2);
});

test("what the reader doubts is said: beside the operating point and on the error stream", () => {
  const file = "t\n*@mains 230 50\nXPS b 0 RECT_BRIDGE vac=200 rs=50\nC1 b 0 47u\nR1 b g 100k\nR2 g 0 1M\n";
  const { code, out, error } = runEngine(["op", "amp.cir"], () => file);
  expect(code).toBe(0);
  expect(JSON.parse(out!)).toMatchObject({ warnings: [{ found: "1M", expected: expect.stringContaining("1MEG") as string }], doubts: [] });
  expect(error).toContain("1MEG if megohms are meant");
  const ohm = runEngine(["ohm", "amp.cir", "b", "0"], () => file);
  expect(Object.keys(JSON.parse(ohm.out!) as object)[0]).toBe("settled");
});
