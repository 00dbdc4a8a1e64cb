/** Every figure of the report is read back from the tape: as found is before the first change, as left after the last, and nothing else. */

import { readFileSync } from "node:fs";
import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { viewJob } from "../job/job-view";
import { DEFAULT_SETTINGS } from "../shop/settings";
import type { EventDraft } from "../tape/events/event";
import { at, tape } from "../tape/tape-for-tests";
import { composeReport } from "./report";
import { reportBlocks } from "./report-blocks";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const POINTS = ["B1", "B2", "V2.k", "V1A.p"] as const;
const reading = (point: string, value: number): EventDraft => ({
  type: "reading",
  payload: { point, kind: "dcv", value, conditions: { mains: 230 } },
});
const change: EventDraft = { type: "change", payload: { position: "C6", kind: "replacement", newPart: "new", reversible: true } };
const reportOf = (lines: EventDraft[]) =>
  composeReport(7, viewJob(tape(...lines.map((d, i): [number, EventDraft] => [i, d])), WREN, DEFAULT_SETTINGS, at(9e4)), DEFAULT_SETTINGS);

test("each voltage stands under Before or After by when it was read, in the table and in the chart", () => {
  const line = fc.oneof(
    { weight: 6, arbitrary: fc.record({ point: fc.constantFrom(...POINTS), value: fc.integer({ min: 100, max: 399 }) }) },
    { weight: 1, arbitrary: fc.constant("change" as const) },
  );
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), (told) => {
      const report = reportOf(told.map((t) => (t === "change" ? change : reading(t.point, t.value))));
      const [first, last] = [told.indexOf("change"), told.lastIndexOf("change")];
      // Written apart from the report: a walk through what was told.
      const found = (point: string, from: number, to: number) =>
        told.slice(from, to).findLast((t) => t !== "change" && t.point === point) as { value: number } | undefined;
      for (const point of POINTS) {
        const before = found(point, 0, first < 0 ? told.length : first);
        const after = first < 0 ? undefined : found(point, last + 1, told.length);
        const row = report.beforeAfter.find((r) => r.point === point);
        expect([row?.before.text || undefined, row?.after?.text]).toEqual([before && `${before.value} V`, after && `${after.value} V`]);
        const step = (steps: { name: string; measured?: number }[] | undefined) => steps?.find((s) => s.name === point)?.measured;
        if (report.stairs && point.startsWith("B"))
          expect([step(report.stairs.before), step(report.stairs.after)]).toEqual([before?.value, after?.value]);
      }
    }),
    { numRuns: 60 },
  );
});

test("the ripple before and after stands in the table and in the sentences, each figure by when it was read", () => {
  const ripple = (value: number): EventDraft => ({
    type: "reading",
    payload: { point: "B1", kind: "acv", value, conditions: { mains: 230 } },
  });
  const { beforeAfter, front } = reportOf([ripple(27), change, ripple(12), change, ripple(3.9)]);
  expect(beforeAfter.find((r) => r.label === "ripple")).toMatchObject({
    point: "B1",
    before: { text: "27.0 V AC" },
    after: { text: "3.90 V AC" },
  });
  expect(front.now).toContain("the ripple on B1 was 27.0 V AC and is 3.90 V AC");
  // Read only after the work: nothing was before it, and nothing is compared.
  const late = reportOf([change, ripple(3.9)]);
  expect(late.beforeAfter.find((r) => r.label === "ripple")).toMatchObject({ before: { text: "" }, after: { text: "3.90 V AC" } });
  expect(late.front.now.join()).not.toContain("ripple");
});

const test1 = (name: string, passed: boolean): EventDraft => ({ type: "safety-test", payload: { test: name, passed } }) as EventDraft;
const strong = (lines: EventDraft[]) =>
  reportBlocks(reportOf(lines)).flatMap((b) => (b.block === "text" && b.look === "strong" && b.text.startsWith("■") ? [b.text] : []));

test("whether the amp may be used stands above everything: a test that failed, one that was not done, a danger that is open", () => {
  expect(strong([])).toEqual(["■ Do not use it yet: the electrical safety tests have not been done."]);
  const all = ["earth bond", "insulation", "leakage", "fuse", "polarity", "cord"].map((t) => test1(t, true));
  expect(strong(all)).toEqual([]);
  expect(strong([...all, test1("earth bond", false)])).toEqual(["■ Do not use it: the test of the earth bond failed."]);
  expect(strong(all.slice(1))).toEqual([expect.stringMatching(/Do not use it yet.*Left: earth bond/)]);
  const danger: EventDraft = {
    type: "finding",
    payload: { station: "look", place: "mains cord", text: "bare wire.", severity: "danger", brief: "allowed" },
  };
  expect(strong([...all, danger])).toEqual(["■ Do not use it: a danger is not put right yet. mains cord: bare wire."]);
});

test("what was said twice is said once; a part that was replaced is not advised any more; a task without a part is told", () => {
  const lines: EventDraft[] = [
    {
      type: "finding",
      payload: { station: "look", place: "C3", text: "dried out", severity: "fault", brief: "allowed", action: "replace it" },
    },
    {
      type: "change",
      payload: {
        ...{ position: "C3", kind: "replacement", newPart: "16 µF 450 V", reversible: true },
        ...{ oldMeasured: "0.4 µF", reason: "dried out, 0.4 µF" },
      },
    } as EventDraft,
    {
      type: "planned",
      payload: { position: "sockets", what: "clean them", phase: "power off", from: "technician", minutes: 20, reversible: true },
    },
    { type: "planned-ended", payload: { planned: 3, how: "done" } },
  ];
  const { front, findings } = reportOf(lines);
  expect(front.was.join("; ").match(/0\.4 µF/g)).toHaveLength(1);
  expect(findings[0]!.outcome).toBe("renewed: 16 µF 450 V");
  expect(front.did).toContain("sockets: clean them");
});
