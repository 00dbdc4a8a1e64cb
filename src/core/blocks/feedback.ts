/** What leads back from the output, and outlets behind it. */

import type { BlockKind } from "./kind";

/** Global feedback: a divider from the output's secondary to the node that the stage it returns to stands on. */
export const FEEDBACK: BlockKind = {
  kind: "feedback",
  group: "feedback",
  ports: [
    { name: "from", use: "in" },
    { name: "to", use: "feedback" },
  ],
  options: [{ key: "control", values: ["none", "presence", "tone"] }],
  write(pen) {
    pen.r("feedback resistor", "from", "to", 47e3);
    pen.r("feedback foot", "to", "0", 4700);
    if (pen.is("control", "presence")) {
      pen.pot("presence", "0", "w", "to", 5e3, "linear", 0.5);
      pen.c("presence capacitor", "w", "0", 100e-9, 100);
    }
    if (pen.is("control", "tone")) {
      pen.pot("feedback tone", "t", "from", "from", 100e3, "audio", 0.5);
      pen.c("feedback tone capacitor", "t", "to", 1e-9, 400);
    }
  },
};

/** A line outlet from the speaker's side. */
export const LINE_OUTLET: BlockKind = {
  kind: "line-outlet",
  group: "output",
  ports: [{ name: "from", use: "in" }],
  options: [],
  write(pen) {
    pen.r("upper line divider", "from", "line", 10e3);
    pen.r("lower line divider", "line", "0", 470);
  },
};
