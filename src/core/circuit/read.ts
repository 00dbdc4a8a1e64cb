/** Reads a circuit file: SPICE element lines with structure in comments. Every bad line is reported, not the first. */

import { nodeName, readAnnotation } from "./annotations";
import type { Circuit, Element, LineNote } from "./circuit";
import { checkCircuit } from "./check";
import { readElement, type LineContext } from "./element-line";
import { findTubeType } from "../tubes/library";
import { evaluate, ExpressionError } from "./expression";
import { parseSpiceNumber } from "./spice-number";
import * as texts from "../texts/circuit";

export interface ReadResult {
  /** What could be read; complete and sound only when `errors` is empty. */
  circuit: Circuit;
  errors: LineNote[];
  warnings: LineNote[];
}

/** Longest file that is read; a netlist of a whole amp is a few hundred lines. */
const MOST_LINES = 20_000;
const MOST_NOTES = 500;
const MOST_ELEMENTS = 5_000;

interface Logical {
  text: string;
  comment: string;
  line: number;
}

interface Subcircuit {
  name: string;
  nodes: string[];
  body: Logical[];
  line: number;
  /** Written by an export for a model that the reader knows: passed over. */
  library: boolean;
}

/** Reads the text of a circuit file. Never throws: everything wrong is in `errors`, by line. */
export function readCircuit(text: string): ReadResult {
  const circuit: Circuit = { title: "", elements: [], points: [], stages: [], heaters: [], near: [], models: {}, tubeTypes: {}, facts: {} };
  const errors: LineNote[] = [];
  const warnings: LineNote[] = [];
  const note = (list: LineNote[], line: number) => (found: string, expected: string) => {
    if (list.length < MOST_NOTES) list.push({ line, found: printable(found), expected: printable(expected) });
  };
  const lines = text.replace(/^\uFEFF/, "").split(/\r\n|\n|\r/);
  if (text.includes("\0")) {
    note(errors, 1)(texts.fileBinaryBytes(), texts.textFileNetlistLines());
    return { circuit, errors, warnings };
  }
  if (lines.length > MOST_LINES) {
    note(errors, MOST_LINES)(texts.lines(lines.length), texts.mostLines(MOST_LINES));
    return { circuit, errors, warnings };
  }
  circuit.title = (lines[0] ?? "").trim();

  const params = new Map<string, number>();
  const subcircuits = new Map<string, Subcircuit>();
  const body: Logical[] = [];
  let open: Subcircuit | undefined;

  for (const logical of joinContinuations(lines, (line) => note(errors, line))) {
    const { text: t, line } = logical;
    if (t.startsWith("*@")) {
      readAnnotation(t, line, circuit, note(errors, line));
      continue;
    }
    if (t.startsWith("*")) continue;
    if (!t.startsWith(".")) {
      (open?.body ?? body).push(logical);
      continue;
    }
    const [command = "", ...rest] = t.split(/\s+/);
    const error = note(errors, line);
    switch (command.toLowerCase()) {
      case ".end":
      // Asks of a SPICE run, not parts of the circuit.
      case ".op":
      case ".options":
      case ".nodeset":
      case ".option":
        break;
      case ".param":
        readParams(t.slice(6), params, error);
        break;
      case ".model":
        readModel(t.slice(6).trim(), circuit, error);
        break;
      case ".subckt": {
        const [name, ...nodes] = rest;
        if (open) error(t.slice(0, 60), texts.endsFirst(open.name));
        else if (!name || nodes.length === 0) error(t.slice(0, 60), texts.subcktNameNodeNode());
        else open = { name: name.toUpperCase(), nodes: nodes.map(nodeName), body: [], line, library: logical.comment.includes("@library") };
        break;
      }
      case ".ends":
        if (!open) error(t, texts.subcktBefore());
        else if (!open.library) subcircuits.set(open.name, open);
        open = undefined;
        break;
      case ".include":
      case ".lib":
        error(t.slice(0, 60), texts.everythingOneFileNo());
        break;
      default:
        error(command.slice(0, 40), texts.oneParamSubcktEnds());
    }
  }
  if (open) note(errors, open.line)(texts.subckt(open.name), texts.endsBeforeEndFile());

  const contextFor = (line: number): LineContext => ({
    line,
    params,
    findType: (name) => circuit.tubeTypes[name.toUpperCase()] ?? findTubeType(name),
    error: note(errors, line),
    warn: note(warnings, line),
  });
  expand(body, subcircuits, contextFor, circuit.elements, "", new Map(), 0);
  for (const e of circuit.elements) {
    if (e.letter === "D" && e.type && !circuit.models[e.type]) note(errors, e.line)(texts.model(e.type), texts.modelDIsN(e.type));
  }
  checkCircuit(
    circuit,
    (line, found, expected) => note(errors, line)(found, expected),
    (line, found, expected) => note(warnings, line)(found, expected),
  );
  errors.sort((a, b) => a.line - b.line);
  return { circuit, errors, warnings };
}

/** Control characters of a damaged file are shown as dots and long texts are cut, so that a message can be read. */
function printable(text: string): string {
  const clean = text.replace(/[\u0000-\u001f\u007f-\u009f\ufffd]/g, "·");
  return clean.length > 160 ? `${clean.slice(0, 160)}…` : clean;
}

