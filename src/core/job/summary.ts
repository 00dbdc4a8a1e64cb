/** The one row a job that the board and the search need: derived from the tape, never the other way round. */

import type { EnergyState } from "../safety/energy";
import type { Settings } from "../shop/settings";
import { isIn } from "../tape/fold";
import { questionsOf } from "../repair/questions";
import type { JobView } from "./job-view";
import { nextStep } from "./next-step";

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
  /** Since when it waits for whom it waits: the line that said so; the last line where it waits for the technician. */
  waitingSince: string;
  /** The next thing to do, with its station. */
  nextStep: string;
  nextStation: string;
  /** Who has the job now: initials. */
  technician: string;
  /** Positions of parts that were replaced, upper case, each once: experiments do not count. */
  replaced: string[];
  lastAt: string;
  openedAt: string;
  /** Everything worth searching, lower-case. */
  search: string;
}

/** A job as the board and the search list it. */
export interface BoardJob extends Omit<JobSummary, "replaced" | "search"> {
  id: number;
  /** The line of the job that a search met, where it is not in what is shown anyway. */
  found?: string;
}

/** What a summary is made of; a row with another number is made anew from its tape, and its tape checked. Count it up when the summary or the checks of payloads change. */
export const SUMMARY_VERSION = 5;

/** @param energy the state at the time of the last line, which takes the circuit to know. */
export function summarise(view: JobView, energy: EnergyState["kind"], settings: Settings): JobSummary {
  const s = view.state;
  const next = nextStep(view, settings);
  const asked = questionsOf(s).filter((q) => q.stands === "asked");
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
    ...s.changes.map((c) => `${c.position} ${c.oldPart ?? ""} ${c.newPart} ${c.reason ?? ""} ${c.batch ?? ""}`),
    ...s.planned.map((p) => `${p.position} ${p.what} ${(p.parts ?? []).map((part) => part.text).join(" ")}`),
    ...s.approvals.map((a) => a.what),
    ...s.bills.map((b) => b.number),
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
    waitingSince: s.returned ? "" : (asked[0]?.at ?? s.waiting?.at ?? s.lastAt ?? ""),
    nextStep: next?.says ?? "",
    nextStation: next?.station ?? "",
    technician: s.handedOn?.to ?? s.opened?.who ?? s.lines[0]?.event.who ?? "",
    replaced: [...new Set(s.changes.filter((c) => c.kind !== "experiment" && isIn(c)).map((c) => c.position.trim().toUpperCase()))].sort(),
    openFindings: s.findings.filter((f) => !f.closed).length,
    readings: s.readings.length,
    lastAt: s.lastAt ?? "",
    openedAt: s.opened?.at ?? s.lines[0]?.event.at ?? "",
    search: words.filter(Boolean).join("\n").toLowerCase(),
  };
}
