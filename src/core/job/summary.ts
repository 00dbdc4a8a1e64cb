/** The one row a job that the board and the search need: derived from the tape, never the other way round. */

import type { EnergyState } from "./energy";
import type { JobEvent } from "./events/event";
import { foldJob, openApprovals } from "./fold";

export interface JobSummary {
  owner: string;
  amp: string;
  serial: string;
  complaint: string;
  waitingOn: "you" | "owner" | "part" | "soak" | "collection" | "done";
  waitingWhat: string;
  waitingUntil: string;
  /** Energy state as of the last line of the tape. */
  energy: EnergyState["kind"];
  dueDate: string;
  openFindings: number;
  readings: number;
  lastAt: string;
  openedAt: string;
  /** Everything worth searching, lower-case. */
  search: string;
}

/** @param energy the state at the time of the last line, which takes the circuit to know. */
export function summarise(events: JobEvent[], energy: EnergyState["kind"]): JobSummary {
  const s = foldJob(events);
  const asked = openApprovals(s);
  const waitingOn = s.returned ? "done" : asked.length > 0 ? "owner" : (s.waiting?.on ?? "you");
  const identity = [s.identity?.maker, s.identity?.model].filter(Boolean).join(" ");
  const notes = s.effective.flatMap((e) => (e.type === "note" ? [(e.payload as { text: string }).text] : []));
  const words = [
    s.opened?.owner,
    s.opened?.contact,
    s.opened?.amp,
    identity,
    s.identity?.serial,
    s.identity?.revision,
    s.complaint?.words,
    ...notes,
    ...s.findings.map((f) => `${f.place} ${f.text}`),
    ...s.changes.map((c) => `${c.position} ${c.oldPart ?? ""} ${c.newPart} ${c.reason ?? ""}`),
    ...s.claims.map((c) => c.text),
  ];
  return {
    owner: s.opened?.owner ?? "",
    amp: s.opened?.amp ?? identity,
    serial: s.identity?.serial ?? "",
    complaint: s.complaint?.words ?? "",
    waitingOn,
    waitingWhat: s.returned ? "" : asked.length > 0 ? asked[0]!.what : (s.waiting?.what ?? ""),
    waitingUntil: s.waiting?.until ?? "",
    energy,
    dueDate: s.brief?.dueDate ?? "",
    openFindings: s.findings.filter((f) => !f.closed).length,
    readings: s.readings.length,
    lastAt: s.lastAt ?? "",
    openedAt: s.opened?.at ?? events[0]?.at ?? "",
    search: words.filter(Boolean).join("\n").toLowerCase(),
  };
}
