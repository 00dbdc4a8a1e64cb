/** Texts of solver. */

import { say, type Value } from "../language/language";

// mains-draw
export const circuitHasNoMains = () => say`the circuit has no *@mains line, so nothing can be said of its mains current`;

// network
export const circuitHasNoMains2 = () => say`the circuit has no *@mains line, so its windings refer to no mains voltage`;

// ohmmeter
export const reservoirStillHoldsOhmmeter = (volts: Value) =>
  say`a reservoir still holds ${volts} V: an ohmmeter would read the charge, and may not survive it`;

// small-signal
export const noNode = (name: Value) => say`no node ${name}`;

// ohmmeter
export const redBlack = (red: Value, black: Value) => say`red on ${red}, black on ${black}`;

// reservoir
export const supplyNotSettled = (percent: Value) =>
  say`the correction of the supply for its small reservoir was still moving by ${percent} % of the winding when it was given up: the rails are right to about that`;
export const noPeriodicAnswerWas = (name: Value) =>
  say`${name}: no periodic answer was found for its small reservoir; its rail is that of a large one`;

// small-signal
export const noOperatingPointSmall = () => say`no operating point, and a small-signal analysis needs one`;
export const linearAmpSingular = (thisValue: Value) => say`the linear amp is singular at ${thisValue}`;

// stability
export const noOperatingPointWhose = () => say`no operating point, so its stability cannot be checked`;

// tolerance
export const operatingPointHasNo = () => say`the matrix at the operating point is singular, so sensitivities cannot be computed`;

// transient
export const transientDoesNotSettle = (seconds: Value, node: Value) =>
  say`the transient does not settle at ${seconds} s; node ${node} will not follow`;
export const ofAWinding = () => say`of a winding`;

// unrest
export const drawnWouldOscillateAbout = (fast: Value) =>
  say`as drawn it would oscillate at about ${fast} kHz; leads and layout decide whether it does`;
