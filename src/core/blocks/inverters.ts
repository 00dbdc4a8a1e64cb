/** Phase inverters: one signal becomes two that are opposite. */

import * as texts from "../texts/blocks";
import type { BlockKind, Port } from "./kind";
import { couplingVolts, usualStage } from "./usual-stage";

const PORTS: readonly Port[] = [
  { name: "in", use: "in" },
  { name: "out", use: "out" },
  { name: "out2", use: "out" },
  { name: "rail", use: "feed" },
];
const INPUT = { key: "input", values: ["none", "leak", "capacitor"] } as const;
const two: BlockKind["tubes"] = () => [
  { role: "upper tube", kind: "triode" },
  { role: "lower tube", kind: "triode" },
];
const coupling = (pen: Parameters<BlockKind["write"]>[0], role: string, from: string, to: string) =>
  pen.c(role, from, to, 100e-9, couplingVolts(pen.usual.supply));

/** Equal loads in plate and cathode of one triode. */
export const SPLIT_LOAD: BlockKind = {
  kind: "split-load",
  group: "inverter",
  ports: PORTS,
  options: [{ key: "grid", values: ["biased", "capacitor", "direct"] }],
  tubes: () => [{ role: "tube", kind: "triode" }],
  write(pen) {
    const g = pen.is("grid", "capacitor") ? "g" : "in";
    if (g === "g") pen.c("inverter input capacitor", "in", "g", 22e-9, 400);
    pen.tube("tube", { p: "p", g, k: "k" });
    pen.r("inverter plate load", "rail", "p", 56e3, { watts: 1, tol: 0.05 });
    if (pen.is("grid", "direct")) pen.r("inverter cathode load", "k", "0", 56e3, { watts: 1, tol: 0.05 });
    else {
      pen.r("inverter cathode resistor", "k", "t", 1500);
      pen.r("inverter cathode load", "t", "0", 56e3, { watts: 1, tol: 0.05 });
      pen.r("inverter grid leak", g, "t", 1e6);
    }
    coupling(pen, "upper coupling capacitor", "p", "out");
    coupling(pen, "lower coupling capacitor", "k", "out2");
    pen.stagePoints("tube", { p: "p", g, k: "k" }, (e) => texts.inverter(e));
    pen.stage(pen.tubeName("tube"), g, "p", texts.splitLoad());
    pen.near("rail", g);
  },
};

/** Two triodes on one tail; the second grid is at ground for signal, or takes the feedback. */
export const LONG_TAILED_PAIR: BlockKind = {
  kind: "long-tailed-pair",
  group: "inverter",
  ports: [...PORTS, { name: "feedback", use: "feedback" }],
  options: [{ key: "tail", values: ["to ground", "to the feedback"] }],
  tubes: two,
  write(pen) {
    const low = usualStage(pen.type("upper tube")).load < 60e3;
    pen.c("inverter input capacitor", "in", "g", 22e-9, 400);
    pen.tube("upper tube", { p: "p", g: "g", k: "k" });
    pen.tube("lower tube", { p: "q", g: "h", k: "k" });
    pen.r("upper plate load", "rail", "p", low ? 47e3 : 82e3, { watts: 1, tol: 0.05 });
    pen.r("lower plate load", "rail", "q", low ? 47e3 : 100e3, { watts: 1, tol: 0.05 });
    pen.r("inverter cathode resistor", "k", "t", low ? 820 : 470);
    pen.r("tail resistor", "t", pen.is("tail", "to ground") ? "0" : "feedback", low ? 15e3 : 10e3, { watts: 2 });
    pen.r("upper grid leak", "g", "t", 1e6);
    pen.r("lower grid leak", "h", "t", 1e6);
    pen.c("lower grid capacitor", "h", "feedback", 100e-9, 400);
    coupling(pen, "upper coupling capacitor", "p", "out");
    coupling(pen, "lower coupling capacitor", "q", "out2");
    pen.stagePoints(
      "upper tube",
      { p: "p", g: "g", k: "k" },
      (e) => (e === "cathode" ? texts.inverterCathodes() : texts.inverterUpper(e)),
      true,
    );
    pen.stagePoints("lower tube", { p: "q", g: "h", k: "k" }, (e) => texts.inverterLower(e));
    pen.stage(pen.tubeName("upper tube"), "g", "p", texts.longTailedPair());
    pen.near("rail", "g");
  },
};

