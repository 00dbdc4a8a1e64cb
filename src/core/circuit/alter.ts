/** Changes to a circuit, as faults, pulled tubes and turned controls make them: always a new circuit, the old one stays. */

import { parseQuantity } from "../quantity/parse";
import { envelopeOf, findElement, type Circuit, type Element } from "./circuit";
import { findTubeType } from "../tubes/library";
import { isRectifier } from "./special-parts";
import { nodeName } from "./annotations";
import { changeableOf, withRating } from "./change-ratings";
import * as texts from "../texts/circuit";

/** A change that cannot be made, with what was read and what is accepted. */
export class AlterError extends Error {
  constructor(
    readonly found: string,
    readonly expected: string,
  ) {
    super(texts.expected(found, expected));
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
      throw new AlterError(texts.tube(typed), texts.oneOf(there.join(", ")));
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
  if (equals < 1) throw new AlterError(change, texts.nameChangeExampleOpen());
  const name = change.slice(0, equals).trim();
  const what = change.slice(equals + 1).trim();
  if (name.includes("~")) return boardLeak(circuit, change, name, what);
  if (name.toLowerCase() === "mains") return mainsShare(circuit, change, what);
  const element = findElement(circuit, name);
  if (element) return changeElement(circuit, element, change, what);
  const envelope = circuit.elements.filter((e) => e.tube && envelopeOf(e.name) === name.replace(/^x(?=v)/i, "").toUpperCase());
  if (envelope.length > 0) return envelope.reduce((c, e) => changeElement(c, findElement(c, e.name)!, change, what), circuit);
  const dot = name.lastIndexOf(".");
  const rated = dot > 0 ? findElement(circuit, name.slice(0, dot)) : undefined;
  const key = name.slice(dot + 1).toLowerCase();
  if (rated && changeableOf(rated).includes(key)) {
    const by = withRating(rated, key, what);
    if (!by) throw new AlterError(change, texts.ratingExample(key));
    return replace(circuit, rated, by);
  }
  if (dot > 0) return openPin(circuit, name.slice(0, dot), name.slice(dot + 1), change, what);
  throw new AlterError(change, texts.partCircuitThereNo(name));
}

/** `mains=0.9`: the amp gets nine tenths of what is entered. */
function mainsShare(circuit: Circuit, change: string, what: string): Circuit {
  const share = Number(what);
  if (!(share > 0 && share <= 2)) throw new AlterError(change, texts.partEnteredMainsAmp());
  return { ...circuit, mainsShare: (circuit.mainsShare ?? 1) * share };
}

function replace(circuit: Circuit, element: Element, ...by: Element[]): Circuit {
  const at = circuit.elements.indexOf(element);
  return { ...circuit, elements: circuit.elements.slice(0, at).concat(by, circuit.elements.slice(at + 1)) };
}

/** A resistor that a fault puts in, beside the part it belongs to. */
function stray(near: Element, suffix: string, a: string, b: string, value: number): Element {
  return { name: `R#${near.name}${suffix}`, letter: "R", nodes: [a, b], value, params: {}, notes: {}, line: near.line };
}

function changeElement(circuit: Circuit, e: Element, change: string, what: string): Circuit {
  // The word in any case; its argument as typed: M is mega and m is milli.
  const [head = "", argument = "", size] = what.split(":");
  const word = head.trim().toLowerCase();
  const [a, b] = e.nodes as [string, string];
  const withParams = (params: Element["params"]) => replace(circuit, e, { ...e, params: { ...e.params, ...params } });
  if (e.letter === "R" || e.letter === "L") {
    if (word === "open") return replace(circuit, e);
    if (word === "short") return replace(circuit, e, { ...stray(e, "", a, b, SHORT_OHMS), name: e.name });
    if (word === "choke" && e.letter === "R") return replace(circuit, e, chokeFor(e, change, argument, size));
    const accepted = e.letter === "R" ? texts.openShortValueAbove() : texts.openShortHenriesAbove();
    const parsed = parseQuantity(what, { unit: e.letter === "R" ? "Ω" : "H" });
    if (!parsed.ok || !(parsed.quantity.value > 0)) throw new AlterError(change, accepted);
    return replace(circuit, e, { ...e, value: parsed.quantity.value });
  }
  if (e.letter === "C") {
    if (word === "open") return replace(circuit, e);
    if (word === "short") return replace(circuit, e, e, stray(e, "s", a, b, SHORT_OHMS));
    if (word === "leak") return replace(circuit, e, e, stray(e, "l", a, b, ohms(argument, change, texts.leakOhmsExampleLeak())));
    const parsed = parseQuantity(what, { unit: "F" });
    if (!parsed.ok || !(parsed.quantity.value > 0)) throw new AlterError(change, texts.openShortLeakOhms());
    return replace(circuit, e, { ...e, value: parsed.quantity.value });
  }
  if (e.tube) return changeTube(circuit, e, change, word, argument, size);
  if (isRectifier(e.type)) {
    if (word === "tube") return replace(circuit, e, rectifierOf(circuit, e, change, argument));
    if (word === "dead") return withParams({ dead: 1 });
    if (word === "half") return withParams({ half: 1 });
    if (word === "winding-short") return withParams({ shorted: 1 });
    if (word === "through") return withParams({ dead: 1, through: 1 });
    if (word === "heater-open" && e.rectifierTube) return heaterOpen(circuit, e);
    const factor = Number(argument);
    if (word === "weak" && factor > 0) return withParams({ weak: factor });
    if (word === "weakside" && factor > 0 && e.type === "RECT_FULL") return withParams({ weakside: factor });
    const diode = argument.trim().toLowerCase();
    if ((word === "upper" || word === "lower") && e.nodes.length > 2 && (diode === "dead" || diode === "through"))
      return withParams({ [word]: diode });
    throw new AlterError(change, texts.weakHalfDeadThrough());
  }
  if (e.type === "POT") {
    if (word === "wiper-open") return withParams({ wiper: "open" });
    const pos = Number(word);
    if (word !== "" && pos >= 0 && pos <= 1) return withParams({ pos });
    throw new AlterError(change, texts.positionFromWiperOpen());
  }
  if (e.type === "SW") {
    if (word === "open" || word === "closed") return withParams({ state: word });
    throw new AlterError(change, texts.openClosed());
  }
  if (e.type === "SW2") {
    if (word === "1" || word === "2") return withParams({ state: Number(word) });
    if (word === "open") return replace(circuit, e);
    throw new AlterError(change, texts.orOpen());
  }
  if (e.letter === "V" || e.letter === "I") {
    const parsed = parseQuantity(what);
    if (parsed.ok) return replace(circuit, e, { ...e, value: parsed.quantity.value });
    throw new AlterError(change, "a number");
  }
  if (e.letter === "D" || e.type === "ZENER") {
    if (word === "open") return replace(circuit, e);
    if (word === "short") return replace(circuit, e, stray(e, "", a, b, SHORT_OHMS));
    throw new AlterError(change, texts.openShort());
  }
  if (e.type === "OPT_SE" || e.type === "OPT_PP" || e.type === "XFMR") return changeWinding(circuit, e, change, word, argument);
  throw new AlterError(change, texts.noFaultKnown(e.type ?? e.letter));
}

/** `R1=choke:5:95`: henries and ohms of the choke in its place. */
function chokeFor(e: Element, change: string, henries: string, dcr = ""): Element {
  const [value, winding] = [parseQuantity(henries, { unit: "H" }), parseQuantity(dcr, { unit: "Ω" })];
  if (!value.ok || !winding.ok || !(value.quantity.value > 0) || !(winding.quantity.value > 0))
    throw new AlterError(change, texts.chokeExample());
  const { label, year } = e.notes;
  return { ...e, name: `L#${e.name}`, letter: "L", value: value.quantity.value, notes: { label, year, dcr: winding.quantity.value } };
}

/** `PS=tube:silicon`, `PS=tube:GZ34`: another rectifier on the same winding. */
function rectifierOf(circuit: Circuit, e: Element, change: string, argument: string): Element {
  const word = argument.trim().toLowerCase();
  const solid = word === "silicon" || word === "selenium";
  const tube = solid ? undefined : (circuit.tubeTypes[argument.trim().toUpperCase()] ?? findTubeType(argument.trim()));
  if (!solid && tube?.kind !== "rectifier") throw new AlterError(change, texts.rectifierExample());
  const { rectifierTube: _old, ...rest } = e;
  return { ...rest, params: { ...e.params, tube: tube?.type ?? word }, ...(tube ? { rectifierTube: tube } : {}) };
}

/** Electrodes by the letter that the bench uses. */
export function pinNode(e: Element, pin: string): number {
  const order = e.tube?.kind === "triode" ? ["p", "g", "k"] : ["p", "s", "g", "k"];
  return order.indexOf(pin === "a" ? "p" : pin === "g2" ? "s" : pin === "g1" ? "g" : pin);
}

function changeTube(circuit: Circuit, e: Element, change: string, word: string, argument: string, size?: string): Circuit {
  const emission = (value: number) => replace(circuit, e, { ...e, params: { ...e.params, emission: value } });
  const cathode = e.nodes[e.nodes.length - 1]!;
  if (word === "dead") return emission(0);
  if (word === "heater-open") return heaterOpen(circuit, e);
  if (word === "weak") {
    const left = Number(argument);
    if (left > 0 && left <= 1) return emission(left);
    throw new AlterError(change, texts.weakPartEmissionLeft());
  }
  if (word === "strength") {
    const parts = Number(argument);
    if (parts > 0 && parts <= 3) return replace(circuit, e, { ...e, notes: { ...e.notes, strength: parts } });
    throw new AlterError(change, texts.strengthParts());
  }
  if (word === "gassy") {
    const parsed = parseQuantity(argument, { unit: "A" });
    if (parsed.ok && parsed.quantity.value > 0) return replace(circuit, e, { ...e, params: { ...e.params, gas: parsed.quantity.value } });
    throw new AlterError(change, texts.gassyGridCurrentAmperes());
  }
  if (word === "hk") {
    // Heaters stand at ground, or at the node that their winding is referred to.
    const winding = circuit.heaters.find((h) => h.tubes.includes(envelopeOf(e.name)));
    const reference = winding?.reference && circuit.elements.some((x) => x.nodes.includes(winding.reference!)) ? winding.reference : "0";
    return replace(circuit, e, e, stray(e, "hk", cathode, reference, ohms(argument, change, texts.hkOhmsExampleHk())));
  }
  if (word === "short" || word === "swap") {
    const [first, second] = [...argument.toLowerCase()].map((pin) => pinNode(e, pin));
    if (argument.length !== 2 || first === undefined || second === undefined || first < 0 || second < 0 || first === second)
      throw new AlterError(change, texts.twoElectrodesExampleGk(word, word));
    const [one, other] = [e.nodes[first]!, e.nodes[second]!];
    if (word === "swap") return replace(circuit, e, { ...e, nodes: e.nodes.map((n, i) => (i === first ? other : i === second ? one : n)) });
    const between = size === undefined ? 1 : ohms(size, change, texts.shortGkOneOhm());
    return replace(circuit, e, e, stray(e, `s${argument}`, one, other, between));
  }
  if (word === "type") {
    const type = circuit.tubeTypes[argument.toUpperCase()] ?? findTubeType(argument);
    if (type?.kind !== e.tube!.kind || !type.model) throw new AlterError(change, texts.typeAnotherExampleType(e.tube!.kind));
    return replace(circuit, e, { ...e, type: type.type, tube: type });
  }
  throw new AlterError(change, texts.deadWeakGassyHk());
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
  if (!e || !(at >= 0 && at < e.nodes.length)) throw new AlterError(change, e?.tube ? texts.pinExampleOpen() : texts.partCircuitOnePins());
  const loose = `${e.name.toLowerCase()}.${pin.toLowerCase()}#open`;
  return replace(circuit, e, { ...e, nodes: e.nodes.map((n, i) => (i === at ? loose : n)) });
}

function boardLeak(circuit: Circuit, change: string, name: string, what: string): Circuit {
  const [a = "", b = ""] = name.split("~").map(nodeName);
  const there = (n: string) => n === "0" || circuit.elements.some((e) => e.nodes.includes(n));
  for (const n of [a, b]) if (!there(n)) throw new AlterError(change, texts.nodesCircuitThereNo(n || texts.emptyNode()));
  const value = ohms(what, change, texts.ohmsExample());
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
  throw new AlterError(change, texts.openOpenShortedOhms());
}
