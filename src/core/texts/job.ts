/** Texts of job. */

import { say, type Value } from "../language/language";

// brief-allows
export const noBriefAgreedYet = () => say`no brief is agreed yet`;
export const briefSays = (mustNotChange: Value) => say`the brief says: ${mustNotChange}`;
export const nothingChangedGood = () => say`nothing is changed irreversibly`;
export const originalityComesFirst = () => say`originality comes first`;
export const comesFirst = (brief: Value) => say`${brief} comes first`;
export const theBrief = () => say`the brief`;

// readings-csv
export const headerReadsAcceptedPoint = (read: Value, missing: Value, extra: Value, csvColumns: Value) =>
  say`the header reads "${read}"; ${missing}${extra}accepted: ${csvColumns} (point, kind and value are needed)`;
export const missing = (missing: Value) => say`missing: ${missing}; `;
export const notKnown = (extra: Value) => say`not known: ${extra}; `;
export const readPointAcceptedPoint = (name: Value) => say`read point "${name}"; accepted: a point or part of this amp`;
export const readKindAccepted = (row: Value, readingKinds: Value) => say`read kind "${row}"; accepted: ${readingKinds}`;
export const readValueAccepted = (row: Value, unit: Value, why: Value, accepted: Value) =>
  say`read value "${row}" ${unit}: ${why}; accepted: ${accepted}`;
export const readMainsAccepted = (mains: Value) => say`read mains "${mains}"; accepted: 0 to 500`;
export const readWarmAcceptedMinutes = (warm: Value) => say`read warm "${warm}"; accepted: minutes since power on`;
export const readAcceptedTimeSuch = (at: Value) => say`read at "${at}"; accepted: a time such as 2026-03-02T14:32:00Z`;

// report-stages
export const whereTheFaultWas = () => say`Where the fault was`;
export const stageBefore = (part: Value) => say`Around ${part}, before the work: the volts as they were read.`;
export const stageAfter = (part: Value) => say`Around ${part}, after the work.`;

// report-noise
export const beforeWorkAfterDb = (heardIn: Value, heardIn2: Value, louderBy: Value, louderBy2: Value) =>
  say`Before the work: ${heardIn}. After it: ${heardIn2}, ${louderBy} dB ${louderBy2} altogether.`;
export const recordedHere = (heardIn: Value) => say`Recorded here: ${heardIn}.`;
export const runsNeeded = (length: Value, tellExplanation: Value) => say`In ${length} runs it needed ${tellExplanation}.`;
export const timesLongEnoughWarm = (cycles: Value) => say` and ${cycles} cycles long enough to warm up`;
export const done = (done: Value) => say` Done: ${done}.`;
export const soakRunningSoFar = (fault: Value, ran: Value) => say`A soak test for "${fault}" is running: ${ran} so far.`;
export const runWithoutShowingAgain = (ran: Value, fault: Value, soak: Value, done: Value) =>
  say`Run for ${ran} without "${fault}" showing again. That gives ${soak} % confidence that the fault is cured.${done}`;
export const noFaultWasFound = (ran: Value, done: Value) => say`No fault was found in ${ran}. It may come back.${done}`;
export const soakEndedAfter = (outcome: Value, ran: Value, done: Value) => say`The soak test ended: ${outcome}, after ${ran}.${done}`;

// report
export const heardHereBeforeWork = () => say`Heard here before the work`;
export const couldNotHeardHere = () => say`Could not be heard here before the work`;
export const heardHereNowThen = () => say`Heard here now and then before the work`;
export const inThisOrder = (state: Value) => say`Your priorities, in order: ${state}`;
export const notChanged = (mustNotChange: Value) => say`Not to be changed: ${mustNotChange}`;
export const upTo = (money: Value) => say`Agreed spending limit: ${money}`;
export const advised = (action: Value) => say`Advised: ${action}`;
export const measured = (oldMeasured: Value) => say`measured: ${oldMeasured}`;
export const toSee = (newPart: Value, hypothesis: Value) => say`${newPart}, to test: ${hypothesis}`;
export const putBack = () => say`put back`;
export const before = (before: Value) => say`before: ${before}`;
export const after = (after: Value) => say`after: ${after}`;
export const lookedAt = () => say`looked at`;
export const oldPart = () => say`old part`;
export const backPlace = (what: Value, place: Value) => say`${what}${place} back in place`;
export const noCircuit = () => say`no circuit`;