/** The second triode turns over a part of what the first one gives; in the floating form the part is what is left at the joint of both outputs. */
export const PARAPHASE: BlockKind = {
  kind: "paraphase",
  group: "inverter",
  ports: PORTS,
  options: [{ key: "form", values: ["divider", "floating"] }, INPUT],
  tubes: two,
  write(pen) {
    const usual = usualStage(pen.type("upper tube"));
    const own = pen.is("input", "capacitor");
    if (own) pen.c("inverter input capacitor", "in", "g", 22e-9, 400);
    const g = own ? "g" : "in";
    if (!pen.is("input", "none")) pen.r("inverter grid leak", g, "0", 1e6);
    pen.tube("upper tube", { p: "p", g, k: "k" });
    pen.tube("lower tube", { p: "q", g: "h", k: "k" });
    pen.r("inverter cathode resistor", "k", "0", usual.cathode / 2);
    pen.r("upper plate load", "rail", "p", usual.load, { watts: 1 });
    pen.r("lower plate load", "rail", "q", usual.load, { watts: 1 });
    coupling(pen, "upper coupling capacitor", "p", "out");
    coupling(pen, "lower coupling capacitor", "q", "out2");
    if (pen.is("form", "floating")) {
      pen.r("upper joint resistor", "out", "h", 470e3);
      pen.r("lower joint resistor", "out2", "h", 470e3);
      pen.r("joint leak", "h", "0", 470e3);
    } else {
      pen.r("upper divider resistor", "out", "h", 470e3);
      pen.r("lower divider resistor", "h", "0", 10e3);
    }
    pen.stagePoints(
      "upper tube",
      { p: "p", g, k: "k" },
      (e) => (e === "cathode" ? texts.inverterCathodes() : texts.inverterUpper(e)),
      true,
    );
    pen.stagePoints("lower tube", { p: "q", g: "h", k: "k" }, (e) => texts.inverterLower(e));
    pen.stage(pen.tubeName("upper tube"), g, "p", texts.paraphase());
  },
};

/** A triode into a transformer with two windings: their middle stands at the bias. */
export const TRANSFORMER_INVERTER: BlockKind = {
  kind: "transformer-inverter",
  group: "inverter",
  ports: [...PORTS, { name: "bias", use: "bias" }],
  options: [INPUT],
  tubes: () => [{ role: "tube", kind: "triode" }],
  write(pen) {
    const usual = usualStage(pen.type("tube"));
    const own = pen.is("input", "capacitor");
    if (own) pen.c("inverter input capacitor", "in", "g", 22e-9, 400);
    const g = own ? "g" : "in";
    if (!pen.is("input", "none")) pen.r("inverter grid leak", g, "0", 470e3);
    pen.tube("tube", { p: "p", g, k: "k" });
    pen.r("inverter cathode resistor", "k", "0", usual.cathode);
    pen.c("inverter cathode capacitor", "k", "0", 22e-6, 25);
    pen.r("inverter supply resistor", "rail", "d", 10e3, { watts: 1 });
    pen.c("inverter supply capacitor", "d", "0", 10e-6, 450);
    pen.special("inverter transformer", "T", "XFMR", ["d", "p", "out", "bias", "bias", "out2"], { ratio: 1, ratio2: 1, dcr: 500, lp: 40 });
    pen.stagePoints("tube", { p: "p", g, k: "k" }, (e) => texts.inverter(e));
    pen.stage(pen.tubeName("tube"), g, "p", texts.transformerInverter());
  },
};
