/** The simulated capacitors on their supply, judged by the same rules as real ones: each kind comes to what it is, whatever the pauses. */

import { judgeReform } from "@/core/capacitor/reform-judge";
import { reformPlan } from "@/core/capacitor/reform-plan";
import { reformRuns } from "@/core/capacitor/reform-run";
import { readLine, writeLine } from "@/core/instrument/protocol";
import { foldJob } from "@/core/tape/fold";
import type { EventDraft } from "@/core/tape/events/event";
import { at, tape } from "@/core/tape/tape-for-tests";
import { LeakageTester, FORMS, type Forms } from "./leakage-tester";

const PART = { farads: 50e-6, volts: 450, kind: "electrolytic", year: 1964 };
const PLAN = reformPlan(PART, 430);
const NIGHT = 11 * 3600;

/** Works through the plan as a technician does: raise when told, pause over a night in the third step, stop when told. */
function worked(forms: Forms): { result: string; hours: number; why: string } {
  const tester = new LeakageTester(5);
  const drafts: [number, EventDraft][] = [
    [
      0,
      {
        type: "reform-begun",
        payload: {
          parts: [{ part: "C3", farads: PART.farads, rated: PART.volts, target: PLAN.target, limit: PLAN.limit }],
          ohms: PLAN.ohms,
          steps: PLAN.steps,
          dwellMinutes: PLAN.dwellMinutes,
          lifted: true,
        },
      },
    ],
  ];
  const turn = (seconds: number, what: "step" | "paused" | "resumed", supply: number) =>
    drafts.push([seconds, { type: "reform-turn", payload: { reform: 1, what, supply } }]);
  let step = 0;
  let slept = false;
  let began = 0;
  // Closer at the start of a step, as the screen logs them.
  for (let seconds = 60; seconds < 80 * 3600; seconds += Math.max(60, 0.12 * (seconds - began))) {
    const state = foldJob(tape(...drafts));
    const [line] = tester.lines(state.reforms[0]!, () => forms, at(seconds), at(seconds));
    drafts.push([
      seconds,
      {
        type: "reform-point",
        payload: {
          reform: 1,
          part: "C3",
          seconds: line!.seconds,
          supply: line!.supply,
          volts: line!.volts,
          amps: line!.amps,
          digit: line!.digit,
        },
      },
    ]);
    const { verdict } = reformRuns(foldJob(tape(...drafts)))[0]!.parts[0]!;
    if (verdict.kind === "keep" || verdict.kind === "stop") return { result: verdict.kind, hours: seconds / 3600, why: verdict.why };
    if (verdict.kind === "raise") {
      turn(seconds + 1, "step", PLAN.steps[++step]!);
      began = seconds;
    } else if (step === 2 && !slept) {
      slept = true;
      turn(seconds + 1, "paused", 0);
      seconds += NIGHT;
      turn(seconds, "resumed", PLAN.steps[step]!);
      began = seconds;
    }
  }
  return { result: "none", hours: 60, why: "" };
}

test.each([
  ["good", "keep"],
  ["slow", "keep"],
  ["hopeless", "stop"],
  ["punctured", "stop"],
] as const)("a %s one comes to: %s", (forms, result) => {
  const done = worked(forms);
  expect({ forms, result: done.result, why: done.why }).toMatchObject({ result });
  if (forms === "punctured") expect(done.why).toContain("punctured");
});

test("a slow one is never called hopeless on the way, and takes longer than a good one", () => {
  expect(worked("slow").hours).toBeGreaterThan(worked("good").hours);
});

test("its lines are those of the protocol", () => {
  const state = foldJob(
    tape([
      0,
      {
        type: "reform-begun",
        payload: {
          parts: [{ part: "C3", farads: 50e-6, rated: 450, target: 400, limit: 2e-3 }],
          ohms: 56e3,
          steps: [50, 400],
          dwellMinutes: 10,
          lifted: true,
          pace: 60,
        },
      },
    ]),
  );
  for (const forms of FORMS)
    for (const line of new LeakageTester(1).lines(state.reforms[0]!, () => forms, at(30), at(30))) {
      expect(readLine(writeLine(line))).toEqual({ ok: true, line });
      // Sixty simulated seconds for each of the bench.
      expect(line.seconds).toBe(1800);
    }
  expect(readLine("tester n=1 at=5 part=C1 seconds=x supply=1 volts=1 amps=0 digit=1e-6")).toMatchObject({
    ok: false,
    why: expect.stringContaining("seconds=x") as string,
  });
});

test("nothing is judged before the first reading", () => {
  expect(judgeReform({ points: [], began: 0, farads: 1e-5, ohms: 1e4, supply: 50, target: 400, limit: 1e-3, dwellSeconds: 600 }).kind).toBe(
    "go on",
  );
});
