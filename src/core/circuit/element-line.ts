/** One element line of a circuit file: nodes, value, parameters. */

import { TUBE_TYPES, type TubeType } from "../tubes/library";
import { SPECIAL_PARTS, windingsOf } from "./special-parts";
import { nodeName, readPartNotes } from "./annotations";
import type { Element, Letter } from "./circuit";
import { evaluate, ExpressionError } from "./expression";
import { nearestNames } from "./nearest-name";
import { parseSpiceNumber } from "./spice-number";
import * as texts from "../texts/circuit";

export interface LineContext {
  line: number;
  params: ReadonlyMap<string, number>;
  /** Type of the file or of the library. */
  findType(name: string): TubeType | undefined;
  error(found: string, expected: string): void;
  warn(found: string, expected: string): void;
}

const SHAPE: Record<string, { nodes: number; form: string; positive: boolean }> = {
  R: { nodes: 2, form: texts.rnameNodeNodeOhms, positive: true },
  C: { nodes: 2, form: texts.cnameNodeNodeFarads, positive: true },
  L: { nodes: 2, form: texts.lnameNodeNodeHenries, positive: true },
  V: { nodes: 2, form: texts.vnameNodeNodeVolts, positive: false },
  I: { nodes: 2, form: texts.inameNodeNodeAmperes, positive: false },
  D: { nodes: 2, form: texts.dnameAnodeCathodeModel, positive: false },
};

const POSITIVE = /^(value|vac|zpp?|load\d?|ratio\d?|lp|gain|vmax|gbw|kp|vz)$/;
const NOT_NEGATIVE = /^(rs|dcr2?|dcrsec|ll|rz|lambda)$/;
const FRACTION = /^(ul|tap)$/;

/** Reads a value or a `{…}` expression; reports and gives undefined when it is neither. */
function readNumber(text: string, what: string, at: LineContext): number | undefined {
  const braces = /^\{(.*)\}$/.exec(text);
  if (braces) {
    try {
      return evaluate(braces[1] ?? "", at.params);
    } catch (error) {
      if (!(error instanceof ExpressionError)) throw error;
      at.error(text, error.message);
      return undefined;
    }
  }
  const number = parseSpiceNumber(text);
  if (number.ok) return number.value;
  at.error(text, `${what}: ${number.expected}`);
  return undefined;
}

