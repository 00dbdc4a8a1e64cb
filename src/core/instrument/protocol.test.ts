import { uniformDraws } from "../numeric/random";
import { readDisplay } from "./display";
import { LineOrder, readLine, writeLine, type BenchLine, type MeterLine } from "./protocol";

const LINES: BenchLine[] = [
  { tell: "meter", n: 182, at: 1764070000123, kind: "dcv", value: 318.2, digit: 0.1, range: 1000, auto: true },
  { tell: "meter", n: 183, at: 1764070000373, kind: "ohm", over: true, digit: 1000, range: 2e7, auto: false },
  { tell: "meter", n: 184, at: 1764070000623, kind: "acv", digit: 0.001, range: 20, auto: true },
  { tell: "mains", n: 7, at: 1764070000400, volts: 230.4, amps: 0.52 },
  { tell: "mains", n: 8, at: 1764070000900, volts: 61.2, amps: 0.22, lamp: 60, glow: 0.8 },
  { tell: "gone", what: "meter" },
  { tell: "want", n: 4, point: "V2.p", kind: "dcv", range: 1000 },
  { tell: "want", n: 5, point: "b1:0", kind: "ohm" },
  { tell: "want", n: 6, point: "B1", kind: "dcv", noted: "panel on; 50 % treble = up" },
  { tell: "set", mains: 115 },
  { tell: "set", mains: 230, lamp: 0 },
];

test.each(LINES)("written and read again it is the same: %j", (line) => {
  expect(readLine(writeLine(line))).toEqual({ ok: true, line });
});

test("the documented examples are read as they stand", () => {
  expect(readLine("meter n=182 at=1764070000123 kind=dcv value=318.2 digit=0.1 range=1000 auto")).toEqual({ ok: true, line: LINES[0] });
  expect(readLine("  set mains=115  ")).toEqual({ ok: true, line: { tell: "set", mains: 115 } });
});

test.each([
  ["", /empty line/],
  ["motor n=1", /"motor" is no word/],
  ["meter n=1 at=2 kind=dcv value=abc digit=0.1 range=20", /value=abc cannot be read/],
  ["meter n=1 at=2 kind=farads value=1 digit=0.1 range=20", /kind=farads/],
  ["meter n=1 at=2 kind=dcv value=1 range=20", /digit=\?/],
  ["meter n=-1 at=2 kind=dcv value=1 digit=1 range=20", /n=-1/],
  ["mains n=1 at=2 volts=-3 amps=1", /volts=-3/],
  ["gone away", /"away" is no instrument/],
  ["want n=1 kind=dcv", /point=\?/],
  ["set", /nothing is set/],
  [`meter ${"x".repeat(500)}`, /506 characters/],
])("%j is refused with the reason and what is accepted", (text, why) => {
  const read = readLine(text);
  expect(read.ok).toBe(false);
  if (!read.ok) {
    expect(read.why).toMatch(why);
    expect(read.accepted).not.toBe("");
  }
});

test("repeated and late lines are dropped, whatever order they come in", () => {
  const draw = uniformDraws(5);
  const sent = Array.from({ length: 60 }, (_, i): MeterLine => ({ ...(LINES[0] as MeterLine), n: i, at: 1000 + i * 250 }));
  // Each line up to three times, each up to four places late.
  const jumbled = sent.flatMap((line, i) => Array.from({ length: 1 + Math.floor(draw() * 3) }, () => ({ line, at: i + draw() * 4 })));
  jumbled.sort((a, b) => a.at - b.at);
  const order = new LineOrder();
  const passed = jumbled.map((j) => j.line).filter((l) => order.accepts(l));
  expect(passed.map((l) => l.n)).toEqual([...new Set(passed.map((l) => l.n))].sort((a, b) => a - b));
  expect(passed.at(-1)!.n).toBe(59);
  expect(passed.length + order.dropped).toBe(jumbled.length);
});

test("an instrument that was restarted counts from nought and is heard again", () => {
  const order = new LineOrder();
  const line = (n: number, at: number): MeterLine => ({ ...(LINES[0] as MeterLine), n, at });
  expect(order.accepts(line(900, 50_000))).toBe(true);
  expect(order.accepts(line(0, 1000))).toBe(true);
  expect(order.accepts(line(0, 1000))).toBe(false);
  expect(order.accepts(line(1, 1250))).toBe(true);
  // Another instrument in its place, whose clock is behind.
  expect(order.accepts(line(50, 500))).toBe(false);
  expect(order.accepts({ tell: "gone", what: "meter" })).toBe(true);
  expect(order.accepts(line(50, 500))).toBe(true);
  expect(order.accepts({ tell: "mains", n: 3, at: 10, volts: 230, amps: 1 })).toBe(true);
});

test.each([
  ["318.2 V DC", { kind: "dcv", value: 318.2, over: false, digit: 0.1, range: 1000 }],
  ["DC -12.4 mV", { kind: "dcv", value: -0.0124, over: false, digit: 0.0001, range: 0.1 }],
  ["7,42 V AC", { kind: "acv", value: 7.42, over: false, digit: 0.01, range: 10 }],
  ["118.3 kΩ", { kind: "ohm", value: 118300, over: false, digit: 100, range: 1e6 }],
  ["38.1 mA", { kind: "ma", value: 38.1, over: false, digit: 0.1, range: 100 }],
  ["0.L MΩ", { kind: "ohm", over: true, digit: 1e6, range: 1e6 }],
  ["OL V", { kind: "dcv", over: true, digit: 1, range: 1 }],
] as const)("a display %j", (text, display) => {
  expect(readDisplay(text)).toEqual({ ok: true, display });
});

test("a bare number is refused: it may be millivolts", () => {
  const read = readDisplay("318.2");
  expect(read).toMatchObject({ ok: false, why: expect.stringMatching(/without its unit/) as string });
  expect(readDisplay("3.1 A AC").ok).toBe(false);
  expect(readDisplay("hello").ok).toBe(false);
});
