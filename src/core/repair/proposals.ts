/** Tasks that a job asks for and that are not planned yet: from its findings, the bias that tubes call for, the tests at the end. */

import type { Circuit } from "../circuit/circuit";
import type { Planned } from "../tape/events/plan-events";
import type { WorkPhase } from "../tape/events/words";
import type { JobState } from "../tape/fold";
import * as texts from "../texts/work";
import { workList } from "./work-list";

export interface Proposal {
  planned: Planned;
  /** Findings that say danger first. */
  urgent: boolean;
}

const LIVE = /\b(measure|adjust|set|test|soak|listen|retension)\b/i;

/** With the power off, unless an action says that it is measured or set. */
export const phaseOf = (action: string): WorkPhase =>
  /\bbias\b/i.test(action) ? "adjustment" : LIVE.test(action) ? "power on" : "power off";

/** Suspects and capacitors are planned where they are judged. */
export function proposals(
  state: Pick<JobState, "findings" | "approvals" | "planned" | "quotes" | "lines">,
  circuit: Circuit | undefined,
): Proposal[] {
  const findings = workList(state)
    .filter((w) => w.stands !== "no")
    .map((w): Proposal => ({
      planned: {
        position: w.place.slice(0, 100),
        what: w.action.slice(0, 300),
        phase: phaseOf(w.action),
        from: "finding",
        source: w.seq,
        reversible: true,
      },
      urgent: w.severity === "danger",
    }));
  const open = state.planned.filter((p) => p.ended === undefined);
  const known = new Set(state.planned.map((p) => p.source).filter((s) => s !== undefined));
  const all = findings.filter((f) => !known.has(f.planned.source!));
  const coming = [...open, ...all.map((p) => p.planned)];
  const output = circuit?.elements.filter((e) => e.tube && (e.tube.ratings?.plateWatts ?? 0) >= 5).map((e) => e.name.toLowerCase()) ?? [];
  const tubes = coming.some((p) => output.includes(p.position.toLowerCase()) || /output tube|bias/i.test(`${p.position} ${p.what}`));
  const end: Proposal[] = [];
  if (tubes && !coming.some((p) => p.phase === "adjustment"))
    end.push({
      planned: { position: texts.outputTubes(), what: texts.setBias(), phase: "adjustment", from: "bias", reversible: true },
      urgent: false,
    });
  if (coming.length > 0 && !coming.some((p) => p.phase === "final tests"))
    end.push({
      planned: { position: texts.wholeAmp(), what: texts.safetyTests(), phase: "final tests", from: "technician", reversible: true },
      urgent: false,
    });
  return [...all, ...end];
}
