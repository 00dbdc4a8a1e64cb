/** Texts of instrument. */

import { say, type Value } from "../language/language";

// bridge
export const aPointAnd = (accepted: Value) => say`a point and ${accepted}`;
export const overloadNoReading = () => say`an overload is no reading`;
export const pointNumberUnit = () => say`a point and a number with its unit`;

// display
export const numberUnitDcMv = "a number with its unit, as 318.2 V DC, -12.4 mV, 7.4 V AC, 118.3 kΩ, 38.1 mA, or OL with a unit";
export const numberWithoutUnitMay = () => say`a number without its unit: it may be millivolts`;
export const noDisplayCanRead = () => say`no display that can be read`;
export const alternatingCurrentNotLogged = () => say`alternating current is not logged`;

// held-reading
export const swingsFromMeanTaken = (hold: Value, hold2: Value) => say`swings from ${hold} to ${hold2}, mean taken`;
export const takenKeyBeforeStood = () => say`taken by the key before it stood still`;
