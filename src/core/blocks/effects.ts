/** Effects between two stages: a loop with jacks, the spring reverb with its driver and recovery. */

import * as texts from "../texts/blocks";
import type { BlockKind } from "./kind";
import { usualStage } from "./usual-stage";

const PORTS = [
  { name: "in", use: "in" },
  { name: "out", use: "out" },
  { name: "rail", use: "feed" },
] as const;

export const EFFECTS_LOOP: BlockKind = {
  kind: "effects-loop",
  group: "effect",
  ports: PORTS,
  options: [],
  tubes: () => [{ role: "recovery tube", kind: "triode" }],
  write(pen) {
    const usual = usualStage(pen.type("recovery tube"));
    pen.r("upper send divider", "in", "send", 100e3);
    pen.r("lower send divider", "send", "0", 10e3);
    pen.special("loop contact", "S", "SW", ["send", "return"], { state: "closed" });
    pen.r("return leak", "return", "0", 1e6);
    pen.tube("recovery tube", { p: "p", g: "return", k: "k" });
    pen.r("recovery cathode resistor", "k", "0", usual.cathode);
    pen.c("recovery cathode capacitor", "k", "0", 22e-6, 25);
    pen.r("recovery plate load", "rail", "p", usual.load, { watts: 1 });
    pen.c("recovery coupling capacitor", "p", "out", 22e-9, 400);
    pen.stagePoints("recovery tube", { p: "p", g: "return", k: "k" });
    pen.stage(pen.tubeName("recovery tube"), "return", "p", texts.loopRecovery());
    pen.near("rail", "return");
  },
};

/** The signal goes on through one resistor and comes back from the springs through another. */
export const REVERB: BlockKind = {
  kind: "reverb",
  group: "effect",
  ports: PORTS,
  options: [
    { key: "drive", values: ["capacitor", "transformer"] },
    { key: "leak", values: ["yes", "no"] },
  ],
  tubes: () => [
    { role: "driver tube", kind: "triode" },
    { role: "recovery tube", kind: "triode" },
  ],
  write(pen) {
    const usual = usualStage(pen.type("recovery tube"));
    if (pen.is("leak", "yes")) pen.r("reverb input leak", "in", "0", 1e6);
    pen.r("dry resistor", "in", "out", 220e3);
    pen.c("driver input capacitor", "in", "dg", 1e-9, 400);
    pen.r("driver grid leak", "dg", "0", 1e6);
    pen.tube("driver tube", { p: "dp", g: "dg", k: "dk" });
    pen.r("driver cathode resistor", "dk", "0", 2200);
    pen.c("driver cathode capacitor", "dk", "0", 22e-6, 25);
    if (pen.is("drive", "capacitor")) {
      pen.r("driver plate load", "rail", "dp", 47e3, { watts: 1 });
      pen.c("tank capacitor", "dp", "tank", 100e-9, 400);
    } else pen.special("reverb transformer", "T", "OPT_SE", ["rail", "dp", "tank", "0"], { zp: 25000, load: 8, dcr: 1000, lp: 20 });
    pen.r("tank", "tank", "0", pen.is("drive", "capacitor") ? 2200 : 8, { label: texts.tank() });
    pen.r("recovery grid leak", "rg", "0", 220e3);
    pen.tube("recovery tube", { p: "rp", g: "rg", k: "rk" });
    pen.r("recovery cathode resistor", "rk", "0", usual.cathode);
    pen.c("recovery cathode capacitor", "rk", "0", 22e-6, 25);
    pen.r("recovery plate load", "rail", "rp", usual.load, { watts: 1 });
    pen.c("recovery coupling capacitor", "rp", "rv", 22e-9, 400);
    pen.pot("reverb", "0", "rw", "rv", 500e3, "linear", 0.3);
    pen.r("reverb mixing resistor", "rw", "out", 470e3);
    pen.r("mixer leak", "out", "0", 1e6);
    pen.stagePoints("driver tube", { p: "dp", g: "dg", k: "dk" }, (e) => texts.reverbDriver(e));
    pen.stagePoints("recovery tube", { p: "rp", g: "rg", k: "rk" }, (e) => texts.reverbRecovery(e));
    pen.near("rail", "rg");
  },
};
