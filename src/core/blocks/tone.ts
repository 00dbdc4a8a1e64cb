/** Tone networks between two stages, and the single control across the signal. */

import type { BlockKind, Port } from "./kind";

const THROUGH: readonly Port[] = [
  { name: "in", use: "in" },
  { name: "out", use: "out" },
];

/** Treble, middle and bass on one string of controls; the middle's capacitor at the string or at the middle's wiper. */
export const TONE_STACK: BlockKind = {
  kind: "tone-stack",
  group: "tone",
  ports: THROUGH,
  options: [
    { key: "order", values: ["middle at the foot", "middle at its wiper"] },
    { key: "middle", values: ["control", "resistor"] },
  ],
  write(pen) {
    const atWiper = pen.is("order", "middle at its wiper");
    pen.c("treble capacitor", "in", "t", atWiper ? 470e-12 : 250e-12, 500, "mica");
    pen.pot("treble", "b", "out", "t", 250e3, "linear", 0.5);
    pen.r("slope resistor", "in", "s", atWiper ? 56e3 : 100e3);
    pen.c("bass capacitor", "s", "b", atWiper ? 22e-9 : 100e-9, 400);
    pen.pot("bass", "m", "b", "b", atWiper ? 1e6 : 250e3, "audio", 0.5);
    pen.c("middle capacitor", "s", atWiper ? "w" : "m", atWiper ? 22e-9 : 47e-9, 400);
    if (pen.is("middle", "resistor")) pen.r("middle resistor", "m", "0", 6800);
    else if (atWiper) pen.pot("middle", "0", "w", "m", 25e3, "linear", 0.5);
    else pen.pot("middle", "0", "m", "m", 10e3, "linear", 0.5);
  },
  // With a fixed middle there is no wiper for its capacitor.
  allows: (o) => o.middle !== "resistor" || o.order === "middle at the foot",
};

/** Bass and treble with a control each (P. J. Baxandall's passive form). */
export const BASS_TREBLE: BlockKind = {
  kind: "bass-treble",
  group: "tone",
  ports: THROUGH,
  options: [],
  write(pen) {
    pen.r("upper bass resistor", "in", "bt", 100e3);
    pen.pot("bass", "bb", "bw", "bt", 1e6, "audio", 0.5);
    pen.c("upper bass capacitor", "bt", "bw", 2.2e-9, 400);
    pen.c("lower bass capacitor", "bw", "bb", 22e-9, 400);
    pen.r("lower bass resistor", "bb", "0", 10e3);
    pen.r("bass outlet resistor", "bw", "out", 100e3);
    pen.c("upper treble capacitor", "in", "tt", 220e-12, 500, "mica");
    pen.pot("treble", "tb", "out", "tt", 1e6, "audio", 0.5);
    pen.c("lower treble capacitor", "tb", "0", 2.2e-9, 400);
  },
};

/** Treble cut across the signal. */
export const TONE_CONTROL: BlockKind = {
  kind: "tone-control",
  group: "tone",
  ports: [{ name: "in", use: "in" }],
  options: [],
  write(pen) {
    pen.c("tone capacitor", "in", "t", 4.7e-9, 400);
    pen.pot("tone", "0", "t", "t", 1e6, "audio", 0.5);
  },
};
