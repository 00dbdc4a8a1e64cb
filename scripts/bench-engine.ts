/** The engine's speed targets, measured: prints one JSON line per row, [what, measured, target]. Run by npm run bench. */

import { readFileSync } from "node:fs";
import { readCircuit } from "@/core/circuit/read";
import { listen } from "@/bench/recordings";
import { NoiseTable } from "@/core/noise/noise-table";
import { soundsOf } from "@/core/sound/sounds";
import { readWav, writeWav } from "@/core/sound/wav";
import { isolate } from "@/core/diagnosis/isolate";
import { frameAt, idleFrames } from "@/core/output/idle-frames";
import { matchTubes } from "@/core/output/matching";
import { outputStages } from "@/core/output/output-stage";
import { runBlocking } from "@/core/output/blocking";
import { playAtClip, toneAmp } from "@/core/output/tone";
import { normalDraws } from "@/core/numeric/random";
import { readBlockFile } from "@/core/blocks/block-file";
import { slotsOf } from "@/core/blocks/values";
import { chartOf } from "@/core/settle/given";
import { settle } from "@/core/settle/settle";
import { compile } from "@/core/solver/compile";
import { ohmmeter } from "@/core/solver/ohmmeter";
import { operatingPoint, readings, solveOperatingPoint } from "@/core/solver/operating-point";
import { SmallSignal } from "@/core/solver/small-signal";
import { monteCarlo } from "@/core/solver/tolerance";
import { sine, transient } from "@/core/solver/transient";

const amp = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;
const row = (what: string, measured: string, target: string) => console.log(JSON.stringify([what, measured, target]));
/** Median of `times` runs after as many to warm up, milliseconds. */
function median(times: number, work: () => void): number {
  const all: number[] = [];
  for (let k = 0; k < 2 * times; k++) {
    const start = performance.now();
    work();
    if (k >= times) all.push(performance.now() - start);
  }
  return all.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}
const ms = (x: number) => `${x < 10 ? x.toFixed(2) : Math.round(x)} ms`;

const lantern = amp("lantern-15");
const drover = amp("drover-40");
const network = compile(lantern);
const op = solveOperatingPoint(network);
const about = `Lantern 15, ${network.nodes.length} nodes`;
row(`operating point from nothing, ${about}`, ms(median(200, () => void operatingPoint(lantern))), "2 ms");
row(`the same from the last answer`, ms(median(200, () => void solveOperatingPoint(network, op.x))), "2 ms");
row(`all its points as a 10 MΩ meter reads them`, ms(median(200, () => void readings(op, lantern.points))), "none set");
const picture = amp("picture-house");
row(
  `operating point from nothing, Picture House, ${compile(picture).nodes.length} nodes`,
  ms(median(100, () => void operatingPoint(picture))),
  "none set",
);
row(`ohmmeter, settled, ${about}`, ms(median(100, () => void ohmmeter(lantern, "k45", "0", { seconds: 0 }))), "1 ms");
row(`ohmmeter, two seconds of charging as well`, ms(median(20, () => void ohmmeter(lantern, "k45", "0"))), "none set");
const hertz = Array.from({ length: 200 }, (_, k) => 10 * 10 ** (k / 50));
row(
  `AC at 200 frequencies, ${about}`,
  ms(
    median(10, () => {
      const signal = new SmallSignal(op);
      const input = signal.node("in");
      for (const f of hertz) signal.drive(input, 0.01, f);
    }),
  ),
  "100 ms",
);
for (const [name, circuit, input, level] of [
  ["Lantern 15, 50 mV", lantern, "in", 0.05],
  ["Drover 40, 10 mV", drover, "g1", 0.01],
  ["Drover 40, 50 mV, far into clipping", drover, "g1", 0.05],
] as const) {
  const at = operatingPoint(circuit);
  const node = at.network.index.get(input)!;
  row(
    `50 ms of 330 Hz through a push-pull amp: ${name}`,
    ms(
      median(
        5,
        () => void transient(at.network, { start: at.x, stop: 0.05, drive: sine(node, level, 330), keep: [node], mostStep: 1 / 330 / 40 }),
      ),
    ),
    "1,000 ms",
  );
}
row(`1,000 draws, all points read, ${about}`, ms(median(3, () => void monteCarlo(lantern, { draws: 1000 }))), "3,000 ms");
row(
  `1,000 draws, Drover 40, ${compile(drover).nodes.length} nodes`,
  ms(median(3, () => void monteCarlo(drover, { draws: 1000 }))),
  "none set",
);
const bad = "t\n" + Array.from({ length: 10_000 }, (_, i) => `R${i} n${i} n${i + 1} 4k7`).join("\n");
row("a file of 10,000 bad lines, read and reported", ms(median(3, () => void readCircuit(bad))), "1,000 ms");
const braces = "t\nR1 a 0 {" + "(".repeat(5000) + "1" + ")".repeat(5000) + "}";
row("braces 5,000 deep, refused", ms(median(3, () => void readCircuit(braces))), "1,000 ms");
const minute = listen([{ kind: "hum-double", level: -30 }], { rate: 48_000, seconds: 60, mains: 50, seed: 3, room: -60, music: -50 });
const wav = writeWav([minute, minute], 48_000);
row("a minute of 48 kHz stereo, read and named", ms(median(3, () => void soundsOf(readWav(wav), 50))), "1,000 ms");
for (const [name, circuit] of [
  ["Lantern 15", lantern],
  ["Drover 40", drover],
] as const) {
  let table: NoiseTable | undefined;
  row(
    `causes of a noise against all tests, ${name}`,
    ms(median(1, () => void (table = new NoiseTable(circuit, { mains: 230 })))),
    "none set",
  );
  const answers = [{ test: "sound", outcome: "hum-double" }];
  row(
    `the next test, ${name}, ${table!.causes.length} causes, ${table!.tests.length} tests`,
    ms(median(5, () => void isolate(table!, answers))),
    "none set",
  );
}
for (const name of ["lantern-15", "picture-house"]) {
  const circuit = amp(name);
  const given = chartOf(circuit);
  row(`settled on its chart, ${circuit.title}, ${given.length} figures`, ms(median(3, () => void settle(circuit, given))), "2,000 ms");
}
const built = readFileSync("demo/amps/drover-40.cir", "utf8");
row("a circuit file read as blocks and values, Drover 40", ms(median(20, () => void slotsOf(readBlockFile(built)))), "none set");

const halberd = amp("halberd-120");
const [stage] = outputStages(halberd);
const frames = idleFrames(halberd, stage!, { low: 0.005, high: 0.05, count: 4, watts: 1 }).frames;
row(
  "a frame of the waveform over the idle, Halberd 120",
  ms(median(1, () => void idleFrames(halberd, stage!, { low: 0.02, high: 0.02, count: 1, watts: 1 }))),
  "none set",
);
row("the wave at any idle, from solved frames", ms(median(200, () => void frameAt(frames, 0.013))), "200 ms");
const peak = 3 * playAtClip(toneAmp(halberd, stage!)).peak;
row(
  "drive, stop and recovery of a blocking stage, Halberd 120",
  ms(median(1, () => void runBlocking(halberd, stage!, { peak }))),
  "none set",
);
const draw = normalDraws(5);
const stock = Array.from({ length: 100 }, (_, id) => ({ id, milliamps: 40 + 4 * draw(), gm: 5 + 0.4 * draw() }));
for (const size of [2, 4, 6]) row(`groups of ${size} out of 100 tubes`, ms(median(3, () => void matchTubes(stock, size, 0.1))), "1,000 ms");
