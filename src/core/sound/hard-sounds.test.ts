/** Recordings that are hard to name, made here by code of their own: waves summed sample by sample, another noise, another way of gating. */

import { soundsOf } from "./sounds";

const RATE = 44_100;
/** A linear congruential generator with the constants of "Numerical Recipes": no generator of the product. */
function noise(seed: number): () => number {
  let s = seed >>> 0;
  return () => ((s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 2147483648 - 1) as number;
}
const record = (seconds: number, wave: (t: number, n: number) => number, seed = 7) => {
  const hiss = noise(seed);
  const samples = Float32Array.from({ length: Math.round(seconds * RATE) }, (_, i) => wave(i / RATE, hiss()) + 3e-5 * hiss());
  return { rate: RATE, bits: 16, float: false, channels: [samples], notes: [] as string[] } as unknown as Parameters<typeof soundsOf>[0];
};
const kindOf = (...a: Parameters<typeof soundsOf>) => soundsOf(...a).named[0]!.kind;
const tau = 2 * Math.PI;

test.each<[string, (t: number) => number, number]>([
  ["a squeal that wanders by 2 Hz", (t) => 0.05 * Math.sin(tau * 1530 * t + (2 / 0.35) * Math.sin(tau * 0.35 * t)), 4],
  ["a howl that grows", (t) => 0.0004 * Math.exp(1.5 * t) * Math.sin(tau * 820 * t), 4],
  ["a howl that comes for half a second", (t) => (t > 1.6 && t < 2.1 ? 0.08 * Math.sin(tau * 1210 * t) : 0), 4],
  ["a howl at 70 Hz", (t) => 0.06 * Math.sin(tau * 70.4 * t), 4],
  ["a howl at 163 Hz", (t) => 0.06 * Math.sin(tau * 163 * t), 4],
  ["a howl at 163 Hz in hum", (t) => 0.06 * Math.sin(tau * 163 * t) + 0.01 * Math.sin(tau * 100 * t), 4],
])("%s is a squeal", (_, wave, seconds) => {
  const sounds = soundsOf(record(seconds, wave), 50);
  expect(sounds.named[0]!.kind).toBe("squeal");
  expect(sounds.tones.length).toBeGreaterThan(0);
});

test("185 Hz beside 60 Hz hum is a tone, not the hum's third", () => {
  const sounds = soundsOf(
    record(4, (t) => 0.05 * Math.sin(tau * 185 * t) + 0.008 * Math.sin(tau * 60 * t) + 0.004 * Math.sin(tau * 120 * t)),
    60,
  );
  expect(sounds.named[0]!.kind).toBe("squeal");
  expect(sounds.tones[0]!.hertz).toBeCloseTo(185, 0);
});

test.each([11, 12, 13])("motor-boating whose pace wavers by 6 %% is motor-boating (%d)", (seed) => {
  const wobble = noise(seed);
  const beats: number[] = [];
  for (let at = 0; at < 9; at += 0.27 * (1 + 0.06 * 1.7 * wobble())) beats.push(at);
  const wave = (t: number) =>
    beats.reduce((sum, b) => (t >= b && t < b + 0.4 ? sum + 0.2 * Math.exp(-(t - b) / 0.06) * Math.sin(tau * 9 * (t - b)) : sum), 0);
  expect(kindOf(record(8, wave), 50)).toBe("motorboating");
});

test("regular taps on a tube that rings are no motor-boating, and not clean", () => {
  const wave = (t: number) => 0.2 * Math.exp(-(t % 0.8) / 0.07) * Math.sin(tau * 1130 * (t % 0.8));
  expect(["motorboating", "clean"]).not.toContain(kindOf(record(6, wave), 50));
});

test.each([100, 120])("bursts of noise %d times a second are no hiss", (hertz) => {
  const sounds = soundsOf(
    record(4, (t, n) => ((t * hertz) % 1 < 0.18 ? 0.05 * n : 0)),
    hertz / 2,
  );
  expect(sounds.named[0]!.kind).toBe("buzz");
  expect(sounds.notes.join()).toMatch(/bursts with the mains/);
});

test("hiss that is always there is hiss", () =>
  expect(
    kindOf(
      record(4, (_, n) => 0.02 * n),
      50,
    ),
  ).toBe("hiss"));

test("60 Hz hum where 50 Hz was given is said", () => {
  const wave = (t: number) => 0.05 * Math.sin(tau * 60 * t) + 0.02 * Math.sin(tau * 120 * t) + 0.01 * Math.sin(tau * 180 * t);
  const sounds = soundsOf(record(4, wave), 50);
  expect(sounds.notes.join()).toMatch(/this is 60 Hz, not 50 Hz/);
  expect(sounds.named[0]!.kind).toBe("hum-mains");
});

test("a melody is no squeal, and is named as something that is played", () => {
  const notes = [262, 294, 330, 349, 392, 440, 494, 523, 440, 392, 330, 294];
  const wave = (t: number) => {
    const k = Math.floor(t / 0.3) % notes.length;
    const within = t % 0.3;
    const f = notes[k]!;
    return 0.1 * Math.exp(-within / 0.18) * (Math.sin(tau * f * t) + 0.5 * Math.sin(tau * 2 * f * t) + 0.3 * Math.sin(tau * 3.01 * f * t));
  };
  const sounds = soundsOf(record(7, wave), 50);
  expect(sounds.named[0]!.kind).not.toBe("squeal");
  expect(sounds.notes.join()).toMatch(/speech or music/);
});

test("clean is only said of what is quiet and has no tone in it", () => {
  expect(
    kindOf(
      record(3, (_, n) => 2e-5 * n),
      50,
    ),
  ).toBe("clean");
  for (const wave of [
    (t: number) => 0.003 * Math.sin(tau * 333 * t),
    (t: number) => 0.02 * Math.sign(Math.sin(tau * 77 * t)) * Math.sin(tau * 3 * t),
  ]) {
    const sounds = soundsOf(record(3, wave), 50);
    if (sounds.tones.length > 0) expect(sounds.named[0]!.kind).not.toBe("clean");
  }
});
