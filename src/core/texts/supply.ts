/** Texts of supply. */

import { say, type Value } from "../language/language";

// heaters
export const acrossHeaterPins = () => say`across its heater pins`;
export const pinPin = (a: Value, b: Value) => say`pin ${a} to pin ${b}`;
export const pinPinBothHalves = (a: Value, b: Value, a2: Value, b2: Value, centre: Value, half: Value) =>
  say`pin ${a} to pin ${b}, both halves in series; pin ${a2} or ${b2} to pin ${centre}, one half: ${half}`;
export const noSeriesString = (name: Value) => say`${name} is no series string`;
export const noTubeCircuit = (t: Value) => say`no tube ${t} in this circuit`;
export const heatersWantDifferentCurrents = (currents: Value) =>
  say`The heaters want different currents (${currents}): one is the wrong type, or has a shunt.`;
export const tubesWantMoreThan = (sum: Value) => say`The tubes want ${sum} V, more than the line has: a wrong type is in the string.`;
export const eachHeaterGetsVolts = (heaterShare: Value) =>
  say`Each heater gets ${heaterShare} % of its volts: the ballast is too small, or the line too high.`;
export const eachHeaterGetsOnly = (heaterShare: Value) =>
  say`Each heater gets only ${heaterShare} % of its volts: the ballast is too large, or the line too low.`;
export const openOverloadWhereAbout = (opens: Value, opens2: Value, opens3: Value, cold: Value) =>
  say`${opens} ${opens2} open: ${opens3} overload where about ${cold} Ω is expected cold.`;
export const theyRead = () => say`they read`;
export const itReads = () => say`it reads`;
export const noElementOpenBut = (odd: Value, ohms: Value, cold: Value) =>
  say`No element is open, but ${odd} reads ${ohms} Ω, far above the ${cold} Ω expected: a poor joint or pin in series with it.`;
export const everyElementHasContinuity = () =>
  say`Every element has continuity: the string is open between them, at a socket contact, a lead or the switch.`;
export const notReadYetTube = (length: Value, length2: Value) =>
  say`${length} of ${length2} not read yet. The tube with the highest heater voltage fails most: read that one first.`;
export const seriesString = (name: Value) => say`${name} is a series string`;
export const wantsWindingGives = (tube: Value, type: Value, volts: Value, volts2: Value) =>
  say`${tube} (${type}) wants ${volts} V, the winding gives ${volts2} V.`;
export const heatersTakeWindingRuns = (amps: Value, ratedAmps: Value) =>
  say`The heaters take ${amps} A of a winding for ${ratedAmps} A: it runs hot and low. Is a tube fitted whose heater draws more than the original?`;
export const highEmittersHeatersAge = () => say`high: cathodes and heaters age fast`;
export const lowCathodesStripUnder = () => say`low: the tubes are weak and their cathodes wear under load`;

// stored-energy
export const aboveZeroWantedRead = (name: Value, x: Value) => say`${name} above zero is wanted; read ${x}`;
