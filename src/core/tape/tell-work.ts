/** Lines about the plan, the changes, the owner's answers and money in words. */

import { fixed } from "../language/language";
import { is } from "./events/event";
import type { Tellings } from "./telling";
import type { Change } from "./events/work-events";
import * as texts from "../texts/tape";

const ANSWER = {
  asked: texts.askedOwner,
  yes: texts.ownerSaysYes,
  no: texts.ownerSaysNo,
  part: texts.ownerAgreesInPart,
  revoked: texts.ownerTakesBack,
} as const;

/** Two decimals whatever the shop's coin: the tape has no settings. */
const money = (amount: number) => fixed(amount, Math.abs(Math.round(amount * 100) - amount * 100) < 1e-6 ? 2 : 3);

function tellChange(c: Change): string {
  const what = `${c.position}: ${c.newPart}${c.reason ? `, ${c.reason}` : ""}`;
  if (c.outcome === "reverted") return texts.putBackChange(what);
  if (c.kind === "experiment") return c.outcome === "kept" ? texts.keptExperiment(what) : texts.triedChange(what);
  return c.kind === "repair" ? texts.repairedPart(what) : texts.fittedPart(what);
}

export const WORK_TOLD = {
  change: (l) => `${tellChange(l)}${l.unagreed ? texts.beyondBecause(l.unagreed) : ""}`,
  planned: (l) => texts.planned(l.position, l.what),
  "planned-ended": (l, _, before) =>
    texts.plannedEnded(
      before && is(before, "planned") ? `${before.payload.position}, ${before.payload.what}` : texts.line(l.planned),
      l.how,
      `${l.nothingChanged ? texts.nothingFitted() : ""}${l.why ? `: ${l.why}` : ""}`,
    ),
  "plan-order": (l) => texts.planOrdered(l.order.length),
  timer: (l) => {
    const about = l.what || (l.planned === undefined ? "" : texts.line(l.planned));
    return l.turn === "started" ? texts.timerStarted(about ? `: ${about}` : "") : texts.timerStopped();
  },
  time: (l) => texts.minutesNoted(l.minutes, l.what ? `: ${l.what}` : ""),
  "cure-test": (l) => texts.cureTest(l.out.join(", "), l.result),
  "handed-on": (l) => texts.handedOn(l.to, l.says),
  approval: ({ what, answer, on, by, said, option }, _, before) => {
    const how = [said, by, on].filter(Boolean).join(", ");
    const ways = before && (is(before, "quote") || is(before, "approval")) ? before.payload.options : undefined;
    const way = option === undefined || answer === "no" ? undefined : ways?.[option]?.name;
    return `${ANSWER[answer]()}: ${way && way !== what ? texts.theWay(way) : what}${how ? ` (${how})` : ""}`;
  },
  quote: (l) => texts.quoted(l.options.map((o) => `${o.name} ${money(o.sum.total)}`).join("; ")),
  "bill-line": (l) => texts.bill(l.text, money(l.amount)),
  bill: (l) => texts.billed(l.number, money(l.sum.total)),
  "bill-cancelled": (l) => texts.billCancelled(l.bill, l.why),
  payment: (l) => texts.paid(money(l.amount), l.means, l.what),
} satisfies Partial<Tellings>;
