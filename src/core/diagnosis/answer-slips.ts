/**
 * Chances of answers that add up to one, with `slip` of them shared by all answers alike: somebody answers wrongly now and then, and no
 * amp keeps to its model.
 * @example allowSlips([3, 1], 0.1) // [0.725, 0.275]
 */
export function allowSlips(chances: readonly number[], slip: number): number[] {
  const sum = chances.reduce((a, b) => a + b, 0);
  return chances.map((c) => (sum > 0 ? (1 - slip) * (c / sum) + slip / chances.length : 1 / chances.length));
}
