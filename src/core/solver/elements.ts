/** What each element of a circuit file is made of, for the solver. */

import { isRectifier, primaryNodes } from "../circuit/special-parts";
import type { Element } from "../circuit/circuit";
import { rectifierSections, type RectifierSection } from "../supply/rectifier";
import { emissionAt, type PentodeModel, type TriodeModel } from "../tubes/model";
import {
  diodeDevice,
  mosDevice,
  opampDevice,
  pentodeDevice,
  pulsedRectifierDevice,
  rectifierDevice,
  triodeDevice,
  windingDevice,
  zenerDevice,
  type TubeState,
} from "./devices";
import type { Branch, Correction, Network } from "./network";
import { wiperShare } from "../circuit/taper";

export interface Assembly {
  network: Network;
  at(node: string): number;
  branch(b: Omit<Branch, "index">): Branch;
  /** Windings of L elements by name, for K. */
  windings: Map<string, Branch>;
  /** Run once the branches have their numbers. */
  deferred: (() => void)[];
}

const CLOSED_SIEMENS = 100;
/** Ends of a control's track never quite reach the wiper. */
const TRACK_END_OHMS = 1;
/** Leakage and winding resistance of a transformer that the file says nothing about, relative to what it is wound for. */
const LEAKAGE_SHARE = 1e-3;
const WINDING_SHARE = 0.03;
/** Hertz where the primary's reactance equals the load it is wound for, when lp is not given. */
const PRIMARY_CORNER = 25;

const num = (e: Element, key: string, otherwise: number) => (typeof e.params[key] === "number" ? (e.params[key] as number) : otherwise);

export function addElement(e: Element, asm: Assembly): void {
  const { network, at, branch } = asm;
  const off = network.supply === "off";
  const [a = -1, b = -1, c = -1] = e.nodes.map(at);
  const conductor = (from: number, to: number, siemens: number, name = e.name) =>
    network.conductors.push({ name, a: from, b: to, siemens });
  switch (e.letter) {
    case "R":
      return void conductor(a, b, 1 / e.value!);
    case "C":
      return void network.capacitors.push({ name: e.name, a, b, farads: e.value! });
    case "V":
      return void branch({ name: e.name, a, b, ohms: 0, volts: off ? 0 : e.value! });
    case "I":
      if (!off) network.sources.push({ name: e.name, a, b, amps: e.value! });
      return;
    case "L": {
      const w = branch({ name: e.name, a, b, ohms: e.notes.dcr ?? 0, volts: 0 });
      asm.windings.set(e.name, w);
      asm.deferred.push(() => network.inductances.push({ first: w.index, second: w.index, henries: e.value! }));
      return;
    }
    case "K":
      asm.deferred.push(() => {
        const first = asm.windings.get(String(e.params.first));
        const second = asm.windings.get(String(e.params.second));
        if (!first || !second) return;
        const own = (w: Branch) => network.inductances.find((l) => l.first === w.index && l.second === w.index)!.henries;
        couple(network, first, second, e.value! * Math.sqrt(own(first) * own(second)));
      });
      return;
    case "D": {
      const model = network.circuit.models[e.type ?? ""] ?? {};
      const anode = model.rs ? at(`${e.name.toLowerCase()}#rs`) : a;
      if (model.rs) conductor(a, anode, 1 / model.rs);
      return void network.devices.push(diodeDevice(e.name, [anode, b], model.is ?? 1e-14, model.n ?? 1));
    }
  }
  if (e.tube) return addTube(e, asm);
  if (isRectifier(e.type)) return addRectifier(e, asm);
  switch (e.type) {
    case "POT":
      return addPot(e, asm);
    case "SW":
      if (e.params.state !== "open") conductor(a, b, CLOSED_SIEMENS);
      return;
    case "SW2":
      return void conductor(a, e.params.state === 2 ? c : b, CLOSED_SIEMENS);
    case "OPT_SE":
    case "OPT_PP":
      return addOutputTransformer(e, asm);
    case "XFMR":
      return addTransformer(e, asm);
    case "OPAMP": {
      const gain = num(e, "gain", 1e5);
      const inner = at(`${e.name.toLowerCase()}#out`);
      conductor(inner, -1, 1e-3);
      const gbw = num(e, "gbw", 0);
      if (gbw > 0) network.capacitors.push({ name: "", a: inner, b: -1, farads: gain / (2 * Math.PI * gbw * 1e3) });
      network.devices.push(opampDevice(e.name, [a, b, inner], gain, num(e, "vmax", 13)));
      branch({ name: e.name, a: c, b: -1, ohms: 50, volts: 0, control: { node: inner, gain: 1 } });
      return;
    }
    case "NMOS":
      return void network.devices.push(mosDevice(e.name, [a, b, c], num(e, "vto", 2), num(e, "kp", 0.2), num(e, "lambda", 0.01)));
    case "ZENER":
      return void network.devices.push(zenerDevice(e.name, [a, b], num(e, "vz", 10), Math.max(0.1, num(e, "rz", 5))));
  }
}

