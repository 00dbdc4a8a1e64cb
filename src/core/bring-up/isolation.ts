/** Isolating a blown fuse or a short: what can cause it in this amp, and the tests that tell the causes apart. */

import { envelopeOf, fileName, type Circuit } from "../circuit/circuit";
import { reservoirsOf } from "../supply/reservoirs";
import { electrodeNode } from "../walk/anatomy";
import { anatomyOf } from "./anatomy";
import { OHM_OUTCOMES } from "./ohm-outcome";

export interface Cause {
  id: string;
  /** In the trade's words. */
  says: string;
  refs: string[];
  /** Changes to the netlist that make it. */
  changes: string[];
  /** What no netlist has: a short on the mains side, or across a heater winding's leads. */
  outside?: "mains side" | "heater leads";
  /** Relative to the others, before any test. Scutum's own figures. */
  prior: number;
}

export type TestKind = "power" | "ohm" | "halves" | "bias" | "alone";

export interface IsolationTest {
  id: string;
  kind: TestKind;
  /** What to do. */
  what: string;
  /** Outcomes that can be answered. */
  outcomes: string[];
  /** Tubes that are out, where power goes on; secondaries off where nothing at all is connected. */
  without?: string[];
  secondariesOff?: boolean;
  /** Nodes of an ohmmeter. */
  nodes?: [string, string];
  /** Effort and danger, against one exposed resistance reading. */
  cost: number;
}

/** With a lamp in series, and with a fuse alone. */
export const LAMP_OUTCOMES = ["dark", "glowing", "bright"];
export const FUSE_OUTCOMES = ["holds", "blows"];
export const ALONE_OUTCOMES = ["sound", "bad"];
export const SOUND = "nothing-now";

/** Every cause of a blown fuse that this circuit can have. */
export function causesOf(circuit: Circuit): Cause[] {
  const a = anatomyOf(circuit);
  const out: Cause[] = [];
  const add = (id: string, says: string, refs: string[], prior: number, changes: string[], outside?: Cause["outside"]) =>
    out.push({ id, says, refs, prior, changes, ...(outside ? { outside } : {}) });
  add(SOUND, "nothing is shorted now: the fuse was tired, or too small for the surge", [], 1, []);
  add(
    "mains-side",
    a.lineConnected
      ? "short on the mains side: cord, switch or the capacitor across the line"
      : "short on the mains side: cord, switch, primary",
    ["mains"],
    0.5,
    [],
    "mains side",
  );
  if (!a.lineConnected)
    for (const e of a.high)
      add(
        `winding:${e.name}`,
        e.type === "RECT_FULL" ? "high-tension winding: one half has shorted turns" : "high-tension winding: shorted turns",
        ["HT winding"],
        0.7,
        [`${fileName(e)}=winding-short`],
      );
  if (!a.lineConnected && circuit.heaters.length > 0)
    add(
      "heater-leads",
      "short across a heater winding: leads, a lamp holder, a socket",
      circuit.heaters.map((h) => h.name),
      0.4,
      [],
      "heater leads",
    );
  for (const e of a.high)
    add(
      `rectifier:${e.name}`,
      e.rectifierTube ? `${e.name}: the rectifier is shorted, or arcs` : `${e.name}: a diode is shorted`,
      [e.name],
      e.rectifierTube ? 1.2 : 1.5,
      [`${fileName(e)}=through`],
    );
  for (const e of a.bias) add(`bias:${e.name}`, `the bias supply is missing: ${e.name}`, [e.name], 1.2, [`${fileName(e)}=dead`]);
  const biased = new Set(a.bias.flatMap((e) => e.nodes));
  reservoirsOf(circuit).forEach((r, i) => {
    const year = circuit.elements.find((e) => e.name === r.name)?.notes.year;
    const old = year === undefined || year < 1990 ? 2 : 0.5;
    const bias = biased.has(r.node);
    for (const part of r.parts)
      add(`capacitor:${part}`, `${part} is shorted${bias ? ": no bias" : ""}`, [part], (i === 0 ? 1 : 0.6) * old, [`${part}=short`]);
  });
  for (const t of circuit.elements)
    if (t.type === "OPT_PP" || t.type === "OPT_SE")
      add(`opt:${t.name}`, `output transformer ${t.name}: primary broken through to the core`, [t.name], 0.8, [
        `${t.type === "OPT_PP" ? t.nodes[0]! : t.nodes[1]!}~0=1`,
      ]);
  for (const tube of a.output) {
    const e = circuit.elements.find((x) => x.tube && envelopeOf(x.name) === tube)!;
    add(`tube:${tube}`, `${tube} is shorted inside`, [tube], 1.2, [`${fileName(e)}=short:pk`]);
    const grid = electrodeNode(e, "grid")!;
    for (const c of couplingTo(circuit, grid))
      if (!out.some((o) => o.id === `coupling:${c}`))
        add(`coupling:${c}`, `${c} is shorted: plate volts on the grid of ${tube}`, [c], 0.6, [`${c}=short`]);
  }
  return out;
}

/** Coupling capacitors that feed a grid, through its stopper too. */
function couplingTo(circuit: Circuit, grid: string): string[] {
  const near = new Set([grid]);
  for (const r of circuit.elements)
    if (r.letter === "R" && (r.value ?? 0) <= 10e3 && r.nodes.includes(grid)) r.nodes.forEach((n) => n !== "0" && near.add(n));
  return circuit.elements
    .filter((c) => c.letter === "C" && (c.value ?? 1) < 1e-6 && !c.nodes.includes("0") && c.nodes.some((n) => near.has(n)))
    .map((c) => c.name);
}

