/** Texts of diagnosis. */

import { say } from "../language/language";

// isolate
export const nothingShorted = () => say`nothing shorted`;
export const answerPointsTo = (answer: string, causes: string, first: boolean) =>
  first ? say`“${answer}” points to ${causes}` : say`“${answer}” to ${causes}`;

// observation-names
export const tubeColdHandAfter = "the tube is cold to the hand after minutes";
export const heaterDoesNotGlow = "its heater does not glow";
export const plateShowsRed = "its plate shows red";
export const farHotterThanFellow = "far hotter than its fellow";
export const blueGlowBetweenElectrodes = "a blue glow between its electrodes";
export const seriesLampStaysBright = "the series lamp stays bright";
export const seriesLampHardlyGlows = "the series lamp hardly glows";
export const fuseGoesPower = "the fuse goes at power-on";
export const noSoundNotEven = "no sound, not even hum";
export const idlesButNoSignal = "it idles, but no signal comes through";
export const signalComesThroughFar = "signal comes through far too low";
export const humVolumeDoesNot = "hum that the volume does not change";
export const runsHotSmells = "it runs hot and smells";
export const cracklePoppingIdle = "crackle and popping at idle";

/** How much a test is expected to tell, by its expected information in bits: one bit halves what is left. */
export const tellsHowMuch = (bits: number) => (bits >= 0.7 ? "tells much" : bits >= 0.25 ? "tells something" : "tells little");
/** What a test asks of the technician, relative to a reading at a point that is in reach. */
export const effortOf = (cost: number) => (cost < 1 ? "quick" : cost <= 1.6 ? "takes some minutes" : "takes longer");
