/** The lines of a job's tape that speak of a part or of a node's points. */

import type { Circuit } from "@/core/circuit/circuit";
import { fileName } from "@/core/circuit/circuit";
import type { JobState, TapeLine } from "@/core/tape/fold";
import type { InHand } from "../job/job-context";

/** The lines that stand and name it, the newest first. A part is named by its own name, not by the nodes that it sits at. */
export function seenOf(state: Pick<JobState, "lines">, circuit: Circuit, at: InHand): TapeLine[] {
  const names =
    "part" in at
      ? circuit.elements.filter((e) => fileName(e) === at.part).map((e) => e.name)
      : circuit.points.filter((p) => p.node === at.node).map((p) => p.name);
  const wanted = names.map((n) => new RegExp(`(^|[^\\w.])${n.replace(/[.+*?^$()[\]{}|\\]/g, "\\$&")}($|[^\\w.]|\\.(?=\\s|$))`, "i"));
  const speaks = (value: unknown): boolean =>
    typeof value === "string"
      ? wanted.some((w) => w.test(value))
      : Array.isArray(value)
        ? value.some(speaks)
        : typeof value === "object" && value !== null && Object.values(value).some(speaks);
  return state.lines.filter((l) => l.effective && l.event.type !== "undo" && speaks(withoutConditions(l.event.payload))).reverse();
}

/** A tube that was out when something was read is no word about the tube. */
function withoutConditions(payload: object): object {
  const { conditions: _conditions, ...rest } = payload as { conditions?: unknown };
  return rest;
}
