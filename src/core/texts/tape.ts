/** Texts of tape. */

import { aType, say, words, type Value } from "../language/language";

// validate
export const readAccepted = (type: Value, eventTypes: Value) => say`type: read ${type}; accepted: ${eventTypes}`;
export const linesNotTheSum = (lines: Value, net: Value, taxes: Value) =>
  say`sum: the lines come to ${lines}, which is not what stands there (${net} without taxes, ${taxes} of taxes)`;
export const totalNotTheSum = (total: Value) => say`sum: the total of ${total} is not the sum with taxes and rounding`;
export const objectWanted = () => say`an object is wanted`;

// references
export const lineOfTypeWanted = (line: Value, wanted: Value, found: Value | undefined) =>
  found === undefined
    ? say`line ${line} does not stand before this one; a line of the type ${wanted} is wanted`
    : say`line ${line} is of the type ${found}; one of the type ${wanted} is wanted`;
export const lineNotOnTape = (line: Value, count: Value) => say`Line ${line} is not on this tape; it has ${count} lines.`;
export const correctionOfSameType = (line: Value, was: Value, is: Value) =>
  say`line ${line} is of the type ${was} and cannot be corrected by one of the type ${is}; undo it`;

// unreadable
export const lineCannotBeUnderstood = (type: Value, why: Value) =>
  say`This line (${type}) cannot be understood and counts for nothing: ${why}`;

// reading-limits
export const upEitherWay = "up to 3000 V either way";
export const upToA = "up to 5 A";
export const upToV = "up to 1000 V";
export const readValueNotNumber = () => say`read a value that is not a number`;
export const readCannotNegativeAccepted = (shown: Value, accepted: Value) =>
  say`read ${shown}: this cannot be negative; accepted: ${accepted}`;
export const readNoTubeAmplifier = (shown: Value, accepted: Value) => say`read ${shown}: no tube amplifier has that; accepted: ${accepted}`;

// stations
export const whatWrongWhatOwner = "Record the complaint, what the owner agreed to, and the amp";
export const makeSafe = "Make safe";
export const proveEveryReservoirDead = "Discharge the capacitors and prove by measuring that the amp is dead";
export const whatEyeFindsBefore = "Inspect the amp before anything is measured";
export const coldChecks = "Cold checks";
export const resistancesPowerOff = "Measure resistances, heaters, controls, tubes and leakage with the power off";
export const fullMainsStageTime = "Apply power in stages, up to full mains";
export const eachVoltageAgainstWhat = "Measure each test point and compare it with the expected voltage";
export const whichFaultExplainsReadings = "See which faults explain the readings, and what to measure next";
export const toneThroughEveryStage = "See what a changed part does to gain, response, hum and hiss";
export const humHissSquealWhat = "Find the cause of hum, hiss, squeal and intermittent faults";
export const whatWasChangedWhy = "Record every part that is changed, and why";
export const outputStage = "Output stage";
export const biasBalanceDissipation = "Check bias, balance and dissipation of the output tubes";
export const everyControlSafetyTests = "Try every control, do the safety tests, try the complaint again";
export const ownersReportOldParts = "Print the report, hand over the old parts, make the bill";

// tell-noise
export const recordingS = (when: Value, payload: Value, name: Value, payload2: Value) =>
  say`Recording, ${when}: ${payload} (${name}, ${payload2} s)`;
export const conditionsTried = (payload: Value) => say`Conditions to try: ${payload}`;
export const noFault = () => say`no fault`;
export const groundMapWiresCurrents = (length: Value, length2: Value) => say`Ground map: ${length} wires, ${length2} currents`;
export const withText = (tool: Value) => say` with ${tool}`;
export const itShowed = (what: Value, payload: Value) => say`FAULT SHOWED: ${what}${payload}`;
export const afterMin = (payload: Value) => say`, after ${payload} min`;
export const soakBegun = (fault: Value) => say`Soak test started: ${fault}`;
export const soakEnded = (outcome: Value, payload: Value) => say`Soak test ended: ${outcome}${payload}`;

// tell
export const ofNew = (value: Value) => say`${value} % of new`;
export const knownGoodOne = (swap: Value) => say`${swap} with a known good one`;
export const short = (shorts: Value) => say`short ${shorts}`;
export const noShort = () => say`no short`;
export const jobOpened = (amp: Value, owner: Value) => say`Job opened: ${amp}, ${owner}`;
export const complaint = (words: Value) => say`Complaint: “${words}”`;
export const brief = (payload: Value, payload2: Value, payload3: Value) => say`Brief: ${payload}${payload2}${payload3}`;
export const upTo = (spendingLimit: Value) => say`; up to ${spendingLimit}`;
export const saidHaveBeenDone = (text: Value) => say`Said to have been done: ${text}`;
export const photo = (payload: Value) => say`Photo: ${payload}`;
export const noCaption = () => say`no caption`;
export const complaint2 = (yes: Value, payload: Value) => say`Complaint ${yes}${payload}`;
export const notReproduced = () => say`not reproduced`;
export const reproducedNowThen = () => say`reproduced now and then`;
export const afterWork = () => say`, after the work`;
export const revision = (revision: Value) => say`revision ${revision}`;
export const serial = (serial: Value) => say`serial ${serial}`;
export const dateCode = (place: Value, code: Value) => say`Date code on the ${place}: ${code}`;
export const mains = (payload: Value) => say`Mains ${payload}`;
export const switchedOffPlugStill = () => say`Switched off, plug still in`;
export const switchedOffPlugOut = () => say`Switched off, plug out`;
export const powerOn = (payload: Value, payload2: Value) => say`POWER ON${payload}${payload2}`;
export const isolated = () => say` behind the isolation transformer`;
export const through = (through: Value) => say` through ${through}`;
export const without = (payload: Value) => say`, without ${payload}`;
export const liveCheckPointsConfirmed = (length: Value) =>
  say`Safety check: ${length} ${length === 1 ? "condition" : "conditions"} confirmed`;
