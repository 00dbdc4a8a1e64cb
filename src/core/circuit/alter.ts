/** Changes to a circuit, as faults, pulled tubes and turned controls make them: always a new circuit, the old one stays. */

import { parseQuantity } from "../quantity/parse";
import { envelopeOf, findElement, type Circuit, type Element } from "./circuit";
import { isRectifier } from "./blocks";
import { nodeName } from "./annotations";

/** A change that cannot be made, with what was read and what is accepted. */
export class AlterError extends Error {
  constructor(
    readonly found: string,
    readonly expected: string,
  ) {
    super(`${found}: expected ${expected}`);
  }
}

/** Ohms of a part that has shorted; a welded joint rather than nothing, so that no loop of sources arises. */
const SHORT_OHMS = 0.01;

/** Takes tubes out by name; an envelope takes both halves. @throws AlterError for a tube that is not there. */
export function without(circuit: Circuit, tubes: readonly string[]): Circuit {
  let elements = circuit.elements;
  for (const typed of tubes) {
    const wanted = typed
      .trim()
      .replace(/^x(?=v)/i, "")
      .toUpperCase();
    const envelope = envelopeOf(wanted);
    const out = (e: Element) => e.tube !== undefined && (e.name === wanted || envelopeOf(e.name) === envelope);
    const rectifier = (e: Element) => isRectifier(e.type) && e.rectifierTube !== undefined && e.name === wanted;
    if (!elements.some((e) => out(e) || rectifier(e))) {
      const there = [...new Set(circuit.elements.filter((e) => e.tube).map((e) => envelopeOf(e.name)))];
      throw new AlterError(`tube ${typed}`, `one of ${there.join(", ")}`);
    }
    elements = elements.flatMap((e) => (out(e) ? [] : rectifier(e) ? [{ ...e, params: { ...e.params, dead: 1, pulled: 1 } }] : [e]));
  }
  return { ...circuit, elements };
}

/**
 * Applies changes written as on the command line: `R7=open`, `C3=leak:47k`, `V2=weak:0.4`, `V2.g=open`, `PS=half`, `P1=0.7`,
 * `S1=open`, `b3~g1=20M`.
 * @throws AlterError naming the change that cannot be read.
 */
export function alter(circuit: Circuit, changes: readonly string[]): Circuit {
  return changes.reduce(alterOne, circuit);
}

function ohms(text: string, change: string, expected: string): number {
  const parsed = parseQuantity(text, { unit: "Ω" });
  if (!parsed.ok || !(parsed.quantity.value > 0)) throw new AlterError(change, expected);
  return parsed.quantity.value;
}

function alterOne(circuit: Circuit, change: string): Circuit {
  const equals = change.indexOf("=");
  if (equals < 1) throw new AlterError(change, "NAME=CHANGE, for example R7=open or C3=leak:47k");
  const name = change.slice(0, equals).trim();
  const what = change.slice(equals + 1).trim();
  if (name.includes("~")) return boardLeak(circuit, change, name, what);
  const element = findElement(circuit, name);
  if (element) return changeElement(circuit, element, change, what);
  const envelope = circuit.elements.filter((e) => e.tube && envelopeOf(e.name) === name.replace(/^x(?=v)/i, "").toUpperCase());
  if (envelope.length > 0) return envelope.reduce((c, e) => changeElement(c, findElement(c, e.name)!, change, what), circuit);
  const dot = name.lastIndexOf(".");
  if (dot > 0) return openPin(circuit, name.slice(0, dot), name.slice(dot + 1), change, what);
  throw new AlterError(change, `a part of this circuit; there is no ${name}`);
}

function replace(circuit: Circuit, element: Element, ...by: Element[]): Circuit {
  return { ...circuit, elements: circuit.elements.flatMap((e) => (e === element ? by : [e])) };
}

/** A resistor that a fault puts in, beside the part it belongs to. */
function stray(near: Element, suffix: string, a: string, b: string, value: number): Element {
  return { name: `R#${near.name}${suffix}`, letter: "R", nodes: [a, b], value, params: {}, notes: {}, line: near.line };
}

