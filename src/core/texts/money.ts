/** Texts of quotes, bills and payments. */

import { say, type Value } from "../language/language";

// before a bill is made out
export const billOfNothing = () => say`it is a bill of nothing`;
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
export const taskOpen = (task: Value) => say`${task}: not done yet, not billed.`;
export const addedLater = (what: Value, day: Value) => say`${what}: not in the quote, agreed with you on ${day}.`;
export const takenBackAfter = (what: Value, day: Value) =>
  say`${what}: you took your yes back on ${day}, after it had been done; billed as it was agreed.`;
export const doneUnagreed = (what: Value, why: Value) =>
  say`${what}: done without being asked for first, because: ${why}. Not billed unless you agree.`;
export const noPriceKnown = (what: Value) => say`${what}: no price was noted; it stands at nothing.`;
export const tookLonger = (task: Value, worked: Value, quoted: Value) =>
  say`${task}: took ${worked}, quoted for ${quoted}; billed as quoted.`;
export const otherPart = (position: Value, fitted: Value, quoted: Value) =>
  say`${position}: ${fitted} was fitted, ${quoted} was quoted; billed as quoted.`;
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
