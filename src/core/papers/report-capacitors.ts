/** The part of the owner's report that is about capacitors: what was formed again, what was replaced, what a cleaned board does now. */

import { formatDuration, formatQuantity, formatVolts } from "../quantity/format";
import { reformRuns } from "../capacitor/reform-run";
import { latestReading, type JobState } from "../tape/fold";
import * as texts from "../texts/job";

export interface ReportCapacitors {
  /** Sentences, in order. */
  says: string[];
  formed: { name: string; before: string; after: string; result: string }[];
}

/** @returns undefined where nothing of the kind is on the tape. */
export function reportCapacitors(state: JobState): ReportCapacitors | undefined {
  const says: string[] = [];
  const replaced = state.changes.filter((c) => c.kind === "replacement" && /^C\d/.test(c.position) && c.checks?.length);
  if (replaced.length > 0) says.push(texts.capacitorsReplaced(replaced.map((c) => c.position).join(", ")));
  for (const cleaned of state.boardsCleaned.slice(-1))
    for (const grid of cleaned.grids) {
      const before = state.readings.findLast((r) => r.point === grid && r.kind === "dcv" && r.seq < cleaned.seq);
      const after = latestReading(state, grid);
      if (before && after && after.seq > cleaned.seq)
        says.push(texts.boardWasCleaned(grid, formatVolts(before.value), formatVolts(after.value)));
    }
  const formed = reformRuns(state).flatMap((run) =>
    run.parts.flatMap((p) => {
      const [first, last] = [p.readings[0], p.readings.at(-1)];
      if (!first || !last) return [];
      const at = (r: typeof first) => `${formatQuantity(r.amps, "A", 2)} ${texts.at(formatVolts(r.volts))}`;
      return [
        {
          name: p.part.part,
          before: at(first),
          after: at(last),
          result: texts.formedTo(p.result ?? "", formatDuration(last.seconds), formatQuantity(p.part.limit, "A", 2)),
        },
      ];
    }),
  );
  return says.length + formed.length === 0 ? undefined : { says, formed };
}
