/** Stages that amplify: triode, pentode, two sections in parallel, cascode; and the follower. */

import * as texts from "../texts/blocks";
import type { BlockKind, Option, Port } from "./kind";
import type { Electrodes, Pen } from "./pen";
import { couplingVolts, usualStage } from "./usual-stage";

const PORTS: readonly Port[] = [
  { name: "in", use: "in" },
  { name: "out", use: "out" },
  { name: "rail", use: "feed" },
  { name: "feedback", use: "feedback" },
];
const INPUT: Option = { key: "input", values: ["leak", "none", "capacitor"] };
const STOPPER: Option = { key: "stopper", values: ["no", "yes"] };
const CATHODE: Option = { key: "cathode", values: ["bypassed", "not bypassed", "grid leak"] };
const COUPLING: Option = { key: "coupling", values: ["capacitor", "direct"] };
const SHUNT: Option = { key: "plate-capacitor", values: ["no", "yes"] };
const DECOUPLED: Option = { key: "decoupling", values: ["no", "yes"] };

/** The grid's side: its coupling capacitor, leak and stopper. @returns the node on the grid. */
export function gridSide(pen: Pen, from = "in", grid = "g", what = ""): string {
  const input = pen.option("input");
  let at = from;
  const stopper = pen.is("stopper", "yes");
  if (input === "capacitor") {
    at = stopper ? `a${grid}` : grid;
    pen.c(`${what}input capacitor`, from, at, 22e-9, couplingVolts(pen.usual.supply));
  }
  if (pen.is("cathode", "grid leak")) pen.r(`${what}grid leak`, at, "0", 10e6);
  else if (input !== "none") pen.r(`${what}grid leak`, at, "0", 1e6);
  if (!stopper) return at;
  pen.r(`${what}grid stopper`, at, grid, 68e3);
  return grid;
}

/** The cathode's side. @returns the node on the cathode. */
export function cathodeSide(pen: Pen, ohms: number, what = "", foot = "feedback"): string {
  const kind = pen.option("cathode");
  if (kind === "grid leak") return "0";
  pen.r(`${what}cathode resistor`, "k", foot, ohms);
  if (kind === "bypassed") pen.c(`${what}cathode capacitor`, "k", foot, 22e-6, 25);
  return "k";
}

/** The plate's side: load from the rail, and how it goes on to the next block. */
export function plateSide(pen: Pen, load: number, what = ""): void {
  const direct = pen.is("coupling", "direct");
  const plate = direct ? "out" : "p";
  const decoupled = pen.is("decoupling", "yes");
  if (decoupled) {
    pen.r(`${what}decoupling resistor`, "rail", "d", 22e3, { watts: 1 });
    pen.c(`${what}decoupling capacitor`, "d", "0", 10e-6, 450);
  }
  pen.r(`${what}plate load`, decoupled ? "d" : "rail", plate, load, { watts: 1 });
  if (pen.is("plate-capacitor", "yes")) pen.c(`${what}plate capacitor`, plate, "0", 220e-12, 500, "mica");
  if (!direct) pen.c(`${what}coupling capacitor`, "p", "out", 22e-9, couplingVolts(pen.usual.supply));
}

const plateNode = (pen: Pen) => (pen.is("coupling", "direct") ? "out" : "p");
/** Grid-leak bias needs a capacitor before the grid: nothing else may hold it. */
const allowsBias: BlockKind["allows"] = (o) => o.cathode !== "grid leak" || o.input === "capacitor";

/** What lies beside the grid and behind the plate, and the stage's own line. */
function marks(pen: Pen, role: string, at: Electrodes, label: string): void {
  pen.stagePoints(role, at);
  if (at.k === "0") pen.contactBias(role, at.g);
  pen.stage(pen.tubeName(role), at.g, at.p, label);
  if (pen.node("rail") !== "0") pen.near("rail", at.g);
}

export const TRIODE: BlockKind = {
  kind: "triode",
  group: "gain",
  ports: PORTS,
  options: [INPUT, STOPPER, CATHODE, COUPLING, SHUNT, DECOUPLED],
  allows: allowsBias,
  tubes: () => [{ role: "tube", kind: "triode" }],
  write(pen) {
    const usual = usualStage(pen.type("tube"));
    const g = gridSide(pen);
    const at = { p: plateNode(pen), g, k: pen.is("cathode", "grid leak") ? "0" : "k" };
    pen.tube("tube", at);
    cathodeSide(pen, usual.cathode);
    plateSide(pen, pen.is("cathode", "grid leak") ? usual.load * 2.2 : usual.load);
    marks(pen, "tube", at, texts.gainStage());
  },
};

