/** Faults of rectifiers and the windings that feed them. */

import { fileName, type Element } from "../circuit/circuit";
import type { AddFault } from "./fault";
import type { FaultKind } from "./priors";

const TIRED_RECTIFIER = [2, 3, 5];
const WEAK_SIDE = [3, 10, 40];

export function supplyFaults(e: Element, add: AddFault): void {
  const id = fileName(e);
  const only = (name: string, kind: FaultKind, change: string) =>
    add(e, { name: `${e.name} ${name}`, refs: [e.name], kind, changes: () => [`${id}=${change}`] });
  if (e.rectifierTube || e.params.tube === "selenium")
    add(e, {
      name: `${e.name} weak`,
      refs: [e.name],
      kind: "rectifier weak",
      changes: (s) => [`${id}=weak:${s}`],
      grid: TIRED_RECTIFIER,
      severityUnit: "×",
    });
  if (e.nodes.length > 2)
    for (const side of ["upper", "lower"] as const) {
      const word = e.type === "RECT_BRIDGE" ? "half of the bridge" : "diode";
      only(`${side} ${word} dead`, "rectifier half", `${side}:dead`);
      if (e.type !== "RECT_BRIDGE") only(`${side} ${word} shorted`, "rectifier half", `${side}:through`);
    }
  else if (e.type !== "RECT_HALF") only("half dead", "rectifier half", "half");
  if (e.type === "RECT_FULL")
    add(e, {
      name: `${e.name} one side of the winding weak`,
      refs: [e.name],
      kind: "rectifier half",
      changes: (s) => [`${id}=weakside:${s}`],
      grid: WEAK_SIDE,
      severityUnit: "×",
    });
  only("dead", "rectifier dead", "dead");
}
