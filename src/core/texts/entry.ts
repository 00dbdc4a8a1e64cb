/** Texts of entry. */

import { aType, say, type Value } from "../language/language";

// correction-lines
export const correct = (rest: Value) => say`correct ${rest}`;
export const thereNoReadingCorrect = (name: Value) => say`there is no reading of ${name} to correct`;

// work-lines
export const nothingNamed = () => say`nothing named`;

// correction-lines
export const correctMisreadRange = () => say`correct B1 305 misread the range`;
export const correctionNeedsReasonStays = () => say`a correction needs its reason: it stays on the tape`;
export const correctMisreadRange2 = (name: Value, typed: Value) => say`correct ${name} ${typed} misread the range`;
export const correctedFrom = (point: Value, old: Value, echo: Value, why: Value) => say`${point} corrected from ${old} to ${echo}: ${why}`;
export const thereNothingUndo = () => say`there is nothing to undo`;
export const lineTapeFirst = () => say`at least one line on the tape`;
export const undoLine = (line: Value) => say`Undo: ${line}`;
export const undo = (rest: Value) => say`undo ${rest}`;
export const undoForms = () => say`undo, undo B1 318, undo line 12`;
export const noStandingLine = (seq: Value) => say`line ${seq} is not on the tape, or does not stand any more`;
export const noReadingOf = (name: Value, typed: Value) => say`no reading of ${name} is ${typed}`;

// the type of a tube
export const circuitSaysTypes = () => say`the circuit of this amp says what its tubes are`;
export const fitAnotherTube = (tube: Value, type: Value) => say`fit ${tube} ${type} where another type goes in`;
export const tubeIs = (tube: Value, type: Value, unknown: Value) => say`${tube} is ${aType(String(type))}${unknown}`;
export const typeNotInLibrary = () => say`, of a type that the library does not know`;
export const tubeIsForm = "V4 is EL84";

// places-said
export const noSocketKnown = (tube: Value) => say`the socket of ${tube} is not known`;
export const noPointOnPin = (tube: Value, pin: Value, electrode: Value) =>
  say`${tube} pin ${pin}${electrode ? ` (${electrode})` : ""} is no test point of this amp`;
export const pinsReadable = (tube: Value, pins: Value) => (pins ? say`of ${tube}: pin ${pins}` : say`a test point such as B1`);
export const noPointOnElectrode = (tube: Value, electrode: Value) => say`${tube} has no test point on its ${electrode}`;
export const severalOfTube = (tube: Value, electrode: Value) => say`${tube} has more than one ${electrode}`;
export const noSuchRail = (at: Value) => say`there is no rail number ${at}`;

// several readings on a line
export const severalNotRead = (what: Value, why: Value) => say`${what}: ${why}`;

// entry
export const noteText = "note TEXT";
export const note = (rest: Value) => say`Note: ${rest}`;
export const noteEmpty = () => say`the note is empty`;
export const noteText2 = () => say`note TEXT`;
export const lampVariableWithout = "on [lamp | variable] [without V4,V5]";
export const offOffPlugStill = "off, or off in (plug still in)";
export const fitFilmWasLeaky = "fit C6 22n 630V film, was leaky";
export const sawColdPlateGlows = "saw V4 cold (or plate glows, hum, fuse blows …)";
export const findPlaceWhatWas = "find PLACE: what was found";
export const removeWhatPlace = "remove WHAT, PLACE";
export const backWhat = "back WHAT";
export const askQuestionOwner = "ask QUESTION TO THE OWNER";
export const askOwner = (rest: Value) => say`Ask the owner: ${rest}`;
export const noQuestion = () => say`the question is missing`;
export const askQuestion = () => say`ask QUESTION`;
export const waitOwnerPartSoak = "wait owner | part | soak | collection | you [for what]";
export const correctPointValueReason = "correct POINT VALUE REASON";
export const saw = (rest: Value) => say`saw ${rest}`;
export const noObservationSuspectsKnow = (rest: Value) => say`"${rest}" is not an observation that Suspects knows`;
export const seen = (name: Value, says: Value) => say`Seen: ${name} (${says})`;
export const nothingWasTyped = () => say`nothing was typed`;
export const pointValueNoteOff = () => say`a point and its value (B1 318), or note, on, off, fit, find, undo …`;
export const pointAmpAlsoWord = (word: Value, why: Value) =>
  say`${word} is a point of this amp, and also a command. As a reading of the point: ${why}`;
export const logOwnField = (accepted: Value) => say`${accepted}; or use the field for it`;
export const powerOff = "C1 0.3 (power off)";

