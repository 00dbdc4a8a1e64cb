/** Texts of the plan, the approvals and the record of changes. */

import { say, type Value } from "../language/language";

// covered
export const trialPutBack = () => say`a trial that can be put back`;
export const noBriefYet = () => say`nothing has been agreed with the owner yet`;
export const coveredByBrief = (why: Value) => say`covered by what was agreed: ${why}`;
export const ownerAgreed = (line: Value) => say`the owner said yes in line ${line}`;
export const ownerTookBack = (line: Value) => say`the owner took the yes back in line ${line}`;
export const ownerDeclined = (line: Value) => say`the owner said no in line ${line}`;
export const beyondAgreed = (what: Value, why: Value) =>
  say`${what} goes beyond what the owner agreed to (${why}). Ask the owner, or log it with a reason.`;

// order
export const needsFirst = (task: Value, first: Value) => say`${task} stands before ${first}, which it needs done first`;
export const deadBeforeLive = (task: Value, before: Value) =>
  say`${task} is done with the power off, after ${before} which is done with it on: the amp has to be proven dead once more`;
export const setAgainAfter = (task: Value, later: Value) => say`${task} stands before ${later}: after that it has to be set again`;
export const testsLast = (task: Value, later: Value) => say`${task} stands before ${later}: the tests have to be done again after it`;
export const needsInCircle = (tasks: Value) => say`these tasks need each other in a circle: ${tasks}. Take one of the needs away`;
export const openFirst = (what: Value) => say`Open up first: ${what}`;
export const closeAfter = (what: Value) => say`Close up again: ${what}`;
export const proveDeadFirst = () => say`Make safe: prove the amp dead`;

// time
export const clocksDiffer = (line: Value, from: Value, to: Value) =>
  say`the timer of line ${line} stops before it starts (${from}, ${to}): the clocks of two benches differ. It counts as nothing; note the minutes by hand`;
export const ranLong = (hours: Value) => say`it has run for ${hours} hours without a stop`;

// proposals
export const setBias = () => say`set the bias and the balance`;
export const outputTubes = () => say`output stage`;
export const safetyTests = () => say`electrical safety tests, and the complaint's own test again`;
export const wholeAmp = () => say`whole amp`;

// cure
export const nothingToTell = () => say`Only one change is in: it is the cure, unless the fault comes and goes. Put it back to be sure.`;
export const noSingleOne = () =>
  say`The answers do not fit one cure: it takes two of the changes together, or the fault comes and goes. Find its conditions first (Noise, Conditions).`;
export const curedBy = (position: Value) => say`${position} cured it`;
export const testPutBack = (what: Value) => say`Put back ${what}, then try the complaint again.`;
export const testFitAgain = (what: Value) => say`Fit ${what} again, then try the complaint again.`;
export const testBoth = (back: Value, again: Value) => say`Put back ${back} and fit ${again} again, then try the complaint again.`;
