/** For every kind of line what may stand against it, and against taking it back. One that is new does not compile before it has answered. */

import type { LoggedType } from "../tape/events/registry";
import { approvalRule, billCancelledRule, billLineRule, billRule, paymentRule, quoteRule } from "./money-rules";
import { formingBegins, gatePassedRule, handsInside, powerRule, takenInRule, unreadRule } from "./power-rules";
import { conflict, FREE, impossible, type Rule } from "./refusal";
import { changeRule, plannedEndedRule, safetyTestRule, timeRule, timerRule } from "./work-rules";
import * as texts from "../texts/allowed";

/** "no-tubes", "output:V4": what a stage of the bring-up can be called. */
const STAGE = /^[a-z]+(-[a-z]+)*(:[\w.]{1,20})?$/;

export const RULES = {
  "job-opened": {
    may: (_, { state }) => (state.opened ? conflict(texts.isOpened(state.opened.seq)) : undefined),
    takeBack: () => conflict(texts.openingStays()),
  },
  power: powerRule,
  "gate-passed": gatePassedRule,
  "reservoir-unread": unreadRule,
  "taken-in": takenInRule,
  // Written by the server with the change itself, past this door.
  "circuit-given": { may: () => impossible(texts.circuitByServer(), "type"), takeBack: () => conflict(texts.circuitByServer()) },
  "brought-in": { may: () => impossible(texts.broughtInByServer(), "type"), takeBack: () => conflict(texts.broughtInByServer()) },
  "books-taken": {
    may: (_, { state }, { role }) =>
      role !== undefined && role !== "owner"
        ? { status: 403, says: texts.ownerTakesBooks() }
        : state.broughtIn === 0
          ? conflict(texts.nothingBroughtIn())
          : undefined,
    takeBack: (_, __, { role }) => (role !== undefined && role !== "owner" ? { status: 403, says: texts.ownerTakesBooks() } : undefined),
  },
  "reform-begun": formingBegins,
  stage: { may: ({ payload }) => (STAGE.test(payload.stage) ? undefined : impossible(texts.stageWanted(payload.stage), "stage")) },
  change: changeRule,
  "tube-fitted": handsInside,
  "board-cleaned": handsInside,
  "planned-ended": plannedEndedRule,
  timer: timerRule,
  time: timeRule,
  "safety-test": safetyTestRule,
  bill: billRule,
  "bill-line": billLineRule,
  "bill-cancelled": billCancelledRule,
  payment: paymentRule,
  quote: quoteRule,
  approval: approvalRule,

  "still-live": FREE,
  "meter-check": FREE,
  "tool-check": FREE,
  clip: FREE,
  "discharge-reading": FREE,
  reservoir: FREE,
  "live-check": FREE,
  mains: FREE,
  "reform-turn": FREE,
  "reform-point": FREE,
  reading: FREE,
  point: FREE,
  finding: FREE,
  "finding-closed": FREE,
  note: FREE,
  removed: FREE,
  "put-back": FREE,
  observation: FREE,
  "control-check": FREE,
  complaint: FREE,
  brief: FREE,
  claim: FREE,
  accessory: FREE,
  photo: FREE,
  reproduction: FREE,
  identity: FREE,
  "date-code": FREE,
  inspection: FREE,
  "pot-sweep": FREE,
  "tube-test": FREE,
  temperature: FREE,
  "mains-current": FREE,
  "isolation-step": FREE,
  recording: FREE,
  "noise-test": FREE,
  conditions: FREE,
  "conditions-run": FREE,
  "ground-map": FREE,
  provoked: FREE,
  occurrence: FREE,
  "soak-begun": FREE,
  "soak-ended": FREE,
  bias: FREE,
  "tube-seen": FREE,
  "bias-figures": FREE,
  adjusted: FREE,
  waveform: FREE,
  "grid-read": FREE,
  blocking: FREE,
  "signal-figure": FREE,
  capacitor: FREE,
  "capacitor-test": FREE,
  "board-test": FREE,
  planned: FREE,
  "plan-order": FREE,
  "cure-test": FREE,
  waiting: FREE,
  "handed-on": FREE,
  advice: FREE,
  returned: FREE,
  undo: FREE,
} satisfies { [T in LoggedType]: Rule<T> };
