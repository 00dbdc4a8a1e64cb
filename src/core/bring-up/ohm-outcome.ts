/** Which answer a resistance is, against that of a sound amp. Ohms. */

const SHORT_OHMS = 25;
const LOW_PART = 0.3;
const OPEN_OHMS = 3e6;

export const OHM_OUTCOMES = ["as it should be", "low", "a short", "open"];

export function bucketOf(ohms: number, sound: number): string {
  if (ohms <= Math.min(SHORT_OHMS, 0.5 * sound)) return "a short";
  if (ohms > OPEN_OHMS && sound < OPEN_OHMS / 3) return "open";
  if (ohms < LOW_PART * sound && ohms < OPEN_OHMS) return "low";
  return "as it should be";
}