export const meterOnOf = (source: Value, payload: Value, payload2: Value) =>
  say`Meter check on ${source}: reads ${payload}, known ${payload2}`;
export const reservoirUp = (name: Value, payload: Value, payload2: Value) => say`Reservoir ${name}: ${payload}, up to ${payload2}`;
export const powerOff = (reservoir: Value, payload: Value) => say`${reservoir} ${payload}, power off`;
export const gatePassed = (station: Value, reason: Value) => say`Went past the safety gate at ${station}: ${reason}`;
export const foundAt = (place: Value, text: Value) => say`Found at ${place}: ${text}`;
export const findingClosed = (what: Value, how: Value) => say`Finding closed, ${what}: ${how}`;
export const theWay = (way: Value) => say`the way “${way}”`;
export const undoneWords = (line: Value, why: Value) => say`Undone: “${line}”${why}`;
export const takenOff = (what: Value, payload: Value, payload2: Value) => say`Taken off: ${what}${payload}${payload2}`;
export const backPlace = (before: Value) => say`Back in place: ${before}`;
export const line = (removed: Value) => say`line ${removed}`;
export const seen = (name: Value) => say`Seen: ${name}`;
export const doesNotWork = () => say`does not work`;
export const askedOwner = () => say`Asked the owner`;
export const ownerSaysYes = () => say`Owner says yes`;
export const ownerSaysNo = () => say`Owner says no`;
export const dischargeToolReads = (payload: Value, payload2: Value) => say`Discharge tool reads ${payload}, marked ${payload2}`;
export const cannotRead = (reservoir: Value, reason: Value) => say`${reservoir} CANNOT BE READ: ${reason}`;
export const pointMade = (name: Value, label: Value) => say`${name} is a test point of this job: ${label}`;
export const clippedOn = (reservoir: Value) => say`Discharge tool clipped on ${reservoir}, stays`;
export const clipOff = (reservoir: Value) => say`Discharge tool off ${reservoir}`;
export const takenIn = (why: Value) => say`Taken in again: ${why}`;
export const broughtIn = (from: Value) =>
  say`Brought in from an archive, ${from}: initials above are as it claims, its money is not in the books`;
export const booksTaken = (why: Value) => say`Money of the lines that were brought in taken into the books: ${why}`;
export const circuitGiven = (name: Value) => say`Circuit of this job: ${name}`;
export const circuitTakenAway = () => say`The job has no circuit any more`;
export const stillSeenAfterWithout = (payload: Value) => say`Still on, confirmed after ${payload} unattended`;
export const inspectionResult = (result: "sound" | "found" | "not there") => (result === "found" ? say`fault found` : say`${result}`);
export const lookedAgain = (what: Value) => say`Looked at again: ${what}`;
export const sweptPlacesFromEnd = (pot: Value, length: Value, payload: Value) =>
  say`${pot} swept at ${length} places, ${payload} from end to end`;
export const testedBy = (tube: Value, method: Value, tellTubeTest: Value) => say`${tube} tested by ${method}: ${tellTubeTest}`;
const STAGES: Record<string, string> = {
  "no-tubes": "no tubes",
  rectifier: "rectifier alone",
  bias: "bias",
  load: "load",
  small: "small tubes",
  output: "output tubes",
  isolation: "isolation transformer",
  string: "heater string, cold",
  full: "full mains",
  settle: "settling run",
};
/** A stage of the bring-up by its id: `no-tubes`, `output:V4`. One of a later version stays as it is. */
export const stageSaid = (id: string) => {
  const [kind = id, tube] = id.split(":");
  return tube ? say`output tube ${tube}` : words(STAGES[kind] ?? id);
};
export const bringUp = (stage: Value, result: Value, payload: Value) => say`Bring-up, ${stage}: ${result}${payload}`;
export const atTheAmp = (payload: Value) => say`${payload} at the amp`;
export const wLamp = (payload: Value, glow: Value) => say`${payload} W lamp ${glow}`;
export const safety = (test: Value, payload: Value) => say`Safety, ${test}: ${payload}`;
export const waitingFor = (you: Value, payload: Value) => say`Waiting for ${you}${payload}`;
export const theBench = () => say`you`;
export const theOwner = () => say`the owner`;
export const soakClock = () => say`the soak test`;
export const bill = (text: Value, payload: Value) => say`Bill: ${text} ${payload}`;
export const advice = (text: Value) => say`Advice: ${text}`;
export const returnedTo = (to: Value) => say`Returned to ${to}`;
export const undoneLine = (supersedes: Value, reason: Value) => say`Undone: line ${supersedes}${reason}`;

