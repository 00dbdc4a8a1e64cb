/** Texts of intermittent. */

import { say, type Value } from "../language/language";

// conditions
export const noSingleConditionNo = () =>
  say`no single condition and no pair explains these runs: it needs three, or something that is not in the list, or it comes and goes by itself`;
export const runsHadSameSettings = (g: Value) => say`runs ${g} had the same settings and not the same outcome: it may be intermittent`;
export const showsWhateverSet = () => say`it fails under every condition`;

// soak
export const soakMeasuredHowOften = () => say`a soak is measured by how often it used to fail: at least one failure within some hours`;
export const confidenceAccepted = (confidence: Value) => say`a confidence of ${confidence}; accepted: 0.5 to 0.999`;
