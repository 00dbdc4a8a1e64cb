"use client";
/** The work list that the findings draft, with what the owner has to be asked. */

import { questionAsked } from "@/core/repair/owner-acts";
import { workList, type WorkItem } from "@/core/repair/work-list";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";

const SAYS: Record<WorkItem["stands"], string> = {
  allowed: "agreed",
  "to be asked": "ask the owner",
  asked: "asked, no answer yet",
  yes: "owner says yes",
  no: "owner says no",
};

export function WorkList() {
  const { view, say } = useJob();
  // What is on the plan stands there.
  const planned = new Set(view.state.planned.map((p) => p.source));
  const items = workList(view.state).filter((i) => !planned.has(i.seq));
  const toAsk = items.filter((i) => i.stands === "to be asked");
  if (items.length === 0) return null;
  return (
    <Section title="Work list" hint="drafted from the open findings">
      <table className="table table-sm">
        <thead>
          <tr>
            <th>Where</th>
            <th>What to do</th>
            <th>Severity</th>
            <th>Agreement with the owner</th>
          </tr>
        </thead>
        <tbody>
          {items.map((i) => (
            <tr key={i.seq} className={i.stands === "no" ? "opacity-70" : ""}>
              <td className="font-bold">{i.place}</td>
              <td>{i.action}</td>
              <td>{i.severity}</td>
              <td className={i.stands === "to be asked" || i.stands === "asked" ? "text-warning" : ""}>{SAYS[i.stands]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {toAsk.length > 0 && (
        <button className="btn btn-outline mt-2" onClick={() => say(...toAsk.map((i) => questionAsked({ what: i.question })))}>
          Note {toAsk.length === 1 ? "it" : `all ${toAsk.length}`} as asked
        </button>
      )}
    </Section>
  );
}
