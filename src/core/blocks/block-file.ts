/**
 * A circuit file as blocks and free lines. A block stands between `*@block ID kind=… PORT=NODE … OPTION=VALUE …` and `*@endblock`; it is
 * known again by the parts that its kind writes between the nodes that it names, whatever their values are. Everything else is free lines.
 */

import { fields } from "../circuit/annotations";
import type { Circuit, Element } from "../circuit/circuit";
import { readCircuit } from "../circuit/read";
import * as texts from "../texts/blocks";
import { optionSets, type BlockKind } from "./kind";
import { findKind } from "./kinds";
import { Pen, type PartSpec } from "./pen";
import type { Usual } from "./usual-output";

export interface Block {
  id: string;
  kind: string;
  ports: Record<string, string>;
  options: Record<string, string>;
  tubes: Record<string, { name: string; type: string }>;
  /** Its parts by their role, as they stand in the file. */
  parts: Record<string, Element>;
  /** Lines of the file by role, `*@` lines in order, and whatever else stands in the block. */
  raw: { parts: Record<string, string>; annotations: string[]; extra: string[] };
  /** Roles whose value nobody has typed and that has its usual value anew: another tube or option makes another one usual. */
  renew?: ReadonlySet<string>;
  /** Set when something in it was changed: its lines are then written anew, those of parts that stay as they were. */
  changed?: boolean;
}

export type Section = { free: string[] } | { block: Block; lines: string[] };

export interface BlockFile {
  sections: Section[];
  circuit: Circuit;
  /** Blocks that are no longer what their kind writes: their lines count as free lines. */
  broken: { id: string; kind: string; line: number; says: string }[];
}

export const blocksOf = (file: Pick<BlockFile, "sections">): Block[] => file.sections.flatMap((s) => ("block" in s ? [s.block] : []));

/** Reads a circuit file that can be read without errors. */
export function readBlockFile(text: string, circuit: Circuit = readCircuit(text).circuit): BlockFile {
  const lines = text.split("\n");
  const byLine = new Map(circuit.elements.map((e) => [e.line, e]));
  const sections: Section[] = [];
  const broken: BlockFile["broken"] = [];
  let free: string[] = [];
  const endFree = () => {
    if (free.length > 0) sections.push({ free });
    free = [];
  };
  for (let i = 0; i < lines.length; i++) {
    if (!/^\s*\*@block\b/i.test(lines[i]!)) {
      free.push(lines[i]!);
      continue;
    }
    let end = i + 1;
    while (end < lines.length && !/^\s*\*@(end)?block\b/i.test(lines[end]!)) end++;
    const closed = end < lines.length && /^\s*\*@endblock\b/i.test(lines[end]!);
    const inside = lines.slice(i, closed ? end + 1 : end);
    const read = closed ? readBlock(inside, i, byLine) : texts.blockNotClosed();
    if (typeof read === "string") {
      const { words, pairs } = fields(lines[i]!.replace(/^\s*\*@block/i, ""));
      broken.push({ id: words[0] ?? "?", kind: pairs.get("kind") ?? "?", line: i + 1, says: read });
      free.push(...inside);
    } else {
      endFree();
      sections.push({ block: read, lines: inside });
    }
    i += inside.length - 1;
  }
  endFree();
  return { sections, circuit, broken };
}