function changeElement(circuit: Circuit, e: Element, change: string, what: string): Circuit {
  // The word in any case; its argument as typed: M is mega and m is milli.
  const [head = "", argument = ""] = what.split(":");
  const word = head.trim().toLowerCase();
  const [a, b] = e.nodes as [string, string];
  const withParams = (params: Element["params"]) => replace(circuit, e, { ...e, params: { ...e.params, ...params } });
  if (e.letter === "R" || e.letter === "L") {
    if (word === "open") return replace(circuit, e);
    if (word === "short") return replace(circuit, e, { ...stray(e, "", a, b, SHORT_OHMS), name: e.name });
    const accepted = e.letter === "R" ? "open, short or a value above zero" : "open, short or henries above zero";
    const parsed = parseQuantity(what, { unit: e.letter === "R" ? "Ω" : "H" });
    if (!parsed.ok || !(parsed.quantity.value > 0)) throw new AlterError(change, accepted);
    return replace(circuit, e, { ...e, value: parsed.quantity.value });
  }
  if (e.letter === "C") {
    if (word === "open") return replace(circuit, e);
    if (word === "short") return replace(circuit, e, e, stray(e, "s", a, b, SHORT_OHMS));
    if (word === "leak") return replace(circuit, e, e, stray(e, "l", a, b, ohms(argument, change, "leak:OHMS, for example leak:47k")));
    const parsed = parseQuantity(what, { unit: "F" });
    if (!parsed.ok || !(parsed.quantity.value > 0)) throw new AlterError(change, "open, short, leak:OHMS or farads above zero such as 10u");
    return replace(circuit, e, { ...e, value: parsed.quantity.value });
  }
  if (e.tube) return changeTube(circuit, e, change, word, argument);
  if (isRectifier(e.type)) {
    if (word === "dead") return withParams({ dead: 1 });
    if (word === "half") return withParams({ half: 1 });
    if (word === "winding-short") return withParams({ shorted: 1 });
    if (word === "through") return withParams({ dead: 1, through: 1 });
    if (word === "heater-open" && e.rectifierTube) return heaterOpen(circuit, e);
    const factor = Number(argument);
    if (word === "weak" && factor > 0) return withParams({ weak: factor });
    throw new AlterError(change, "weak:3, half, dead, through (a diode shorted), winding-short or heater-open");
  }
  if (e.type === "POT") {
    if (word === "wiper-open") return withParams({ wiper: "open" });
    const pos = Number(word);
    if (word !== "" && pos >= 0 && pos <= 1) return withParams({ pos });
    throw new AlterError(change, "a position from 0 to 1, or wiper-open");
  }
  if (e.type === "SW") {
    if (word === "open" || word === "closed") return withParams({ state: word });
    throw new AlterError(change, "open or closed");
  }
  if (e.type === "SW2") {
    if (word === "1" || word === "2") return withParams({ state: Number(word) });
    if (word === "open") return replace(circuit, e);
    throw new AlterError(change, "1, 2 or open");
  }
  if (e.letter === "V" || e.letter === "I") {
    const parsed = parseQuantity(what);
    if (parsed.ok) return replace(circuit, e, { ...e, value: parsed.quantity.value });
    throw new AlterError(change, "a number");
  }
  if (e.letter === "D" || e.type === "ZENER") {
    if (word === "open") return replace(circuit, e);
    if (word === "short") return replace(circuit, e, stray(e, "", a, b, SHORT_OHMS));
    throw new AlterError(change, "open or short");
  }
  if (e.type === "OPT_SE" || e.type === "OPT_PP" || e.type === "XFMR") return changeWinding(circuit, e, change, word, argument);
  throw new AlterError(change, `no fault is known for ${e.type ?? e.letter}`);
}

/** Electrodes by the letter that the bench uses. */
export function pinNode(e: Element, pin: string): number {
  const order = e.tube?.kind === "triode" ? ["p", "g", "k"] : ["p", "s", "g", "k"];
  return order.indexOf(pin === "a" ? "p" : pin === "g2" ? "s" : pin === "g1" ? "g" : pin);
}

