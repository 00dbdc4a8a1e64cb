/** Texts of safety. */

import { say, type Value } from "../language/language";

// discharge-planner
export const noSmallerOneMuch = () => say`a smaller resistor is hardly faster: the dropper resistors limit the current`;
export const largestThroughBehindDroppers = (seconds: Value) =>
  say`the largest resistor that discharges everything within ${seconds} through the dropper resistors`;

// discharge-sequence
export const ohmsAboveZeroWanted = (ohms: Value) => say`ohms above zero are wanted; read ${ohms}`;

// discharge-tool
export const aboveZeroWantedRead = (name: Value, x: Value) => say`${name} above zero is wanted; read ${x}`;
export const lessWouldSparkFirst = (plan: Value) => say`less would spark: the current starts at ${plan}`;
export const largestThrough = (seconds: Value) => say`the largest resistor that discharges it within ${seconds}`;
export const plainShortTouchSpark = (plan: Value, sized: Value) =>
  say`This is a plain short: ${plan} at first contact, a spark that burns the tip and harms the capacitor. Take ${sized}.`;
export const sparksTouchMoreDoes = (plan: Value, nearestInSeries: Value) =>
  say`It sparks at first contact, ${plan}: ${nearestInSeries} or more does not.`;
export const bodyTooSmallPulse = (tool: Value, plan: Value, ratingFor: Value) =>
  say`A ${tool} resistor is too small: the pulse starts at ${plan}. Take ${ratingFor}.`;
export const bodyBearsRailHas = (bears: Value, tool: Value, volts: Value, volts2: Value) =>
  say`It is rated ${bears}${tool}, the rail has ${volts}: it can flash over. Put ${volts2} in series.`;
export const usualFigureSize = () => say` (usual for its size)`;
export const slowClipCanStay = (plan: Value, safeVolts: Value) =>
  say`Slow: ${plan} to ${safeVolts}. Leave it clipped on, do not hold it by hand.`;

// end-of-job-tests
export const noLeakage = (read: Value) => say`read ${read}: a leakage is milliamperes; accepted: 0.2m, 0.35 mA`;
export const figureOfAnother = (read: Value, another: Value, test: Value) =>
  say`read ${read}: that is a reading of ${another}, not of ${test}; accepted: ohms below that, or OL where it is open`;
export const theseLimitsSettingsShop =
  "These limits are settings of this shop. Local codes decide what is required, and a licensed person signs where the code asks for one. A passed test is a record of a measurement, not a promise that the amplifier is safe to touch.";
export const earthBond = () => say`Earth bond`;
export const plugEarthPinBare = () => say`Plug earth pin to bare chassis metal, cord flexed while reading.`;
export const liveNeutralTogetherChassis = () => say`Live and neutral together to chassis at 500 V, switch on.`;
export const leakageEarth = () => say`Leakage to earth`;
export const fullMainsBothPlug = () => say`At full mains, both plug polarities, the larger figure.`;
export const typeRatingPlateChart = () => say`Type and rating as the plate or chart says; holder sound; in the live conductor.`;
export const polaritySwitchOrder = () => say`Polarity and switch order`;
export const liveGoesFuseFirst = () => say`Live goes to the fuse first, then the switch; neutral is not fused.`;
export const cordStrainRelief = () => say`Cord and strain relief`;
export const noDamageGripHolds = () => say`No damage, grip holds, earth is the longest conductor on its own bolt.`;

// energy
export const namedHand = () => say`named by hand`;
export const wasLiveSinceNobody = (since: Value) => say`it was on since ${since} and nobody was there`;
export const othersMayHaveSwitched = () => say`it was proven dead, but the server is not reached: others may have switched it on since`;
export const proofOlderThan = (proofHours: Value) => say`the proof is older than ${proofHours} h`;
export const whatReservoirsHoldNot = () => say`it is not known what its reservoir capacitors hold`;
export const nobodyHasSaidWhether = () => say`it is not known whether it is charged`;

export const isSignOfPower = (line: Value, says: Value) => say`line ${line} says ${says}: is it on? Say off and pull the plug first`;
export const isSignOfCharge = (line: Value, says: Value) => say`line ${line} says ${says}: what was proven before it no longer holds`;
export const powerOnTakenBack = (line: Value) =>
  say`line ${line} said that it was on, and was taken back: was it on? Say off and pull the plug first`;
