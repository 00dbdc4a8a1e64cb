/** Blocks as lines of a circuit file: those of parts that stay as they were keep every byte. */

import type { Circuit, Element } from "../circuit/circuit";
import { valueKey } from "../circuit/edit-line";
import { writeElement } from "../circuit/write";
import { nearestInSeries } from "../quantity/series";
import { blocksOf, penOf, type Block, type BlockFile, type Section } from "./block-file";
import type { BlockKind } from "./kind";
import { findKind } from "./kinds";
import type { PartSpec } from "./pen";
import { typeIn, usualOf } from "./usual-of";

/** The text of the file; blocks that were changed are written anew, all else as it was read. */
export function writeBlockFile(file: Pick<BlockFile, "sections" | "circuit">): string {
  const usual = usualOf(file);
  const names = namesIn(file.sections);
  const all = { ...file.circuit, elements: tubesOfFile(file) };
  return file.sections
    .flatMap((s) => ("free" in s ? s.free : s.block.changed || s.lines.length === 0 ? writeBlock(s.block, usual, names, all) : s.lines))
    .join("\n");
}

/** Every tube that the blocks and the free lines hold, for the heaters. */
function tubesOfFile(file: Pick<BlockFile, "sections" | "circuit">): Element[] {
  const inBlocks = new Set(blocksOf(file).flatMap((b) => Object.values(b.parts)));
  const free = file.circuit.elements.filter((e) => !inBlocks.has(e) && (e.tube ?? e.rectifierTube) && isFree(file, e));
  const placed = blocksOf(file).flatMap((b) =>
    Object.values(b.tubes).map((t): Element => {
      const type = typeIn(file.circuit, t.type);
      return {
        name: t.name,
        letter: "X",
        nodes: [],
        params: {},
        notes: {},
        line: 0,
        ...(type?.kind === "rectifier" ? { rectifierTube: type } : { tube: type }),
      };
    }),
  );
  return [...free, ...placed];
}

function isFree(file: Pick<BlockFile, "sections">, e: Element): boolean {
  const name = `X${e.name}`.toUpperCase();
  return file.sections.some((s) => "free" in s && s.free.some((line) => line.trim().toUpperCase().startsWith(`${name} `)));
}

/** What gives the next free name of a letter. */
type NextName = (prefix: string) => string;

function namesIn(sections: readonly Section[]): NextName {
  const taken = new Set<string>();
  for (const s of sections) {
    const lines = "free" in s ? s.free : [...Object.values(s.block.raw.parts), ...s.block.raw.extra, ...s.lines];
    for (const line of lines) {
      const name = /^\s*([A-Za-z]\w*)/.exec(line)?.[1]?.toUpperCase();
      if (name) taken.add(name.replace(/^X/, ""));
    }
  }
  return (prefix) => {
    for (let i = 1; ; i++) {
      const name = `${prefix}${i}`;
      if (taken.has(name)) continue;
      taken.add(name);
      return name;
    }
  };
}

/** The lines of one block. */
export function writeBlock(block: Block, usual: ReturnType<typeof usualOf>, next: NextName, circuit: Circuit): string[] {
  const kind = findKind(block.kind)!;
  const pen = penOf(kind, block, usual, circuit);
  const named = new Map<string, string>();
  const parts = pen.parts.map((spec) => {
    const was = block.parts[spec.role];
    const element = elementOf(spec, was, next, block.renew?.has(spec.role) === true);
    named.set(spec.role, element.name);
    const raw = block.raw.parts[spec.role];
    return raw !== undefined && was ? rawLine(raw, was, element) : writeElement(element);
  });
  const annotations = pen.annotations.map((line) => line.replace(/\{([^}]*)\}/g, (_, role: string) => named.get(role) ?? role));
  return [
    headOf(block, kind),
    ...parts,
    ...mergeAnnotations(annotations, block.raw.annotations, new Set(pen.parts.flatMap((p) => p.nodes))),
    ...block.raw.extra,
    "*@endblock",
  ];
}

/** The roles of a block whose value is the usual one and marked as assumed. */
export function usualRoles(block: Block, file: Pick<BlockFile, "sections" | "circuit">): Set<string> {
  const usual = usualValues(block, file);
  return new Set(
    Object.entries(block.parts).flatMap(([role, e]) => {
      const spec = usual[role];
      if (!spec || e.tube || e.notes.prov !== "assumed") return [];
      const plain = newElement(spec, () => e.name);
      const key = valueKey(e);
      return (key === undefined ? plain.value === e.value : plain.params[key] === e.params[key]) ? [role] : [];
    }),
  );
}

