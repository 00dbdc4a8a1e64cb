/** Isolating a blown fuse or a short: what can cause it in this amp, and the tests that tell the causes apart. */

import { envelopeOf, fileName, type Circuit } from "../circuit/circuit";
import { reservoirsOf } from "../supply/reservoirs";
import { electrodeNode } from "../anatomy/points";
import { anatomyOf } from "../anatomy/kind-of-amp";
import { NOTHING_SHORTED } from "../diagnosis/isolate";
import { OHM_OUTCOMES } from "./ohm-outcome";
import * as texts from "../texts/bring-up";

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

/** Every cause of a blown fuse that this circuit can have. */
export function causesOf(circuit: Circuit): Cause[] {
  const a = anatomyOf(circuit);
  const out: Cause[] = [];
  const add = (id: string, says: string, refs: string[], prior: number, changes: string[], outside?: Cause["outside"]) =>
    out.push({ id, says, refs, prior, changes, ...(outside ? { outside } : {}) });
  add(NOTHING_SHORTED, texts.nothingShortedNowFuse(), [], 1, []);
  add("mains-side", a.lineConnected ? texts.shortMainsSideCord() : texts.shortMainsSideCord2(), ["mains"], 0.5, [], "mains side");
  if (!a.lineConnected)
    for (const e of a.high)
      add(
        `winding:${e.name}`,
        e.type === "RECT_FULL" ? texts.highTensionWindingOne() : texts.highTensionWindingShorted(),
        [texts.htWinding()],
        0.7,
        [`${fileName(e)}=winding-short`],
      );
  if (!a.lineConnected && circuit.heaters.length > 0)
    add(
      "heater-leads",
      texts.shortAcrossHeaterWinding(),
      circuit.heaters.map((h) => h.name),
      0.4,
      [],
      "heater leads",
    );
  for (const e of a.high)
    add(
      `rectifier:${e.name}`,
      e.rectifierTube ? texts.rectifierShortedArcs(e.name) : texts.diodeShorted(e.name),
      [e.name],
      e.rectifierTube ? 1.2 : 1.5,
      [`${fileName(e)}=through`],
    );
  for (const e of a.bias) add(`bias:${e.name}`, texts.biasSupplyMissing(e.name), [e.name], 1.2, [`${fileName(e)}=dead`]);
  const biased = new Set(a.bias.flatMap((e) => e.nodes));
  reservoirsOf(circuit).forEach((r, i) => {
    const year = circuit.elements.find((e) => e.name === r.name)?.notes.year;
    const old = year === undefined || year < 1990 ? 2 : 0.5;
    const bias = biased.has(r.node);
    for (const part of r.parts)
      add(`capacitor:${part}`, texts.isShorted(part, bias ? texts.noBias() : ""), [part], (i === 0 ? 1 : 0.6) * old, [`${part}=short`]);
  });
  for (const t of circuit.elements)
    if (t.type === "OPT_PP" || t.type === "OPT_SE")
      add(`opt:${t.name}`, texts.outputTransformerPrimaryBroken(t.name), [t.name], 0.8, [
        `${t.type === "OPT_PP" ? t.nodes[0]! : t.nodes[1]!}~0=1`,
      ]);
  for (const tube of a.output) {
    const e = circuit.elements.find((x) => x.tube && envelopeOf(x.name) === tube)!;
    add(`tube:${tube}`, texts.shortedInside(tube), [tube], 1.2, [`${fileName(e)}=short:pk`]);
    const grid = electrodeNode(e, "grid")!;
    for (const c of couplingTo(circuit, grid))
      if (!out.some((o) => o.id === `coupling:${c}`)) add(`coupling:${c}`, texts.shortedPlateVoltsGrid(c, tube), [c], 0.6, [`${c}=short`]);
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
    if (kind === "capacitor" || kind === "coupling") return [alone(c, texts.oneLegLiftedOhms(part), 4)];
    if (kind === "bias") return [alone(c, texts.diodeTestOneEnd(part), 2)];
    if (kind === "rectifier") {
      const tube = circuit.elements.find((e) => e.name === part)?.rectifierTube;
      return [alone(c, tube ? texts.outSocketPlatesCathode(part) : texts.diodeTestEachDiode(part), tube ? 1.5 : 3)];
    }
    if (kind === "opt") return [alone(c, texts.primaryLeadsOffOhms(part), 4)];
    if (kind === "winding") return [alone(c, texts.highTensionWindingOff(), 4)];
    if (c.outside === "mains side") return [alone(c, texts.primaryOffOhmsAcross(), 2)];
    if (c.outside === "heater leads") return [alone(c, texts.heaterLeadsOffTransformer(), 4)];
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
    power("no-tubes", texts.powerEveryTubeOut(), all, risk);
    if (a.rectifierTubes.length > 0) power("rectifier", texts.powerOnly(names(a.rectifierTubes)), [...a.small, ...a.output], risk);
    power("small", texts.powerOutputTubesOut(), a.output, risk);
    for (const tube of a.output)
      power(
        `only:${tube}`,
        a.output.length > 1 ? texts.powerOutputTubesOnly(tube) : texts.powerIn(tube),
        a.output.filter((t) => t !== tube),
        risk + 1,
      );
    power("all", texts.powerAllTubes(), [], risk + 2);
    power("secondaries-off", texts.powerEverySecondaryLead(), all, risk + 4, true);
  } else power("all", texts.powerAllTubesSeries(), [], risk);
  const ohm = (id: string, what: string, nodes: [string, string], cost: number) =>
    tests.push({ id: `ohm:${id}`, kind: "ohm", what, outcomes: OHM_OUTCOMES, nodes, cost });
  for (const r of reservoirsOf(circuit)) {
    if (r.returnNode === "0") ohm(`${r.node}:0`, texts.ohmsFromChassisPlug(r.label, r.name), [r.node, "0"], 1);
    else ohm(`${r.node}:${r.returnNode}`, texts.ohmsAcrossPlugOut(r.name), [r.node, r.returnNode], 1);
  }
  for (const t of circuit.elements)
    if (t.type === "OPT_PP") {
      ohm(`${t.nodes[1]}:${t.nodes[0]}`, texts.ohmsFirstHalfTubes(t.name), [t.nodes[1]!, t.nodes[0]!], 1);
      ohm(`${t.nodes[1]}:${t.nodes[2]}`, texts.ohmsSecondHalfTubes(t.name), [t.nodes[1]!, t.nodes[2]!], 1);
    }
  for (const tube of a.output) {
    const e = circuit.elements.find((x) => x.tube && envelopeOf(x.name) === tube)!;
    const [p, k] = [electrodeNode(e, "plate")!, electrodeNode(e, "cathode")!];
    tests.push({
      id: `shorts:${tube}`,
      kind: "ohm",
      what: texts.ohmsOutSocketPlate(tube),
      outcomes: OHM_OUTCOMES,
      nodes: [`${tube}:${p}`, k],
      cost: 1.5,
    });
  }
  if (a.high.some((e) => e.type === "RECT_FULL") && !a.lineConnected)
    tests.push({
      id: "halves:HT",
      kind: "halves",
      what: texts.ohmsBothHalvesHigh(),
      outcomes: ["alike", "unlike"],
      cost: 1.5,
    });
  if (a.fixedBias)
    tests.push({
      id: "bias:sockets",
      kind: "bias",
      what: texts.biasOutputSocketsOutput(),
      outcomes: ["there", "missing"],
      without: a.output,
      cost: risk,
    });
  return [...tests, ...aloneTests(circuit)];
}
