/** Output stages with their transformer and load: single-ended and push-pull, one to eight tubes. */

import * as texts from "../texts/blocks";
import type { BlockKind, Option, Port, TubeRole } from "./kind";
import type { Pen } from "./pen";
import { couplingVolts } from "./usual-stage";
import { usualCathodeResistor, usualDuty } from "./usual-output";

const SCREENS: Option = { key: "screens", values: ["resistor", "direct", "ultralinear", "ultralinear direct", "triode", "switched"] };
const STOPPERS: Option = { key: "stoppers", values: ["no", "yes"] };
const LOAD: Option = { key: "load", values: ["speaker", "line"] };
const INPUT: Option = { key: "input", values: ["leak", "capacitor", "none"] };
const PAIRS = ["one", "two", "three", "four"];

/** Nodes of one side of the transformer, and the tubes on it. */
interface Side {
  /** "" or "2", as the ports of that side are called. */
  port: string;
  plate: string;
  tap: string;
  roles: string[];
}

const ultralinear = (pen: Pen) => pen.option("screens").startsWith("ultralinear");

/** The tubes of one side: grids from the signal, screens, cathodes. */
function side(pen: Pen, { port, plate, tap, roles }: Side, what: string): void {
  const bias = `bias${port}`;
  let signal = `in${port}`;
  if (pen.is("input", "capacitor")) {
    pen.c(`${what}input capacitor`, signal, `a${port}`, 100e-9, couplingVolts(pen.usual.supply));
    signal = `a${port}`;
  }
  if (!pen.is("input", "none")) pen.r(`${what}grid leak`, signal, bias, fixed(pen) ? 220e3 : 470e3);
  roles.forEach((role, i) => {
    const suffix = `${port === "" ? "a" : "b"}${i + 1}`;
    const of = roles.length > 1 ? `${what}${i + 1} ` : what;
    const grid = pen.is("stoppers", "yes") ? `g${suffix}` : signal;
    if (grid !== signal) pen.r(`${of}grid stopper`, signal, grid, 2200);
    const screen = screenOf(pen, of, suffix, plate, tap);
    const cathode = cathodeOf(pen, of, suffix);
    pen.tube(role, { p: plate, s: screen, g: grid, k: cathode });
    pen.outputPoints(role, { p: plate, s: screen, g: grid, k: cathode });
    if (pen.node(screen) !== pen.node("screen")) pen.near(screen, grid);
  });
}

const fixed = (pen: Pen) => pen.option("biasing").startsWith("fixed") || pen.is("biasing", "mixed");

/** @returns the node on the screen. */
function screenOf(pen: Pen, of: string, suffix: string, plate: string, tap: string): string {
  const node = `s${suffix}`;
  const ohms = pen.usual.supply > 300 ? 470 : 100;
  switch (pen.option("screens")) {
    case "direct":
      return "screen";
    case "ultralinear direct":
      return tap;
    case "switched":
      pen.special(`${of}screen switch`, "S", "SW2", [`w${suffix}`, "screen", plate], { state: 1 });
      pen.r(`${of}screen resistor`, `w${suffix}`, node, ohms, { watts: 2 });
      return node;
    default:
      pen.r(`${of}screen resistor`, ultralinear(pen) ? tap : pen.is("screens", "triode") ? plate : "screen", node, ohms, { watts: 2 });
      return node;
  }
}

/** @returns the node on the cathode. */
function cathodeOf(pen: Pen, of: string, suffix: string): string {
  switch (pen.option("biasing")) {
    case "fixed":
      return "0";
    case "fixed, sensed":
      pen.r(`${of}sensing resistor`, `k${suffix}`, "0", 10, { tol: 0.01, watts: 1, kind: "metal-film" });
      return `k${suffix}`;
    case "cathode each":
      pen.r(`${of}cathode resistor`, `k${suffix}`, "0", ownResistor(pen, 1), { watts: 5, kind: "wirewound", tol: 0.05 });
      if (pen.is("bypass", "yes")) pen.c(`${of}cathode capacitor`, `k${suffix}`, "0", 100e-6, 63);
      return `k${suffix}`;
    default:
      return "k";
  }
}

/** The resistor and capacitor that all cathodes share. */
function sharedCathode(pen: Pen, tubes: number): void {
  if (!pen.is("biasing", "cathode") && !pen.is("biasing", "mixed")) return;
  pen.r("cathode resistor", "k", "0", pen.is("biasing", "mixed") ? 47 : ownResistor(pen, tubes), {
    watts: 5,
    kind: "wirewound",
    tol: 0.05,
  });
  if (pen.is("bypass", "yes")) pen.c("cathode capacitor", "k", "0", 100e-6, 63);
}

