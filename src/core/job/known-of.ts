/** Everything that is known of a part or a node, as lines of a name and a value. */

import { figure, words } from "../language/language";
import { electrodesOf } from "../anatomy/points";
import { socketOf } from "../anatomy/sockets";
import { envelopeOf, fileName, type Circuit, type Element } from "../circuit/circuit";
import { markedValue, partWords, placeOf, terminalWords } from "../circuit/part-place";
import { shownAt, type Solution } from "../expectation/solution";
import { formatQuantity, formatVolts } from "../quantity/format";

export interface Fact {
  name: string;
  value: string;
  /** More than its rating. */
  over?: boolean;
}

const PROVENANCE = {
  seen: "read off the part",
  assumed: "assumed, not seen",
  printed: "as printed on the drawing",
  settled: "settled on a chart or on readings",
} as const;

/** Volts without a meter: what the parts have across them. */
const voltsAt = (solution: Solution, node: string): number | undefined => (node === "0" ? 0 : solution.nodes[node]);

/** What the file says of a part. */
export function ratingsOf(e: Element): Fact[] {
  const { notes } = e;
  const out: Fact[] = [];
  const add = (name: string, value: string | undefined) => value !== undefined && out.push({ name, value });
  add("tolerance", notes.tol === undefined ? undefined : `± ${figure(Math.round(notes.tol * 1000) / 10)} %`);
  add(
    "rated",
    [notes.volts !== undefined && markedValue(notes.volts, "V"), notes.watts !== undefined && markedValue(notes.watts, "W")]
      .filter(Boolean)
      .join(", ") || undefined,
  );
  add("kind", notes.kind);
  add("can", notes.section);
  add("year", notes.year?.toString());
  add("what it is", notes.label);
  add("known from", notes.prov ? PROVENANCE[notes.prov] : undefined);
  return out;
}

/** What a part does in the solved circuit: volts across it, current, watts, each against its rating. */
export function workOf(e: Element, solution: Solution): Fact[] {
  const out: Fact[] = [];
  const [a, b] = e.nodes.map((n) => voltsAt(solution, n));
  if (e.nodes.length === 2 && a !== undefined && b !== undefined) {
    out.push({ name: "across", value: formatVolts(Math.abs(a - b)) });
    if (e.letter === "R" && e.value) out.push({ name: "current", value: formatQuantity(Math.abs(a - b) / e.value, "A", 3) });
  }
  const tube = solution.tubes[e.name];
  if (tube) {
    out.push(
      { name: "plate to cathode", value: formatVolts(tube.plateVolts) },
      { name: "grid to cathode", value: formatVolts(tube.gridVolts) },
    );
    out.push({ name: "plate current", value: formatQuantity(tube.plateMilliamps / 1e3, "A", 3) });
    if (tube.screenMilliamps !== undefined) out.push({ name: "screen current", value: formatQuantity(tube.screenMilliamps / 1e3, "A", 3) });
  }
  for (const s of solution.stresses.filter((each) => each.part === e.name)) {
    const unit = s.kind.endsWith("volts") ? "V" : "W";
    const share = s.share === undefined ? "" : `, ${Math.round(s.share * 100)} % of ${markedValue(s.rated!, unit)}`;
    out.push({
      name: s.kind === "volts" ? "stands" : s.kind,
      value: `${formatQuantity(s.value, unit, 3)}${share}`,
      over: (s.share ?? 0) > 1,
    });
  }
  return out;
}

export interface KnownOfPart {
  title: string;
  place: string;
  /** What the file says of it. */
  facts: Fact[];
  /** What it does, as the circuit computes it. */
  work: Fact[];
}

/** A part of the circuit by its name in the file; undefined for what is not an element, such as a heater. */
export function partFacts(circuit: Circuit, part: string, solution: Solution | undefined): KnownOfPart | undefined {
  const e = circuit.elements.find((each) => fileName(each) === part);
  if (!e) return undefined;
  return { title: partWords(e), place: placeOf(circuit, e), facts: ratingsOf(e), work: solution ? workOf(e, solution) : [] };
}

export interface KnownOfNode {
  title: string;
  /** "V2 pin 8": every pin of a socket that lies on it. */
  pins: string[];
  /** The parts that meet there. */
  parts: { part: string; name: string; terminal: string }[];
  facts: Fact[];
}

export function nodeFacts(circuit: Circuit, node: string, solution: Solution | undefined): KnownOfNode {
  const point = circuit.points.find((p) => p.node === node);
  const here = circuit.elements.filter((e) => e.nodes.includes(node));
  const pins = here.flatMap((e) => (e.tube || e.rectifierTube ? pinsOn(circuit, e, node) : []));
  const volts = solution && shownAt(solution, circuit.points, node);
  const facts: Fact[] = [];
  if (volts !== undefined) facts.push({ name: "computed", value: formatVolts(volts) });
  if (point?.chart !== undefined) facts.push({ name: words("on the chart"), value: formatVolts(point.chart) });
  return {
    title: point ? `${point.name}, ${point.label}` : node === "0" ? "Chassis" : terminalWords(circuit, node),
    pins: [...new Set(pins)],
    parts: node === "0" ? [] : here.map((e) => ({ part: fileName(e), name: partWords(e), terminal: terminalOf(e, node) })),
    facts,
  };
}

function pinsOn(circuit: Circuit, e: Element, node: string): string[] {
  const socket = socketOf(circuit, envelopeOf(e.name));
  return (socket?.pins ?? []).filter((p) => p.node === node).map((p) => `${socket!.name} pin ${p.pin}`);
}

const terminalOf = (e: Element, node: string): string => electrodesOf(e).find((_, i) => e.nodes[i] === node) ?? "";
