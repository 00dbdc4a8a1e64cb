/** The bias set hands-free, step by step: every tube read, the rails, the adjuster turned to the target, everything read again. */

import { roleOf } from "../anatomy/points";
import { whereToProbe } from "../anatomy/sockets";
import type { Circuit } from "../circuit/circuit";
import { pointOfWay, usualWay } from "./from-tape";
import type { OutputStage } from "./output-stage";
import type { Way } from "./read-current";

export interface ReadStep {
  what: "read";
  when: "before" | "after";
  point: string;
  kind: "dcv" | "ma";
  /** Where the probe goes, in words. */
  place: string;
  label: string;
  /** Of a current. */
  tube?: string;
}

export interface TurnStep {
  what: "turn";
  /** The tube whose current is watched, and the point that shows it. */
  tube: string;
  point: string;
  kind: "dcv" | "ma";
  place: string;
}

export type BiasStep = ReadStep | TurnStep;

/** The current is on target within this part. */
export const ON_TARGET = 0.02;

/** @param way how the currents are read; as the stage offers it unless given. Tubes on one resistor are read once. */
export function biasSteps(circuit: Circuit, stage: OutputStage, way: Way = usualWay(stage)): BiasStep[] {
  const placeOf = (point: string) => {
    const found = circuit.points.find((p) => p.name.toLowerCase() === point.toLowerCase());
    return found ? whereToProbe(circuit, found) : point;
  };
  const tubes = stage.tubes.flatMap((t) => {
    const where = pointOfWay(circuit, stage, t, way);
    return where ? [{ ...where, tube: t.name, label: `${t.name} ${t.type.type}` }] : [];
  });
  const each = tubes.filter((t, i) => tubes.findIndex((u) => u.point === t.point && u.kind === t.kind) === i);
  const place = (t: (typeof each)[number]) => (t.kind === "ma" ? `${t.tube} probe` : placeOf(t.point));
  const rails = circuit.points.filter((p) => {
    const role = roleOf(circuit, p);
    const screens = stage.tubes.some((t) => t.screenResistor?.from === p.node);
    return p.node === stage.supply || screens || role === "bias" || (role === "rail" && feeds(circuit, p.node, stage.supply));
  });
  const readings = (when: "before" | "after"): ReadStep[] => [
    ...each.map((t): ReadStep => ({ what: "read", when, point: t.point, kind: t.kind, place: place(t), label: t.label, tube: t.tube })),
    ...rails.map((p): ReadStep => ({ what: "read", when, point: p.name, kind: "dcv", place: placeOf(p.name), label: p.label })),
  ];
  const watched = each[0];
  return [
    ...readings("before"),
    ...(watched ? [{ what: "turn" as const, tube: watched.tube, point: watched.point, kind: watched.kind, place: place(watched) }] : []),
    ...readings("after"),
  ];
}

/** A rail from which a closed switch or a choke leads to the stage. */
const feeds = (circuit: Circuit, from: string, to: string) =>
  circuit.elements.some((e) => (e.type === "SW" || e.letter === "L") && e.nodes.includes(from) && e.nodes.includes(to));
