/** Rules of lines about power and hands inside: gates before power, no work on a live amp, an amp that went back. */

import { wallVolts } from "../circuit/mains-connection";
import { unmetGates } from "../safety/power-gates";
import { is } from "../tape/events/event";
import { conflict, impossible, isReason, type JobNow, type Refusal, type Rule, type Writer } from "./refusal";
import * as texts from "../texts/allowed";

/** An amp that went back is not switched on here, nor worked on, until it is taken in again. */
const here = (job: JobNow): Refusal | undefined => (job.state.returned ? conflict(texts.wentBack(job.state.returned.seq)) : undefined);

/** Hands go in with the power off. What was done before it went on, and comes late, was done. */
export function powerOff(job: JobNow, { at }: Writer): Refusal | undefined {
  const { power } = job.state;
  const before = power?.state === "on" && at < Date.parse(power.at);
  return here(job) ?? (!before && job.energy() === "live" ? conflict(texts.ampIsLive()) : undefined);
}

export const powerRule: Rule<"power"> = {
  may({ payload, supersedes }, job) {
    if (payload.state === "off") return undefined;
    // A power-on may be put right; another line made into one is a power-on.
    const struck = supersedes === undefined ? undefined : job.tape[supersedes - 1];
    if (struck && is(struck, "power") && struck.payload.state === "on") return undefined;
    const away = here(job);
    if (away || job.state.power?.state === "on") return away;
    const wall = wallVolts(job.circuit, job.settings.mainsVolts);
    const intended = { through: payload.through ?? "", without: payload.without ?? [], isolated: payload.isolated };
    const unmet = unmetGates(job.circuit, job.state, intended, wall);
    return unmet.length === 0 ? undefined : conflict(texts.gatesNotMet(unmet.map((g) => g.says).join(". ")), "state");
  },
};

export const gatePassedRule: Rule<"gate-passed"> = {
  may: ({ payload }) => (isReason(payload.reason) ? undefined : impossible(texts.reasonWanted(), "reason")),
};

export const unreadRule: Rule<"reservoir-unread"> = {
  may: ({ payload }) => (isReason(payload.reason) ? undefined : impossible(texts.reasonWanted(), "reason")),
};

export const takenInRule: Rule<"taken-in"> = {
  may: ({ payload }, { state }) =>
    !state.returned ? conflict(texts.isHereAlready()) : isReason(payload.why) ? undefined : impossible(texts.reasonWanted(), "why"),
};

export const formingBegins: Rule<"reform-begun"> = { may: (_, job, who) => powerOff(job, who) };

/** What is done inside the amp, with the hands: not on a live one. A correction says what was done, whenever. */
export const handsInside = {
  may: (line: { supersedes?: number }, job: JobNow, who: Writer) => (line.supersedes === undefined ? powerOff(job, who) : undefined),
};
