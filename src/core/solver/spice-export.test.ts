import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readCircuit } from "../circuit/read";
import { writeCircuit } from "../circuit/write";
import { AMPS, circuitOf, demoAmp } from "./circuits-for-tests";
import { operatingPoint } from "./operating-point";
import { magnitude, SmallSignal } from "./small-signal";
import { figuresIn, hasSpice, runSpice } from "./spice-for-tests";
import { exportSpice } from "./spice-export";

/** Without line numbers and absent values, keys in order. */
function content(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(content);
  if (typeof value !== "object" || value === null) return value;
  const entries = Object.entries(value).filter(([k, v]) => k !== "line" && v !== undefined);
  return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([k, v]) => [k, content(v)]));
}

const everything = circuitOf(
  ".param RK=1.5k",
  ".subckt TONE a b c",
  "R1 a b 100k ;@tol 5%",
  "C1 b c 250p",
  ".ends",
  "*@mains 117 60",
  '*@chart mains=110 meter=1k note="a, b = c"',
  '*@fact maker="Tarn & Wicke"',
  "*@near p g",
  '*@point P node=p order=3 label="Plate, first" pin="V1 pin 1" chart=180 tol=12% caution="hot"',
  "*@stage V1 in=g out=p control=P1",
  "*@heater H1 volts=6.3 tubes=V1 reference=centre-tap",
  "*@tube 6XX6 kind=triode mu=30 ex=1.4 kg1=1500 kp=200 kvb=300 vct=0.5 kgrid=1500 heater=6.3 amps=0.3 volts=300 watts=2",
  ".model DS D(IS=1n N=1.8)",
  "XPS b 0 RECT_FULL vac=250 rs=120 tube=5Y3",
  "XBS 0 nb RECT_HALF vac=40 rs=1k tube=selenium",
  "R90 nb 0 47k",
  "C90 0 nb 50u",
  "C1 b 0 20u ;@volts 450 @kind electrolytic @section can1 @year 1955",
  "L1 b b2 8 ;@dcr 250",
  "C2 b2 0 20u",
  "R1 b2 p 100k ;@prov assumed",
  "XV1 p g k 6XX6",
  "R2 k 0 {RK}",
  "XV2 b2 g2 k2 12AU7",
  "R3 k2 0 4.7k",
  "R4 g2 0 1MEG",
  "XP1 0 g top POT value=500k taper=audio pos=0.3",
  "XTONE1 p top 0 TONE",
  "XS1 k kx SW state=open",
  "C9 kx 0 25u",
  "R9 kx 0 1MEG",
  "XS2 g2 s1 s2 SW2 state=2",
  "R5 s1 0 1k",
  "R6 s2 0 2k",
  "XT1 b2 pp pq o4 0 o8 OPT_PP zpp=8000 load=4 load2=8 dcr=100 dcr2=110 lp=30",
  "R7 o4 0 4",
  "R8 o8 0 1k",
  "R10 pq 0 100k",
  "R11 pp 0 100k",
  "D1 k2 dz DS",
  "R12 dz 0 10k",
  "XZ1 0 z ZENER vz=12 rz=10",
  "R13 b2 z 100k",
  "XQ1 d gt 0 NMOS vto=2 kp=0.1",
  "R14 b2 d 100k",
  "R15 gt 0 1MEG",
  "R16 z gt 4.7MEG",
  "XA1 z 0 oa OPAMP gain=10 vmax=12",
  "R17 oa 0 10k",
  "XT2 tp 0 ts 0 XFMR ratio=10 lp=5 dcr=100",
  "R18 b2 tp 47k",
  "R19 ts 0 8",
  "I1 0 ts 1m",
);

