/** Supply blocks: rectifier with its reservoir, standby switch, filter sections, bleeder, what else draws from a rail. */

import * as texts from "../texts/blocks";
import type { BlockKind, Option } from "./kind";
import type { Pen } from "./pen";

const RECTIFIER_OPTION = { key: "rectifier", values: ["tube", "silicon", "selenium"] } as const;
const RESERVOIR_OPTION = { key: "reservoir", values: ["single", "series"] } as const;

/** Volts of a winding for a reservoir of `volts` under load: a tube and its winding lose more than silicon does. */
const windingVolts = (volts: number, rectifier: string) => Math.round(volts / (rectifier === "tube" ? 1.18 : 1.27) / 5) * 5;
const sourceOhms = (rectifier: string) => (rectifier === "tube" ? 120 : rectifier === "selenium" ? 60 : 40);

/** The rectifier in its socket, or named PS where it has none. */
function rectifier(pen: Pen, type: string, nodes: string[], params: Record<string, number | string>): void {
  const kind = pen.option("rectifier");
  const tube = kind === "tube" ? pen.type("rectifier")?.type : undefined;
  pen.special(
    "rectifier",
    "PS",
    type,
    nodes,
    { ...params, tube: tube ?? (kind === "selenium" ? "selenium" : "silicon") },
    kind === "tube" ? pen.tubeName("rectifier") : pen.id,
  );
}

function reservoir(pen: Pen, top: string, bottom: string, volts: number): void {
  const rated = volts > 380 ? 500 : volts > 300 ? 450 : volts > 160 ? 400 : 150;
  // A rectifier tube allows only so much behind it: its published limit.
  const largest = (pen.is("rectifier", "tube") && pen.type("rectifier")?.rectifier?.largestFirstCapacitor) || 47e-6;
  if (!pen.is("reservoir", "series")) return void pen.c("reservoir", top, bottom, Math.min(47e-6, largest), rated);
  pen.c("upper reservoir", top, "middle", 100e-6, 350);
  pen.c("lower reservoir", "middle", bottom, 100e-6, 350);
  pen.r("upper balancing resistor", top, "middle", 220e3, { watts: 2 });
  pen.r("lower balancing resistor", "middle", bottom, 220e3, { watts: 2 });
}

const needsTube: BlockKind["tubes"] = (o) => (o.rectifier === "tube" ? [{ role: "rectifier", kind: "rectifier" }] : []);
function first(pen: Pen): void {
  const series = pen.is("reservoir", "series");
  pen.rail("out", series ? "upper reservoir" : "reservoir");
  if (series) pen.middlePoint("out", "middle", "lower reservoir");
}

const PORTS = [
  { name: "out", use: "rail" },
  { name: "minus", use: "feedback" },
] as const;

const SOLID = { key: "rectifier", values: ["silicon", "selenium"] } as const;

/** A winding with a rectifier and its reservoir. @param loss volts of the winding over those of the reservoir under load, against a full-wave one. */
const fromWinding = (kind: string, type: string, rectifiers: Option, loss: number, ohms: number): BlockKind => ({
  kind,
  group: "supply",
  ports: PORTS,
  options: [rectifiers, RESERVOIR_OPTION],
  tubes: needsTube,
  write(pen) {
    const by = pen.option("rectifier");
    rectifier(pen, type, ["out", "minus"], { vac: windingVolts(pen.usual.supply * loss, by), rs: sourceOhms(by) * ohms });
    reservoir(pen, "out", "minus", pen.usual.supply);
    first(pen);
  },
});

export const FULL_WAVE = fromWinding("full-wave", "RECT_FULL", RECTIFIER_OPTION, 1, 1);
export const BRIDGE = fromWinding("bridge", "RECT_BRIDGE", SOLID, 1, 1);
export const HALF_WAVE = fromWinding("half-wave", "RECT_HALF", RECTIFIER_OPTION, 1.1, 1.5);

/** Half-wave from the line itself: one side of the line is the chassis, or may be. */
export const LINE_CONNECTED: BlockKind = {
  kind: "line-connected",
  group: "supply",
  ports: PORTS,
  options: [RECTIFIER_OPTION],
  tubes: needsTube,
  write(pen) {
    pen.fact("line-connected", "yes");
    rectifier(pen, "RECT_HALF", ["out", "minus"], { vac: pen.usual.mains, rs: 33 });
    pen.c("reservoir", "out", "minus", 47e-6, pen.usual.mains > 160 ? 400 : 150);
    first(pen);
  },
};

export const DOUBLER: BlockKind = {
  kind: "doubler",
  group: "supply",
  ports: PORTS,
  options: [SOLID],
  write(pen) {
    rectifier(pen, "DOUBLER", ["out", "minus", "middle"], { vac: Math.round(pen.usual.supply / 2.5 / 5) * 5, rs: 15 });
    pen.c("upper reservoir", "out", "middle", 100e-6, 350);
    pen.c("lower reservoir", "middle", "minus", 100e-6, 350);
    pen.rail("out", "upper reservoir");
    pen.middlePoint("out", "middle", "lower reservoir");
  },
};

export const STANDBY: BlockKind = {
  kind: "standby",
  group: "supply",
  ports: [
    { name: "from", use: "feed" },
    { name: "out", use: "rail" },
  ],
  options: [],
  write(pen) {
    pen.special("standby switch", "S", "SW", ["from", "out"], { state: "closed" });
  },
};

export const FILTER: BlockKind = {
  kind: "filter",
  group: "supply",
  ports: [
    { name: "from", use: "feed" },
    { name: "out", use: "rail" },
  ],
  options: [
    { key: "element", values: ["resistor", "choke"] },
    { key: "bleeder", values: ["no", "yes"] },
  ],
  write(pen) {
    const volts = pen.usual.supply > 380 ? 500 : pen.usual.supply > 160 ? 450 : 150;
    // The first section carries the screens, those behind it only small tubes.
    const section = Number(/\d+/.exec(pen.node("out"))?.[0] ?? 3);
    const ohms = pen.usual.supply <= 160 ? 1200 : section <= 2 ? 1000 : section === 3 ? 10e3 : 22e3;
    if (pen.is("element", "choke")) pen.choke("filter choke", "from", "out", 5, 100);
    else pen.r("filter resistor", "from", "out", ohms, { watts: 2 });
    pen.c("filter capacitor", "out", "0", pen.usual.supply > 160 ? 22e-6 : 47e-6, volts);
    if (pen.is("bleeder", "yes")) pen.r("bleeder", "out", "0", 220e3, { watts: 2, label: "Bleeder" });
    pen.rail("out", "filter capacitor");
  },
};

export const BLEEDER: BlockKind = {
  kind: "bleeder",
  group: "supply",
  ports: [{ name: "from", use: "feed" }],
  options: [],
  write(pen) {
    pen.r("bleeder", "from", "0", 220e3, { watts: 2, label: "Bleeder" });
  },
};

/** What else draws from a rail and is not drawn: a receiver's other stages, a tape head's supply. */
export const OTHER_DRAW: BlockKind = {
  kind: "other-draw",
  group: "supply",
  ports: [{ name: "from", use: "feed" }],
  options: [],
  write(pen) {
    pen.r("other draw", "from", "0", pen.usual.supply > 160 ? 47e3 : 12e3, { watts: 5, tol: 0.2, label: texts.otherDraw() });
  },
};