/** One part taken by itself: what no reading in circuit can settle. */
function aloneTests(circuit: Circuit): IsolationTest[] {
  const alone = (cause: Cause, what: string, cost: number): IsolationTest => ({
    id: `alone:${cause.id}`,
    kind: "alone",
    what,
    outcomes: ALONE_OUTCOMES,
    cost,
  });
  return causesOf(circuit).flatMap((c) => {
    const [kind] = c.id.split(":");
    const part = c.refs[0] ?? "";
    if (kind === "capacitor" || kind === "coupling") return [alone(c, `${part} with one leg lifted, ohms across it`, 4)];
    if (kind === "bias") return [alone(c, `${part}: diode test, one end off; winding volts before it`, 2)];
    if (kind === "rectifier") {
      const tube = circuit.elements.find((e) => e.name === part)?.rectifierTube;
      return [
        alone(
          c,
          tube ? `${part} out of its socket, plates to cathode and to each other` : `${part}: diode test of each diode, one end off`,
          tube ? 1.5 : 3,
        ),
      ];
    }
    if (kind === "opt") return [alone(c, `${part} with its primary leads off, ohms to the core`, 4)];
    if (kind === "winding")
      return [alone(c, "High-tension winding off, its ohms against what such a winding has, or a lamp with nothing connected", 4)];
    if (c.outside === "mains side") return [alone(c, "Primary off: ohms across the plug's pins, switch on, fuse in", 2)];
    if (c.outside === "heater leads") return [alone(c, "Heater leads off the transformer, ohms across each pair, tubes out", 4)];
    return [];
  });
}

/** Every test that can tell causes apart. @param lamp true with a lamp in series; with a fuse alone each power test may cost a fuse. */
export function testsOf(circuit: Circuit, lamp: boolean): IsolationTest[] {
  const a = anatomyOf(circuit);
  const outcomes = lamp ? LAMP_OUTCOMES : FUSE_OUTCOMES;
  const risk = lamp ? 2 : 4;
  const tests: IsolationTest[] = [];
  const power = (id: string, what: string, without: string[], cost: number, secondariesOff?: boolean) =>
    tests.push({ id: `power:${id}`, kind: "power", what, outcomes, without, cost, ...(secondariesOff ? { secondariesOff } : {}) });
  const all = [...a.rectifierTubes, ...a.small, ...a.output];
  const names = (list: string[]) => list.join(", ");
  if (a.string.length === 0) {
    power("no-tubes", "Power, every tube out", all, risk);
    if (a.rectifierTubes.length > 0) power("rectifier", `Power, only ${names(a.rectifierTubes)} in`, [...a.small, ...a.output], risk);
    power("small", "Power, output tubes out", a.output, risk);
    for (const tube of a.output)
      power(
        `only:${tube}`,
        a.output.length > 1 ? `Power, of the output tubes only ${tube} in` : `Power, ${tube} in`,
        a.output.filter((t) => t !== tube),
        risk + 1,
      );
    power("all", "Power, all tubes in", [], risk + 2);
    power("secondaries-off", "Power, every secondary lead unsoldered", all, risk + 4, true);
  } else power("all", "Power, all tubes in (a series string has no other way)", [], risk);
  const ohm = (id: string, what: string, nodes: [string, string], cost: number) =>
    tests.push({ id: `ohm:${id}`, kind: "ohm", what, outcomes: OHM_OUTCOMES, nodes, cost });
  for (const r of reservoirsOf(circuit)) {
    if (r.returnNode === "0") ohm(`${r.node}:0`, `Ohms from ${r.label} (${r.name} +) to chassis, plug out`, [r.node, "0"], 1);
    else ohm(`${r.node}:${r.returnNode}`, `Ohms across ${r.name}, plug out`, [r.node, r.returnNode], 1);
  }
  for (const t of circuit.elements)
    if (t.type === "OPT_PP") {
      ohm(`${t.nodes[1]}:${t.nodes[0]}`, `Ohms of ${t.name}, first half, tubes out`, [t.nodes[1]!, t.nodes[0]!], 1);
      ohm(`${t.nodes[1]}:${t.nodes[2]}`, `Ohms of ${t.name}, second half, tubes out`, [t.nodes[1]!, t.nodes[2]!], 1);
    }
  for (const tube of a.output) {
    const e = circuit.elements.find((x) => x.tube && envelopeOf(x.name) === tube)!;
    const [p, k] = [electrodeNode(e, "plate")!, electrodeNode(e, "cathode")!];
    tests.push({
      id: `shorts:${tube}`,
      kind: "ohm",
      what: `Ohms in ${tube} out of its socket, plate to cathode`,
      outcomes: OHM_OUTCOMES,
      nodes: [`${tube}:${p}`, k],
      cost: 1.5,
    });
  }
  if (a.high.some((e) => e.type === "RECT_FULL") && !a.lineConnected)
    tests.push({
      id: "halves:HT",
      kind: "halves",
      what: "Ohms of both halves of the high-tension winding, rectifier out",
      outcomes: ["alike", "unlike"],
      cost: 1.5,
    });
  if (a.fixedBias)
    tests.push({
      id: "bias:sockets",
      kind: "bias",
      what: "Bias at the output sockets, output tubes out, behind the lamp",
      outcomes: ["there", "missing"],
      without: a.output,
      cost: risk,
    });
  return [...tests, ...aloneTests(circuit)];
}
