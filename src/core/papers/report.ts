/** The owner's report as content: what was wrong, what was found, before and after, parts, safety, what to watch. */

import { staircase, type StaircaseStep } from "../walk/walk";
import { verdictOf, type Verdict } from "../expectation/expectation";
import { expectedFrom } from "../expectation/modelled";
import { isFitted, isIn } from "../tape/fold";
import type { JobView } from "../job/job-view";
import { reportCapacitors, type ReportCapacitors } from "./report-capacitors";
import { reportNoise, type ReportNoise } from "./report-noise";
import { reportOutput, type ReportOutput } from "./report-output";
import { limitText, safetyTestsFor, SAFETY_NOTE, testValue } from "../safety/end-of-job-tests";
import type { Settings } from "../shop/settings";
import { formatMoney, type MoneyForm } from "../money/amount";
import { billDraft, owed, standingBills } from "../money/bill";
import { questionsOf } from "../repair/questions";
import { tasksOf } from "../repair/tasks";
import { mentions } from "../repair/mentions";
import { alternating } from "./alternating";
import { beforeAfter, beforeAfterByTube, type BeforeAfter } from "./before-after";
import type { BillToShow } from "./money-blocks";
import { reportFront, type ReportFront } from "./report-front";
import { reportProof, type ReportProof } from "./report-proof";
import { dateAmp } from "../inspection/dating";
import * as texts from "../texts/job";

export interface Report {
  shop: { name: string; address: string };
  job: number;
  owner: string;
  amp: string;
  serial: string;
  madeWhen: string;
  /** Where the expected volts come from, a sentence. */
  expectedFrom: string;
  opened: string;
  returned?: string;
  complaint?: { words: string; when: string; reproduced: string };
  brief: string[];
  findings: { place: string; text: string; severity: string; outcome: string; photos: string[] }[];
  beforeAfter: BeforeAfter[];
  stairs?: { before: StaircaseStep[]; after: StaircaseStep[] };
  parts: { position: string; old: string; fitted: string; why: string; reversible: boolean; oldWent: string }[];
  experiments: { position: string; what: string; outcome: string }[];
  noise?: ReportNoise;
  output?: ReportOutput;
  capacitors?: ReportCapacitors;
  safety: { name: string; result: string; limit: string; verdict: "passed" | "failed" | "not done" }[];
  safetyNote: string;
  declined: string[];
  unanswered: string[];
  photos: { hash: string; caption: string }[];
  oldParts: string[];
  packing: { what: string; done: boolean }[];
  advice?: { text: string; nextService?: string };
  /** The first page in sentences. */
  front: ReportFront;
  proof: ReportProof;
  /** Those that stand; where none was made out, what one would be. */
  bills: BillToShow[];
  money: MoneyForm;
}

/**
 * Composes the report from a job's view. Readings at the same point under like conditions are paired:
 * the first standing one before the first change and the last one after the last change.
 */
