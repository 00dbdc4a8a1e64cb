/** Texts of quotes, bills, questions and the bench history as paper. */

import { say, words, type Value } from "../language/language";

// money
export const forWhat = "For";
export const kind = "Kind";
export const pieces = "Pieces";
export const price = "Price";
export const amount = "Amount";
export const hours = (n: Value) => say`${n} h`;
export const net = () => say`Without tax`;
export const taxRow = (name: Value, percent: Value, included: boolean, base: Value) =>
  included ? say`of it ${name} ${percent} %, on ${base}` : say`${name} ${percent} %, on ${base}`;
export const rounding = () => say`Rounding`;
export const total = () => say`Total`;
export const paidAlready = () => say`Paid`;
export const stillDue = () => say`Still to pay`;
export const paidTooMuch = () => say`Paid too much, to be paid back`;
export const billNumber = (number: Value) => say`Bill ${number}`;
export const bill = () => say`Bill`;
export const billSoFar = () => say`Bill, not made out yet`;
export const payBy = (day: Value) => say`To be paid by ${day}.`;
export const differences = () => say`What differs from what was agreed`;
/** "the Wren 5", but "a small radio" as it was typed with an article of its own. */
const theAmp = (amp: Value) =>
  /^(a|an|the|one|my|our|his|her|their)\s/i.test(String(amp)) ? String(amp).replace(/^The\s/, "the ") : `the ${amp}`;
export const reportOn = (amp: Value) => say`Report on ${theAmp(amp)}`;
export const billFor = (amp: Value) => say`Bill for ${theAmp(amp)}`;
export const creditFor = (amp: Value) => say`Credit note for ${theAmp(amp)}`;
export const creditNames = (bill: Value, day: Value, why: Value) =>
  say`It takes back bill ${bill} of ${day} as a whole, because: ${why}. Nothing of it is to be paid; what was paid on it stands to your credit.`;
export const cancelledBill = (day: Value, why: Value) => say`This bill was cancelled on ${day}: ${why}.`;

// quote
export const quoteFor = (amp: Value) => say`Quote for ${theAmp(amp)}`;
export const optionHeading = (number: Value, name: Value) => say`${number}. ${name}`;
export const atAGlance = () => say`The ways to go on`;
export const option = "Way";
export const meansForYou = "What it means for you";
export const aimColumn = "Aim";
export const totalColumn = "Total";
export const validUntil = (day: Value) => say`Valid until ${day}.`;
export const depositAsked = (money: Value) => say`Before the work begins we ask for ${money}.`;
export const chosen = (name: Value, how: Value) => say`You chose “${name}”${how}.`;
export const declinedParts = (parts: Value) => say`Without: ${parts}.`;
export const saysNo = (how: Value) => say`You declined it${how}.`;
export const saysRevoked = (how: Value) => say`You took your yes back${how}.`;
export const howToAnswer = (phone: Value) => say`Please tell us which of them, and what is to be left out. ${phone}`;
export const shopAddress = (address: Value) => say`${address}`;
export const onDay = (day: Value, by: Value, said: Value) =>
  say`${day ? " on " : ""}${day}${by ? ", by " : ""}${by}${said ? ", " : ""}${said}`;

// question
export const questionAbout = (amp: Value) => say`A question about ${theAmp(amp)}`;
export const weAsk = () => say`What we ask`;
export const whatItMeans = () => say`What it means for you`;
export const whatItCosts = (money: Value) => say`It costs ${money}.`;
export const whatShowsIt = () => say`What shows it`;
export const yourAnswer = () => say`Your answer`;
export const answerYes = (what: Value) => say`You said yes${what}.`;
export const answerNo = (what: Value) => say`You said no${what}.`;
export const answerPart = (what: Value) => say`You agreed in part${what}.`;
export const pleaseAnswer = (shop: Value, address: Value) => say`Please tell us yes or no: ${shop}${address ? ", " : ""}${address}.`;
export const notAnswered = () => say`Not answered yet. Nothing of it is done before you say so.`;
export const readAs = (what: Value) => say`Measured: ${what}`;
export const foundAs = (place: Value, text: Value) => say`Found, ${place}: ${text}`;

