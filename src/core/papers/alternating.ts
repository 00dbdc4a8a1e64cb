/** Volts AC at each point, as found and as left: the ripple of a rail and what was left of the hum prove a cure. */

import { placeOf } from "../by-tube/places";
import { formatVolts } from "../quantity/format";
import type { Reading } from "../tape/events/measuring-events";
import type { JobState, Line } from "../tape/fold";
import * as texts from "../texts/papers";
import { alike, type BeforeAfter } from "./before-after";

const isRail = (point: string) => placeOf(point, new Map()).at === "rail";

/** In the order in which they were first read; with a circuit or without. */
export function alternating(state: Pick<JobState, "changes" | "readings">): BeforeAfter[] {
  const firstChange = state.changes[0]?.seq ?? Infinity;
  const lastChange = state.changes.at(-1)?.seq ?? Infinity;
  const read = state.readings.filter((r) => r.kind === "acv");
  const shown = (r: Line<Reading>) => ({ text: texts.voltsAc(formatVolts(r.value)), verdict: "none" as const });
  return [...new Set(read.map((r) => r.point))].flatMap((point): BeforeAfter[] => {
    const all = read.filter((r) => r.point === point);
    const before = all.findLast((r) => r.seq < firstChange);
    const after = all.findLast((r) => r.seq > lastChange && (!before || alike(r.conditions, before.conditions)));
    if (!before && !after) return [];
    return [
      {
        point,
        label: isRail(point) ? texts.ripple() : texts.alternating(),
        before: before ? shown(before) : { text: "", verdict: "none" },
        ...(after ? { after: shown(after) } : {}),
        expected: "",
      },
    ];
  });
}

/** "the ripple on B1 was 27 V AC and is 3.9 V AC": of each rail that was read both times. @param rows of `alternating` */
export const saysRipple = (rows: readonly BeforeAfter[]): string[] =>
  rows.flatMap((r) => (isRail(r.point) && r.before.text && r.after ? [texts.nowRipple(r.point, r.before.text, r.after.text)] : []));
