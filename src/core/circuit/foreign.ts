/**
 * Netlists of a general SPICE: their tubes are subcircuits under names and in pin orders of their own. Which of them is which tube is asked
 * once; the text is then rewritten in Scutum's terms.
 */

import { findTubeType, TUBE_TYPES, type TubeType } from "../tubes/library";
import { SPECIAL_PARTS } from "./special-parts";
import { nearestNames } from "./nearest-name";

/** What a node of a foreign tube is; "unused" for a heater, a shield, a suppressor that is tied inside. */
export type ForeignPin = "plate" | "screen" | "grid" | "cathode" | "unused";

/** What a foreign name stands for. */
export interface ForeignMeaning {
  /** Tube type of the library. */
  type: string;
  pins: ForeignPin[];
}

/** A kind of subcircuit that the file calls and that is no tube or part of Scutum's under that name. */
export interface ForeignKind {
  name: string;
  /** Names of its calls, in order. */
  calls: string[];
  /** Formal nodes where the file has its definition; else numbers. */
  nodes: string[];
  /** What it probably is, by its name and the names of its nodes. */
  guess?: ForeignMeaning;
}

interface Call {
  line: number;
  name: string;
  nodes: string[];
  type: string;
  rest: string;
}

/** Joins continued lines: each with the number of its first line and how many it took. */
function logicalLines(text: string): { text: string; line: number; count: number }[] {
  const out: { text: string; line: number; count: number }[] = [];
  text.split("\n").forEach((raw, i) => {
    const last = out.at(-1);
    if (/^\s*\+/.test(raw) && last) {
      last.text += ` ${raw.replace(/^\s*\+/, "").trim()}`;
      last.count = i - last.line + 2;
    } else out.push({ text: raw, line: i + 1, count: 1 });
  });
  return out;
}

function callOf(text: string, line: number): Call | undefined {
  const body = text.replace(/;.*$/, "").trim();
  if (!/^x/i.test(body)) return undefined;
  const words = body.replace(/\s*=\s*/g, "=").split(/\s+/);
  const pairs = words.findIndex((w) => w.includes("=") || /^params:$/i.test(w));
  const plain = pairs < 0 ? words : words.slice(0, pairs);
  if (plain.length < 4) return undefined;
  return { line, name: plain[0]!.slice(1), nodes: plain.slice(1, -1), type: plain.at(-1)!, rest: "" };
}

const isKnown = (type: string) => findTubeType(type) !== undefined || Object.hasOwn(SPECIAL_PARTS, type.toUpperCase());

/** The kinds that have to be asked about; none for a file in Scutum's own terms. */
export function foreignKinds(text: string, known: Readonly<Record<string, ForeignMeaning>> = {}): ForeignKind[] {
  const formal = new Map<string, { nodes: string[]; plain: boolean }>();
  const calls: Call[] = [];
  let inside: { nodes: string[]; plain: boolean } | undefined;
  for (const { text: t, line } of logicalLines(text)) {
    const sub = /^\s*\.subckt\s+(\S+)\s+([^;]*)/i.exec(t);
    if (sub) {
      inside = { nodes: sub[2]!.split(/\s+/).filter((n) => n !== "" && !n.includes("=") && !/^params:$/i.test(n)), plain: true };
      formal.set(sub[1]!.toUpperCase(), inside);
    } else if (/^\s*\.ends\b/i.test(t)) inside = undefined;
    else if (inside) inside.plain &&= PLAIN.test(t);
    else {
      const call = callOf(t, line);
      if (call) calls.push(call);
    }
  }
  const kinds = new Map<string, ForeignKind>();
  for (const call of calls) {
    const key = call.type.toUpperCase();
    const own = formal.get(key);
    // A subcircuit that is made of plain parts is written out by the reader: a tone stack, a filter.
    if (own ? own.plain : isKnown(call.type)) continue;
    const nodes = own?.nodes ?? call.nodes.map((_, i) => String(i + 1));
    const kind = kinds.get(key) ?? {
      name: call.type,
      calls: [],
      nodes,
      guess: known[key]?.pins.length === call.nodes.length ? known[key] : guessOf(call.type, nodes),
    };
    kind.calls.push(call.name);
    kinds.set(key, kind);
  }
  return [...kinds.values()];
}

/** A line of a subcircuit that the reader knows. */
const PLAIN = /^\s*($|[RCLK*;])/i;

/** What the letters of node names mean in models of tubes. */
function pinOf(node: string): ForeignPin | undefined {
  const name = node.toLowerCase();
  if (/^(p|a|plate|anode|an)\d?$/.test(name)) return "plate";
  if (/^(g2|s|sg|screen|g_2)$/.test(name)) return "screen";
  if (/^(g|g1|grid|cg)$/.test(name)) return "grid";
  if (/^(k|c|cath|cathode)\d?$/.test(name)) return "cathode";
  return undefined;
}

const USUAL: Record<number, ForeignPin[]> = { 3: ["plate", "grid", "cathode"], 4: ["plate", "screen", "grid", "cathode"] };