// The output stage.
export const biasTaken = (when: Value, stage: Value, rows: Value) => say`Idle ${when} (${stage}): ${rows}`;
export const biasFigures = (chosen: Value, figures: string, reason: string) =>
  say`Idle is set by: ${chosen}${figures ? `; ${figures}` : ""}${reason ? `; ${reason}` : ""}`;
export const adjusted = (control: Value, position: string, why: string) =>
  say`Turned ${control}${position ? ` to ${position} of its turn` : ""}${why ? `, ${why}` : ""}`;
export const waveform = (when: Value, source: Value, notch: Value, distortion: Value) =>
  say`Waveform ${when} (${source}): notch ${notch}, distortion ${distortion}`;
export const gridRead = (tube: Value, rest: Value, driven: Value, after: Value) =>
  say`${tube} grid ${rest} at rest, ${driven} under drive, ${after} after it`;
export const blocking = (what: Value, shift: Value, recovery: string) =>
  recovery
    ? say`Blocking, ${what}: shifts ${shift}, back in ${recovery}`
    : say`Blocking, ${what}: shifts ${shift}, not back within the time watched`;
export const tubeSeen = (tube: Value, type: Value) => say`${tube} is ${aType(String(type))}`;
export const tubeFitted = (socket: Value, type: Value, number: Value, test: string) =>
  say`Fitted ${socket}: ${type} number ${number} from stock${test ? `, ${test}` : ""}`;

// Capacitors.
export const readOff = (part: Value, what: Value) => say`Read off ${part}: ${what}`;
export const noSafetyClass = () => say`no safety class`;
export const safetyClass = (letter: Value) => say`safety class ${letter}`;
export const caseAt = (lead: Value) => say`case: ${lead}`;
export const onLug = (lug: Value) => say`lug ${lug}`;
export const boardTested = (grid: Value, part: Value, test: Value, outcome: Value) => say`Volts on ${grid} (${part}), ${test}: ${outcome}`;
export const boardCleaned = (grids: Value, how: string) => say`Board cleaned and dried at ${grids}${how ? `, ${how}` : ""}`;
export const reformBegun = (parts: Value, from: Value, to: Value, ohms: Value, simulated: string) =>
  say`Reforming ${parts}: ${from} to ${to} V through ${ohms} each${simulated ? `, ${simulated}` : ""}`;
export const simulatedTime = (pace: Value) => say`simulated time ${pace} ×`;
export const reformPoint = (part: Value, volts: Value, amps: Value, supply: Value) =>
  say`${part} leaks ${amps} at ${volts}, supply ${supply} V`;
export const reformTurn = (what: string, supply: Value, result: string, part: string, why: string) => {
  const head = {
    step: say`Reforming: supply to ${supply} V`,
    paused: say`Reforming paused, supply off`,
    resumed: say`Reforming goes on at ${supply} V`,
    ended: part ? say`Reforming of ${part}: ${result || "ended"}` : say`Reforming ended, supply off`,
  }[what];
  return `${head ?? what}${why ? `, ${why}` : ""}`;
};

// tell-work
export const ownerAgreesInPart = () => say`Owner agrees in part`;
export const ownerTakesBack = () => say`Owner takes the yes back`;
export const putBackChange = (what: Value) => say`Put back ${what}`;
export const keptExperiment = (what: Value) => say`Kept ${what}`;
export const triedChange = (what: Value) => say`Tried ${what}`;
export const repairedPart = (what: Value) => say`Repaired ${what}`;
export const fittedPart = (what: Value) => say`Fitted ${what}`;
export const beyondBecause = (why: Value) => say` (beyond what was agreed, because: ${why})`;
export const planned = (position: Value, what: Value) => say`Planned, ${position}: ${what}`;
export const plannedEnded = (task: Value, how: Value, why: Value) => say`Task, ${task}: ${how}${why}`;
export const nothingFitted = () => say`, nothing was fitted`;
export const planOrdered = (count: Value) => say`Order of ${count} tasks`;
export const timerStarted = (what: Value) => say`Timer started${what}`;
export const timerStopped = () => say`Timer stopped`;
export const minutesNoted = (minutes: Value, what: Value) => say`${minutes} min noted${what}`;
export const cureTest = (out: Value, result: Value) => say`With the changes of line ${out} out of the amp: ${result}`;
export const handedOn = (to: Value, says: Value) => say`Handed to ${to}: ${says}`;
export const quoted = (options: Value) => say`Quote: ${options}`;
export const billed = (number: Value, total: Value) => say`Bill ${number} made: ${total}`;
export const billCancelled = (line: Value, why: Value) => say`Bill of line ${line} cancelled: ${why}`;
export const paid = (amount: Value, means: Value, what: Value) => say`Paid ${amount}, ${means} (${what})`;