/** One block, or why it is none. */
function readBlock(lines: string[], from: number, byLine: ReadonlyMap<number, Element>): Block | string {
  const { words, pairs } = fields(lines[0]!.replace(/^\s*\*@block/i, ""));
  const kind = findKind(pairs.get("kind") ?? "");
  if (!kind) return texts.noSuchKind(pairs.get("kind") ?? "");
  const id = (words[0] ?? "").toUpperCase();
  if (id === "") return texts.blockWithoutName();
  const ports = Object.fromEntries(kind.ports.map((p) => [p.name, pairs.get(p.name.toLowerCase()) ?? "0"]));
  const named = Object.fromEntries(kind.options.map((o) => [o.key, pairs.get(o.key) ?? o.values[0]!]));
  const elements: Element[] = [];
  const annotations: string[] = [];
  const extra: string[] = [];
  lines.slice(1, -1).forEach((line, k) => {
    const element = byLine.get(from + 2 + k);
    if (element) elements.push(element);
    else if (/^\s*\*@/.test(line)) annotations.push(line);
    else extra.push(line);
  });
  // As it says of itself first; else as it stands: an option may have been changed in the text.
  for (const options of optionSets(kind, named)) {
    const { parts } = penOf(kind, { id, ports, options, tubes: {} }, NOTHING_USUAL);
    const found = match(parts, elements);
    if (!found) continue;
    const raw = Object.fromEntries(Object.entries(found).map(([role, e]) => [role, lines[e.line - 1 - from]!]));
    return { id, kind: kind.kind, ports, options, tubes: tubesIn(parts, found), parts: found, raw: { parts: raw, annotations, extra } };
  }
  return texts.notAsWritten(difference(kind, { id, ports, options: named }, elements));
}

const NOTHING_USUAL: Usual = { supply: 300, bias: -30, mains: 230, lineConnected: false };

/** What a kind puts down for a block. */
export function penOf(kind: BlockKind, block: Pick<Block, "id" | "ports" | "options" | "tubes">, usual: Usual, circuit?: Circuit): Pen {
  const all = circuit?.elements.flatMap((e) =>
    e.tube ? [{ name: e.name, type: e.tube }] : e.rectifierTube ? [{ name: e.name, type: e.rectifierTube }] : [],
  );
  const pen = new Pen({ ...block, usual, all, findType: (name) => circuit?.tubeTypes[name.toUpperCase()] });
  kind.write(pen);
  return pen;
}

/** Two-terminal parts may be turned round; a tube may be of any type of its kind. */
function keyOf(part: Pick<PartSpec, "letter" | "nodes" | "type">, tube: boolean): string {
  const nodes = /[RCL]/.test(part.letter) || part.type === "SW" ? [...part.nodes].sort() : part.nodes;
  return `${part.letter} ${tube ? `tube ${part.nodes.length}` : (part.type ?? "")} ${nodes.join(" ")}`;
}

/** The elements by role when they are exactly the parts of the kind; else undefined. */
function match(parts: readonly PartSpec[], elements: readonly Element[]): Record<string, Element> | undefined {
  if (parts.length !== elements.length) return undefined;
  const left = [...elements];
  const out: Record<string, Element> = {};
  for (const part of parts) {
    const wanted = keyOf(part, part.tube === true);
    const at = left.findIndex((e) => keyOf(e, e.tube !== undefined) === wanted);
    if (at < 0) return undefined;
    out[part.role] = left.splice(at, 1)[0]!;
  }
  return out;
}

function tubesIn(parts: readonly PartSpec[], found: Record<string, Element>): Block["tubes"] {
  const out: Block["tubes"] = {};
  for (const { role, tube } of parts) {
    const e = found[role]!;
    if (tube) out[role] = { name: e.name, type: e.type! };
    else if (e.rectifierTube) out[role] = { name: e.name, type: e.rectifierTube.type };
  }
  return out;
}

/** The first part that is missing or too many, in words. */
function difference(kind: BlockKind, block: Pick<Block, "id" | "ports" | "options">, elements: readonly Element[]): string {
  const { parts } = penOf(kind, { ...block, tubes: {} }, NOTHING_USUAL);
  const left = [...elements];
  const missing: PartSpec[] = [];
  for (const part of parts) {
    const at = left.findIndex((e) => keyOf(e, e.tube !== undefined) === keyOf(part, part.tube === true));
    if (at < 0) missing.push(part);
    else left.splice(at, 1);
  }
  const too = left[0] && texts.partTooMany(left[0].name, left[0].nodes.join(", "));
  return missing[0] ? `${texts.partMissing(missing[0].role, missing[0].nodes.join(", "))}${too ? `; ${too}` : ""}` : (too ?? "");
}
