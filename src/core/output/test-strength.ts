/** How strong a tested tube is beside its sheet's, so that its test is put into the model. */

import type { TubeType } from "../tubes/library";
import { plateAmps } from "./load-line";

/** A test at a few milliamperes says little of a power tube, and its tube much of the tester. */
const LEAST_AMPS = 1e-3;

/**
 * Current in parts of the sheet's tube at the same volts; undefined where the sheet's tube hardly draws there, or has no model.
 * @param test plate milliamperes at volts to the cathode.
 */
export function testStrength(
  type: TubeType,
  test: { milliamps: number; plateVolts: number; screenVolts?: number; gridVolts: number },
): number | undefined {
  if (!type.model) return undefined;
  const sheet = plateAmps({ type }, test.plateVolts, test.screenVolts ?? test.plateVolts, test.gridVolts);
  if (sheet < LEAST_AMPS || !(test.milliamps > 0)) return undefined;
  const strength = test.milliamps / 1e3 / sheet;
  return strength >= 0.05 && strength <= 3 ? strength : undefined;
}
