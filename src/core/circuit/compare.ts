/** Two netlists of what should be the same amp, as found against reference, told in the trade's words. */

import type { Unit } from "../quantity/unit";
import { matchNodes, type NodeMap } from "./node-match";
import type { Circuit, Element } from "./circuit";
import { markedValue, partWords, placeOf, terminalWords } from "./part-place";
import * as texts from "../texts/circuit";

export type DifferenceKind = "missing" | "extra" | "value" | "type" | "connection" | "polarity" | "setting";

export interface Difference {
  kind: DifferenceKind;
  part: string;
  /** "V4 screen goes to B3, not to B2". */
  says: string;
  /** The part as the reference has it, and as it was found, with the reference's node names. */
  reference?: Element;
  found?: Element;
}

const UNITS: Partial<Record<Element["letter"], Unit>> = { R: "Ω", C: "F", L: "H", V: "V", I: "A" };
/** Values closer than this are the same: rounding of a redrawn figure. */
const SAME = 0.005;

const valueOf = (e: Element) => (e.value === undefined ? "" : markedValue(e.value, e.letter === "X" ? "Ω" : UNITS[e.letter]!));
/** Which way round a part sits matters for these. */
const polarised = (e: Element) =>
  e.letter === "D" || e.letter === "V" || e.letter === "I" || e.notes.kind === "electrolytic" || e.letter === "X";

/**
 * Everything in which `found` differs from `reference`. Parts are paired by name, then by what they are and where they sit;
 * nodes may be called differently in the two files.
 */
export function compareCircuits(reference: Circuit, found: Circuit): Difference[] {
  const nodes = matchNodes(reference, found);
  const theirs = found.elements.map((e) => inReferenceNodes(e, nodes));
  const pairs = pairUp(reference.elements, theirs);
  const out: Difference[] = [];
  for (const r of reference.elements) {
    const f = pairs.get(r);
    if (!f) out.push({ kind: "missing", part: r.name, says: texts.isMissing(partWords(r), placeOf(reference, r)), reference: r });
    else out.push(...differencesOf(reference, r, f));
  }
  const taken = new Set(pairs.values());
  for (const f of theirs)
    if (!taken.has(f)) out.push({ kind: "extra", part: f.name, says: texts.notReference(partWords(f), placeOf(reference, f)), found: f });
  return out;
}

/** The reference with one difference carried into it, to be solved and held against the reference itself. */
export function carryOver(reference: Circuit, difference: Difference): Circuit {
  const { reference: r, found: f } = difference;
  if (!r) return { ...reference, elements: [...reference.elements, f!] };
  return { ...reference, elements: reference.elements.flatMap((e) => (e !== r ? [e] : f ? [{ ...f, name: r.name }] : [])) };
}

function inReferenceNodes(e: Element, nodes: NodeMap): Element {
  return { ...e, nodes: e.nodes.map((n) => nodes.get(n) ?? n) };
}

function pairUp(reference: Element[], found: Element[]): Map<Element, Element> {
  const pairs = new Map<Element, Element>();
  const free = new Set(found);
  const take = (r: Element, f: Element | undefined) => {
    if (!f) return;
    pairs.set(r, f);
    free.delete(f);
  };
  const sameSort = (r: Element, f: Element) =>
    r.letter === f.letter && (r.letter !== "X" || (r.tube ? f.tube !== undefined : r.type === f.type));
  for (const r of reference)
    take(
      r,
      [...free].find((f) => f.name === r.name && sameSort(r, f)),
    );
  const ends = (e: Element) => [...e.nodes].sort().join(" ");
  // A part under another name in the same place, first of the same value.
  for (const exact of [true, false])
    for (const r of reference)
      if (!pairs.has(r))
        take(
          r,
          [...free].find((f) => sameSort(r, f) && ends(f) === ends(r) && (!exact || sameValue(r, f))),
        );
  return pairs;
}

function sameValue(a: Element, b: Element): boolean {
  if (a.value === undefined || b.value === undefined) return a.value === b.value;
  return Math.abs(a.value - b.value) <= SAME * Math.abs(a.value);
}

function differencesOf(circuit: Circuit, r: Element, f: Element): Difference[] {
  const out: Difference[] = [];
  const say = (kind: DifferenceKind, says: string, change: Partial<Element>) =>
    out.push({ kind, part: r.name, says, reference: r, found: { ...r, ...change } });
  if (!sameValue(r, f))
    say("value", texts.isNot(r.name, valueOf(f) || texts.withoutValue(), valueOf(r)), { value: f.value, params: f.params });
  if (r.type !== f.type && (r.letter === "X" || r.letter === "D"))
    say("type", texts.isANotA(r.name, f.type, r.type), { type: f.type, tube: f.tube, rectifierTube: f.rectifierTube });
  const settings = [...new Set([...Object.keys(r.params), ...Object.keys(f.params)])].filter(
    (k) => k !== "value" && r.params[k] !== f.params[k],
  );
  for (const key of settings)
    say("setting", texts.hasNot(r.name, key, f.params[key] ?? texts.notGiven(), r.params[key] ?? texts.notGiven()), {
      params: { ...r.params, [key]: f.params[key]! },
      rectifierTube: f.rectifierTube,
    });
  out.push(...connectionDifferences(circuit, r, f));
  return out;
}

function connectionDifferences(circuit: Circuit, r: Element, f: Element): Difference[] {
  const wrong = r.nodes.flatMap((n, i) => (f.nodes[i] === n ? [] : [i]));
  if (wrong.length === 0) return [];
  const turned = r.nodes.length === 2 && f.nodes[0] === r.nodes[1] && f.nodes[1] === r.nodes[0];
  const change = { reference: r, found: { ...r, nodes: f.nodes } };
  if (turned) return polarised(r) ? [{ kind: "polarity", part: r.name, says: texts.isInBackwards(r.name), ...change }] : [];
  // A resistor with one end elsewhere may stand the other way round in the file: compare its ends as a set.
  if (r.nodes.length === 2 && !polarised(r)) {
    const kept = r.nodes.find((n) => f.nodes.includes(n));
    const to = f.nodes.find((n) => n !== kept) ?? f.nodes[1]!;
    const was = r.nodes.find((n) => n !== kept) ?? r.nodes[1]!;
    if (kept !== undefined)
      return [
        {
          kind: "connection",
          part: r.name,
          says: texts.goesFromNot(r.name, terminalWords(circuit, kept), terminalWords(circuit, to), terminalWords(circuit, was)),
          ...change,
        },
      ];
  }
  return wrong.map((i) => ({
    kind: "connection" as const,
    part: r.name,
    says: texts.goesNot(electrodeWords(r, i), terminalWords(circuit, f.nodes[i]!, r), terminalWords(circuit, r.nodes[i]!, r)),
    reference: r,
    found: { ...r, nodes: r.nodes.map((n, k) => (k === i ? f.nodes[i]! : n)) },
  }));
}

function electrodeWords(e: Element, i: number): string {
  if (e.tube) return `${e.name} ${(e.tube.kind === "triode" ? ["plate", "grid", "cathode"] : ["plate", "screen", "grid", "cathode"])[i]}`;
  if (e.type === "POT") return `${e.name} ${["start", "wiper", "end", "tap"][i]}`;
  return texts.terminal(e.name, i + 1);
}