// front page
export const doNotUseFailed = (test: Value) => say`Do not use it: the test of the ${test} failed.`;
export const doNotUseDanger = (place: Value, text: Value) => say`Do not use it: a danger is not put right yet. ${place}: ${text}.`;
export const doNotUseUntested = () => say`Do not use it yet: the electrical safety tests have not been done.`;
export const doNotUseLeft = (tests: Value) => say`Do not use it yet: not all safety tests have been done. Left: ${tests}.`;
export const wasFault = (place: Value, text: Value) => say`${place}: ${text}`;
export const wasPart = (name: Value, why: Value) => say`${name} – ${why}`;
export const measured = (what: Value) => say`measured ${what}`;
export const didFit = (position: Value, what: Value) => say`${position}: ${what} fitted`;
export const didRepair = (position: Value, what: Value) => say`${position}: ${what}`;
export const didWithoutPart = (position: Value, what: Value) => say`${position}: ${what} – looked at, nothing had to be fitted`;
export const didTry = (count: Value) => say`${count} other things were tried and put back`;
export const didTryOne = () => say`one other thing was tried and put back`;
export const didFitMany = (count: Value, kinds: Value) => say`${count} parts were renewed: ${kinds}`;
export const didBias = () => say`The bias of the output tubes was set`;
export const didReform = (parts: Value) => say`Capacitors were formed again and kept: ${parts}`;
export const didClean = () => say`The board was cleaned`;
export const nowSame = () => say`The test that showed it was done again: the complaint is gone`;
export const nowStill = () => say`The test that showed it was done again: the complaint is still there`;
export const nowSometimes = () => say`The test that showed it was done again: the complaint still comes now and then`;
export const ripple = () => say`ripple`;
export const alternating = () => say`alternating part`;
export const voltsAc = (volts: Value) => say`${volts} AC`;
export const nowRipple = (rail: Value, before: Value, after: Value) => say`the ripple on ${rail} was ${before} and is ${after}`;
export const nowVolts = (good: Value, of: Value) => say`${good} of ${of} voltages that were measured are as they should be`;
export const nowSafety = (passed: Value, of: Value) => say`${passed} of ${of} electrical safety tests passed`;
export const nowPower = (watts: Value) => say`It gives ${watts} before it clips`;
export const nowSoak = (done: Value) => say`It was left running, and the fault did not come back${done}`;

// proof
export const isolation = () => words("How the blown fuse was explained");
export const isolationStep = "With";
export const isolationOutcome = "Result";
export const tubeTests = () => words("Tube tests");
export const tubeColumn = () => words("Tube");
export const methodColumn = "Test";
export const resultColumn = "Result";
export const approvals = () => say`What was agreed with you`;
export const questionColumn = "Question";
export const answerColumn = "Your answer";
export const costColumn = "Agreed cost";
export const answerWords = { asked: "not answered yet", yes: "yes", no: "no", part: "in part", revoked: "yes, then taken back" } as const;
export const ofNew = (percent: Value) => say`${percent} % of new`;

// history
export const benchHistory = (amp: Value) => say`Bench history of ${theAmp(amp)}`;
export const forTechnician = () => say`For the next technician`;
export const circuitInUse = () => say`The circuit as it is now`;
export const changedFromModel = (count: Value) => say`It differs from the circuit of its model by ${count} changes that are in the amp.`;
export const asItsModel = () => say`It is the circuit of its model: no change that is in the amp alters it.`;
export const leftOut = (what: Value) => say`Changed in the amp, but not drawn: ${what}`;
export const ledger = () => say`Everything that was changed or tried`;
export const lineColumn = "Line";
export const dayColumn = "When";
export const whoColumn = "Who";
export const whatColumn = "What";
export const positionColumn = "Position";
export const wasColumn = "Was";
export const isColumn = "Is";
export const whyColumn = "Why";
export const standsColumn = "Stands";
export const readingsAll = () => say`All readings`;
export const readColumn = "Read";
export const conditionsColumn = "Conditions";
export const wholeTape = () => say`The whole tape`;
export const undone = () => say`undone`;
export const timeTaken = () => say`Time`;
export const taskColumn = "Task";
export const estimatedColumn = "Estimated";
export const workedColumn = "Worked";
export const otherTime = () => say`on no task`;