// measurement-lines
export const leakageLegLifted = "leakage, leg lifted";
export const ofNew = "of new";
export const hasNoValue = (point: Value) => say`${point} has no value`;
export const ohmK = (name: Value, name2: Value) => say`${name} 318, ${name2} ohm 4k7`;
export const noSuchPoint = () => say`no such point`;
export const askedHere = (kindName: Value, kindName2: Value) => say`that is ${kindName}, and ${kindName2} is asked for here`;
export const valueAlone = (unitName: Value) => say`the value alone, in ${unitName}`;
export const resistanceReadPowerOff = () => say`resistance is read with the power off, and the amp is logged as live`;
export const typeOffFirst = () => say`type off first`;
export const open = (name: Value) => say`${name} open`;
export const powerOff2 = (name: Value, label: Value, shown: Value) => say`${name} (${label}) ${shown}, power off`;
export const ampNotLoggedSo = () => say`the amp is not logged as on, so this cannot be a live reading`;
export const typeFirstReservoirsCan = () => say`type on first; reservoirs can be read with the power off`;
export const powerOff3 = (reservoir: Value, echo: Value) => say`${reservoir} ${echo}, power off`;
export const ofNew2 = "% of new";
export const notPointPartWord = (name: Value) => say`"${name}" is not a point or part of this amp, nor a command`;
export const noteOffFitFind = (near: Value) => say`${near}, or note, on, off, fit, find …`;
export const pointSuchNoteOff = (known: Value) => say`a point such as ${known}, or note, on, off, fit, find …`;

// power-lines
export const notUnderstood = (rest: Value) => say`"${rest}" is not understood`;
export const lampVariableWithout2 = () => say`on, on lamp, on variable, on without V4,V5`;

// work-lines
export const thereNoAmp = (position: Value) => say`there is no ${position} in this amp`;

// power-lines
export const tubeSuch = () => say`a tube such as V1`;
export const becauseReason = (rest: Value) => say`on ${rest} because REASON`;
export const powerAmpLive = (through: Value, without: Value, passed: Value) => say`Power ON${through}${without}${passed}: the amp is live`;
export const isolated = () => say` behind the isolation transformer`;
export const through = (through: Value) => say` through ${through}`;
export const without = (without: Value) => say`, without ${without}`;
export const past = (passed: Value) => say`, with a reason for going past: ${passed}`;
export const switchedOffPlugOut = () => say`Switched off, plug out`;
export const switchedOffPlugStill = () => say`Switched off, plug still in`;
export const off = (rest: Value) => say`off ${rest}`;
export const saysNothingAboutPlug = (rest: Value) => say`"${rest}" is not understood: is the plug out, or still in?`;
export const offOff = () => say`off, or off in`;
export const notMainsVoltage = (echo: Value) => say`${echo} is not a mains voltage`;
export const mains = (echo: Value) => say`Mains ${echo}`;
export const meterBatteryReadKnown = () => say`meter 9.02 9.0 battery (read, known, source)`;
export const knownSource = () => say`known source`;
export const meterReadKnown = (source: Value, echo: Value, expected: Value) => say`Meter on ${source}: read ${echo}, known ${expected}`;

// work-lines
export const fitFilmWasLeaky2 = () => say`fit C6 22n 630V film, was leaky`;
export const fit = (rest: Value) => say`fit ${rest}`;
export const newPartNotNamed = () => say`the new part is not named`;
export const noPosition = () => say`no position`;
export const fitted = (name: Value, newPart: Value, oldPart: Value, reasonText: Value) =>
  say`Fitted ${name}: ${newPart}${oldPart}${reasonText}`;
export const inPlaceOf = (oldPart: Value) => say` in place of ${oldPart}`;
export const find = (rest: Value) => say`find ${rest}`;
export const placeFindingBothWanted = () => say`place and finding are both wanted`;
export const findSocketLoosePin = () => say`find V4 socket: loose pin 3`;
export const findingAt = (match: Value, match2: Value) => say`Finding at ${match}: ${match2}`;
export const removeTwoBackPanel = () => say`remove two back-panel screws, left`;
export const takenOff = (what: Value, place: Value) => say`Taken off: ${what}${place}`;
export const back = (what: Value) => say`back ${what}`;
export const nothingNameOffAmp = () => say`nothing of that name is off the amp`;
export const nothingOffAmp = () => say`nothing is off the amp`;
export const backPlace = (what: Value) => say`Back in place: ${what}`;
export const wait = (rest: Value) => say`wait ${rest}`;
export const notClearWhat = () => say`say what it waits for`;
export const waitOwnerWaitPart = () => say`wait owner, wait part GZ34, wait soak, wait collection, wait you`;
export const waitingFor = (on: Value, match: Value) => say`Waiting for ${on}${match}`;
export const the = (on: Value) => say`the ${on}`;
