/** Made-up benches with a known truth: a spread amp with one fault, read point by point by a meter of the bench. */

import type { Circuit } from "../circuit/circuit";
import { normalDraws, uniformDraws } from "../numeric/random";
import { compile } from "../solver/compile";
import { idlingAboveSheet } from "../solver/idle";
import { operatingPoint, readings, solveOperatingPoint } from "../solver/operating-point";
import { knobsOf } from "../solver/tolerance";
import type { SolveConditions } from "../expectation/modelled";
import type { Evidence } from "../diagnosis/evidence";
import type { Fault } from "./fault";
import { faultsOf } from "./faults";
import { alter } from "../circuit/alter";

export interface BenchCase {
  seed: number;
  /** Undefined for a sound amp. */
  fault?: Fault;
  severity: number;
  /** One direct voltage a test point. */
  evidence: Evidence[];
}

/** Accuracy of the made-up meter, one sigma: part of reading, and volts. */
const METER_PART = 0.003;
const METER_VOLTS = 0.005;

/** Volts of an amp whose parts are drawn within tolerance; undefined when it does not converge. @param circuit altered already. */
export function spreadReadings(
  whole: Circuit,
  circuit: Circuit,
  seed: number,
  conditions: SolveConditions,
): Map<string, number> | undefined {
  const network = compile(circuit, { mains: conditions.mains });
  const normal = normalDraws(seed * 7919 + 13);
  const aboveSheet = idlingAboveSheet(operatingPoint(whole, { mains: conditions.mains }));
  const drawn = new Map(knobsOf(compile(whole)).map((k) => [`${k.kind} ${k.name}`, Math.max(-3, Math.min(3, normal()))]));
  for (const knob of knobsOf(network, aboveSheet))
    knob.turn((knob.usual ?? 1) * (1 + knob.sigma * (drawn.get(`${knob.kind} ${knob.name}`) ?? 0)));
  const op = solveOperatingPoint(network);
  if (!op.converged) return undefined;
  const out = readings(op, circuit.points);
  for (const [name, volts] of out) out.set(name, volts * (1 + METER_PART * normal()) + METER_VOLTS * normal());
  return out;
}

/** A case by its seed: each kind of fault is as likely as the next, severities lie anywhere between the ends of the grid. */
export function benchCase(circuit: Circuit, seed: number, conditions: SolveConditions): BenchCase | undefined {
  const uniform = uniformDraws(seed);
  const faults = faultsOf(circuit);
  const kinds = [...new Set(faults.map((f) => f.kind))];
  const kind = kinds[Math.floor(uniform() * kinds.length)]!;
  const ofKind = faults.filter((f) => f.kind === kind);
  const fault = ofKind[Math.floor(uniform() * ofKind.length)]!;
  const [from, to] = [fault.grid[0]!, fault.grid.at(-1)!];
  const severity = from * (to / from) ** uniform();
  const read = spreadReadings(circuit, alter(circuit, fault.changes(severity)), seed, conditions);
  return read && { seed, fault, severity, evidence: evidenceOf(read, conditions) };
}

/** A sound amp. */
export function healthyCase(circuit: Circuit, seed: number, conditions: SolveConditions): BenchCase {
  return { seed, severity: 1, evidence: evidenceOf(spreadReadings(circuit, circuit, seed, conditions)!, conditions) };
}

function evidenceOf(read: Map<string, number>, conditions: SolveConditions): Evidence[] {
  return [...read].filter(([, v]) => Number.isFinite(v)).map(([point, value]) => ({ point, kind: "dcv", value, conditions }));
}
