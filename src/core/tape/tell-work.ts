/** Lines about the plan, the changes, the owner's answers and money in words. */

import { fixed } from "../language/language";
import { is, type JobEvent } from "./events/event";
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
const money = (amount: number) => fixed(amount, Number.isInteger(amount * 100) ? 2 : 3);

function tellChange(c: Change): string {
  const what = `${c.position}: ${c.newPart}${c.reason ? `, ${c.reason}` : ""}`;
  if (c.outcome === "reverted") return texts.putBackChange(what);
  if (c.kind === "experiment") return c.outcome === "kept" ? texts.keptExperiment(what) : texts.triedChange(what);
  return c.kind === "repair" ? texts.repairedPart(what) : texts.fittedPart(what);
}

/** @returns undefined for a line about something else. */
export function tellWork(e: JobEvent): string | undefined {
  if (is(e, "change")) return `${tellChange(e.payload)}${e.payload.unagreed ? texts.beyondBecause(e.payload.unagreed) : ""}`;
  if (is(e, "planned")) return texts.planned(e.payload.position, e.payload.what);
  if (is(e, "planned-ended")) return texts.plannedEnded(e.payload.planned, e.payload.how, e.payload.why ? `: ${e.payload.why}` : "");
  if (is(e, "plan-order")) return texts.planOrdered(e.payload.order.length);
  if (is(e, "timer")) {
    const about = e.payload.what || (e.payload.planned === undefined ? "" : texts.line(e.payload.planned));
    return e.payload.turn === "started" ? texts.timerStarted(about ? `: ${about}` : "") : texts.timerStopped();
  }
  if (is(e, "time")) return texts.minutesNoted(e.payload.minutes, e.payload.what ? `: ${e.payload.what}` : "");
  if (is(e, "cure-test")) return texts.cureTest(e.payload.out.join(", "), e.payload.result);
  if (is(e, "handed-on")) return texts.handedOn(e.payload.to, e.payload.says);
  if (is(e, "approval")) {
    const { what, answer, on, by, said } = e.payload;
    const how = [said, by, on].filter(Boolean).join(", ");
    return `${ANSWER[answer]()}: ${what}${how ? ` (${how})` : ""}`;
  }
  if (is(e, "quote")) return texts.quoted(e.payload.options.map((o) => `${o.name} ${money(o.sum.total)}`).join("; "));
  if (is(e, "bill-line")) return texts.bill(e.payload.text, money(e.payload.amount));
  if (is(e, "bill")) return texts.billed(e.payload.number, money(e.payload.sum.total));
  if (is(e, "bill-cancelled")) return texts.billCancelled(e.payload.bill, e.payload.why);
  if (is(e, "payment")) return texts.paid(money(e.payload.amount), e.payload.means, e.payload.what);
  return undefined;
}
