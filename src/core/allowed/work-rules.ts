/** Rules of work and of what was agreed with the owner. */

import { refusedAsBeyond } from "../repair/covered";
import { answerFor, questionsOf } from "../repair/questions";
import { partsNotLogged } from "../repair/tasks";
import { runningTimer } from "../repair/time";
import { figureProblem, holdsLimit, limitText, safetyTestsFor, testValue } from "../safety/end-of-job-tests";
import { rootOf } from "../tape/line-root";
import { conflict, impossible, isReason, type JobNow, type Refusal, type Rule } from "./refusal";
import { billed } from "./money-rules";
import { powerOff } from "./power-rules";
import * as texts from "../texts/allowed";

export const changeRule: Rule<"change"> = {
  may({ payload, supersedes }, job, who) {
    if (payload.unagreed !== undefined && !isReason(payload.unagreed)) return impossible(texts.reasonWanted(), "unagreed");
    const live = supersedes === undefined ? powerOff(job, who) : undefined;
    if (live) return live;
    const beyond = refusedAsBeyond(job.state, payload);
    return beyond ? impossible(beyond, "unagreed") : undefined;
  },
  takeBack: (stands, job) => billed(job, `change ${rootOf(job.state, stands.seq)}`),
};

/** A task that the owner declined is not worked on: they are asked again first, or it is left out. */
function declined(job: JobNow, task: number | undefined): Refusal | undefined {
  if (task === undefined) return undefined;
  const root = rootOf(job.state, task);
  const about = answerFor(questionsOf(job.state), root);
  return about?.declined.includes(root) ? conflict(texts.ownerDeclinedTask(about.answer?.seq ?? about.line), "planned") : undefined;
}

export const plannedEndedRule: Rule<"planned-ended"> = {
  may({ payload: { planned, how, nothingChanged } }, job) {
    if (how !== "done") return undefined;
    const { state } = job;
    const root = rootOf(state, planned);
    if (nothingChanged || !partsNotLogged(state, root)) return declined(job, planned);
    const task = state.planned.find((p) => p.root === root)!;
    return declined(job, planned) ?? conflict(texts.whatWasChanged(`${task.position}: ${task.what}`), "nothingChanged");
  },
};

export const timerRule: Rule<"timer"> = {
  may({ payload }, job, { at }) {
    if (payload.turn === "started") return declined(job, payload.planned);
    return runningTimer(job.state, at) ? undefined : conflict(texts.noTimerRuns(), "turn");
  },
};

export const timeRule: Rule<"time"> = {
  may({ payload }, job, { role }) {
    if (payload.minutes >= 0) return undefined;
    if (role === "apprentice") return { status: 403, says: texts.apprenticeTakesNoTimeOff() };
    return undefined;
  },
  takeBack: (stands, job) => billed(job, `line ${stands.seq}`),
};

/** What a test says is worked out here: a figure that is beyond the shop's limit is not passed, whoever says so. */
export const safetyTestRule: Rule<"safety-test"> = {
  may({ payload }, { settings }) {
    const all = safetyTestsFor(settings);
    const spec = all.find((s) => s.test === payload.test)!;
    const problem = payload.value === undefined ? undefined : figureProblem(spec, payload.value, all);
    if (problem) return impossible(problem, "value");
    if (spec.limit === undefined || !spec.unit) return undefined;
    if (payload.value === undefined)
      return payload.passed ? impossible(texts.figureWanted(spec.name, limitText(spec)), "value") : undefined;
    const passed = holdsLimit(spec, payload.value);
    return passed === payload.passed
      ? undefined
      : impossible(texts.notTheVerdict(testValue(payload.value, spec.unit), limitText(spec), passed ? "passed" : "failed"), "passed");
  },
};
