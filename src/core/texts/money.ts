/** Texts of quotes, bills and payments. */

import { say, type Value } from "../language/language";

// before a bill is made out
export const billOfNothing = () => say`it is a bill of nothing`;
export const billWhileSoaking = () => say`the soak still runs: the fault may come back`;
export const shopWithoutName = () => say`the shop's name is not set: it stands on the bill`;
export const shopWithoutCurrency = () => say`no currency is set`;
export const billWithoutTax = () => say`no tax is set: is the shop free of it?`;

// amount
export const amountMissing = (accepted: Value) => say`no amount was typed; accepted: ${accepted}`;
export const amountNotRead = (read: Value, accepted: Value) => say`read “${read}”, which is no amount; accepted: ${accepted}`;
export const amountTwoWays = (read: Value, one: Value, other: Value) =>
  say`read “${read}”, which can be ${one} or ${other}; type it without the sign between thousands`;
export const amountTooFine = (read: Value, places: Value) => say`read “${read}”, which has more than ${places} decimals`;
export const amountNegative = (read: Value) => say`read “${read}”: this cannot be negative`;
export const amountTooSmall = (read: Value, least: Value) => say`read “${read}”; at least ${least} is accepted`;
export const amountTooLarge = (read: Value) => say`read “${read}”, which is more than any bill here`;

// lines
export const labourFor = (what: Value, time: Value) => say`${what} (labour, ${time})`;
export const benchTime = () => say`Bench time`;
export const partFor = (what: Value, position: Value) => say`${what} for ${position}`;

// differences of a bill from what was agreed
export const lineDeclined = (line: Value, day: Value) => say`${line}: declined by you on ${day}, not done and not billed.`;
export const taskLeftOut = (task: Value, why: Value) => say`${task}: not done${why}, not billed.`;
export const partNotFitted = (part: Value) => say`${part}: not fitted, not billed.`;
export const taskOpen = (task: Value) => say`${task}: not done yet, not billed.`;
export const addedLater = (what: Value, day: Value) => say`${what}: not in the quote, agreed with you on ${day}.`;
export const takenBackAfter = (what: Value, day: Value) =>
  say`${what}: you took your yes back on ${day}, after it had been done; billed as it was agreed.`;
export const doneUnagreed = (what: Value, why: Value) =>
  say`${what}: done without being asked for first, because: ${why}. Not billed unless you agree.`;
export const partInPrice = (part: Value) => say`${part}: in the price that was agreed, not billed beside it.`;
export const noPriceKnown = (what: Value) => say`${what}: no price was noted; it stands at nothing.`;
export const tookLonger = (task: Value, worked: Value, quoted: Value) =>
  say`${task}: took ${worked}, quoted for ${quoted}; billed as quoted.`;
export const otherPart = (position: Value, fitted: Value, quoted: Value) =>
  say`${position}: ${fitted} was fitted, ${quoted} was quoted; billed as quoted.`;
export const workedThoughDeclined = (task: Value, worked: Value) => say`${task}: ${worked} of work on it, declined by you, not billed.`;
export const costInPrice = (part: Value, amount: Value) => say`${part} (${amount}): in the agreed price of its task, not billed on top.`;
export const tookLongerFixed = (task: Value, worked: Value, planned: Value) =>
  say`${task}: took ${worked}, planned for ${planned}; billed at its fixed price.`;
export const looseInQuote = (time: Value) => say`${time} of bench time on no task: in the quote, not billed on top.`;
export const beyondQuote = (what: Value) =>
  say`${what}: not in what you accepted of the quote; billed by the time and the parts that it took.`;
export const quoteDeclined = () =>
  say`You did not accept the quote: what was not agreed at a price is billed by the time and the parts that it took.`;
export const quoteTakenBack = () =>
  say`You took your yes to the quote back: what was not agreed at a price is billed by the time and the parts that it took.`;
export const onEarlierBill = (count: Value, bill: Value) => say`${count} of the lines stand on bill ${bill} already.`;
export const withoutQuote = () => say`There was no quote: what was not agreed at a price is billed by the time and the parts that it took.`;
export const nothingAgreed = () =>
  say`The quote has no answer yet: what was not agreed at a price is billed by the time and the parts that it took.`;

// spent
export const limitPassed = (spent: Value, limit: Value) => say`Work done so far comes to ${spent}; the owner's limit is ${limit}`;
export const limitAhead = (all: Value, limit: Value) => say`With what is still planned it comes to ${all}; the owner's limit is ${limit}`;
export const limitNear = (left: Value, limit: Value) => say`${left} is left of the owner's limit of ${limit}`;
export const dueTooSoon = (needed: Value, there: Value, day: Value) =>
  say`${needed} of work is open, and ${there} of bench time until ${day}`;
export const duePassed = (day: Value) => say`It was promised for ${day}`;

// what is given out and does not agree
export const nothingToBill = () => say`There is nothing to bill: everything that was done stands on a bill`;
export const billDiffers = (sent: Value, now: Value) => say`The bill comes to ${now} now, and ${sent} was sent: look at it again`;
export const paidDiffers = (sent: Value, now: Value) => say`${now} was paid before this bill, and ${sent} was sent: look at it again`;
export const lineDiffers = (now: Value) => say`The lines of the bill are others by now (${now}): look at it again`;
export const lineDoesNotMultiply = (text: Value, sent: Value, worth: Value) =>
  say`${text}: pieces at their price are ${worth}, and ${sent} was read`;
export const totalDiffers = (sent: Value, right: Value) => say`the lines come to ${right}, and ${sent} was read`;
export const taxesDiffer = (sent: Value, right: Value) => say`the taxes are ${right}, and ${sent} was read`;
