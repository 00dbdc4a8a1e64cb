/** Texts of signal. */

import { say, type Value } from "../language/language";

// response-change
export const feedbackHumDbHiss = (feedback: Value, signed: Value, signed2: Value) =>
  say`feedback ${feedback}, hum ${signed} dB, hiss ${signed2} dB`;
export const feedsBackPhaseOutput = (resistor: Value) =>
  say`${resistor} feeds back in phase: the output transformer is the wrong way round`;
export const nearSingingDbMargin = (feedback: Value, leastMargin: Value) =>
  say`Close to oscillation: ${feedback} dB of gain margin; at least ${leastMargin} dB is wanted`;

// response
export const responseWantsInputStage = () => say`a response wants an input (*@stage) and an output transformer`;
export const ampDoesNotSettle = (op: Value) => say`the amp does not settle at ${op}`;

// taps
export const ohmsFaradsAboveZero = (ohms: Value, farads: Value) => say`ohms and farads above zero; read ${ohms} and ${farads}`;
export const sourceMoreLoadAbove = (source: Value, load: Value) =>
  say`a source of 0 Ω or more and a load above 0 Ω; read ${source} and ${load}`;
