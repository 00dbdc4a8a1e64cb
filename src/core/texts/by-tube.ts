/** Texts of by-tube. */

import { say, type Value } from "../language/language";

// says
export const gridAbove = (volts: Value) =>
  say`The grid is ${volts} above its cathode: it draws current. The coupling capacitor before it leaks, or the tube is gassy; watch the plate and switch off if it glows.`;
export const gridPositive = (volts: Value) =>
  say`${volts} at the grid of an output tube, where 0 V or less is usual: the coupling capacitor before it leaks, or the tube is gassy. Lift the capacitor's leg and read it again.`;
export const biasMissing = (grid: Value, cathode: Value) =>
  say`Bias is missing: ${grid} at the grid${cathode ? ` and ${cathode} at the cathode` : ""}. Switch off before the plate glows.`;
export const screenWithoutVolts = (volts: Value) =>
  say`The screen has no volts (${volts}): the tube carries next to no current. Its resistor or its supply is open.`;
export const plateIsCathode = (volts: Value) =>
  say`Plate and cathode are both at ${volts}: a short between them, or nothing pulls the plate up. Measure it with the power off.`;
export const plateWithoutVolts = (volts: Value) =>
  say`The plate has no volts (${volts}) though a rail has: its resistor, or its half of the transformer, is open.`;
export const plateIsRail = (volts: Value, rail: Value, unsure: boolean) =>
  unsure
    ? say`The plate stands at ${rail}, ${volts}: if it has a plate resistor, no current flows.`
    : say`The plate stands at ${rail}, ${volts}: no current flows. The cathode is open, the heater cold, or the tube worn out.`;
export const heaterVolts = (volts: Value, made: Value) => say`${volts} at the heater, made for ${made} V: more than a tenth off.`;
export const cathodeCurrent = (amps: Value) => say`${amps} by its cathode resistor.`;
export const dissipation = (amps: Value, watts: Value, percent: Value, rated: Value) =>
  say`${amps} by its cathode resistor: ${watts} in the plate, ${percent} % of the ${rated} W it is rated for.`;
export const twinsDiffer = (electrode: Value, one: Value, other: Value) =>
  say`They differ at the ${electrode}: ${one} and ${other}. Change them over: does it go with the tube?`;

// usual figures
export const usualHeater = (volts: Value) => say`${volts} V`;
export const usualPlate = (low: Value, high: Value) => say`${low} to ${high} with a plate resistor`;
export const usualOutputPlate = (low: Value, high: Value) => say`${low} to ${high}`;
export const usualCathode = () => say`0.5 to 4 V with a cathode resistor`;
export const usualGrid = () => say`0 V`;
