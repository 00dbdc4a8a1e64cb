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

/** The values of the parts that a block would have if nobody had typed any. @param usual of the file, where it is asked for every block. */
export function usualValues(block: Block, file: Pick<BlockFile, "sections" | "circuit">, usual = usualOf(file)): Record<string, PartSpec> {
  const { parts } = penOf(findKind(block.kind)!, block, usual, file.circuit);
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

/** Parameters that go with the nodes of a line: a transformer has taps or has none. */
const WITH_NODES = ["ul"];

/**
 * A part as the file has it, with the nodes and the tube of the block; a new one with its usual value, assumed.
 * @param renew it has its usual value anew.
 */
function elementOf(spec: PartSpec, was: Element | undefined, next: NextName, renew: boolean): Element {
  const fresh = newElement(spec, was ? () => was.name : next);
  if (!was) return fresh;
  const key = valueKey(fresh);
  const params = { ...fresh.params, ...was.params };
  for (const name of WITH_NODES) if (fresh.params[name] === undefined) delete params[name];
  if (fresh.params.tube !== undefined) params.tube = fresh.params.tube;
  if (renew && key !== undefined) params[key] = fresh.params[key]!;
  // A tube is called after its socket; so is a rectifier, until it has none.
  const named = spec.tube || was.params.tube !== params.tube ? { name: spec.name ?? was.name } : {};
  return { ...was, ...named, nodes: fresh.nodes, type: fresh.type ?? was.type, value: renew ? fresh.value : was.value, params };
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

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const entriesOf = (e: Element) => Object.entries(e.params).sort(([x], [y]) => (x < y ? -1 : 1));

/** The line as it was typed, with the nodes put in where they are others now; where more than they differs, a line of its own. */
function rawLine(raw: string, was: Element, now: Element): string {
  const [a, b] = now.nodes;
  // A part that is turned round is the same part.
  const turned = /[RCL]/.test(was.letter) && was.nodes[0] === b && was.nodes[1] === a;
  const sameNodes = turned || same(was.nodes, now.nodes);
  const sameRest = same([was.name, was.type, was.value, entriesOf(was)], [now.name, now.type, now.value, entriesOf(now)]);
  if (!sameRest || was.nodes.length !== now.nodes.length) return writeElement(now);
  if (sameNodes) return raw;
  let k = 0;
  return raw.replace(/^(\s*\S+)((?:\s+\S+)+)/, (whole, head: string, rest: string) =>
    k++ > 0
      ? whole
      : head +
        rest.replace(/(\s+)(\S+)/g, (text: string, space: string) => (k <= now.nodes.length ? `${space}${now.nodes[k++ - 1]}` : text)),
  );
}

const keyOf = (line: string) => /^\s*\*@(\S+\s+\S+)/.exec(line)?.[1]?.toLowerCase() ?? line;

/** A place as blocks name it: "V1 pin 6", "C4 +". */
const OWN_PIN = /\spin="(?:V\d+ pin \d+|[A-Z]+\d+ [+−])"/;

/** The kind's `*@` lines; one that the file has already stays as it is typed, its nodes put right. What the kind does not know stays too. */
function mergeAnnotations(wanted: readonly string[], had: readonly string[], nodes: ReadonlySet<string>): string[] {
  const left = [...had];
  const out = wanted.map((line) => {
    const at = left.findIndex((l) => keyOf(l) === keyOf(line));
    if (at < 0) return line;
    const [old] = left.splice(at, 1) as [string];
    if (/^\s*\*@(near|heater)/i.test(line)) return line;
    const pin = /\spin="([^"]*)"/.exec(line)?.[1];
    // A place that the block named itself goes with the tube's base and the capacitor's name; a technician's own words for it stay.
    const placed = pin === undefined ? old : old.replace(OWN_PIN, ` pin="${pin}"`);
    return ["node", "in", "out"].reduce((text, key) => {
      const now = new RegExp(`\\s${key}=(\\S+)`).exec(line)?.[1];
      return now === undefined ? text : text.replace(new RegExp(`(\\s${key}=)\\S+`), (_, head: string) => head + now);
    }, placed);
  });
  // Lines of the kind for nodes that are gone go with them; a technician's own points stay.
  const stays = (l: string) => !/^\s*\*@(near|heater|stage|fact)/i.test(l) && nodes.has(/\snode=(\S+)/.exec(l)?.[1] ?? "");
  return [...out, ...left.filter(stays)];
}
