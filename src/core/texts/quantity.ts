/** Texts of quantity. */

import { say, type Value } from "../language/language";

// format
export const neverItself = () => say`never by itself`;
export const minS = (value: Value, value2: Value) => say`${value} min ${value2} s`;
export const min = (value: Value) => say`${value} min`;
export const hMin = (minutes: Value, minutes2: Value) => say`${minutes} h ${minutes2} min`;

// ohms
export const acceptedOl = (why: Value, accepted: Value) => say`${why}; accepted: ${accepted}, or OL`;
export const readAcceptedZeroMore = (text: Value) => say`Read ${text}; accepted: zero or more, or OL`;

// parse
export const numberSuchMv = "a number such as 318, 4k7, 4.7k, 2R2, 22n, 31mV or -51.5";
export const nothingWasTyped = () => say`nothing was typed`;
export const hasCommaShopWrites = () => say`it has a comma, and this shop writes decimals with a point (a setting)`;
export const inPlaceOf = () => say`12.5 in place of 12,5`;
export const hasMoreThanOne = () => say`it has more than one decimal sign`;
export const doesNotStartNumber = (word: Value) => say`“${word}” is no number`;
export const twoValues = () => say`these are two values`;
export const oneValue = () => say`one value here, such as 4k7 or 318`;
export const noSuchCapacitor = (echo: Value) => say`${echo} is no capacitor`;
export const hasTwoDecimalPlaces = () => say`it has two decimal places marked`;
export const notUnitKnownHere = (tail: Value) => say`"${tail}" is not a unit that is known here`;
export const notUnitPrefixKnown = (tail: Value) => say`"${tail}" is not a unit or a prefix that is known here`;
export const wantedHere = (unitWords: Value, unitWords2: Value) => say`it is in ${unitWords}, and ${unitWords2} are wanted here`;
export const tooLargeNumber = () => say`it is too large to be a number`;

// series
export const preferredValueNearPositive = (value: Value) => say`a preferred value is near a positive number; read ${value}`;
export const pairComesNearPositive = (wanted: Value) => say`a pair comes near a positive number; read ${wanted}`;

// colour-code
export const noColour = (word: Value, colours: Value) =>
  say`${word} is no colour of the code; accepted: ${colours}, gold and silver as multiplier or tolerance`;
export const colourCount = (n: Value) => say`${n} colours; three to five are read: figure, figure, multiplier, tolerance, volts`;
export const colourZero = () => say`the two figures make nothing: begin at the other end`;
