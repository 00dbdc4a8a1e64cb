/** Texts of suspects. */

import { say, type Value } from "../language/language";

// columns
export const noPoint = (point: Value) => say`no point ${point}`;

// observations
export const noTube = (tube: Value) => say`no tube ${tube}`;

// columns
export const noCapacitor = (point: Value) => say`no capacitor ${point}`;
export const alternatingVoltsWantTone = (point: Value) =>
  say`alternating volts at ${point} want the tone that makes them; without one they count on a rail, as ripple`;
export const noPartPointNor = (typed: Value) => say`no part or point ${typed}, nor two nodes a:b`;

// history
export const badNameHere = (ref: Value, does: Value) => say`${ref} is of a kind with a bad name in this shop: ${does}`;
export const foundLook = (ref: Value) => say`${ref} was noted at Look`;
export const replacedJob = (ref: Value) => say`${ref} was replaced in this job`;
export const replacedHereOthersModel = (ref: Value, seen: Value, jobs: Value) =>
  say`${ref} replaced here in ${seen} of ${jobs} others of this model`;

// hunt
export const fitsNothingExplainsRest = () => say`it does not fit any fault that explains the other readings`;

// job-evidence
export const behindLampAmpsOwn = () => say`behind a series lamp: the voltage at the amp is not known`;
export const notBetweenTwoNodes = () => say`not between two nodes of this circuit: judged at Cold checks`;
export const acLevelWithoutTone = () => say`an AC level without its test tone is used on a rail only, as ripple`;
export const notPointCircuit = () => say`not a point of this circuit`;
export const temperatureHeldAgainstModel = () => say`temperatures are compared with the model for tubes only`;
export const lessThanMinNot = (warmMinutes: Value) => say`on for less than ${warmMinutes} min: not warm yet`;

// next
export const separatesRemainingSuspectsBest = () => say`it separates the remaining suspects best`;
export const wouldGiveAbout = (name: Value, first: Value, name2: Value, other: Value) =>
  say`${name} would give about ${first}, ${name2} ${other}`;

// observations
export const noObservationKnown = (text: Value, observations: Value) => say`no observation "${text}"; known are ${observations}`;

// readings-file
export const pointKindValueUnit = (columns: Value) => say`point,kind,value,unit and of these as wanted: ${columns}`;
export const noKind = () => say`no kind`;
export const oneOf = (kinds: Value) => say`one of ${kinds}`;
export const noPoint2 = () => say`no point`;
export const inputFreqLevel = (input: Value, cell: Value, cell2: Value) => say`input ${input}, freq ${cell}, level ${cell2}`;
export const acvInputNodeFreq = () => say`for acv: input a node, freq in Hz and level in volts rms`;
export const mains = (cell: Value) => say`mains ${cell}`;
export const voltsFrom = () => say`volts from 1 to 500`;
export const partTestPointTwo = () => say`a part, a test point or two nodes a:b`;
export const capacitorCircuit = () => say`a capacitor of this circuit`;
export const aTube = (circuit: Value) => say`a tube: ${circuit}`;
export const testPoint = (circuit: Value) => say`a test point: ${circuit}`;
export const valueZeroMore = () => say`a value of zero or more`;

// slips
export const fitsMillivoltsMeterMay = () => say`It fits as millivolts: the meter may have changed its range unseen.`;
export const fitsVoltsReadMillivolts = () => say`It fits as volts read as millivolts: look at the meter's range.`;
export const fitsOtherSignLeads = () => say`It fits with the other sign: the leads may be the other way round.`;
export const whatShouldShowProbe = (beside: Value) =>
  say`It is what ${beside} should show: the probe may have been on the neighbouring pin.`;

// untested
export const dcVolts = (p: Value) => say`DC volts at ${p}`;
export const toneThroughLevelBoth = (ref: Value) => say`a tone through ${ref}: the level on both of its sides`;
export const oneLegLiftedVolts = (ref: Value) => say`one leg of ${ref} lifted, volts at it`;
export const acVoltsAcrossAnother = (ref: Value) => say`AC volts across ${ref}, or another capacitor held across it`;
export const outCircuitWorkingVoltage = (ref: Value) => say`${ref} out of circuit at its working voltage`;
export const ohmsPowerOff = (ref: Value) => say`ohms of ${ref}, power off`;
export const tubeTesterKnownGood = (ref: Value) => say`${ref} in a tube tester, or a known good one in its place`;
export const ohmsPowerOffSignal = (ref: Value) => say`ohms at ${ref}, power off; or a signal through it`;

// faults
export const mainsLower = () => say`mains lower than entered, wrong primary tap, or a bad contact in the mains path`;
export const mainsHigher = () => say`mains higher than entered, or wrong primary tap`;
export const mainsTransformerShorted = () => say`mains transformer: shorted turns`;

export const controlNotNoted = (controls: Value) => say`the level hangs on ${controls}, whose position was not noted`;
