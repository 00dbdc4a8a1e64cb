/** What the readings so far could not have shown, and the test that would. */

import { covariance, type Column } from "./columns";
import type { Fault } from "./fault";
import { SHOWS } from "../diagnosis/evidence";
import type { Weighed } from "./posterior";
import { HEALTHY, type FaultTable } from "./table";
import * as texts from "../texts/suspects";

/** Faults that none of the readings could have shown, with what would show them. */
export function notTestable(table: FaultTable, columns: Column[], weighed: Weighed[]): { fault: string; test: string }[] {
  const gaussian = columns.filter((c) => !c.chance);
  const cov = covariance(gaussian, 0);
  const least = gaussian.map((_, i) => SHOWS * Math.sqrt(cov[i * gaussian.length + i]!));
  const linesOf = new Map<Fault, number[]>();
  table.hypotheses.forEach((h, i) => linesOf.get(h.fault)?.push(i) ?? linesOf.set(h.fault, [i]));
  const out: { fault: string; test: string }[] = [];
  // What a voltage would show is looked up where voltages were taken: an ohmmeter's conditions would be a table of their own.
  const live = columns.find((c) => c.evidence?.kind === "dcv")?.evidence?.conditions;
  const base = table.shown(live ?? { mains: table.circuit.mains?.volts, without: [], set: [] });
  for (const w of weighed) {
    if (w.fault === HEALTHY || w.fault.kind === "pair" || w.fault.kind === "unknown") continue;
    const lines = linesOf.get(w.fault)!;
    const shows = lines.some((line) => gaussian.some((c, i) => Math.abs(c.mean[line]! - c.mean[0]!) > least[i]!));
    if (shows) continue;
    out.push({ fault: w.fault.name, test: testOf(table, w.fault, lines, base) });
  }
  return out;
}

/** The test of each fault under each set of conditions: the same for every ranking. */
const tests = new WeakMap<ReturnType<FaultTable["shown"]>, Map<Fault, string>>();

function testOf(table: FaultTable, fault: Fault, lines: number[], shown: ReturnType<FaultTable["shown"]>): string {
  const known = tests.get(shown) ?? new Map<Fault, string>();
  tests.set(shown, known);
  let test = known.get(fault);
  if (test === undefined) known.set(fault, (test = testFor(table, lines, shown) ?? otherTest(fault)));
  return test;
}

/** The point that moves most, where one does. */
function testFor(table: FaultTable, lines: number[], shown: ReturnType<FaultTable["shown"]>): string | undefined {
  let best: string | undefined;
  let most = SHOWS;
  table.points.forEach((p, i) => {
    const healthy = shown[0]!.volts[i]!;
    const row = shown[0]!.sensitivities.subarray(i * table.knobCount, (i + 1) * table.knobCount);
    const sigma = Math.hypot(0.01 * healthy, 0.03, Math.sqrt(row.reduce((s, v) => s + v * v, 0)));
    for (const line of lines) {
      const moved = Math.abs(shown[line]!.volts[i]! - healthy) / sigma;
      if (moved > most) {
        most = moved;
        best = texts.dcVolts(p);
      }
    }
  });
  return best;
}

function otherTest(fault: Fault): string {
  const [ref = ""] = fault.refs;
  if (fault.kind === "coupling open") return texts.toneThroughLevelBoth(ref);
  if (fault.kind === "coupling leaky") return texts.oneLegLiftedVolts(ref);
  if (fault.kind === "electrolytic open" || fault.kind === "can lifted") return texts.acVoltsAcrossAnother(ref);
  if (fault.kind === "electrolytic leaky") return texts.outCircuitWorkingVoltage(ref);
  if (fault.kind.startsWith("resistor")) return texts.ohmsPowerOff(ref);
  if (fault.kind.startsWith("tube") || fault.kind === "pin open" || fault.kind === "heater-cathode leak")
    return texts.tubeTesterKnownGood(ref);
  return texts.ohmsPowerOffSignal(ref);
}