/** The tube that a name begins with, and the pins by their names; in the usual order where the names say nothing. */
function guessOf(name: string, nodes: readonly string[]): ForeignMeaning | undefined {
  const plain = name
    .toUpperCase()
    .replace(/[^A-Z0-9]+/g, " ")
    .trim();
  const words = plain.split(" ");
  const named =
    words.map((w) => findTubeType(w)).find((t) => t !== undefined && t.kind !== "rectifier") ?? longestPrefix(plain.replace(/ /g, ""));
  const near =
    named ??
    nearestNames(
      words[0] ?? "",
      TUBE_TYPES.map((t) => t.type),
    )
      .map((n) => findTubeType(n)!)
      .find((t) => t.kind !== "rectifier");
  if (!near) return undefined;
  const pins = nodes.map((n) => pinOf(n));
  const wanted: ForeignPin[] = near.kind === "triode" ? ["plate", "grid", "cathode"] : ["plate", "screen", "grid", "cathode"];
  if (wanted.every((w) => pins.includes(w))) return { type: near.type, pins: pins.map((p) => p ?? "unused") };
  const usual = USUAL[nodes.length];
  return { type: near.type, pins: usual && usual.length === wanted.length ? usual : nodes.map((_, i) => wanted[i] ?? "unused") };
}

function longestPrefix(name: string): TubeType | undefined {
  const names = TUBE_TYPES.filter((t) => t.kind !== "rectifier").flatMap((t) =>
    [t.type, ...t.aliases].map((n) => [n.toUpperCase(), t] as const),
  );
  return names.filter(([n]) => name.startsWith(n)).sort((a, b) => b[0].length - a[0].length)[0]?.[1];
}

/** What is wrong with a meaning; undefined for one that can be used. */
export function wrongMeaning({ type, pins }: ForeignMeaning): string | undefined {
  const tube = findTubeType(type);
  if (!tube || tube.kind === "rectifier") return `${type || "nothing"} is no tube of the library`;
  const wanted: ForeignPin[] = tube.kind === "triode" ? ["plate", "grid", "cathode"] : ["plate", "screen", "grid", "cathode"];
  for (const pin of wanted) if (pins.filter((p) => p === pin).length !== 1) return `${type} needs one ${pin}`;
  const odd = pins.find((p) => p !== "unused" && !wanted.includes(p));
  return odd && `${type} has no ${odd}`;
}

/** Statements of a simulation run, and of what a circuit file has no use for. */
const RUN =
  /^\s*\.(tran|ac|dc|op|noise|four|meas|measure|print|plot|probe|save|control|endc|temp|ic|nodeset|backanno|include|inc|lib|options?|step|wave|global|width|function|func|net)\b/i;
const SOURCE = /^\s*[vi]\w*\s+\S+\s+\S+\s+.*\b(sin|sine|pulse|pwl|exp|sffm|wavefile)\b/i;

/**
 * The file in Scutum's terms: calls of tubes with their type and pin order, definitions of those left out, what belongs to a run of the
 * simulation left out as comments that say so. Everything else stays as it was.
 * @param meanings by the foreign name, upper case.
 */
export function rewriteForeign(text: string, meanings: Readonly<Record<string, ForeignMeaning>>): { text: string; left: string[] } {
  const out: string[] = [];
  const left: string[] = [];
  const taken = new Set([...text.matchAll(/^\s*x(\S+)/gim)].map((m) => m[1]!.toUpperCase()));
  let skipping = false;
  let running = false;
  const lines = text.split("\n");
  for (const { text: t, line, count } of logicalLines(text)) {
    const whole = lines.slice(line - 1, line - 1 + count);
    const drop = (why: string) => {
      out.push(...whole.map((l) => `* ${why}: ${l.trim()}`));
      left.push(t.trim());
    };
    if (line === 1) out.push(...whole);
    else if (skipping) {
      skipping = !/^\s*\.ends\b/i.test(t);
    } else if (/^\s*\.subckt\b/i.test(t) && meanings[/^\s*\.subckt\s+(\S+)/i.exec(t)?.[1]?.toUpperCase() ?? ""]) skipping = true;
    else if (/^\s*\.control\b/i.test(t) || running) {
      running = !/^\s*\.endc\b/i.test(t);
      drop("left out");
    } else if (RUN.test(t)) drop("left out");
    else if (SOURCE.test(t)) {
      // A signal source is nothing for direct current: its place is held at its other end.
      const [name = "", a = "", b = ""] = t.trim().split(/\s+/);
      out.push(`* left out: ${t.trim()}`, `R${name} ${a} ${b} 1k ;@label "In place of ${name}"`);
      left.push(t.trim());
    } else {
      const call = callOf(t, line);
      const meaning = call && meanings[call.type.toUpperCase()];
      if (!call || !meaning) out.push(...whole);
      else out.push(tubeLine(call, meaning, taken));
    }
  }
  return { text: out.join("\n"), left };
}

function tubeLine(call: Call, { type, pins }: ForeignMeaning, taken: Set<string>): string {
  const kind = findTubeType(type)!.kind;
  const order: ForeignPin[] = kind === "triode" ? ["plate", "grid", "cathode"] : ["plate", "screen", "grid", "cathode"];
  const nodes = order.map((pin) => call.nodes[pins.indexOf(pin)]!);
  // Tubes are called V here: U1 and TUBE1 become V1 where nothing else has that name.
  const number = /^(?:U|T|TUBE|VT|V)?(\d+[A-D]?)$/i.exec(call.name)?.[1]?.toUpperCase();
  const wanted = number ? `V${number}` : call.name;
  const name = wanted.toUpperCase() === call.name.toUpperCase() || !taken.has(wanted.toUpperCase()) ? wanted : call.name;
  taken.add(name.toUpperCase());
  return `X${name} ${nodes.join(" ")} ${type}`;
}
