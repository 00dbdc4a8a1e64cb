/**
 * The engine beside a general SPICE, in one run on one machine: an operating point, the table of faults, and the ranking after a reading.
 * Prints one JSON line per row, [what, measured, target]. Run by npm run bench; needs ngspice.
 */

import { readFileSync } from "node:fs";
import { readCircuit } from "@/core/circuit/read";
import { operatingPoint } from "@/core/solver/operating-point";
import { exportSpice } from "@/core/solver/spice-export";
import { hasSpice, runSpice } from "@/core/solver/spice-for-tests";
import { nextMeasurements } from "@/core/suspects/next";
import { rank } from "@/core/suspects/rank";
import { FaultTable } from "@/core/suspects/table";
import { benchCase } from "@/core/suspects/test-bed";

const row = (what: string, measured: string, target: string) => console.log(JSON.stringify([what, measured, target]));
const percentile = (times: number[], p: number) =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * p))]!;
const ms = (x: number) => `${x < 10 ? x.toFixed(2) : Math.round(x)} ms`;
/** Times of `times` runs after as many to warm up, milliseconds. */
function timesOf(times: number, work: () => void): number[] {
  const all: number[] = [];
  for (let k = 0; k < 2 * times; k++) {
    const start = performance.now();
    work();
    if (k >= times) all.push(performance.now() - start);
  }
  return all;
}
/** Cases of one amp that are ranked reading by reading, twice: at the second time everything that is kept is there. */
const CASES = 8;

for (const name of ["lantern-15", "halberd-120", "picture-house"]) {
  const { circuit } = readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8"));
  const conditions = { mains: circuit.mains!.volts, without: [], set: [] };
  const spice = hasSpice()
    ? percentile(
        timesOf(10, () => void runSpice(exportSpice(circuit), ["op"])),
        0.5,
      )
    : NaN;
  const point = percentile(
    timesOf(200, () => void operatingPoint(circuit)),
    0.5,
  );
  row(
    `${circuit.title}: operating point; a general SPICE's whole batch run on the same export`,
    `${ms(point)}; ${ms(spice)}, ${(spice / point).toFixed(0)} times`,
    "20 times",
  );
  let table = new FaultTable(circuit);
  const first = timesOf(3, () => {
    table = new FaultTable(circuit);
    table.shown(conditions);
  });
  const whole = percentile(first, 0.5);
  const lines = table.hypotheses.length;
  row(
    `${circuit.title}: table of ${lines} faults; the same one by one in a general SPICE, reckoned from one`,
    `${ms(whole)}; ${((lines * spice) / whole).toFixed(0)} times`,
    "20 times, 1,000 ms",
  );
  const times: number[] = [];
  for (let k = 0; k < 2 * CASES; k++) {
    const c = benchCase(circuit, 1000 + (k % CASES), conditions);
    for (let read = 1; c && read <= c.evidence.length; read++) {
      const start = performance.now();
      nextMeasurements(rank(table, c.evidence.slice(0, read)).posterior, conditions);
      if (k >= CASES) times.push(performance.now() - start);
    }
  }
  row(
    `${circuit.title}: ranking again with the next measurement, median and 95th percentile`,
    `${ms(percentile(times, 0.5))}, ${ms(percentile(times, 0.95))}`,
    "16 ms, 30 ms",
  );
}