/** Emission of a tube at today's heater voltage, times what its fault leaves. */
function emissionOf(network: Pick<Network, "mainsRatio">, element: Element): number {
  const left = typeof element.params.emission === "number" ? element.params.emission : 1;
  return left * emissionAt(network.mainsRatio);
}

function addTube(e: Element, { network, at }: Assembly): void {
  const type = e.tube!;
  const terminals = e.nodes.map(at);
  const cathode = terminals[terminals.length - 1]!;
  const grid = terminals[terminals.length - 2]!;
  const pf = type.picofarads;
  if (pf)
    for (const [x, y, p] of [
      [grid, terminals[0]!, pf.gp],
      [grid, cathode, pf.gk],
      [terminals[0]!, cathode, pf.pk],
    ] as const)
      if (p > 0) network.capacitors.push({ name: "", a: x, b: y, farads: p * 1e-12 });
  if (network.supply === "off" || !type.model) return;
  const state: TubeState = {
    emission: emissionOf(network, e),
    spread: e.notes.strength ?? 1,
    gas: num(e, "gas", 0),
    typicalAmps: (type.typical?.ia ?? 1) / 1e3,
  };
  const model = { ...type.model };
  const device =
    model.kind === "triode"
      ? triodeDevice(e.name, terminals, model as TriodeModel, state)
      : pentodeDevice(e.name, terminals, model as PentodeModel, state);
  network.tubes.push({ element: e, state, model, device });
  network.devices.push(device);
}

function addPot(e: Element, { network, at }: Assembly): void {
  const [start, wiper, end, tap] = e.nodes.map(at) as [number, number, number, number | undefined];
  const total = e.value!;
  const share = wiperShare(String(e.params.taper ?? "linear"), num(e, "pos", 0.5));
  const open = e.params.wiper === "open";
  const piece = (from: number, to: number, part: number) =>
    network.conductors.push({ name: e.name, a: from, b: to, siemens: 1 / Math.max(TRACK_END_OHMS, total * part) });
  // The track from start to end, cut where the wiper and the tap stand.
  const stops = [
    { at: 0, node: start },
    ...(open ? [] : [{ at: share, node: wiper }]),
    ...(tap === undefined ? [] : [{ at: num(e, "tap", 0.5), node: tap }]),
    { at: 1, node: end },
  ].sort((x, y) => x.at - y.at);
  for (let i = 1; i < stops.length; i++) piece(stops[i - 1]!.node, stops[i]!.node, stops[i]!.at - stops[i - 1]!.at);
}

interface Winding {
  branch: Branch;
  turns: number;
}

/** Mutual inductance in both directions. */
function couple(network: Network, first: Branch, second: Branch, henries: number): void {
  network.inductances.push({ first: first.index, second: second.index, henries }, { first: second.index, second: first.index, henries });
}

/** Windings on one core: `henries` is that of one with `turns` = 1; all pairs coupled alike. */
function onOneCore(network: Network, windings: Winding[], henries: number, coupling: number): void {
  windings.forEach((w, i) => {
    network.inductances.push({ first: w.branch.index, second: w.branch.index, henries: henries * w.turns ** 2 });
    for (const other of windings.slice(i + 1)) couple(network, w.branch, other.branch, coupling * henries * w.turns * other.turns);
  });
}

function addOutputTransformer(e: Element, asm: Assembly): void {
  const { network, at, branch, deferred } = asm;
  const pp = e.type === "OPT_PP";
  const z = num(e, pp ? (e.params.zpp === undefined ? "zp" : "zpp") : "zp", 5000);
  const load = num(e, "load", 8);
  const lp = num(e, "lp", z / (2 * Math.PI * PRIMARY_CORNER));
  const coupling = Math.sqrt(1 - Math.min(0.5, num(e, "ll", lp * LEAKAGE_SHARE) / lp));
  const dcr = num(e, "dcr", pp ? (z * WINDING_SHARE) / 2 : z * WINDING_SHARE);
  const nodes = e.nodes.map(at);
  const split = primaryNodes(e.type!, e.params);
  const primary = nodes.slice(0, split);
  const secondary = nodes.slice(split);
  const ul = typeof e.params.ul === "number" ? e.params.ul : undefined;
  const windings: Winding[] = [];
  const wind = (a: number, b: number, turns: number, ohms: number) => {
    windings.push({ branch: branch({ name: e.name, a, b, ohms, volts: 0 }), turns });
  };
  // Turns are counted with the whole primary as 1; every winding runs the same way round from its first node.
  const half = (from: number, to: number, tap: number | undefined, turns: number, ohms: number, tapShare: number) => {
    if (tap === undefined) return wind(from, to, turns, ohms);
    wind(from, tap, turns * tapShare, ohms * tapShare);
    wind(tap, to, turns * (1 - tapShare), ohms * (1 - tapShare));
  };
  if (pp) {
    const [p1, ct, p2, ul1, ul2] = primary as [number, number, number, number?, number?];
    // The ultralinear tap is a fraction of the half, counted from the centre tap.
    half(p1, ct, ul1, 0.5, dcr, 1 - (ul ?? 0));
    half(ct, p2, ul2, 0.5, num(e, "dcr2", dcr), ul ?? 0);
  } else {
    const [bplus, plate, tap] = primary as [number, number, number?];
    half(bplus, plate, tap, 1, dcr, ul ?? 0);
  }
  const ratio = (ohms: number) => Math.sqrt(ohms / z);
  const dcrsec = num(e, "dcrsec", load * WINDING_SHARE);
  // Taps of the secondary share its return: the highest impedance is the whole winding, the others end below it.
  const [first, back, ...taps] = secondary as [number, number, ...number[]];
  const ends = [{ node: first, turns: ratio(load) }, ...taps.map((node, i) => ({ node, turns: ratio(num(e, `load${i + 2}`, load)) }))].sort(
    (x, y) => x.turns - y.turns,
  );
  let below = { node: back, turns: 0 };
  for (const end of ends) {
    const turns = end.turns - below.turns;
    wind(end.node, below.node, turns, (dcrsec * turns) / ratio(load));
    below = end;
  }
  deferred.push(() => onOneCore(network, windings, lp, coupling));
}

