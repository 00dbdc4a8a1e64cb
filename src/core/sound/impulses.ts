/** Single short events in a recording: crackle has them at random, a rectifier's buzz in step with the mains. */

export interface Impulses {
  /** Seconds from the start. */
  at: number[];
  perSecond: number;
  /** How irregular the gaps are: spread over mean; 0 for a clock, 1 for pure chance. */
  irregular: number;
}

/** Times what lies around it that an event must reach: noise does not, a note has its like before and after it. */
const TIMES = 4.5;
/** In a clipped recording every corner is an event. */
const TIMES_CLIPPED = 12;
/** Length of what is compared, seconds, and how many of them lie around. */
const BLOCK_SECONDS = 0.001;
const NEAR = 2;
const FAR = 16;
const ONE_EVENT_BLOCKS = 6;
/** The last bits of a short word are no event: so many steps of it are wanted, and so much of full scale at least. */
const STEPS = 7;
const LEAST = 4e-4;
const STEP_SECONDS = 5;

/** @param bits of the recorder's word. @param clipped whether the recording touches full scale. */
export function impulsesOf(x: Float32Array, rate: number, bits: number, clipped: boolean): Impulses {
  // Second difference over a tenth of a millisecond: hum vanishes in it, a click does not.
  const d = Math.max(1, Math.round(rate * 1e-4));
  const size = Math.max(4, Math.round(rate * BLOCK_SECONDS));
  const blocks = new Float32Array(Math.floor(x.length / size));
  for (let b = 0; b < blocks.length; b++) {
    let most = 0;
    for (let i = Math.max(2 * d, b * size); i < (b + 1) * size; i++) {
      const v = x[i]! - 2 * x[i - d]! + x[i - 2 * d]!;
      if (v > most) most = v;
      else if (-v > most) most = -v;
    }
    blocks[b] = most;
  }
  const least = Math.max(LEAST, (STEPS * 2) / 2 ** bits);
  const times = clipped ? TIMES_CLIPPED : TIMES;
  const found: number[] = [];
  let last = -Infinity;
  for (let b = FAR; b + FAR < blocks.length; b++) {
    const here = blocks[b]!;
    if (here < least || here < blocks[b - 1]! || here < blocks[b + 1]!) continue;
    // Cheap first: most blocks are no larger than their neighbours.
    if (here < times * blocks[b - NEAR - 1]! && here < times * blocks[b + FAR]! && here < times * blocks[b - FAR]!) continue;
    if (here < times * middle(blocks, b - FAR, b - NEAR) || here < times * middle(blocks, b + 8, b + FAR)) continue;
    if (b - last > ONE_EVENT_BLOCKS) found.push((b * size) / rate);
    last = b;
  }
  const gaps = found.slice(1).map((t, i) => t - found[i]!);
  const mean = gaps.reduce((a, b) => a + b, 0) / Math.max(1, gaps.length);
  const spread = Math.sqrt(gaps.reduce((a, g) => a + (g - mean) ** 2, 0) / Math.max(1, gaps.length));
  return { at: found, perSecond: found.length / (x.length / rate), irregular: gaps.length < 2 ? 1 : spread / mean };
}

/** 0 to 1: how far the events keep step with a frequency; about 0 for chance, 1 for a clock. */
export function inStep(impulses: Impulses, hertz: number): number {
  if (impulses.at.length < 3) return 0;
  let [re, im] = [0, 0];
  // Not over long: a frequency that is a little off must not lose its step.
  const used = impulses.at.filter((t) => t - impulses.at[0]! < STEP_SECONDS);
  for (const t of used) {
    re += Math.cos(2 * Math.PI * hertz * t);
    im += Math.sin(2 * Math.PI * hertz * t);
  }
  return Math.hypot(re, im) / used.length;
}

function middle(blocks: Float32Array, from: number, to: number): number {
  const part = blocks.slice(from, to + 1).sort();
  return part[Math.floor(part.length / 2)]!;
}
