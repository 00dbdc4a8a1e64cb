/** The owner's report as content: what was wrong, what was found, before and after, parts, safety, what to watch. */

import { formatVolts } from "../quantity/format";
import { staircase, type StaircaseStep } from "../walk/walk";
import type { ExpectationSource } from "../walk/expectation";
import { verdictOf, type Verdict } from "../walk/expectation";
import type { Circuit } from "../circuit/circuit";
import type { Conditions, Reading } from "./events/bench";
import { latestReading, openApprovals, type JobState, type Line } from "./fold";
import type { JobView } from "./job-view";
import { reportNoise, type ReportNoise } from "./report-noise";
import { limitText, safetyTestsFor, SAFETY_NOTE, testValue } from "./safety-tests";
import type { Settings } from "./settings";
import { dateAmp } from "./dating";

export interface BeforeAfter {
  point: string;
  label: string;
  before: { text: string; verdict: Verdict };
  after?: { text: string; verdict: Verdict };
  expected: string;
}

export interface Report {
  shop: { name: string; address: string };
  job: number;
  owner: string;
  amp: string;
  serial: string;
  madeWhen: string;
  opened: string;
  returned?: string;
  complaint?: { words: string; when: string; reproduced: string; proved: string };
  brief: string[];
  findings: { place: string; text: string; severity: string; outcome: string; photos: string[] }[];
  beforeAfter: BeforeAfter[];
  stairs?: { before: StaircaseStep[]; after: StaircaseStep[] };
  parts: { position: string; old: string; fitted: string; why: string; reversible: boolean; oldWent: string }[];
  experiments: { position: string; what: string; outcome: string }[];
  noise?: ReportNoise;
  safety: { name: string; result: string; limit: string; verdict: "passed" | "failed" | "not done" }[];
  safetyNote: string;
  declined: string[];
  unanswered: string[];
  photos: { hash: string; caption: string }[];
  oldParts: string[];
  packing: { what: string; done: boolean }[];
  advice?: { text: string; nextService?: string };
  bill: { lines: { text: string; amount: number; kind: string }[]; total: number; currency: string };
}

/**
 * Composes the report from a job's view. Readings at the same point under like conditions are paired:
 * the first standing one before the first change and the last one after the last change.
 */
export function composeReport(jobNumber: number, view: JobView, settings: Settings): Report {
  const { state, circuit, source } = view;
  const codes = state.dateCodes.map((d) => ({ place: d.place, code: d.code }));
  const years = circuit ? { from: Number(circuit.facts.from) || undefined, to: Number(circuit.facts.to) || undefined } : undefined;
  const first = state.reproductions.find((r) => r.run === "intake");
  const again = state.reproductions.findLast((r) => r.run === "prove");
  const answers = new Map(state.approvals.filter((a) => a.asks !== undefined).map((a) => [a.asks!, a]));
  const tests = safetyTestsFor(settings);
  const kept = state.changes.filter((c) => c.kind !== "experiment" || c.outcome === "kept");

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
            yes: "Heard here before the work",
            no: "Could not be heard here before the work",
            sometimes: "Heard here now and then before the work",
          }[first.reproduced]
        : "",
      proved: again
        ? {
            no: "The same test after the work: the complaint is gone",
            yes: "The same test after the work: still there",
            sometimes: "The same test after the work: still there now and then",
          }[again.reproduced]
        : "",
    },
    brief: [
      state.brief?.order.length ? `In this order: ${state.brief.order.join(", ")}` : "",
      state.brief?.mustNotChange ? `Not to be changed: ${state.brief.mustNotChange}` : "",
      state.brief?.spendingLimit !== undefined ? `Up to ${money(state.brief.spendingLimit, settings.currency)}` : "",
    ].filter(Boolean),
    findings: state.findings.map((f) => ({
      place: f.place,
      text: f.text,
      severity: f.severity,
      outcome: f.closed ?? (f.action ? `Advised: ${f.action}` : "Open"),
      photos: f.photos ?? [],
    })),
    beforeAfter: circuit && source ? beforeAfter(circuit, source, state) : [],
    stairs: stairsOf(view),
    parts: kept.map((c) => ({
      position: c.position,
      old: [c.oldPart, c.oldMeasured && `measured: ${c.oldMeasured}`].filter(Boolean).join("; "),
      fitted: c.newPart,
      why: c.reason ?? "",
      reversible: c.reversible,
      oldWent: c.oldWent ?? "",
    })),
    experiments: state.changes
      .filter((c) => c.kind === "experiment")
      .map((c) => ({
        position: c.position,
        what: c.hypothesis ? `${c.newPart}, to see: ${c.hypothesis}` : c.newPart,
        outcome: [
          c.outcome === "reverted" ? "put back" : (c.outcome ?? "open"),
          c.before && `before: ${c.before}`,
          c.after && `after: ${c.after}`,
          c.result,
        ]
          .filter(Boolean)
          .join("; "),
      })),
    noise: reportNoise(state, Date.parse(state.lastAt ?? state.opened?.at ?? "1970-01-01"), circuit?.mains?.hertz),
    safety: tests.map((t) => {
      const done = state.safetyTests.get(t.test);
      const unit = t.unit;
      return {
        name: t.name,
        result: done
          ? [done.value !== undefined && unit ? testValue(done.value, unit) : "", done.note ?? ""].filter(Boolean).join(", ") || "looked at"
          : "",
        limit: done?.limit !== undefined && unit ? limitText({ ...t, limit: done.limit }) : limitText(t),
        verdict: done ? (done.passed ? "passed" : "failed") : "not done",
      };
    }),
    safetyNote: SAFETY_NOTE,
    declined: state.approvals.filter((a) => a.answer === "no").map((a) => a.what),
    unanswered: openApprovals(state)
      .filter((a) => !answers.has(a.seq))
      .map((a) => a.what),
    photos: state.photos.map((p) => ({ hash: p.hash, caption: p.caption })),
    oldParts: kept.filter((c) => c.oldWent === "bag for the owner").map((c) => `${c.position}: ${c.oldPart ?? "old part"}`),
    packing: [
      ...state.accessories.filter((a) => a.state === "here").map((a) => ({ what: a.name, done: state.returned !== undefined })),
      ...state.removed.map((r) => ({ what: `${r.what}${r.place ? `, ${r.place}` : ""} back in place`, done: r.back !== undefined })),
    ],
    advice: state.advice && { text: state.advice.text, nextService: state.advice.nextService },
    bill: {
      lines: state.bill.map(({ text, amount, kind }) => ({ text, amount, kind })),
      total: Math.round(state.bill.reduce((sum, l) => sum + l.amount * 100, 0)) / 100,
      currency: settings.currency,
    },
  };
}

