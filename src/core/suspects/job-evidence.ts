/** The evidence of a job: its readings and observations since the amp was last changed. */

import type { Circuit } from "../circuit/circuit";
import { ampAsItIs } from "../tape/amp-as-it-is";
import type { Conditions } from "../tape/events/measuring-events";
import type { JobState } from "../tape/fold";
import { solveConditions, type SolveConditions } from "../expectation/modelled";
import { gathered, observableKey, pointNamed, sameMeasurement, type Evidence } from "../diagnosis/evidence";
import { envelopeOf, findElement } from "../circuit/circuit";
import { roleOf } from "../anatomy/points";
import { mainsKnown, type MainsKnown } from "./mains-known";
import { celsiusOf, WARM_MINUTES } from "./temperature";
import * as texts from "../texts/suspects";

export interface JobEvidence {
  evidence: Evidence[];
  /** Line and name of the last change: what was read before it says nothing of the amp as it is. */
  since?: { seq: number; position: string };
  /** Readings left out, with the reason. */
  leftOut: { point: string; why: string }[];
  /** How the mains of these readings is known. */
  mains: MainsKnown;
}

/** Mains voltages closer than this are one: each set of conditions is a table of its own. */
const MAINS_STEP = 1;

/** The latest reading of each kind and point under each set of conditions. */
export function evidenceOf(state: JobState, circuit: Circuit): JobEvidence {
  const { since, counts } = ampAsItIs(state);
  const found: Evidence[] = [];
  const leftOut: JobEvidence["leftOut"] = [];
  for (const r of state.readings) {
    if (!counts(r.seq)) continue;
    if (r.conditions.limiter) {
      leftOut.push({ point: r.point, why: texts.behindLampAmpsOwn() });
      continue;
    }
    if (r.kind === "ohm" && !ohmPlace(circuit, r.point)) {
      leftOut.push({ point: r.point, why: texts.notBetweenTwoNodes() });
      continue;
    }
    const drive = r.kind === "acv" ? driveOf(circuit, r.conditions) : undefined;
    const point =
      r.kind === "acv" && !drive
        ? railNamed(circuit, r.point)
        : r.kind === "dcv" || r.kind === "acv"
          ? pointNamed(circuit, r.point)
          : r.kind === "ohm"
            ? r.point
            : findElement(circuit, r.point)?.name;
    if (point === undefined) {
      leftOut.push({
        point: r.point,
        why: r.kind === "acv" && !drive ? texts.acLevelWithoutTone() : texts.notPointCircuit(),
      });
      continue;
    }
    const unnoted = drive ? controlsNotNoted(circuit, point, solveConditions(circuit, r.conditions).set) : [];
    if (unnoted.length > 0) {
      leftOut.push({ point: r.point, why: texts.controlNotNoted(unnoted.join(", ")) });
      continue;
    }
    const e: Evidence = {
      point,
      kind: r.kind,
      value: r.value,
      conditions: r.kind === "ohm" ? { without: [], set: [] } : rounded(solveConditions(circuit, r.conditions)),
      ...(drive ? { drive } : {}),
    };
    found.push(e);
  }
  for (const o of state.observations) {
    if (!counts(o.seq) || o.conditions.limiter) continue;
    const e: Evidence = { point: o.name, kind: "observe", value: 1, conditions: rounded(solveConditions(circuit, o.conditions)) };
    found.push(e);
  }
  for (const t of state.temperatures) {
    const celsius = celsiusOf(t);
    if (!counts(t.seq) || celsius === undefined) continue;
    const tube = envelopeOf(t.place.trim().toUpperCase());
    if (!circuit.elements.some((e) => e.tube && envelopeOf(e.name) === tube))
      leftOut.push({ point: t.place, why: texts.temperatureHeldAgainstModel() });
    else if ((t.warmMinutes ?? WARM_MINUTES) < WARM_MINUTES) leftOut.push({ point: t.place, why: texts.lessThanMinNot(WARM_MINUTES) });
    else
      found.push({ point: tube, kind: "temp", value: celsius, conditions: rounded(solveConditions(circuit, { mains: state.mainsVolts })) });
  }
  return {
    evidence: gathered(
      found.filter((e, i) => !found.slice(i + 1).some((later) => observableKey(later) !== observableKey(e) && sameMeasurement(later, e))),
    ),
    leftOut,
    mains: mainsKnown(state),
    ...(since ? { since } : {}),
  };
}

/** The tone at the first stage's input that an AC level was read with; undefined without one. */
function driveOf(circuit: Circuit, { toneVolts, toneHertz }: Conditions): Evidence["drive"] {
  const input = circuit.stages[0]?.in;
  return input !== undefined && toneVolts && toneHertz ? { input, hertz: toneHertz, level: toneVolts } : undefined;
}

/** Controls between the input and a point whose position nobody noted: a level behind them says nothing of the parts. */
function controlsNotNoted(circuit: Circuit, point: string, set: readonly string[]): string[] {
  const node = circuit.points.find((p) => p.name === point)?.node;
  const at = circuit.stages.findIndex((s) => s.out === node || s.in === node);
  const before = at < 0 ? circuit.stages : circuit.stages.slice(0, at + 1);
  const controls = [...new Set(before.flatMap((s) => s.control ?? []))];
  return controls.filter((c) => !set.some((x) => x.toUpperCase().startsWith(`${c.toUpperCase()}=`)));
}

/** The point's name where it is a rail: alternating volts there without a tone are ripple. */
function railNamed(circuit: Circuit, typed: string): string | undefined {
  const name = pointNamed(circuit, typed);
  const point = circuit.points.find((p) => p.name === name);
  return point && ["rail", "bias"].includes(roleOf(circuit, point)) ? name : undefined;
}

/** Whether an ohm reading lies between nodes that the model has. */
function ohmPlace(circuit: Circuit, point: string): boolean {
  const there = (n: string) => n === "0" || circuit.elements.some((e) => e.nodes.includes(n));
  if (point.includes(":"))
    return point
      .toLowerCase()
      .split(":")
      .map((n) => n.trim())
      .every(there);
  return findElement(circuit, point) !== undefined || pointNamed(circuit, point) !== undefined;
}

/** Conditions with the mains to the volt. */
export function rounded(c: SolveConditions): SolveConditions {
  return c.mains === undefined ? c : { ...c, mains: Math.round(c.mains / MAINS_STEP) * MAINS_STEP };
}
