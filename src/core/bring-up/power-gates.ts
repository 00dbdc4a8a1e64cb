/** What should be settled before power goes on: asked in the power-on dialog, passed only with a reason. */

import type { Circuit } from "../circuit/circuit";
import { envelopeOf } from "../circuit/circuit";
import type { JobState } from "../job/fold";
import { formatVolts } from "../quantity/format";
import { unloadedRails } from "../walk/unloaded";
import { anatomyOf } from "./anatomy";
import { lastChange } from "./stage-state";

export interface PowerGate {
  id: "isolation" | "rails" | "bias" | "fuse" | "straight" | "danger" | "series";
  says: string;
}

export interface Intended {
  through: string;
  without: readonly string[];
}

/** Gates that are not met for a power-on as intended. @param wall volts. */
export function unmetGates(circuit: Circuit | undefined, state: JobState, intended: Intended, wall: number): PowerGate[] {
  const out: PowerGate[] = [];
  const add = (id: PowerGate["id"], says: string) => out.push({ id, says });
  const danger = state.findings.filter((f) => f.severity === "danger" && f.closed === undefined);
  if (danger.length > 0) add("danger", `A danger is still open: ${danger.map((f) => `${f.place}, ${f.text}`).join("; ")}`);
  const changed = lastChange(state);
  const passed = (stage: string) => {
    const s = state.stages.get(stage);
    return s?.result === "passed" && s.seq > changed;
  };
  const powered = state.effective.some((e) => e.type === "power" && (e.payload as { state: string }).state === "on" && e.seq > changed);
  const lamp = intended.through.includes("lamp");
  const { power } = state;
  const blown = blownSince(state);
  if (blown && !lamp) add("fuse", `The fuse has gone in this amp (${blown}): through a lamp, or the next one goes too`);
  if (intended.through === "straight" && !powered)
    add("straight", "Never straight to full mains after work, storage or carriage: a lamp or a variable transformer first");
  if (!circuit) return out;

  const a = anatomyOf(circuit);
  const gone = new Set(intended.without.map((t) => envelopeOf(t.toUpperCase())));
  if (a.lineConnected && !passed("isolation") && !everPassed(state, "isolation"))
    add(
      "isolation",
      "Line-connected chassis: the isolation transformer is not ticked off at Bring-up. No instrument is clipped on without it",
    );
  const pulled = a.string.filter((t) => gone.has(t));
  if (pulled.length > 0) add("series", `${pulled.join(", ")} is part of the series heater string: without it nothing lights`);
  const outputIn = a.output.filter((t) => !gone.has(t));
  const rectified = a.high.some((e) => !e.rectifierTube || !gone.has(envelopeOf(e.name)));
  if (rectified && outputIn.length === 0) {
    const over = unloadedRails(circuit, wall).filter((r) => r.verdict === "out");
    if (over.length > 0)
      add(
        "rails",
        `Unloaded, ${over.map((r) => `${r.capacitor} can reach ${formatVolts(r.volts)} and is rated ${formatVolts(r.rated!)}`).join("; ")}: keep the dial down, or put a load on`,
      );
  }
  const before =
    power &&
    state.effective.some(
      (e) =>
        e.type === "power" &&
        (e.payload as { state: string }).state === "on" &&
        e.seq > changed &&
        outputWasIn(e.payload as { without?: string[] }, a.output),
    );
  if (a.fixedBias && outputIn.length > 0 && !passed("bias") && !before)
    add("bias", `Bias is not proven at the sockets of ${outputIn.join(", ")}: without it these tubes run away in seconds`);
  return out;
}

const everPassed = (state: JobState, stage: string) => state.stages.get(stage)?.result === "passed";

function outputWasIn(power: { without?: string[] }, output: readonly string[]): boolean {
  const gone = new Set((power.without ?? []).map((t) => envelopeOf(t.toUpperCase())));
  return output.some((t) => !gone.has(t));
}

/** How it is known that the fuse has gone, unless what did it was found and replaced since. */
function blownSince(state: JobState): string | undefined {
  const repaired = state.changes.findLast((c) => c.kind !== "experiment")?.seq ?? 0;
  const seen = state.observations.findLast((o) => o.name.toLowerCase() === "fuse blows" && o.seq > repaired);
  if (seen) return "seen";
  const step = state.isolation.findLast((s) => s.seq > repaired && (s.outcome === "blows" || s.outcome === "bright"));
  return step ? step.what : undefined;
}