function changeTube(circuit: Circuit, e: Element, change: string, word: string, argument: string): Circuit {
  const emission = (value: number) => replace(circuit, e, { ...e, params: { ...e.params, emission: value } });
  const cathode = e.nodes[e.nodes.length - 1]!;
  if (word === "dead") return emission(0);
  if (word === "heater-open") return heaterOpen(circuit, e);
  if (word === "weak") {
    const left = Number(argument);
    if (left > 0 && left <= 1) return emission(left);
    throw new AlterError(change, "weak:0.4, the part of the emission that is left");
  }
  if (word === "gassy") {
    const parsed = parseQuantity(argument, { unit: "A" });
    if (parsed.ok && parsed.quantity.value > 0) return replace(circuit, e, { ...e, params: { ...e.params, gas: parsed.quantity.value } });
    throw new AlterError(change, "gassy:2u, the grid current in amperes");
  }
  if (word === "hk") {
    // Heaters stand at ground, or at the node that their winding is referred to.
    const winding = circuit.heaters.find((h) => h.tubes.includes(envelopeOf(e.name)));
    const reference = winding?.reference && circuit.elements.some((x) => x.nodes.includes(winding.reference!)) ? winding.reference : "0";
    return replace(circuit, e, e, stray(e, "hk", cathode, reference, ohms(argument, change, "hk:OHMS, for example hk:100k")));
  }
  if (word === "short") {
    const [first, second] = [...argument.toLowerCase()].map((pin) => pinNode(e, pin));
    if (argument.length !== 2 || first === undefined || second === undefined || first < 0 || second < 0 || first === second)
      throw new AlterError(change, "short: and two of the electrodes p, s, g, k, for example short:gk");
    return replace(circuit, e, e, stray(e, `s${argument}`, e.nodes[first]!, e.nodes[second]!, 1));
  }
  throw new AlterError(change, "dead, weak:0.4, gassy:2u, hk:100k, short:gk or heater-open");
}

/** A heater that is open: its envelope stays cold; in a series string all of them do. */
function heaterOpen(circuit: Circuit, e: Element): Circuit {
  const own = envelopeOf(e.name);
  const string = circuit.heaters.find((h) => h.string && h.tubes.includes(own));
  const cold = new Set(string?.tubes ?? [own]);
  return {
    ...circuit,
    elements: circuit.elements.map((x) =>
      !cold.has(envelopeOf(x.name))
        ? x
        : x.tube
          ? { ...x, params: { ...x.params, emission: 0, cold: 1 } }
          : x.rectifierTube
            ? { ...x, params: { ...x.params, dead: 1, cold: 1 } }
            : x,
    ),
  };
}

function openPin(circuit: Circuit, name: string, pin: string, change: string, what: string): Circuit {
  const e = findElement(circuit, name);
  if (what.toLowerCase() !== "open") throw new AlterError(change, "open");
  const at = e?.tube ? pinNode(e, pin.toLowerCase()) : Number(pin) - 1;
  if (!e || !(at >= 0 && at < e.nodes.length))
    throw new AlterError(change, e?.tube ? "a pin of p, s, g or k, for example V2.g=open" : `a part of this circuit and one of its pins`);
  const loose = `${e.name.toLowerCase()}.${pin.toLowerCase()}#open`;
  return replace(circuit, e, { ...e, nodes: e.nodes.map((n, i) => (i === at ? loose : n)) });
}

function boardLeak(circuit: Circuit, change: string, name: string, what: string): Circuit {
  const [a = "", b = ""] = name.split("~").map(nodeName);
  const there = (n: string) => n === "0" || circuit.elements.some((e) => e.nodes.includes(n));
  for (const n of [a, b]) if (!there(n)) throw new AlterError(change, `nodes of this circuit; there is no ${n || "empty node"}`);
  const value = ohms(what, change, "ohms, for example b3~g1=20M");
  const line = circuit.elements[0]?.line ?? 1;
  const leak: Element = { name: `R#${a}~${b}`, letter: "R", nodes: [a, b], value, params: {}, notes: {}, line };
  return { ...circuit, elements: [...circuit.elements, leak] };
}

/** `open:1` opens the first half (or the winding), `open:2` the second; `shorted:OHMS` puts a resistance across the primary. */
function changeWinding(circuit: Circuit, e: Element, change: string, word: string, argument: string): Circuit {
  if (word === "open") {
    const end = e.type === "OPT_PP" ? (argument === "2" ? 2 : 0) : argument === "sec" ? 2 : 1;
    const loose = `${e.name.toLowerCase()}.${end + 1}#open`;
    return replace(circuit, e, { ...e, nodes: e.nodes.map((n, i) => (i === end ? loose : n)) });
  }
  if (word === "shorted") {
    const [half = "", size = half] = argument.includes(",") ? argument.split(",") : ["", argument];
    const value = ohms(size, change, "shorted:OHMS");
    const [from, to] = e.type === "OPT_PP" ? (half === "2" ? [1, 2] : [0, 1]) : [0, 1];
    return replace(circuit, e, e, stray(e, "t", e.nodes[from]!, e.nodes[to]!, value));
  }
  throw new AlterError(change, "open, open:2, or shorted:OHMS across a half");
}