export function composeReport(jobNumber: number, view: JobView, settings: Settings): Report {
  const { state, circuit } = view;
  const codes = state.dateCodes.map((d) => ({ place: d.place, code: d.code }));
  const years = circuit ? { from: Number(circuit.facts.from) || undefined, to: Number(circuit.facts.to) || undefined } : undefined;
  const first = state.reproductions.find((r) => r.run === "intake");
  const questions = questionsOf(state);
  const tests = safetyTestsFor(settings);
  const kept = state.changes.filter(isFitted);
  const voltages = circuit ? beforeAfter(circuit, view) : beforeAfterByTube(view);

  return {
    shop: { name: settings.shopName, address: settings.shopAddress },
    job: jobNumber,
    owner: state.opened?.owner ?? "",
    amp: [state.identity?.maker, state.identity?.model].filter(Boolean).join(" ") || (state.opened?.amp ?? ""),
    serial: state.identity?.serial ?? "",
    madeWhen: codes.length > 0 || years?.from ? dateAmp(codes, years).sentence : "",
    opened: state.opened?.at ?? "",
    returned: state.returned?.at,
    complaint: state.complaint && {
      words: state.complaint.words,
      when: state.complaint.when.join(", "),
      reproduced: first
        ? {
            yes: texts.heardHereBeforeWork(),
            no: texts.couldNotHeardHere(),
            sometimes: texts.heardHereNowThen(),
          }[first.reproduced]
        : "",
    },
    brief: [
      state.brief?.order.length ? texts.inThisOrder(state.brief.order.join(", ")) : "",
      state.brief?.mustNotChange ? texts.notChanged(state.brief.mustNotChange) : "",
      state.brief?.spendingLimit !== undefined ? texts.upTo(formatMoney(state.brief.spendingLimit, settings)) : "",
    ].filter(Boolean),
    findings: state.findings.map((f) => ({
      place: f.place,
      text: f.text,
      severity: f.severity,
      outcome: f.closed ?? renewedSince(kept, f) ?? (f.action ? texts.advised(f.action) : "Open"),
      photos: f.photos ?? [],
    })),
    expectedFrom: circuit ? expectedFrom(circuit) : "",
    beforeAfter: [...voltages, ...alternating(state)],
    stairs: stairsOf(view),
    parts: kept.map((c) => ({
      position: c.position,
      old: [c.oldPart, c.oldMeasured && texts.measured(c.oldMeasured)].filter(Boolean).join("; "),
      fitted: c.newPart,
      why: c.reason ?? "",
      reversible: c.reversible,
      oldWent: c.oldWent ?? "",
    })),
    experiments: state.changes
      // A part that was fitted and put back was a trial as well.
      .filter((c) => c.kind === "experiment" || !isIn(c))
      .map((c) => ({
        position: c.position,
        what: c.hypothesis ? texts.toSee(c.newPart, c.hypothesis) : c.newPart,
        outcome: [
          c.outcome === "reverted" ? texts.putBack() : (c.outcome ?? "open"),
          c.before && texts.before(c.before),
          c.after && texts.after(c.after),
          c.result,
        ]
          .filter(Boolean)
          .join("; "),
      })),
    noise: reportNoise(state, Date.parse(state.lastAt ?? state.opened?.at ?? "1970-01-01"), circuit?.mains?.hertz),
    output: reportOutput(state),
    capacitors: reportCapacitors(state),
    safety: tests.map((t) => {
      const done = state.safetyTests.get(t.test);
      const unit = t.unit;
      return {
        name: t.name,
        result: done
          ? [done.value !== undefined && unit ? testValue(done.value, unit) : "", done.note ?? ""].filter(Boolean).join(", ") ||
            texts.lookedAt()
          : "",
        limit: done?.limit !== undefined && unit ? limitText({ ...t, limit: done.limit }) : limitText(t),
        verdict: done ? (done.passed ? "passed" : "failed") : "not done",
      };
    }),
    safetyNote: SAFETY_NOTE,
    declined: questions.filter((q) => q.stands === "no").map((q) => q.what),
    unanswered: questions.filter((q) => q.stands === "asked").map((q) => q.what),
    photos: state.photos.map((p) => ({ hash: p.hash, caption: p.caption })),
    oldParts: kept.filter((c) => c.oldWent === "bag for the owner").map((c) => `${c.position}: ${c.oldPart ?? texts.oldPart()}`),
    packing: [
      ...state.accessories.filter((a) => a.state === "here").map((a) => ({ what: a.name, done: state.returned !== undefined })),
      ...state.removed.map((r) => ({ what: texts.backPlace(r.what, r.place ? `, ${r.place}` : ""), done: r.back !== undefined })),
    ],
    advice: state.advice && { text: state.advice.text, nextService: state.advice.nextService },
    front: reportFront(view, voltages, settings),
    proof: reportProof(state, settings),
    bills: billsOf(view, settings),
    money: settings,
  };
}

/** The last bill says what is still owed on all of them. */
function billsOf({ state }: JobView, settings: Settings): BillToShow[] {
  const bills = standingBills(state);
  if (bills.length > 0) return bills.map((b, i) => (i === bills.length - 1 ? { ...b, due: owed(state) } : b));
  const now = Date.parse(state.lastAt ?? "") || 0;
  const { lines, sum, differences, paid, due } = billDraft(state, tasksOf(state, now), settings, now);
  // As long as nothing has a price there is nothing to say.
  return sum.total === 0 ? [] : [{ lines, sum, differences, paid, due, final: state.returned !== undefined }];
}

/** What was fitted where a finding lies, after it was found: a part that was replaced is not advised any more. */
function renewedSince(kept: readonly JobView["state"]["changes"][number][], f: { seq: number; place: string }): string | undefined {
  const change = kept.findLast((c) => c.seq > f.seq && mentions(f.place, c.position));
  return change && texts.renewedSince(change.newPart);
}

function stairsOf(view: JobView): Report["stairs"] {
  const { circuit, rows, state } = view;
  if (!circuit || !rows.some((r) => r.role === "rail" && r.reading)) return undefined;
  const firstChange = state.changes[0]?.seq ?? Infinity;
  const lastChange = state.changes.at(-1)?.seq ?? Infinity;
  const steps = staircase(circuit, rows);
  /** The same readings as in the table beside it: as found, and as left. */
  const read = (when: (seq: number) => boolean) =>
    steps.map((step): StaircaseStep => {
      const volts = state.readings.findLast((r) => r.point === step.name && r.kind === "dcv" && when(r.seq))?.value;
      return {
        ...step,
        measured: volts,
        verdict: volts !== undefined && step.expected ? verdictOf(volts, step.expected) : ("none" as Verdict),
      };
    });
  return { before: read((seq) => seq < firstChange), after: read((seq) => seq > lastChange) };
}