export const PENTODE: BlockKind = {
  kind: "pentode",
  group: "gain",
  ports: PORTS,
  options: [INPUT, STOPPER, CATHODE, COUPLING, SHUNT, DECOUPLED, { key: "screen-capacitor", values: ["to cathode", "to ground"] }],
  allows: allowsBias,
  tubes: () => [{ role: "tube", kind: "pentode" }],
  write(pen) {
    const usual = usualStage(pen.type("tube"));
    const g = gridSide(pen);
    const k = pen.is("cathode", "grid leak") ? "0" : "k";
    const at = { p: plateNode(pen), s: "s", g, k };
    pen.tube("tube", at);
    cathodeSide(pen, usual.cathode);
    pen.r("screen resistor", pen.is("decoupling", "yes") ? "d" : "rail", "s", usual.screen);
    pen.c("screen capacitor", "s", pen.is("screen-capacitor", "to cathode") ? k : "0", 100e-9, 400);
    plateSide(pen, usual.load);
    marks(pen, "tube", at, texts.gainStage());
  },
};

export const PARALLEL: BlockKind = {
  kind: "parallel",
  group: "gain",
  ports: PORTS,
  options: [INPUT, STOPPER, { key: "cathode", values: ["bypassed", "not bypassed"] }, COUPLING],
  tubes: () => [
    { role: "first tube", kind: "triode" },
    { role: "second tube", kind: "triode" },
  ],
  write(pen) {
    const usual = usualStage(pen.type("first tube"));
    const at = { p: plateNode(pen), g: gridSide(pen), k: "k" };
    pen.tube("first tube", at);
    pen.tube("second tube", at);
    cathodeSide(pen, usual.cathode / 2);
    plateSide(pen, usual.load / 2);
    marks(pen, "first tube", at, texts.gainStage());
  },
};

export const CASCODE: BlockKind = {
  kind: "cascode",
  group: "gain",
  ports: PORTS,
  options: [INPUT, STOPPER, { key: "cathode", values: ["bypassed", "not bypassed"] }, COUPLING],
  tubes: () => [
    { role: "lower tube", kind: "triode" },
    { role: "upper tube", kind: "triode" },
  ],
  write(pen) {
    const usual = usualStage(pen.type("lower tube"));
    const g = gridSide(pen);
    pen.tube("lower tube", { p: "m", g, k: "k" });
    cathodeSide(pen, usual.cathode);
    pen.tube("upper tube", { p: plateNode(pen), g: "gu", k: "m" });
    pen.r("upper grid divider", "rail", "gu", 470e3);
    pen.r("lower grid divider", "gu", "0", 220e3);
    pen.c("upper grid capacitor", "gu", "0", 100e-9, 400);
    plateSide(pen, usual.load);
    pen.stagePoints("upper tube", { p: plateNode(pen), g: "gu", k: "m" });
    pen.stagePoints("lower tube", { p: "m", g, k: "k" });
    pen.stage(pen.tubeName("lower tube"), g, plateNode(pen), texts.cascodeStage());
  },
};

/** Cathode follower. Its cathode stands at the volts of the plate before it where that plate is on its grid directly. */
export const FOLLOWER: BlockKind = {
  kind: "follower",
  group: "gain",
  ports: PORTS.slice(0, 3),
  options: [
    { key: "input", values: ["direct", "capacitor"] },
    { key: "coupling", values: ["direct", "capacitor"] },
  ],
  tubes: () => [{ role: "tube", kind: "triode" }],
  write(pen) {
    const cathode = pen.is("coupling", "direct") ? "out" : "k";
    const raised = pen.is("input", "capacitor");
    const g = raised ? "g" : "in";
    if (raised) {
      pen.c("input capacitor", "in", "g", 22e-9, 400);
      pen.r("grid leak", "g", "t", 1e6);
    }
    pen.tube("tube", { p: "rail", g, k: cathode });
    if (raised) {
      pen.r("cathode resistor", cathode, "t", 1500);
      pen.r("cathode load", "t", "0", 47e3, { watts: 1 });
    } else pen.r("cathode load", cathode, "0", 100e3, { watts: 1 });
    if (cathode === "k") pen.c("coupling capacitor", "k", "out", 100e-9, 400);
    pen.stagePoints("tube", { p: "rail", g, k: cathode });
    pen.stage(pen.tubeName("tube"), g, cathode, texts.follower());
  },
};
