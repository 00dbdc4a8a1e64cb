/** Texts of expectation. */

import { say, type Value } from "../language/language";

// headline
export const and = (words: Value, words2: Value) => say`${words} and ${words2}`;
export const doesNotSettleNode = (at: Value, solution: Value) => say`The solve does not settle${at} at node ${solution}`;
export const bearsOfIts = (part: Value, share: Value, kind: Value) => say`${part} is at ${share} of its ${kind}`;
export const aboveRating = (at: Value, listed: Value, over: Value) => say`Above its rating${at}: ${listed}${over}`;
export const andMore = (over: Value) => say`, and ${over} more`;
export const solvedButNothingHolds = (at: Value, listed: Value) =>
  say`Solved${at}, but ${listed} floats: an open part leaves it unconnected`;
export const node = (n: Value) => say`node ${n}`;
export const plateRating = (listed: Value) => say`: ${listed} of plate rating`;
export const solved = (at: Value, idling: Value, listed: Value) => say`Solved${at}${idling}; ${listed}`;
export const solvedNothingAboveRating = (at: Value, idling: Value) => say`Solved${at}${idling}; nothing above its rating`;

// modelled
export const supplyVoltageBehindLamp = () => say`the supply voltage behind the lamp is not known`;
export const circuitBeingSolved = () => say`the circuit is being solved`;
export const modelDoesNotSettle = (solved: Value) => say`the model does not settle at node ${solved}`;
export const modelOscillates = () => say`the model oscillates`;
export const modelHasNoSuch = () => say`the model has no such point`;
export const nothingHoldsPointPart = () => say`this point floats: with a part open, what the meter shows depends on the meter`;
export const meanSwing = (swing: Value) => say`, mean of a swing of ${swing}`;
export const wideBelowSinceReal = () =>
  say`; wide below, since real output tubes idle 10 to 25 % under the sheet’s tube at these screen volts`;
export const circuitSolved = (settled: Value, mains: Value, conditions: Value, swing: Value, wide: Value, doubts: Value) =>
  say`the circuit${settled}, solved${mains}${conditions}${swing}${wide}${doubts}`;
export const settledOn = (on: Value) => say`, settled on ${on}`;
export const alone = () => " alone";
export const fromSettled = (on: Value) => say`Expected values: the circuit, settled on ${on}.`;
export const fromAlone = () =>
  say`Expected values: the circuit alone, with the average tube and windings as its file has them; settled on a chart they would be surer.`;
export const fromChart = () => say`Expected values: the printed chart, scaled to today’s mains.`;
export const without = (conditions: Value) => say` without ${conditions}`;

// unloaded
export const unloadedRailExceedsRating = (value: Value) =>
  say`unloaded rail exceeds the rating of ${value}: bring it up with a load, or fit a higher rating`;
export const withinRating = () => say`within 5 % of its rating`;

// expectation
export const chartHasNoFigure = () => say`the chart has no figure for this point`;
export const chartAllTubes = (without: Value) => say`the chart holds with all tubes fitted; ${without} removed`;
export const chartBehindLamp = () => say`the chart does not apply behind a series lamp: the lamp's voltage drop is not known`;
export const chartTooLow = (mains: Value) => say`the chart does not scale down to ${mains} V: tubes at low heater voltage draw little`;
export const chartScaledTo = (volts: Value, chartMains: Value, mains: Value) =>
  say`chart ${volts} at ${chartMains} V mains, scaled to ${mains} V`;
export const chart = (volts: Value) => say`chart ${volts}`;