export const otherCircuit = (line: Value) =>
  say`line ${line} gave the job another circuit: other reservoirs may be in the amp than were read`;
export const cannotBeReadLine = (line: Value) => say`line ${line} about its power cannot be read`;
export const takenInAgain = (line: Value) => say`it was away until line ${line}`;
export const cameFromElsewhere = (line: Value) => say`the lines before line ${line} came from elsewhere`;
export const readInReadingOnly = () => say`named in a reading; size not known`;
export const wasInAmpLive = () => say`was in the amp when it was last on`;

// signs
export const readAtPoint = (value: Value, kind: Value, point: Value) => say`${value}${kind ? " " : ""}${kind} at ${point}`;
export const mainsCurrentFlows = () => say`that mains current flows`;
export const biasWasRead = () => say`that a bias was read`;
export const stagePassed = (stage: Value) => say`that the stage ${stage} was passed with the power on`;
export const wasStillOn = () => say`that it was still on`;
export const soakBegan = () => say`that a soak began`;
export const gridReadUnderDrive = (tube: Value) => say`that the grid of ${tube} was read under drive`;
export const waveformTaken = () => say`that a waveform was taken at the load`;
export const figureAtLoad = (kind: Value) => say`that a figure was taken at the load (${kind})`;
export const testedAtVolts = (part: Value, volts: Value) => say`that ${part} was tested at ${volts}`;

// live-check
export const benchFloorDoNot = () => say`Bench and floor do not conduct`;
export const ringsWatchChainOff = () => say`Rings, watch and necklace are off`;
export const oneHandOnlyOther = () => say`One hand only, the other behind the back`;
export const probeLeadsRatedAbove = (highest: Value) => say`Probe leads are rated above ${highest}`;
export const highestRail = () => say`the highest rail`;
export const speakerDummyLoadConnected = () => say`A speaker or dummy load is connected`;
export const isolationTransformerLineChassis = () => say`ISOLATION TRANSFORMER connected: this chassis is on one side of the mains`;
export const stillOffAmpMeant = (off: Value) => say`Left off the amp on purpose: ${off}`;

// power-gates
export const dangerStillOpen = (danger: Value) => say`A danger is still open: ${danger}`;
export const fuseHasGoneAmp = () => say`The fuse has blown in this amp: use a series lamp, or the next fuse blows too`;
export const neverStraightFullMains = () =>
  say`Never straight to full mains after work, storage or carriage: a lamp or a variable transformer first`;
export const lineConnectedChassisIsolation = () =>
  say`Line-connected chassis: the isolation transformer is not ticked at Bring-up. Connect no instrument without it`;
export const isolationNotSaid = () =>
  say`Line-connected chassis: it goes on behind the isolation transformer only, at every step. Say that it is connected`;
export const partSeriesHeaterString = (pulled: Value) => say`${pulled} is part of the series heater string: without it no heater lights`;
export const unloadedKeepDialDown = (over: Value) => say`Unloaded, ${over}: keep the dial down, or connect a load`;
export const canReachRated = (capacitor: Value, volts: Value, rated: Value) => say`${capacitor} can reach ${volts} and is rated ${rated}`;
export const biasNotProvenSockets = (outputIn: Value, wanted: Value) =>
  say`Bias is not proven at the sockets of ${outputIn}: without it these tubes run away in seconds. With them out, read ${wanted}`;
export const readSocket = (point: Value, least: Value) => say`${point} (${least} or further below zero)`;

// proof
export const nowMoreThanDielectric = (first: Value, volts: Value) =>
  say`${first} and now ${volts}: more than dielectric absorption brings back. The tip did not touch the first time, or something still feeds it. Is the plug out?`;
export const whereShouldStillThere = (volts: Value, estimate: Value) =>
  say`${volts} where ${estimate} should still be there. Was it discharged? Then measure the tool or say where it is clipped on, and read again. If not, the probe did not touch`;
export const onceIsEnough = (held: Value, rebound: Value, safe: Value) =>
  say`it held ${held}: dielectric absorption brings back ${rebound} at most, which is not above ${safe}`;
export const clipIsOn = () => say`the clip is on: it cannot charge`;
