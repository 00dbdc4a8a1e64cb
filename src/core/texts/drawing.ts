/** Texts of the drawing. */

import { say, type Value } from "../language/language";

export const signal = () => say`Signal`;
export const signalOf = (tubes: Value) => say`Signal: ${tubes}`;
export const supply = () => say`Supply`;
export const biasSupply = () => say`Bias supply`;
export const rest = () => say`Apart from the rest`;
export const heaters = () => say`Heaters`;
export const string = () => say`string`;
