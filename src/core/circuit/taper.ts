/** How a control's track divides at a position of its shaft. */

/** Part of the track from its start that an audio taper has at half rotation. */
const AUDIO_AT_HALF = 0.15;

/**
 * Part of the resistance between start and wiper at `position` (0 to 1).
 * Audio: (b^x − 1)/(b − 1) with b such that half rotation gives 15 %; reverse: its mirror image.
 */
export function wiperShare(taper: string, position: number): number {
  const x = Math.min(1, Math.max(0, position));
  if (taper === "linear") return x;
  const b = (1 / AUDIO_AT_HALF - 1) ** 2;
  const audio = (t: number) => (b ** t - 1) / (b - 1);
  return taper === "reverse" ? 1 - audio(1 - x) : audio(x);
}