// station-marks
export const open = (length: Value, open: Value) => say`${length} ${open} open`;
export const nothingOpen = () => say`nothing open`;
export const reproduceComplaint = () => say`reproduce the complaint`;
export const offAmp = (off: Value) => say`, ${off} not put back`;
export const stillOpen = (missingIntake: Value) => say`still open: ${missingIntake}`;
export const provenDead = () => say`proven dead`;
export const ampNotHere = () => say`the amp is not here`;
export const ampLive = () => say`the amp is live`;
export const stepsProvenDead = (length: Value) => say`${length} steps to proven dead`;
export const thingsLooked = (inspected: Value) => say`${inspected} items inspected, `;
export const resistancesRead = (ohms: Value) => say`${ohms} resistances read`;
export const nothingRead = () => say`nothing read`;
export const fuseHasGoneIsolation = () => say`a fuse has blown: the cause is being isolated`;
export const stagesPassed = (passed: Value, stopped: Value) => say`${passed} stages passed${stopped}`;
export const stopped = (stopped: Value) => say`, ${stopped} stopped`;
export const hasBeenPoweredHere = () => say`has been powered here`;
export const notPoweredHereYet = () => say`not powered here yet`;
export const pointsReadOut = (taken: Value, length: Value, out: Value) => say`${taken} of ${length} points read, ${out} out`;
export const noTestPoints = () => say`no test points`;
export const soakRunning = () => say`a soak test is running, `;
export const changes = (length: Value) => say`${length} changes`;
export const waitingOwner = (asked: Value) => say`${asked} waiting for the owner`;
export const experimentsOpen = (experiments: Value) => say`${experiments} experiments open`;
export const safetyTestsPassed = (tests: Value, length: Value, takeApart: Value) =>
  say`${tests} of ${length} safety tests passed${takeApart}`;
export const returnedTo = (to: Value) => say`returned to ${to}`;
export const notReturnedYet = () => say`not returned yet`;

// The output stage in the report.
export const roughness = (before: Value, after: Value, distortedBefore: Value, distortedAfter: Value) =>
  say`The step in the middle of the wave that makes quiet notes rough: ${before} deep before, ${after} after. Distortion went from ${distortedBefore} to ${distortedAfter}.`;
export const chokesNow = (back: string) =>
  back
    ? say`After a loud note the output stage chokes and creeps back in ${back}.`
    : say`After a loud note the output stage chokes and takes long to creep back.`;
export const chokesThen = (what: Value, back: string) =>
  back ? say`With ${what} it creeps back in ${back}.` : say`With ${what} it still takes long to creep back.`;
export const tubeFromStock = (socket: Value, type: Value, number: Value) =>
  say`${socket}: tube ${type} number ${number} from our tested stock.`;
export const powerMeasured = (watts: Value, load: string) =>
  load ? say`Clean power: ${watts} into ${load}.` : say`Clean power: ${watts}.`;
export const humMeasured = (volts: Value, below: string) =>
  below ? say`Hum left at the speaker: ${volts}, ${below} dB under full power.` : say`Hum left at the speaker: ${volts}.`;
export const tubeIdles = (tube: Value) => say`Tube ${tube} at rest, plate current and part of its rating`;
export const railVolts = (point: Value) => say`${point}, supply volts`;

// report-capacitors
export const capacitorsReplaced = (parts: Value) =>
  say`New capacitors, each held against what its place asks for before it was fitted: ${parts}.`;
export const boardWasCleaned = (grid: Value, before: Value, after: Value) =>
  say`The board had become conductive: ${grid} stood at ${before} and is at ${after} after cleaning and drying.`;
export const at = (volts: Value) => say`at ${volts}`;
export const formedTo = (result: string, time: Value, limit: Value) =>
  result === "keep"
    ? say`kept: under its limit of ${limit} after ${time} under voltage`
    : result === "replace"
      ? say`not to be saved: replaced`
      : say`not finished after ${time}`;
export const reformCapacitors = (parts: Value) => say`reforming of ${parts} is under way`;
export const reformingOpen = (parts: Value) => say`${parts} on the reforming supply`;

// the brief's places
export const everythingOriginal = () => say`everything as it is`;
export const understoodAs = (what: Value) => say`Understood: ${what}.`;
export const notUnderstoodBrief = (words: Value) =>
  say`Not understood: ${words}; until it is, the owner is asked before anything is replaced.`;
export const briefPerhaps = (words: Value) => say`the brief says “${words}”, and part of it was not understood: ask the owner`;
export const dangerCovers = () => say`danger to life is made safe whatever the brief says; tell the owner`;
export const renewedSince = (part: Value) => say`renewed: ${part}`;
