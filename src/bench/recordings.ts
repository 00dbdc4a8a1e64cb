/** The bench's simulated microphone: what a fault sounds like, with a room around it and somebody playing next door. */

import { normalDraws, uniformDraws } from "@/core/numeric/random";
import type { SoundKind } from "@/core/tape/events/words";

const { sin, cos, exp, log, sqrt, PI } = Math;

export interface Heard {
  kind: SoundKind | "radio" | "parasitic";
  /** Decibels of its mean square relative to a sine of full scale. */
  level: number;
  /** Hertz of a squeal, beats a second of motor-boating, events a second of crackle. */
  at?: number;
}

export interface MicrophoneOptions {
  rate: number;
  seconds: number;
  mains: number;
  seed: number;
  /** Decibels of the room's own noise, and of somebody playing; left out where there is none. */
  room?: number;
  music?: number;
}

/** What the microphone hears, all sounds added up. */
export function listen(sounds: readonly Heard[], options: MicrophoneOptions): Float32Array {
  const out = new Float32Array(Math.round(options.rate * options.seconds));
  const add = (course: Float32Array, level: number) => {
    let sum = 0;
    for (const v of course) sum += v * v;
    const gain = sqrt((0.5 * 10 ** (level / 10)) / Math.max(sum / course.length, 1e-20));
    for (let i = 0; i < out.length; i++) out[i]! += gain * course[i]!;
  };
  sounds.forEach((s, i) => {
    if (s.kind !== "clean") add(MAKES[s.kind](out.length, { ...options, seed: options.seed * 31 + i }, s.at), s.level);
  });
  if (options.room !== undefined) add(room(out.length, options), options.room);
  if (options.music !== undefined) add(music(out.length, { ...options, seed: options.seed + 7 }), options.music);
  return out;
}

type Make = (n: number, o: MicrophoneOptions, at?: number) => Float32Array;

const sum = (n: number, rate: number, parts: readonly [number, number, number][]) => {
  const out = new Float32Array(n);
  for (const [hertz, size, phase] of parts)
    if (hertz < 0.47 * rate) for (let i = 0; i < n; i++) out[i]! += size * sin((2 * PI * hertz * i) / rate + phase);
  return out;
};

const MAKES: Record<Exclude<Heard["kind"], "clean">, Make> = {
  // Induction and heaters: the mains itself, a little of the odd multiples that iron makes.
  "hum-mains": (n, o) => {
    const u = uniformDraws(o.seed);
    return sum(n, o.rate, [
      [o.mains, 1, 6 * u()],
      [2 * o.mains, 0.12 * u(), 6 * u()],
      [3 * o.mains, 0.1 + 0.3 * u(), 6 * u()],
      [5 * o.mains, 0.12 * u(), 6 * u()],
    ]);
  },
  // Ripple of a full-wave supply behind its filter: twice the mains, little above.
  "hum-double": (n, o) => {
    const u = uniformDraws(o.seed);
    return sum(n, o.rate, [
      [o.mains, 0.15 * u(), 6 * u()],
      ...[1, 2, 3, 4].map((k): [number, number, number] => [2 * k * o.mains, 1 / k ** (2 + u()), 6 * u()]),
    ]);
  },
  // Charging pulses: short, so that their multiples reach far up.
  buzz: (n, o) => {
    const u = uniformDraws(o.seed);
    const [sharp, shift] = [0.012 + 0.03 * u(), u()];
    const out = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      const t = 2 * o.mains * (i / o.rate) + shift;
      const phase = t - Math.round(t);
      out[i] = exp(-((phase / sharp) ** 2)) - sharp * sqrt(PI);
    }
    return out;
  },
  squeal: (n, o, at = 2300) => {
    const out = new Float32Array(n);
    const u = uniformDraws(o.seed);
    const wander = 0.5 * u();
    for (let i = 0; i < n; i++) {
      const t = i / o.rate;
      const angle = 2 * PI * at * t + wander * sin(2 * PI * 0.3 * t);
      out[i] = sin(angle) + (2 * at < 0.47 * o.rate ? 0.1 * sin(2 * angle) : 0);
    }
    return out;
  },
  // A relaxation: the supply is pulled down, comes back, is pulled down again.
  motorboating: (n, o, at = 4) => {
    const u = uniformDraws(o.seed);
    const [ring, decay] = [30 + 40 * u(), 0.02 + 0.03 * u()];
    const out = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      const t = (i / o.rate) % (1 / at);
      out[i] = exp(-t / decay) * sin(2 * PI * ring * t) * (t < 0.002 ? t / 0.002 : 1);
    }
    return out;
  },
  hiss: (n, o) => {
    const normal = normalDraws(o.seed);
    return Float32Array.from({ length: n }, () => normal());
  },
  // Breakdowns: at random, each a step that rings down within a millisecond or two.
  crackle: (n, o, at = 6) => {
    const u = uniformDraws(o.seed);
    const out = new Float32Array(n);
    for (let t = -log(1 - u()) / at; t < n / o.rate; t += -log(1 - u()) / at) {
      const [size, tau, from] = [(0.3 + u()) * (u() < 0.5 ? -1 : 1), 0.0003 + 0.0012 * u(), Math.floor(t * o.rate)];
      for (let i = 0; i < 8 * tau * o.rate && from + i < n; i++) out[from + i]! += size * exp(-i / o.rate / tau);
    }
    return out;
  },
  radio: (n, o) => music(n, o),
  // A burst of some ten kilohertz on each peak of a tone.
  parasitic: (n, o) => {
    const out = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      const slow = sin((2 * PI * 220 * i) / o.rate);
      out[i] = slow + (slow > 0.85 ? 0.4 * sin((2 * PI * 0.21 * o.rate * i) / o.rate) : 0);
    }
    return out;
  },
};

/** A room: louder the lower, by about six decibels an octave from 60 Hz on. */
function room(n: number, o: MicrophoneOptions): Float32Array {
  const normal = normalDraws(o.seed + 3);
  const out = new Float32Array(n);
  const tau = exp((-2 * PI * 60) / o.rate);
  let low = 0;
  for (let i = 0; i < n; i++) {
    const w = normal();
    low = tau * low + (1 - tau) * w;
    out[i] = low + 0.0012 * w;
  }
  return out;
}

/** Notes one after the other, each with its overtones, none for long. */
function music(n: number, o: MicrophoneOptions): Float32Array {
  const u = uniformDraws(o.seed + 5);
  const out = new Float32Array(n);
  for (let t = 0; t < n / o.rate; t += 0.12 + 0.4 * u()) {
    const hertz = 110 * 2 ** (Math.floor(30 * u()) / 12);
    const [size, decay] = [0.3 + u(), 0.1 + 0.4 * u()];
    const from = Math.floor(t * o.rate);
    for (let k = 1; k <= 5; k++) {
      if (k * hertz > 0.45 * o.rate) break;
      // A ringing of its own: each sample from the two before it.
      const [turn, keep] = [(2 * PI * k * hertz) / o.rate, exp(-1 / (decay * o.rate))];
      const [c1, c2, rise] = [2 * keep * cos(turn), keep * keep, 1 / (0.02 * o.rate)];
      let [y1, y2] = [0, (-(size / k ** 1.4) * sin(turn)) / keep];
      for (let i = 0; i < 9 * decay * o.rate && from + i < n; i++) {
        const y = c1 * y1 - c2 * y2;
        y2 = y1;
        y1 = y;
        const attack = i * rise < 1 ? (i * rise) ** 2 : 1;
        out[from + i]! += attack * y;
      }
    }
  }
  return out;
}