/** Splits an element line into words; a brace expression or a quoted text is one word, and `a = b` is `a=b`. */
function words(text: string): string[] {
  return text.replace(/\s*=\s*/g, "=").match(/(?:[^\s{"]|\{[^}]*\}|"[^"]*")+/g) ?? [];
}

/** Reads one element line (comment already split off); undefined when it is too broken to stand for anything. */
export function readElement(text: string, comment: string, at: LineContext): Element | undefined {
  const notes = readPartNotes(comment, (found, expected) => at.error(found, expected));
  const [label = "", ...rest] = words(text);
  const letter = label.charAt(0).toUpperCase() as Letter;
  const name = label.toUpperCase();
  if (letter === "X") return readSpecial(name.slice(1), rest, notes, at);
  if (letter === "K") return readCoupling(name, rest, notes, at);
  const shape = SHAPE[letter];
  if (!shape) {
    at.error(label.slice(0, 40), texts.elementDotCommandComment());
    return undefined;
  }
  const plain = rest.filter((w) => !w.includes("="));
  if (plain.length < shape.nodes + 1) {
    at.error(text.slice(0, 60), shape.form);
    return undefined;
  }
  const extra = plain.slice(shape.nodes + 1).filter((w) => !/^(dc|ac)$/i.test(w));
  const nodes = plain.slice(0, shape.nodes).map(nodeName);
  const base = { name, letter, nodes, params: {}, notes, line: at.line };
  if (letter === "D") return { ...base, type: plain[2]!.toUpperCase() };
  // Sources may be written `V1 a 0 DC 5`.
  const typed = /^dc$/i.test(plain[2]!) ? plain[3] : plain[2];
  if (typed === undefined) {
    at.error(text.slice(0, 60), shape.form);
    return undefined;
  }
  if (extra.length > (typed === plain[2] ? 0 : 1)) at.error(extra.join(" ").slice(0, 40), texts.nothingAfterValue(shape.form));
  const value = readNumber(typed, shape.form, at);
  if (value === undefined) return undefined;
  if (shape.positive && !(value > 0)) {
    at.error(typed, texts.valueAboveZero());
    return undefined;
  }
  if (letter === "R" && /^[\d.]+M(ohm)?$/.test(typed)) at.warn(typed, texts.ifMegohmsMeantMilli(typed.replace(/M.*/, "MEG")));
  if (nodes[0] === nodes[1]) at.warn(texts.fromTo(name, nodes[0], nodes[1]), texts.twoDifferentNodesPart());
  return { ...base, value };
}

function readCoupling(name: string, rest: string[], notes: Element["notes"], at: LineContext): Element | undefined {
  const [first, second, typed] = rest;
  if (!first || !second || !typed) {
    at.error([name, ...rest].join(" ").slice(0, 60), texts.knameCoupling());
    return undefined;
  }
  const value = readNumber(typed, texts.knameCoupling(), at);
  if (value === undefined) return undefined;
  if (!(value > 0 && value <= 1)) {
    at.error(typed, texts.couplingAboveUp());
    return undefined;
  }
  return {
    name,
    letter: "K",
    nodes: [],
    value,
    params: { first: first.toUpperCase(), second: second.toUpperCase() },
    notes,
    line: at.line,
  };
}

/** What was found for a type before: a pasted file may call one kind a thousand times. */
const FOUND = new Map<string, string>();
const MOST_FOUND = 500;

/** "6L6GC? or " for 6L6: the types whose names come nearest to what was read; "" where none is near. */
function nearestWords(type: string): string {
  const before = FOUND.get(type);
  if (before !== undefined) return before;
  const words = lookForNearest(type);
  if (FOUND.size < MOST_FOUND) FOUND.set(type, words);
  return words;
}

function lookForNearest(type: string): string {
  const names = [...TUBE_TYPES.flatMap((t) => [t.type, ...t.aliases]), ...Object.keys(SPECIAL_PARTS)];
  const near = nearestNames(type, names).slice(0, 3);
  return near.length > 0 ? `${near.join("? ")}? or ` : "";
}

/** `XNAME node … TYPE key=value …`: a tube or a special part. */
function readSpecial(name: string, rest: string[], notes: Element["notes"], at: LineContext): Element | undefined {
  const firstPair = rest.findIndex((w) => w.includes("="));
  const plain = firstPair < 0 ? rest : rest.slice(0, firstPair);
  const pairs = firstPair < 0 ? [] : rest.slice(firstPair);
  const type = plain[plain.length - 1]?.toUpperCase();
  const nodes = plain.slice(0, -1).map(nodeName);
  if (!name || !type || plain.length < 2) {
    at.error(["X" + name, ...rest].join(" ").slice(0, 60), texts.xnameNodeNodeType());
    return undefined;
  }
  const base: Element = { name, letter: "X", nodes, type, params: {}, notes, line: at.line };
  const tube = at.findType(type);
  if (tube && tube.kind !== "rectifier") {
    const electrodes = tube.kind === "triode" ? ["plate", "grid", "cathode"] : ["plate", "screen", "grid", "cathode"];
    if (nodes.length !== electrodes.length) {
      at.error(texts.nodesFor(nodes.length, type), `${electrodes.length}: ${electrodes.join(" ")}`);
      return undefined;
    }
    for (const pair of pairs) at.error(pair, texts.noParametersAfter(type));
    return { ...base, type: tube.type, tube };
  }
  const spec = Object.hasOwn(SPECIAL_PARTS, type) ? SPECIAL_PARTS[type] : undefined;
  if (!spec) {
    const what = tube
      ? texts.rectElementTube(type)
      : texts.tubeLibraryOneTube(
          nearestWords(type),
          TUBE_TYPES.slice(0, 4)
            .map((t) => t.type)
            .join(", "),
          Object.keys(SPECIAL_PARTS).join(", "),
        );
    at.error(texts.type(type.slice(0, 40)), what);
    return undefined;
  }
  if (nodes.length < spec.nodes.length || nodes.length > (spec.most ?? spec.nodes.length)) {
    at.error(texts.nodesFor(nodes.length, type), `${spec.nodes.length}${spec.most ? ` to ${spec.most}` : ""}: ${spec.nodes.join(" ")}`);
    return undefined;
  }
  const accepted = [...spec.needs, ...(spec.either ?? []), ...spec.may];
  for (const pair of pairs) {
    const [, key = "", typed = ""] = /^([\w-]+)=(.*)$/.exec(pair) ?? [];
    const lower = key.toLowerCase();
    if (!accepted.includes(lower)) {
      at.error(pair.slice(0, 40), texts.oneOf(accepted.map((k) => `${k}=`).join(", ")));
      continue;
    }
    const choice = spec.words?.[lower];
    if (choice) {
      const word = typed.toLowerCase();
      if (choice[0] !== "*" && !choice.includes(word)) at.error(pair, `${key}= ${choice.join(" or ")}`);
      else if (lower === "tube" && !/^(silicon|selenium)$/.test(word) && at.findType(word)?.kind !== "rectifier") {
        at.error(pair, texts.tubeRectifierLibrarySilicon());
      } else base.params[lower] = (lower === "tube" && at.findType(word)?.type) || word;
      if (lower === "tube") base.rectifierTube = at.findType(word);
      continue;
    }
    const value = readNumber(typed, `${type} ${key}=`, at);
    if (value !== undefined) base.params[lower] = value;
    if (value !== undefined && lower === "pos" && !(value >= 0 && value <= 1)) at.error(pair, "pos= from 0 to 1");
    if (value !== undefined && POSITIVE.test(lower) && !(value > 0)) at.error(pair, texts.aboveZero(key));
    if (value !== undefined && NOT_NEGATIVE.test(lower) && value < 0) at.error(pair, texts.zeroMore(key));
    if (value !== undefined && FRACTION.test(lower) && !(value > 0 && value < 1)) at.error(pair, texts.betweenAnd(key));
    if (lower === "value" && /^[\d.]+M$/.test(typed)) at.warn(typed, texts.egIfMegohmsMeant(typed));
  }
  for (const key of spec.needs)
    if (!pairs.some((p) => p.toLowerCase().startsWith(`${key}=`))) at.error(texts.without(type, key), texts.withANumber(key));
  const missing = spec.either && !spec.either.some((key) => key in base.params);
  if (missing) at.error(texts.without(type, spec.either![0]), texts.withANumber2(spec.either!.map((k) => `${k}=`).join(" or ")));
  const windings = windingsOf(type, nodes.length, base.params);
  if (windings) at.error(texts.nodesFor(nodes.length, type), windings);
  const value = base.params.value;
  return { ...base, value: typeof value === "number" ? value : undefined };
}