/** The values of the parts that a block would have if nobody had typed any. */
export function usualValues(block: Block, file: Pick<BlockFile, "sections" | "circuit">): Record<string, PartSpec> {
  const { parts } = penOf(findKind(block.kind)!, block, usualOf(file), file.circuit);
  return Object.fromEntries(parts.map((p) => [p.role, p]));
}

const word = (text: string) => (/[\s"=;]/.test(text) ? `"${text}"` : text);

function headOf({ id, ports, options }: Block, kind: BlockKind): string {
  const named = [
    ...kind.ports.map((p) => `${p.name}=${ports[p.name] ?? "0"}`),
    ...kind.options.map((o) => `${o.key}=${word(options[o.key] ?? o.values[0]!)}`),
  ];
  return ["*@block", id, `kind=${kind.kind}`, ...named].join(" ");
}

/** A part as the file has it, with the nodes and the tube of the block; a new one with its usual value, assumed. */
function elementOf(spec: PartSpec, was: Element | undefined, next: NextName, renew: boolean): Element {
  if (was && renew) return { ...newElement(spec, () => was.name), name: was.name };
  if (was) {
    const tube = spec.tube ? { name: spec.name ?? was.name, type: spec.type ?? was.type } : {};
    const rectifier =
      spec.params.tube !== undefined && was.params.tube !== spec.params.tube ? { params: { ...was.params, tube: spec.params.tube } } : {};
    return { ...was, nodes: spec.nodes, ...tube, ...rectifier };
  }
  return newElement(spec, next);
}

function newElement(spec: PartSpec, next: NextName): Element {
  const name = spec.name ?? next(spec.prefix ?? spec.letter);
  const value = spec.value === undefined ? undefined : rounded(spec.value);
  const params = spec.params.value === undefined ? spec.params : { ...spec.params, value: value! };
  return {
    name,
    letter: spec.letter,
    nodes: spec.nodes,
    type: spec.type,
    value,
    params,
    notes: { ...spec.notes, ...(spec.tube ? {} : { prov: "assumed" as const }) },
    line: 0,
  };
}

/** Usual values are values that exist. */
const rounded = (value: number) =>
  value >= 1 && value < 1e8 && value !== Math.round(value) ? nearestInSeries(value, "E12").nearest : Number(value.toPrecision(6));

/** The line as it was typed, with the nodes and the name of the part put in where they are others now. */
function rawLine(raw: string, was: Element, now: Element): string {
  if (was.value !== now.value || was.params.vac !== now.params.vac || was.params.zp !== now.params.zp || was.params.zpp !== now.params.zpp)
    return writeElement(now);
  const same = was.nodes.length === now.nodes.length && was.nodes.every((n, i) => n === now.nodes[i]);
  const sameTube = was.name === now.name && was.type === now.type && was.params.tube === now.params.tube;
  // A part that is turned round is the same part.
  const turned = /[RCL]/.test(was.letter) && was.nodes.length === 2 && was.nodes[0] === now.nodes[1] && was.nodes[1] === now.nodes[0];
  if ((same || turned) && sameTube) return raw;
  if (!sameTube || was.nodes.length !== now.nodes.length) return writeElement(now);
  let k = 0;
  return raw.replace(/^(\s*\S+)((?:\s+\S+)+)/, (whole, head: string, rest: string) =>
    k++ > 0
      ? whole
      : head +
        rest.replace(/(\s+)(\S+)/g, (text: string, space: string) => (k <= now.nodes.length ? `${space}${now.nodes[k++ - 1]}` : text)),
  );
}

const keyOf = (line: string) => /^\s*\*@(\S+\s+\S+)/.exec(line)?.[1]?.toLowerCase() ?? line;

/** The kind's `*@` lines; one that the file has already stays as it is typed, its nodes put right. What the kind does not know stays too. */
function mergeAnnotations(wanted: readonly string[], had: readonly string[], nodes: ReadonlySet<string>): string[] {
  const left = [...had];
  const out = wanted.map((line) => {
    const at = left.findIndex((l) => keyOf(l) === keyOf(line));
    if (at < 0) return line;
    const [old] = left.splice(at, 1) as [string];
    if (/^\s*\*@(near|heater)/i.test(line)) return line;
    return ["node", "in", "out"].reduce((text, key) => {
      const now = new RegExp(`\\s${key}=(\\S+)`).exec(line)?.[1];
      return now === undefined ? text : text.replace(new RegExp(`(\\s${key}=)\\S+`), (_, head: string) => head + now);
    }, old);
  });
  // Lines of the kind for nodes that are gone go with them; a technician's own points stay.
  const stays = (l: string) => !/^\s*\*@(near|heater|stage|fact)/i.test(l) && nodes.has(/\snode=(\S+)/.exec(l)?.[1] ?? "");
  return [...out, ...left.filter(stays)];
}
