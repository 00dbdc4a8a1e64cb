/** Texts of what may not be logged, and what would be accepted. */

import { say, type Value } from "../language/language";

export const reasonWanted = () => say`a reason in words is wanted, of three letters at least`;
export const wentBack = (line: Value) => say`The amp went back to its owner (line ${line}): take it in again first`;
export const isHereAlready = () => say`The amp is here: only one that went back is taken in again`;
export const ampIsLive = () => say`The amp is live: switch off, pull the plug and make it safe first`;
export const gatesNotMet = (says: Value) =>
  say`Power may not go on: ${says}. Meet it, or pass the gate first: a line that names it, with a reason`;
export const ownerDeclinedTask = (line: Value) => say`The owner declined this task (line ${line}): ask again, or end it as left out`;
export const noTimerRuns = () => say`No timer runs here that could be stopped`;
export const apprenticeTakesNoTimeOff = () => say`An apprentice takes no time off a job: ask the technician`;
export const figureWanted = (test: Value, limit: Value) => say`${test}: without a figure it is not passed; ${limit} is wanted`;
export const notTheVerdict = (value: Value, limit: Value, verdict: Value) => say`${value} against ${limit}: the test is ${verdict}`;
export const standsOnBill = (number: Value) => say`It stands on bill ${number}: cancel that bill first`;
export const billIsCancelled = (number: Value) => say`Bill ${number} was given out: it is cancelled, with a reason, and never undone`;
export const cancelledStays = () => say`A cancelled bill stays cancelled: make a new one`;
export const isOpened = (line: Value) => say`The job was opened in line ${line}; it is opened once`;
export const openingStays = () => say`The opening of a job is neither corrected nor undone`;
export const circuitByServer = () => say`The line of a job's circuit is written when the circuit is given`;
export const broughtInByServer = () => say`The line of an archive is written when the archive is read`;
export const ownerTakesBooks = () => say`Only the owner of the shop takes money into its books`;
export const nothingBroughtIn = () => say`Nothing of this job came from elsewhere`;
export const stageWanted = (stage: Value) => say`a stage of the bring-up is wanted, such as no-tubes or output:V4; read ${stage}`;
export const longBeforeOpening = () => say`the time is more than a month before the job was opened`;

// money and answers
export const cancelledAlready = (number: Value, line: Value) => say`Bill ${number} was cancelled in line ${line}`;
export const paidBackBelowZero = () => say`What is paid back is below zero`;
export const paidAboveZero = () => say`A payment is more than nothing; what goes back to the owner is “paid back”`;
export const dayToCome = (read: Value, today: Value) => say`read ${read}, which is still to come; up to ${today} is accepted`;
export const moreThanPaid = (paid: Value) => say`More than was paid cannot be paid back: ${paid} was paid`;
export const paidBackSince = (money: Value) => say`${money} of it was paid back: strike that first`;
export const wasAgreedTo = (line: Value) => say`The owner agreed to it (line ${line}): ask anew, and let the answer be to that one`;
export const workOnYes = (position: Value, line: Value) =>
  say`${position} was changed on this yes (line ${line}): if the owner took it back, log that they did`;
export const whatWasChanged = (task: Value) =>
  say`${task} was planned with parts, and no change is logged: log what was fitted, or say that nothing was changed`;
export const askedAnew = (line: Value) => say`It was asked anew in line ${line}: the answer is to that one`;
export const notAsked = (line: Value) => say`Line ${line} asks nothing that stands`;
export const noYesToTakeBack = () => say`There is no yes that could be taken back`;
export const noSuchWay = (read: Value, ways: Value) =>
  say`read way ${read}; there ${ways === 1 ? "is one" : "are "}${ways === 1 ? "" : ways}`;
export const noSuchLine = (read: Value, lines: Value) => say`read line ${read}; the quote has ${lines}`;
export const quoteExpired = (until: Value) => say`The quote was valid until ${until}: make it out anew, and the answer is to that one`;
