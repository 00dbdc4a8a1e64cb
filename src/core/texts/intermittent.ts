/** Texts of intermittent. */

import { say, words, type Value } from "../language/language";

// conditions
export const noSingleConditionNo = () =>
  say`no single condition and no pair explains these runs: it needs three, or something that is not in the list, or it comes and goes by itself`;
export const runsHadSameSettings = (g: Value) => say`runs ${g} had the same settings and not the same outcome: it may be intermittent`;
export const showsWhateverSet = () => say`it fails under every condition`;

// soak
export const soakMeasuredHowOften = () => say`a soak is measured by how often it used to fail: at least one failure within some hours`;
export const confidenceAccepted = (confidence: Value) => say`a confidence of ${confidence}; accepted: 0.5 to 0.999`;

// conditions that are offered
export const footswitch = () => words("footswitch");
export const footswitchLead = () => words("footswitch lead");
export const lead = () => words("lead");
export const shortLong = () => [words("short"), words("long")];
export const outIn = () => [words("out"), words("plugged in")];
export const openClosed = () => [words("open"), words("closed")];
export const everyAmpConditions = () => [
  { name: words("cabinet"), settings: [words("out of it"), words("in it")] },
  { name: words("warm"), settings: [words("cold"), words("an hour")] },
  { name: words("mains"), settings: [words("low"), words("usual")] },
];