/** Windings two nodes each; `ratio=` is primary turns over secondary turns. Without lp the primary has 10 H. */
function addTransformer(e: Element, { network, at, branch, deferred }: Assembly): void {
  const nodes = e.nodes.map(at);
  const lp = num(e, "lp", 10);
  const coupling = Math.sqrt(1 - Math.min(0.5, num(e, "ll", lp * LEAKAGE_SHARE) / lp));
  const windings: Winding[] = [];
  for (let i = 0; i < nodes.length; i += 2) {
    const turns = i === 0 ? 1 : 1 / num(e, i === 2 ? "ratio" : `ratio${i / 2}`, 1);
    const ohms = i === 0 ? num(e, "dcr", 50) : num(e, "dcrsec", num(e, "dcr", 50) * turns ** 2);
    windings.push({ branch: branch({ name: e.name, a: nodes[i]!, b: nodes[i + 1]!, ohms: Math.max(ohms, 1e-3), volts: 0 }), turns });
  }
  deferred.push(() => onOneCore(network, windings, lp, coupling));
}

function addRectifier(e: Element, { network, at }: Assembly): void {
  const emission = emissionAt(network.mainsRatio);
  for (const section of rectifierSections(e, network.mainsRatio, emission)) {
    const [a, b] = [at(section.plus), at(section.minus)];
    if (network.supply === "off") addColdRectifier(e, section, a, b, at, network);
    else addSection(e, section, a, b, network);
  }
  if (e.type !== "DOUBLER_HALF") return;
  // The winding's hot end: its resistance to the return, and its own volts while the mains' clock runs.
  const [winding, back] = [at(e.nodes[3]!), at(e.nodes[1]!)];
  const { peak, path } = rectifierSections(e, network.mainsRatio, emission)[0]!.model;
  network.conductors.push({ name: e.name, a: winding, b: back, siemens: 1 / path.rs });
  if (network.supply !== "off") network.devices.push(windingDevice(`${e.name} winding`, [winding, back], peak, path.rs, network.clock));
}

/** Ohms of a diode where the winding that feeds it is a part of its own. */
const DIODE_OHMS = 1;

function addSection(e: Element, { side, model }: RectifierSection, a: number, b: number, network: Network): void {
  const name = side ? `${e.name} ${side}` : e.name;
  const correction: Correction = { shift: 0 };
  // In a half-wave cascade the winding moves the joint: pulse by pulse the diodes have no volts of their own.
  const cascade = e.type === "DOUBLER_HALF";
  const pulsed = pulsedRectifierDevice(
    name,
    [a, b],
    cascade ? { ...model, peak: 0, path: { ...model.path, rs: DIODE_OHMS } } : model,
    network.clock,
  );
  const device = network.supply === "averaged" ? rectifierDevice(name, [a, b], model, correction) : pulsed;
  network.rectifiers.push({ element: e, model, a, b, correction, device, pulsed, cascade });
  network.devices.push(device);
}

/** Cold: a tube is open, junctions conduct from DC− to DC+ through the winding, a diode shorted through is the winding alone. */
function addColdRectifier(e: Element, { side, model }: RectifierSection, a: number, b: number, at: Assembly["at"], network: Network): void {
  if (model.through) return void network.conductors.push({ name: e.name, a, b, siemens: 1 / model.path.rs });
  if (model.path.perveance !== undefined || model.pulses === 0) return;
  const inner = at(`${e.name.toLowerCase()}${side}#off`);
  const junctions = Math.max(1, Math.round(model.path.drop / 0.7));
  network.devices.push(diodeDevice(e.name, [b, inner], 5e-9, 1.9 * junctions));
  network.conductors.push({ name: e.name, a: inner, b: a, siemens: 1 / model.path.rs });
}
