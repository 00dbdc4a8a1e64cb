/** Tremolo: a phase-shift oscillator (three RC sections and one triode), and what it moves. */

import * as texts from "../texts/blocks";
import type { BlockKind } from "./kind";
import type { Pen } from "./pen";

/** The oscillator; its output stands on the node "osc" behind the depth control's capacitor. The switch stops it by grounding the grid. */
function oscillator(pen: Pen): void {
  pen.tube("oscillator tube", { p: "p", g: "g", k: "k" });
  pen.r("oscillator plate load", "rail", "p", 220e3);
  pen.r("oscillator cathode resistor", "k", "0", 2200);
  pen.c("oscillator cathode capacitor", "k", "0", 22e-6, 25);
  pen.c("first phase capacitor", "p", "a", 22e-9, 400);
  pen.r("first phase resistor", "a", "0", 1e6);
  pen.c("second phase capacitor", "a", "b", 10e-9, 400);
  pen.pot("speed", "b", "c", "c", 1e6, "reverse", 0.5);
  pen.r("speed stop", "c", "0", 100e3);
  pen.c("third phase capacitor", "b", "g", 10e-9, 400);
  pen.r("oscillator grid leak", "g", "0", 1e6);
  pen.c("depth capacitor", "p", "osc", 100e-9, 400);
  pen.special("tremolo switch", "S", "SW", ["g", "0"], { state: "closed" });
  pen.stagePoints("oscillator tube", { p: "p", g: "g", k: "k" }, (e) => texts.tremolo(e));
}

const TUBE: BlockKind["tubes"] = () => [{ role: "oscillator tube", kind: "triode" }];

/** Moves the bias of the output grids: their leaks return to the wiper of its depth control. */
export const TREMOLO_BIAS: BlockKind = {
  kind: "tremolo-bias",
  group: "effect",
  ports: [
    { name: "bias", use: "bias" },
    { name: "out", use: "bias" },
    { name: "rail", use: "feed" },
  ],
  options: [],
  tubes: TUBE,
  write(pen) {
    oscillator(pen);
    pen.pot("depth", "bias", "out", "osc", 250e3, "linear", 0);
  },
};

/** Moves the cathode of a stage before it, through a resistor from the wiper of its depth control. */
export const TREMOLO_CATHODE: BlockKind = {
  kind: "tremolo-cathode",
  group: "effect",
  ports: [
    { name: "cathode", use: "feedback" },
    { name: "rail", use: "feed" },
  ],
  options: [],
  tubes: TUBE,
  write(pen) {
    oscillator(pen);
    pen.pot("depth", "0", "w", "osc", 250e3, "linear", 0);
    pen.c("injection capacitor", "w", "i", 1e-6, 63);
    pen.r("injection resistor", "i", "cathode", 10e3);
  },
};

/** Goes onto the signal at the inverter's or the output tube's grid through a resistor. */
export const TREMOLO_GRID: BlockKind = {
  kind: "tremolo-grid",
  group: "effect",
  ports: [
    { name: "in", use: "in" },
    { name: "rail", use: "feed" },
  ],
  options: [],
  tubes: TUBE,
  write(pen) {
    oscillator(pen);
    pen.pot("depth", "0", "w", "osc", 250e3, "linear", 0);
    pen.r("injection resistor", "w", "in", 1e6);
  },
};
