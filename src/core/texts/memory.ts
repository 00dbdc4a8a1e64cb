/** Texts of what the shop remembers of its jobs. */

import { say, type Value } from "../language/language";

export const bothComplain = (what: Value) => say`both: ${what}`;
export const sameWords = (words: Value) => say`same words: ${words}`;
export const samePoints = (points: Value) => say`the same points out the same way: ${points}`;
export const sameModel = () => say`same model`;
export const otherPoints = (points: Value) => say`but not: ${points}`;
export const measuredWas = (what: Value) => say`measured ${what}`;

// priors
export const curedLike = (ref: Value, seen: Value, of: Value) =>
  say`${ref} cured a like complaint in ${seen} of ${of} amps of this model here`;
export const seriesFailed = (series: Value, failed: Value, had: Value) => say`${series}: ${failed} of ${had} seen here had failed`;

// hand-over of a job
export const forOwner = (amp: Value, owner: Value) => say`${amp} of ${owner}.`;
export const complains = (words: Value) => say`Complaint: “${words}”.`;
export const standsLive = () => say`It is logged as LIVE.`;
export const standsStored = () => say`Charge may be left in it: it is not proven dead.`;
export const standsNotHere = () => say`The amp went back to its owner.`;
export const standsDead = () => say`It was proven dead at the last line; prove it again before a hand goes in.`;
export const standsUnknown = () => say`Its charge is not known.`;
export const foundSoFar = (what: Value) => say`Found: ${what}.`;
export const doneSoFar = (what: Value) => say`Done: ${what}.`;
export const trialsIn = (what: Value) => say`On trial in it: ${what}.`;
export const offIt = (what: Value) => say`Off the amp: ${what}.`;
export const outOfBand = (points: Value) => say`Out of band: ${points}.`;
export const asksOwner = (what: Value) => say`The owner has not answered: ${what}.`;
export const openTasks = (what: Value, minutes: Value) => say`Planned: ${what} (${minutes}).`;
export const promised = (day: Value) => say`Promised for ${day}.`;
export const nextIs = (what: Value) => say`Next: ${what}.`;
export const andMore = (list: Value, count: Value) => say`${list} and ${count} more`;
