/** Inputs: jacks, a mixer of channels, the volume control. */

import type { BlockKind, Port } from "./kind";

const THROUGH: readonly Port[] = [
  { name: "in", use: "in" },
  { name: "out", use: "out" },
];

export const INPUT: BlockKind = {
  kind: "input",
  group: "input",
  ports: THROUGH,
  options: [{ key: "jacks", values: ["one", "two", "resistor only"] }],
  write(pen) {
    const kind = pen.option("jacks");
    pen.r("input resistor", "in", "out", 68e3);
    if (kind !== "resistor only") pen.r("input leak", "in", "0", 1e6);
    if (kind !== "two") return;
    pen.r("second input resistor", "second", "out", 68e3);
    pen.r("second input leak", "second", "0", 1e6);
  },
};

/** A resistor to ground across an input that goes straight on, to a control or a grid. */
export const INPUT_LEAK: BlockKind = {
  kind: "input-leak",
  group: "input",
  ports: [{ name: "in", use: "in" }],
  options: [],
  write(pen) {
    pen.r("input leak", "in", "0", 1e6);
  },
};

export const VOLUME: BlockKind = {
  kind: "volume",
  group: "tone",
  ports: THROUGH,
  options: [
    { key: "bright", values: ["no", "yes"] },
    { key: "coupling", values: ["no", "yes"] },
  ],
  write(pen) {
    const top = pen.is("coupling", "yes") ? "top" : "in";
    if (top === "top") pen.c("volume coupling capacitor", "in", "top", 22e-9, 400);
    pen.pot("volume", "0", "out", top, 1e6, "audio", 0.5);
    if (pen.is("bright", "yes")) pen.c("bright capacitor", top, "out", 120e-12, 500, "mica");
  },
};

/** Channels onto one node through a resistor each. */
export const MIXER: BlockKind = {
  kind: "mixer",
  group: "input",
  ports: [
    { name: "in", use: "in" },
    { name: "in2", use: "in" },
    { name: "in3", use: "in" },
    { name: "out", use: "out" },
  ],
  options: [
    { key: "channels", values: ["two", "three"] },
    { key: "leak", values: ["no", "yes"] },
  ],
  write(pen) {
    pen.r("first mixing resistor", "in", "out", 270e3);
    pen.r("second mixing resistor", "in2", "out", 270e3);
    if (pen.is("channels", "three")) pen.r("third mixing resistor", "in3", "out", 270e3);
    if (pen.is("leak", "yes")) pen.r("mixer leak", "out", "0", 1e6);
  },
};
