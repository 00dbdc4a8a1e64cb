/** Texts of tubes. */

import { say, type Value } from "../language/language";

// fit
export const leastOneSheetPoint = () => say`at least one sheet point is wanted`;
export const plateVoltsPlateCurrent = (va: Value, ia: Value, gm: Value) =>
  say`plate volts, plate current and gm above zero are wanted; read ${va} V, ${ia} mA, ${gm}`;
export const noGm = () => say`no gm`;
export const plateCurrentOff = (errors: Value, at: Value) => say`plate current is ${errors} % off ${at}`;
export const gmOff = (errors: Value, at: Value) => say`gm is ${errors} % off ${at}`;
export const screenCurrentOff = (errors: Value, at: Value) => say`screen current is ${errors} % off ${at}`;

// judge-test
export const shortMustNotGo = (shorts: Value) => say`short: ${shorts}. It must not go back in`;
export const noFigureTypesFigure = () => say`no figure, or the type's figure for new is not known`;
export const newMaReject = (fresh: Value, limits: Value) => say` (new ${fresh} mA/V, reject ${limits})`;
export const belowRejectLimit = (reject: Value, against: Value) => say`below the reject limit of ${reject} %${against}`;
export const aboveRejectButTired = (against: Value) => say`above the reject limit, but worn${against}`;
export const weakEvenDiodeWill = () => say`weak even as a diode: it cannot amplify properly`;
export const passesEnoughButTired = () => say`passes enough, but worn`;
export const passesWhatShould = () => say`passes what it should`;
export const emissionAloneNeverClears = () => say`emission alone never clears a tube: it says nothing of transconductance, gas or noise`;
export const ampBetterKnownGood = () => say`the amp is better with a known good one: this tube is at fault`;
export const noChangeKnownGood = () => say`no change with a known good one: this tube is not the cause`;
export const worseOtherOneTube = () => say`worse with the other one: is that tube known to be good?`;
export const outcomeSwapWanted = () => say`the outcome of the swap is wanted`;
export const noShortFoundHow = () => say`no short found; how well it works was not tested`;
export const whichElectrodesNoneWanted = () => say`which electrodes, or none, is wanted`;

// sheet-line
export const typeNameWantedSuch = (nothing: Value) => say`A type name is wanted, such as 6CB5A; read ${nothing}.`;
export const aboveZeroWantedGrid = (mu: Value) => say`µ above zero is wanted (of grid 2 for a pentode); read ${mu}.`;
export const noPointAccepted = (line: Value, sheetExample: Value) => say`“${line}” is no point. Accepted: ${sheetExample}`;
export const leastOnePointSheet = (sheetExample: Value) => say`At least one point of the sheet is wanted, such as ${sheetExample}`;
export const eitherAllPointsHave = () => say`Either all points have a screen voltage or none.`;