function ownResistor(pen: Pen, tubes: number): number {
  return usualCathodeResistor(pen.type("tube 1"), pen.usual.supply, pen.option("pairs") === "" ? "single" : "cathode", tubes);
}

const BYPASS: Option = { key: "bypass", values: ["yes", "no"] };
/** A cathode capacitor belongs to a cathode resistor. */
const allowsBypass: BlockKind["allows"] = (o) =>
  o.bypass === "yes" || o.biasing === "cathode" || o.biasing === "cathode each" || o.biasing === "mixed";

function load(pen: Pen, ohms: number): void {
  const line = pen.is("load", "line");
  pen.r("load", "out", "0", ohms, { watts: 50, kind: undefined, tol: undefined, label: line ? texts.line() : texts.speaker() });
}

const PORTS: readonly Port[] = [
  { name: "in", use: "in" },
  { name: "rail", use: "feed" },
  { name: "screen", use: "feed" },
  { name: "bias", use: "bias" },
  { name: "out", use: "out" },
];

const roles = (count: number): TubeRole[] => Array.from({ length: count }, (_, i) => ({ role: `tube ${i + 1}`, kind: "pentode" }));

export const SINGLE_ENDED: BlockKind = {
  kind: "single-ended",
  group: "output",
  ports: PORTS,
  options: [
    { key: "tubes", values: ["one", "two"] },
    { key: "biasing", values: ["cathode", "cathode each", "fixed", "fixed, sensed", "mixed"] },
    BYPASS,
    SCREENS,
    INPUT,
    STOPPERS,
    LOAD,
  ],
  allows: (o) => allowsBypass(o) && (o.tubes === "two" || o.biasing !== "cathode each"),
  tubes: (o) => roles(o.tubes === "two" ? 2 : 1),
  write(pen) {
    const count = pen.is("tubes", "two") ? 2 : 1;
    const type = pen.type("tube 1");
    const duty = usualDuty(type, false);
    const speaker = pen.is("load", "line") ? 500 : 8;
    side(pen, { port: "", plate: "p", tap: "u", roles: roles(count).map((r) => r.role) }, "");
    sharedCathode(pen, count);
    const ul = ultralinear(pen);
    pen.special("output transformer", "T", "OPT_SE", ["rail", "p", ...(ul ? ["u"] : []), "out", "0"], {
      zp: duty.load / count,
      load: speaker,
      dcr: Math.round(duty.load / count / 20),
      lp: 10,
      ...(ul ? { ul: 0.4 } : {}),
    });
    load(pen, speaker);
    pen.stage(pen.tubeName("tube 1"), pen.is("input", "capacitor") ? "a" : "in", "p", texts.output());
  },
};

export const PUSH_PULL: BlockKind = {
  kind: "push-pull",
  group: "output",
  ports: [PORTS[0]!, { name: "in2", use: "in" }, ...PORTS.slice(1, 4), { name: "bias2", use: "bias" }, PORTS[4]!],
  options: [
    { key: "pairs", values: PAIRS },
    { key: "biasing", values: ["cathode", "cathode each", "fixed", "fixed, sensed", "mixed"] },
    BYPASS,
    SCREENS,
    INPUT,
    STOPPERS,
    LOAD,
  ],
  allows: allowsBypass,
  tubes: (o) => roles(2 * (PAIRS.indexOf(o.pairs ?? "one") + 1)),
  write(pen) {
    const pairs = PAIRS.indexOf(pen.option("pairs")) + 1;
    const duty = usualDuty(pen.type("tube 1"), true);
    const speaker = pen.is("load", "line") ? 83 : 8;
    const all = roles(2 * pairs).map((r) => r.role);
    side(pen, { port: "", plate: "p", tap: "u", roles: all.slice(0, pairs) }, "upper ");
    side(pen, { port: "2", plate: "q", tap: "v", roles: all.slice(pairs) }, "lower ");
    sharedCathode(pen, 2 * pairs);
    const ul = ultralinear(pen);
    const dcr = Math.max(5, Math.round(duty.load / pairs / 50));
    pen.special("output transformer", "T", "OPT_PP", ["p", "rail", "q", ...(ul ? ["u", "v"] : []), "out", "0"], {
      zpp: duty.load / pairs,
      load: speaker,
      dcr,
      dcr2: Math.round(dcr * 1.07),
      lp: 40,
      ...(ul ? { ul: 0.4 } : {}),
    });
    load(pen, speaker);
    const [a, b] = pen.is("input", "capacitor") ? ["a", "a2"] : ["in", "in2"];
    pen.stage(pen.tubeName("tube 1"), a, "p", texts.outputUpper());
    pen.stage(pen.tubeName(`tube ${pairs + 1}`), b, "q", texts.outputLower());
  },
};