describe("iteration trips", () => {
  test.each(AMPS)("%s: written and read again it is the same circuit", (name) => {
    const circuit = demoAmp(name);
    for (const text of [writeCircuit(circuit), exportSpice(circuit)]) {
      const back = readCircuit(text);
      expect(back.errors).toEqual([]);
      expect(content(back.circuit)).toEqual(content(circuit));
    }
  });
  test("every kind of element", () => {
    for (const text of [writeCircuit(everything), exportSpice(everything)]) {
      const back = readCircuit(text);
      expect(back.errors).toEqual([]);
      expect(content(back.circuit)).toEqual(content(everything));
      expect(exportSpice(back.circuit)).toBe(exportSpice(everything));
    }
  });
});

const spice = "/usr/bin/ngspice";
const withSpice = existsSync(spice) ? describe : describe.skip;

withSpice("a general SPICE finds the same operating point", () => {
  const folder = mkdtempSync(join(tmpdir(), "scutum-spice-"));
  afterAll(() => rmSync(folder, { recursive: true }));
  const compare = (circuit: ReturnType<typeof demoAmp>, mains?: number) => {
    const file = join(folder, "amp.cir");
    writeFileSync(file, exportSpice(circuit, mains));
    const printed = execFileSync(spice, ["-b", file], { encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] });
    const op = operatingPoint(circuit, { mains });
    // Node voltages come first; device listings after them reuse short names.
    const seen = new Map<string, number>();
    for (const m of printed.matchAll(/^\s*(\S+)\s+(-?\d[\d.]*e[+-]\d+)$/gim)) {
      const node = m[1]!.toLowerCase();
      if (!seen.has(node)) seen.set(node, Number(m[2]));
    }
    let compared = 0;
    for (const node of new Set(circuit.elements.flatMap((e) => e.nodes))) {
      if (node === "0") continue;
      const theirs = seen.get(node);
      const ours = op.x[op.network.index.get(node)!]!;
      expect([node, theirs === undefined]).toEqual([node, false]);
      expect([node, Math.abs(theirs! - ours) <= 0.01 * Math.abs(ours) + 0.002]).toEqual([node, true]);
      compared++;
    }
    return compared;
  };
  test.each(AMPS)("%s", (name) => expect(compare(demoAmp(name))).toBeGreaterThan(8));
  test("at another mains voltage", () => expect(compare(demoAmp("wren-5"), 210)).toBeGreaterThan(8));
  test("every kind of element", () => expect(compare(everything)).toBeGreaterThan(20));
});

(hasSpice() ? describe : describe.skip)("what is exported runs in a general SPICE as it is", () => {
  const driven = (amp: string, level: number) => {
    const circuit = demoAmp(amp);
    const input = circuit.elements.some((e) => e.nodes.includes("in")) ? "in" : circuit.stages[0]!.in;
    const text = exportSpice(circuit).replace(/\n\.op\n/, "\n");
    return text.replace(/\n\.end\s*$/, `\nVsig sig 0 dc 0 ac 1 sin(0 ${level} 1000)\nCsig sig ${input} 1\n.end\n`);
  };
  test.each(AMPS)("%s: two milliseconds of a signal that overdrives it", (amp) => {
    // The signal goes into the first channel.
    const output = amp === "picture-house" ? "pla" : demoAmp(amp).stages.at(-1)!.out;
    const printed = runSpice(driven(amp, 0.1), ["tran 5u 2m", `meas tran swing pp v(${output}) from=1m to=2m`], 110);
    expect(figuresIn(printed).get("swing")).toBeGreaterThan(1);
  });
  test("the grid of the Wren's output tube at 20 kHz: the capacitances between electrodes are in it", () => {
    const circuit = demoAmp("wren-5");
    const printed = runSpice(driven("wren-5", 0.1), ["ac lin 1 20k 20k", "let g = mag(v(g2))", "print g"]);
    const op = operatingPoint(circuit);
    const at = (node: string) => op.network.index.get(node)!;
    const engine = magnitude(new SmallSignal(op).drive(at("in"), 1, 20e3)[at("g2")]!);
    expect(Math.abs(figuresIn(printed).get("g")! / engine - 1)).toBeLessThan(0.02);
  });
});
