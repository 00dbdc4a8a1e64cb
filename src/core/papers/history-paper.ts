/** The bench history: everything of a job for the next technician, with the circuit as it is now. */

import { format } from "date-fns";
import type { Linework } from "../drawing/linework";
import { formatDuration } from "../quantity/format";
import type { Settings } from "../shop/settings";
import type { Conditions } from "../tape/events/measuring-events";
import { lineSpokenOf } from "../tape/references";
import { tellEvent, tellReading } from "../tape/tell";
import { coverageOf } from "../repair/covered";
import { tasksOf } from "../repair/tasks";
import { minutesWorked } from "../repair/time";
import type { JobView } from "../job/job-view";
import * as texts from "../texts/papers";
import type { Block, Cell, Column } from "./block";
import { paperOf, paperTitle } from "./paper-title";
import { proofBlocks, reportProof } from "./report-proof";

const time = (iso: string) => format(new Date(iso), "d MMM yyyy HH:mm");
const right = "right" as const;

const conditionsWords = (c: Conditions): string =>
  [
    c.mains && `${c.mains} V`,
    c.without?.length && `without ${c.without.join(", ")}`,
    c.limiter,
    c.switches,
    c.controls,
    c.warmMinutes !== undefined && `${c.warmMinutes} min`,
  ]
    .filter(Boolean)
    .join(", ");

function table(heading: string, columns: Column[], rows: Cell[][]): Block[] {
  return rows.length === 0
    ? []
    : [
        { block: "heading", text: heading },
        { block: "table", columns, rows },
      ];
}

/** @param drawing of the circuit in use; undefined where it cannot be drawn. */
export function historyBlocks(job: number, view: JobView, settings: Settings, drawing?: Linework): Block[] {
  const { state } = view;
  const of = paperOf(job, state);
  const now = Date.parse(state.lastAt ?? "") || 0;
  const left = view.inUse?.leftOut ?? [];
  return [
    paperTitle(of, texts.benchHistory(of.amp), settings, state.lastAt ?? ""),
    { block: "text", look: "small", text: texts.forTechnician() },
    ...(state.complaint ? [{ block: "text" as const, look: "quote" as const, text: `“${state.complaint.words}”` }] : []),
    ...(view.circuit
      ? [
          { block: "heading" as const, text: texts.circuitInUse() },
          {
            block: "text" as const,
            text: differs(state.changes.filter((c) => c.set?.length && c.outcome !== "reverted").length),
          },
          ...left.map((l): Block => ({ block: "text", text: texts.leftOut(`${l.position}, ${l.why}`) })),
          ...(drawing ? [{ block: "drawing" as const, ...drawing }] : []),
        ]
      : []),
    ...ledger(view),
    ...timeTable(view, now),
    ...table(
      texts.readingsAll(),
      [
        { title: texts.lineColumn, share: 0.8 },
        { title: texts.dayColumn, share: 2.2 },
        { title: texts.readColumn, share: 3 },
        { title: texts.conditionsColumn, share: 5 },
      ],
      state.readings.map((r) => [String(r.seq), time(r.at), tellReading(r), conditionsWords(r.conditions)]),
    ),
    ...proofBlocks(reportProof(state, settings)),
    ...table(
      texts.wholeTape(),
      [
        { title: texts.lineColumn, share: 0.8 },
        { title: texts.dayColumn, share: 2.2 },
        { title: texts.whoColumn, share: 0.9 },
        { title: texts.whatColumn, share: 8 },
      ],
      state.lines.map(({ event, effective }) => [
        String(event.seq),
        time(event.at),
        event.who,
        `${tellEvent(event, state.lines.find((l) => l.event.seq === lineSpokenOf(event))?.event)}${effective ? "" : ` (${texts.undone()})`}`,
      ]),
    ),
  ];
}

const differs = (changes: number): string => (changes === 0 ? texts.asItsModel() : texts.changedFromModel(changes));

function ledger({ state }: JobView): Block[] {
  return table(
    texts.ledger(),
    [
      { title: texts.lineColumn, share: 0.8 },
      { title: texts.positionColumn, share: 1.2 },
      { title: texts.wasColumn, share: 3 },
      { title: texts.isColumn, share: 3.4 },
      { title: texts.whyColumn, share: 3.4 },
      { title: texts.standsColumn, share: 2 },
    ],
    state.changes.map((c) => {
      const cover = coverageOf(state, c, c.seq);
      return [
        String(c.seq),
        c.position,
        [c.oldPart, c.oldMeasured && `measured ${c.oldMeasured}`, c.oldWent].filter(Boolean).join("; "),
        [c.newPart, c.batch, c.source, c.fixings?.join(", "), c.fixing, c.set?.join(" ")].filter(Boolean).join("; "),
        [
          c.reason,
          c.hypothesis,
          c.before && `before: ${c.before}`,
          c.after && `after: ${c.after}`,
          c.unagreed && `not agreed: ${c.unagreed}`,
        ]
          .filter(Boolean)
          .join("; "),
        [
          c.kind,
          c.outcome === "reverted" ? "put back" : c.outcome,
          c.reversible ? "" : "cannot be reversed",
          cover.covered ? "" : "beyond what was agreed",
        ]
          .filter(Boolean)
          .join(", "),
      ];
    }),
  );
}

function timeTable({ state }: JobView, now: number): Block[] {
  const minutes = (m: number) => (m > 0 ? formatDuration(m * 60) : "–");
  const loose = minutesWorked(state, now).get(undefined) ?? 0;
  const rows = tasksOf(state, now).map((t) => [t.name, t.state, minutes(t.estimate), minutes(t.worked)]);
  return table(
    texts.timeTaken(),
    [
      { title: texts.taskColumn, share: 6 },
      { title: texts.standsColumn, share: 1.5 },
      { title: texts.estimatedColumn, share: 1.5, align: right },
      { title: texts.workedColumn, share: 1.5, align: right },
    ],
    loose > 0 ? [...rows, [texts.otherTime(), "", "", minutes(loose)]] : rows,
  );
}
