/** Bias blocks: a supply of its own, back bias, the adjusters between it and the grids. */

import type { BlockKind } from "./kind";

/** Volts at the wiper over volts of the bias supply, with the usual adjuster in the middle of its track. */
const MIDDLE = 0.669;
const SOURCE = { silicon: 1000, selenium: 1000 } as const;

export const BIAS_SUPPLY: BlockKind = {
  kind: "bias-supply",
  group: "bias",
  ports: [{ name: "out", use: "bias" }],
  options: [
    { key: "rectifier", values: ["silicon", "selenium"] },
    { key: "bleeder", values: ["no", "yes"] },
  ],
  write(pen) {
    const volts = -pen.usual.bias / MIDDLE;
    const rectifier = pen.is("rectifier", "selenium") ? "selenium" : "silicon";
    pen.special(
      "bias rectifier",
      "BS",
      "RECT_HALF",
      ["0", "out"],
      { vac: Math.max(5, Math.round(volts / 1.25)), rs: SOURCE[rectifier], tube: rectifier },
      pen.id === "BIAS" ? "BS" : pen.id,
    );
    pen.c("bias reservoir", "0", "out", 47e-6, volts > 90 ? 160 : 100);
    if (pen.is("bleeder", "yes")) pen.r("bias bleeder", "out", "0", 56e3);
    pen.biasPoint("out", "bias reservoir");
  },
};

/** A resistor between the supply's negative end and the chassis: what the whole amp draws makes the bias. */
export const BACK_BIAS: BlockKind = {
  kind: "back-bias",
  group: "bias",
  ports: [
    { name: "minus", use: "rail" },
    { name: "out", use: "bias" },
  ],
  options: [],
  write(pen) {
    pen.r("back-bias resistor", "minus", "0", 150, { watts: 5, kind: "wirewound" });
    pen.r("bias filter resistor", "minus", "out", 100e3);
    pen.c("bias filter capacitor", "0", "out", 22e-6, 100);
    pen.biasPoint("out", "bias filter capacitor");
  },
};

/** A divider with a control in it; its wiper is the grids' bias. */
export const BIAS_ADJUSTER: BlockKind = {
  kind: "bias-adjuster",
  group: "bias",
  ports: [
    { name: "from", use: "bias" },
    { name: "foot", use: "bias" },
    { name: "out", use: "bias" },
    { name: "out2", use: "bias" },
  ],
  options: [
    { key: "adjusters", values: ["level", "level and balance", "none", "own ends"] },
    { key: "capacitor", values: ["yes", "no"] },
  ],
  write(pen) {
    const kind = pen.option("adjusters");
    if (kind === "none") {
      pen.r("upper bias resistor", "from", "out", 22e3);
      pen.r("lower bias resistor", "out", "0", 47e3);
    } else if (kind === "own ends") {
      // A second adjuster between the two ends of the first: its resistors are there already.
      pen.pot("bias level", "from", "out", "foot", 10e3, "linear", 0.5);
    } else {
      const level = kind === "level" ? "out" : "level";
      pen.r("upper bias resistor", "from", "top", 10e3);
      pen.pot("bias level", "top", level, "bottom", 25e3, "linear", 0.5);
      pen.r("lower bias resistor", "bottom", "0", 33e3);
      if (kind === "level and balance") pen.pot("bias balance", "out", level, "out2", 10e3, "linear", 0.5);
    }
    if (pen.is("capacitor", "no")) return;
    pen.c("bias filter capacitor", "0", "out", 10e-6, 100);
    if (kind === "level and balance") pen.c("second bias filter capacitor", "0", "out2", 10e-6, 100);
  },
};
