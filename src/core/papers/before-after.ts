/** Each point's volts before the first change and after the last one, under like conditions, judged by the circuit as it was then. */

import { byTube, type PlaceRow } from "../by-tube/places";
import type { Circuit, TestPoint } from "../circuit/circuit";
import { verdictOf, type Verdict } from "../expectation/expectation";
import type { JobView } from "../job/job-view";
import { formatVolts } from "../quantity/format";
import type { Conditions, Reading } from "../tape/events/measuring-events";
import type { Line } from "../tape/fold";
import * as texts from "../texts/job";

export interface BeforeAfter {
  point: string;
  label: string;
  before: { text: string; verdict: Verdict };
  after?: { text: string; verdict: Verdict };
  expected: string;
}

export const alike = (a: Conditions, b: Conditions) =>
  (a.without ?? []).join() === (b.without ?? []).join() &&
  (a.limiter ?? "") === (b.limiter ?? "") &&
  (a.switches ?? "") === (b.switches ?? "");

/** In the order of the walk; points that were never read are left out. */
export function beforeAfter(circuit: Circuit, { state, sourceAt }: JobView): BeforeAfter[] {
  const firstChange = state.changes[0]?.seq ?? Infinity;
  const lastChange = state.changes.at(-1)?.seq ?? Infinity;
  /** By the circuit as it was when it was read: an experiment that came later is not held against it. */
  const expectedOf = (point: TestPoint, r: Line<Reading>) => sourceAt(r.seq)?.expect(point, r.conditions) ?? { none: texts.noCircuit() };
  const shown = (point: TestPoint, r: Line<Reading>) => {
    const expected = expectedOf(point, r);
    return { text: formatVolts(r.value), verdict: "none" in expected ? ("none" as Verdict) : verdictOf(r.value, expected) };
  };
  return [...circuit.points]
    .sort((a, b) => a.order - b.order)
    .flatMap((point) => {
      const all = state.readings.filter((r) => r.point === point.name && r.kind === "dcv");
      // As found is before the first change, as left after the last: what was read between the two is neither.
      const before = all.filter((r) => r.seq < firstChange).at(-1);
      const after = all.findLast((r) => r.seq > lastChange && (!before || alike(r.conditions, before.conditions)));
      const last = after ?? before;
      if (!last) return [];
      const expected = expectedOf(point, last);
      return [
        {
          point: point.name,
          label: point.label,
          before: before ? shown(point, before) : { text: "", verdict: "none" },
          after: after && shown(point, after),
          expected: "none" in expected ? "" : `${formatVolts(expected.low)} to ${formatVolts(expected.high)}`,
        },
      ];
    });
}

/** The same of a job without a circuit: rails, then tube by tube. What was read only after the work has nothing before it. */
export function beforeAfterByTube({ state }: Pick<JobView, "state">): BeforeAfter[] {
  const list = byTube(state);
  const lastChange = state.changes.at(-1)?.seq ?? Infinity;
  const row = (r: PlaceRow, type = ""): BeforeAfter[] => {
    const [before, now] = [r.before.dcv, r.latest.dcv];
    if (!now) return [];
    const after = now.seq > lastChange ? now : undefined;
    const electrode = r.place.at === "tube" ? [r.place.electrode, type].filter(Boolean).join(", ") : "";
    return [
      {
        point: r.name,
        label: electrode,
        before: { text: before ? formatVolts(before.value) : "", verdict: "none" },
        ...(after ? { after: { text: formatVolts(after.value), verdict: "none" as const } } : {}),
        expected: "",
      },
    ];
  };
  return [
    ...list.rails.flatMap((r) => row(r)),
    ...list.tubes.flatMap((t) => t.rows.flatMap((r) => row(r, t.typed))),
    ...list.others.flatMap((r) => row(r)),
  ];
}