/** Drops the title and blank lines, splits `;` comments off and joins `+` lines to the one before. */
function joinContinuations(lines: string[], noteAt: (line: number) => (found: string, expected: string) => void): Logical[] {
  const out: Logical[] = [];
  for (let i = 1; i < lines.length; i++) {
    const raw = (lines[i] ?? "").trim();
    if (raw === "") continue;
    if (raw.startsWith("*")) {
      out.push({ text: raw, comment: "", line: i + 1 });
      continue;
    }
    const cut = raw.indexOf(";");
    const text = (cut < 0 ? raw : raw.slice(0, cut)).trim();
    const comment = cut < 0 ? "" : raw.slice(cut + 1);
    if (text.startsWith("+")) {
      const last = out.findLast((l) => !l.text.startsWith("*"));
      if (!last) noteAt(i + 1)(raw.slice(0, 40), texts.lineBeforeContinue());
      else {
        last.text += ` ${text.slice(1).trim()}`;
        last.comment += ` ${comment}`;
      }
      continue;
    }
    if (text !== "") out.push({ text, comment, line: i + 1 });
  }
  return out;
}

function readParams(text: string, params: Map<string, number>, error: (found: string, expected: string) => void): void {
  const pairs = text.replace(/\s*=\s*/g, "=").match(/[a-z_]\w*=(?:\{[^}]*\}|\S+)/gi);
  if (!pairs) return error(text.trim().slice(0, 60) || "nothing", texts.paramNameValueName());
  for (const pair of pairs) {
    const [name = "", typed = ""] = [pair.slice(0, pair.indexOf("=")), pair.slice(pair.indexOf("=") + 1)];
    try {
      const braces = /^\{(.*)\}$/.exec(typed);
      if (braces) params.set(name.toUpperCase(), evaluate(braces[1] ?? "", params));
      else {
        const number = parseSpiceNumber(typed);
        if (number.ok) params.set(name.toUpperCase(), number.value);
        else error(pair, number.expected);
      }
    } catch (e) {
      if (!(e instanceof ExpressionError)) throw e;
      error(pair.slice(0, 60), e.message);
    }
  }
}

function readModel(text: string, circuit: Circuit, error: (found: string, expected: string) => void): void {
  const match = /^(\S+)\s+D\s*\(?([^)]*)\)?$/i.exec(text);
  if (!match) return error(text.slice(0, 60), texts.modelNameOtherKinds());
  const values: Record<string, number> = {};
  for (const [, key = "", typed = ""] of (match[2] ?? "").matchAll(/(\w+)\s*=\s*(\S+)/g)) {
    const number = parseSpiceNumber(typed);
    if (number.ok) values[key.toLowerCase()] = number.value;
    else error(`${key}=${typed}`, number.expected);
  }
  circuit.models[(match[1] ?? "").toUpperCase()] = values;
}

/** Reads element lines, writing each subcircuit call out in full: its inner parts are named `CALL.PART`. */
function expand(
  body: Logical[],
  subcircuits: Map<string, Subcircuit>,
  contextFor: (line: number) => LineContext,
  into: Element[],
  prefix: string,
  nodeMap: ReadonlyMap<string, string>,
  depth: number,
): void {
  const outer = (node: string) => (node === "0" || !prefix ? node : (nodeMap.get(node) ?? `${prefix.toLowerCase()}${node}`));
  for (const logical of body) {
    const at = contextFor(logical.line);
    if (into.length > MOST_ELEMENTS) return at.error(texts.moreThanParts(MOST_ELEMENTS), texts.circuitFewerParts());
    const call = callOf(logical.text, subcircuits);
    if (call) {
      const { name, sub, nodes } = call;
      if (nodes.length !== sub.nodes.length)
        at.error(texts.nodesFor(nodes.length, sub.name), `${sub.nodes.length}: ${sub.nodes.join(" ")}`);
      else if (depth >= 8) at.error(logical.text.slice(0, 40), texts.subcircuitsMostDeepNone());
      else {
        const map = new Map(sub.nodes.map((inner, i) => [inner, outer(nodeName(nodes[i]!))] as const));
        expand(sub.body, subcircuits, contextFor, into, `${prefix}${name}.`, map, depth + 1);
      }
      continue;
    }
    if (/@skip\b/.test(logical.comment)) continue;
    const element = readElement(ownText(logical), logical.comment, at);
    if (element)
      into.push({ ...element, name: prefix + (/@as\s+(\S+)/.exec(logical.comment)?.[1] ?? element.name), nodes: element.nodes.map(outer) });
  }
}

/** An export's line as it was before: `@block "POT …"` in place of the subcircuit, `@to b` in place of an inner node. */
function ownText({ text, comment }: Logical): string {
  const block = /@block\s+"([^"]*)"/.exec(comment)?.[1];
  const words = text.split(/\s+/);
  if (block !== undefined) return [...words.slice(0, -1), block].join(" ");
  const to = /@to\s+(\S+)/.exec(comment)?.[1];
  if (to !== undefined) words[2] = to;
  return words.join(" ");
}

function callOf(text: string, subcircuits: Map<string, Subcircuit>) {
  if (!/^x/i.test(text) || subcircuits.size === 0) return undefined;
  const words = text.split(/\s+/).filter((w) => !w.includes("="));
  const sub = subcircuits.get(words[words.length - 1]?.toUpperCase() ?? "");
  return sub && { name: words[0]!.slice(1).toUpperCase(), sub, nodes: words.slice(1, -1) };
}
