/** What should be settled before power goes on: asked in the power-on dialog, passed only with a reason. */

import type { Circuit } from "../circuit/circuit";
import { envelopeOf } from "../circuit/circuit";
import { powerOns, type JobState } from "../tape/fold";
import { formatVolts } from "../quantity/format";
import { unloadedRails } from "../expectation/unloaded";
import { anatomyOf } from "../anatomy/kind-of-amp";
import { fuseGone, isolationAnswers } from "../bring-up/fuse-isolation-state";
import { lastChange, stageResult } from "../bring-up/stage-state";
import { isUnloaded } from "../bring-up/unloaded-stage";
import { passedForPower, type PowerGateId } from "./gates-passed";
import * as texts from "../texts/safety";

export interface PowerGate {
  id: PowerGateId;
  says: string;
}

export interface Intended {
  through: string;
  without: readonly string[];
  /** Behind the isolation transformer. */
  isolated?: boolean;
}

/** Gates that stand against a power-on as intended: neither met, nor passed with a reason since the power was last switched. @param wall volts. */
export function unmetGates(circuit: Circuit | undefined, state: JobState, intended: Intended, wall: number): PowerGate[] {
  const out: PowerGate[] = [];
  const passed = passedForPower(state);
  const add = (id: PowerGateId, says: string) => {
    if (!passed.has(id)) out.push({ id, says });
  };
  const danger = state.findings.filter((f) => f.severity === "danger" && f.closed === undefined);
  if (danger.length > 0) add("danger", texts.dangerStillOpen(danger.map((f) => `${f.place}, ${f.text}`).join("; ")));
  const changed = lastChange(state);
  const stagePassed = (id: string, powered: boolean) => stageResult(state, { id, powered }) === "passed";
  const before = powerOns(state).filter((e) => e.seq > changed);
  const lamp = intended.through.includes("lamp");
  if (!lamp && (fuseGone(state) || shortSeen(state))) add("fuse", texts.fuseHasGoneAmp());
  // Nothing said of what it goes through is straight from the wall.
  if ((intended.through === "straight" || intended.through === "") && before.length === 0) add("straight", texts.neverStraightFullMains());
  if (!circuit) return out;

  const a = anatomyOf(circuit);
  const gone = new Set(intended.without.map((t) => envelopeOf(t.toUpperCase())));
  if (a.lineConnected && !(intended.isolated && stagePassed("isolation", false)))
    add("isolation", intended.isolated ? texts.lineConnectedChassisIsolation() : texts.isolationNotSaid());
  const pulled = a.string.filter((t) => gone.has(t));
  if (pulled.length > 0) add("series", texts.partSeriesHeaterString(pulled.join(", ")));
  const outputIn = a.output.filter((t) => !gone.has(t));
  if (isUnloaded(circuit, intended.without)) {
    const over = unloadedRails(circuit, wall).filter((r) => r.verdict === "out");
    if (over.length > 0)
      add(
        "rails",
        texts.unloadedKeepDialDown(
          over.map((r) => texts.canReachRated(r.capacitor, formatVolts(r.volts), formatVolts(r.rated!))).join("; "),
        ),
      );
  }
  const ran = before.some((e) => a.output.some((t) => !(e.payload.without ?? []).some((o) => envelopeOf(o.toUpperCase()) === t)));
  if (a.fixedBias && outputIn.length > 0 && !stagePassed("bias", true) && !ran) {
    const unread = socketsUnread(circuit, state, outputIn, changed);
    if (unread.length > 0)
      add("bias", texts.biasNotProvenSockets(outputIn.join(", "), unread.map((s) => texts.readSocket(s.point, s.atLeast)).join(", ")));
  }
  return out;
}

/** Part of the chart's bias that a socket has to show, and volts where the chart says nothing. */
const LEAST_BIAS_PART = 0.5;
const LEAST_BIAS_VOLTS = 5;

/**
 * Grid pins of output sockets whose bias nobody has read with the tube out since the amp was last changed: what would meet the gate. A reading
 * that was taken counts until something changes that it rests on.
 */
function socketsUnread(
  circuit: Circuit,
  state: Pick<JobState, "readings">,
  tubes: readonly string[],
  changed: number,
): { point: string; atLeast: string }[] {
  return [...anatomyOf(circuit).grids].flatMap(([tube, nodes]) =>
    !tubes.includes(tube)
      ? []
      : nodes.flatMap((node) => {
          const points = circuit.points.filter((p) => p.node === node);
          const own = points.find((p) => (p.pin ?? "").startsWith(`${tube} `));
          const name = own?.name ?? `${tube}.g`;
          const chart = [own, ...points].find((p) => p?.chart !== undefined && p.chart < 0)?.chart;
          const least = chart === undefined ? LEAST_BIAS_VOLTS : LEAST_BIAS_PART * -chart;
          const read = state.readings.findLast(
            (r) =>
              r.seq > changed &&
              r.kind === "dcv" &&
              r.point.toLowerCase() === name.toLowerCase() &&
              (r.conditions.without ?? []).some((t) => envelopeOf(t.toUpperCase()) === tube),
          );
          return read && read.value <= -least ? [] : [{ point: name, atLeast: formatVolts(-least) }];
        }),
  );
}

/** A lamp that stayed bright, or a fuse that went, in a step of the isolation. */
function shortSeen(state: JobState): boolean {
  return isolationAnswers(state).some((a) => a.outcome === "blows" || a.outcome === "bright");
}