export function money(amount: number, currency: string): string {
  return `${amount.toFixed(2)} ${currency}`;
}

const alike = (a: Conditions, b: Conditions) =>
  (a.without ?? []).join() === (b.without ?? []).join() &&
  (a.limiter ?? "") === (b.limiter ?? "") &&
  (a.switches ?? "") === (b.switches ?? "");

function beforeAfter(circuit: Circuit, source: ExpectationSource, state: JobState): BeforeAfter[] {
  const firstChange = state.changes[0]?.seq ?? Infinity;
  const lastChange = state.changes.at(-1)?.seq ?? Infinity;
  const shown = (r: Line<Reading>) => {
    const expected = source.expect(
      circuit.points.find((p) => p.name === r.point)!,
      r.conditions,
    );
    return { text: formatVolts(r.value), verdict: "none" in expected ? ("none" as Verdict) : verdictOf(r.value, expected) };
  };
  return [...circuit.points]
    .sort((a, b) => a.order - b.order)
    .flatMap((point) => {
      const all = state.readings.filter((r) => r.point === point.name && r.kind === "dcv");
      const before = all.filter((r) => r.seq < firstChange).at(-1) ?? all[0];
      if (!before) return [];
      const after = all.findLast((r) => r.seq > lastChange && alike(r.conditions, before.conditions));
      const expected = source.expect(point, (after ?? before).conditions);
      return [
        {
          point: point.name,
          label: point.label,
          before: shown(before),
          after: after && shown(after),
          expected: "none" in expected ? "" : `${formatVolts(expected.low)} to ${formatVolts(expected.high)}`,
        },
      ];
    });
}

function stairsOf(view: JobView): Report["stairs"] {
  const { circuit, rows, state } = view;
  if (!circuit || !rows.some((r) => r.role === "rail" && r.reading)) return undefined;
  const after = staircase(circuit, rows);
  const firstChange = state.changes[0]?.seq ?? Infinity;
  const before = after.map((step) => {
    const old = state.readings.filter((r) => r.point === step.name && r.kind === "dcv" && r.seq < firstChange).at(-1);
    const volts = old?.value ?? latestReading(state, step.name)?.value;
    return {
      ...step,
      measured: volts,
      verdict: volts !== undefined && step.expected ? verdictOf(volts, step.expected) : ("none" as Verdict),
    };
  });
  return { before, after };
}
