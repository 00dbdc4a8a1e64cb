/** Broadband noise that comes in bursts with the mains: arcing, a noisy rectifier. What hiss is not. */

/** High frequencies are looked at, in blocks of a millisecond, over so many seconds. */
const BLOCK_SECONDS = 0.001;
const MOST_SECONDS = 10;

/** 0 for noise that is always there, 1 and more where it comes in bursts `hertz` times a second: twice the envelope's line over its mean. */
export function gatedBy(x: Float32Array, rate: number, hertz: number): number {
  const size = Math.max(4, Math.round(rate * BLOCK_SECONDS));
  const blocks = Math.floor(Math.min(x.length, MOST_SECONDS * rate) / size);
  let [sum, re, im] = [0, 0, 0];
  for (let b = 0; b < blocks; b++) {
    let energy = 0;
    for (let i = Math.max(2, b * size); i < (b + 1) * size; i++) {
      // The second difference leaves out what is slow: hum and its first multiples.
      const d = x[i]! - 2 * x[i - 1]! + x[i - 2]!;
      energy += d * d;
    }
    const phase = (2 * Math.PI * hertz * b * size) / rate;
    sum += energy;
    re += energy * Math.cos(phase);
    im += energy * Math.sin(phase);
  }
  return sum > 0 ? (2 * Math.hypot(re, im)) / sum : 0;
}

/** How much faster the loudness rises than it falls: above 1 for something struck that rings down. */
export function struckness(x: Float32Array, rate: number): number {
  const size = Math.max(8, Math.round(rate * 0.008));
  const level: number[] = [];
  for (let b = 0; (b + 1) * size <= x.length; b++) {
    let sum = 0;
    for (let i = b * size; i < (b + 1) * size; i++) sum += x[i]! * x[i]!;
    level.push(Math.sqrt(sum / size));
  }
  // Steepest rises against steepest falls, each the mean of the largest twentieth.
  const steps = level.slice(1).map((v, i) => v - level[i]!);
  const most = Math.max(1, Math.floor(steps.length / 40));
  const mean = (list: number[]) => list.slice(0, most).reduce((a, b) => a + b, 0) / most;
  const rises = mean([...steps].sort((a, b) => b - a));
  const falls = -mean([...steps].sort((a, b) => a - b));
  return falls > 0 ? rises / falls : 1;
}
