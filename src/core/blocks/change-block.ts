/** A block changed where it stands: its options, its kind, its tubes, the nodes that it hangs on. */

import { addBlock } from "./add-block";
import { blocksOf, type Block, type BlockFile } from "./block-file";
import { freeTubes } from "./free-tubes";
import { optionSets, usualOptions, type BlockKind, type Port } from "./kind";
import { KINDS } from "./kinds";
import { copyOf, heatersFollow, heldGrids, holdGrids, kindOf, outOf, portsOf, railsIn, rewire } from "./wiring";
import { typeIn } from "./usual-of";
import { usualRoles } from "./write-blocks";

/** Sets an option; those that cannot stand with it give way. */
export function setOption(before: BlockFile, id: string, key: string, value: string): BlockFile {
  const { file, blocks } = copyOf(before);
  const block = blocks.find((b) => b.id === id);
  if (!block) return before;
  const wanted = { ...block.options, [key]: value };
  const set = optionSets(kindOf(block), wanted).find((o) => o[key] === value);
  if (!set) return before;
  block.renew = usualRoles(block, before);
  becomes(block, kindOf(block), set, file, blocks);
  return key === "biasing" ? withItsBias(file, id) : file;
}

const isFixed = (b: Block) => b.options.biasing?.startsWith("fixed") === true || b.options.biasing === "mixed";

/** Fixed bias brings its supply and adjuster along where there is none; a cathode resistor lets them go where nothing else hangs on them. */
function withItsBias(before: BlockFile, id: string): BlockFile {
  const output = blocksOf(before).find((b) => b.id === id)!;
  if (isFixed(output)) {
    if (output.ports.bias !== "0") return before;
    const first = blocksOf(before).findLast((b) => kindOf(b).group === "supply")?.id;
    const supply = blocksOf(before).find((b) => b.kind === "bias-supply" || b.kind === "back-bias");
    const supplied = supply ? { file: before, id: supply.id } : addBlock(before, "bias-supply", first);
    return addBlock(supplied.file, "bias-adjuster", supplied.id).file;
  }
  const had = [output.ports.bias, output.ports.bias2].filter((n) => n !== undefined && n !== "0");
  if (had.length === 0) return before;
  const { file, blocks } = copyOf(before);
  const changed = blocks.find((b) => b.id === id)!;
  for (const port of ["bias", "bias2"]) if (changed.ports[port] !== undefined) changed.ports[port] = "0";
  // The adjuster first: once it is gone nothing hangs on the supply.
  let rest = file;
  for (const kind of ["bias-adjuster", "bias-supply"])
    for (const b of blocksOf(rest).filter((x) => x.kind === kind)) {
      const inputs = blocksOf(rest).flatMap((x) =>
        portsOf(x, "bias").flatMap((p) => (x === b || p.name.startsWith("out") ? [] : [x.ports[p.name]])),
      );
      if (!inputs.includes(b.ports.out)) rest = { ...rest, sections: rest.sections.filter((s) => !("block" in s && s.block === b)) };
    }
  return rest;
}

/** Kinds of one group that hang in the same way: by the same ports, or in the line of the signal with one way in and one out. */
export function canBecome(block: Block): BlockKind[] {
  const own = kindOf(block);
  const ports = (k: BlockKind) => k.ports.map((p) => p.name).filter((n) => n !== "bias" && n !== "feedback");
  const inLine = (k: BlockKind) => ["input", "tone", "gain"].includes(k.group) && k.ports.filter((p) => p.use === "in").length === 1;
  return KINDS.filter((k) => k !== own && k.group === own.group && ((inLine(k) && inLine(own)) || ports(k).join() === ports(own).join()));
}

/** Turns a block into another kind of its group; parts with the same role, and ports of the same name, stay. */
export function turnBlock(before: BlockFile, id: string, kindName: string): BlockFile {
  const { file, blocks } = copyOf(before);
  const block = blocks.find((b) => b.id === id);
  const kind = block && canBecome(block).find((k) => k.kind === kindName);
  if (!block || !kind) return before;
  const handedOn = outOf(block);
  block.renew = usualRoles(block, before);
  const kept = kind.options.flatMap((o) => (o.values.includes(block.options[o.key] ?? "") ? [[o.key, block.options[o.key]!]] : []));
  block.ports = Object.fromEntries(kind.ports.map((p) => [p.name, block.ports[p.name] ?? portOf(p, block.id, blocks)]));
  block.kind = kind.kind;
  becomes(block, kind, optionSets(kind, { ...usualOptions(kind), ...Object.fromEntries(kept) })[0]!, file, blocks);
  // What lies across the signal hands on the node it lies on, what stands in it one of its own.
  const now = outOf(block);
  const behind = blocks.slice(blocks.indexOf(block) + 1);
  if (handedOn !== undefined && now !== undefined && now !== handedOn) rewire(behind, ["in"], handedOn, now);
  holdGrids(blocks, heldGrids(blocksOf(before)));
  return file;
}

/** The node of a port that a block did not have before. */
function portOf({ name, use }: Port, id: string, blocks: readonly Block[]): string {
  const own = id.toLowerCase();
  if (use === "out") return `${name === "out2" ? "y" : "o"}_${own}`;
  if (use === "feed") return railsIn(blocks).at(-1) ?? "b1";
  return use === "in" ? `${name}_${own}` : "0";
}

/** Gives a block its options and the tubes that they need; its own as far as they are of the kind that is needed. */
function becomes(block: Block, kind: BlockKind, options: Record<string, string>, { circuit }: BlockFile, blocks: readonly Block[]): void {
  const own = Object.values(block.tubes);
  block.options = options;
  block.changed = true;
  block.tubes = {};
  for (const role of kind.tubes?.(options) ?? []) {
    const at = own.findIndex((t) => typeIn(circuit, t.type)?.kind === role.kind);
    const tube = at >= 0 ? own.splice(at, 1)[0]! : freeTubes(blocks, circuit, [role], Object.values(block.tubes)[0]?.type)[0]!;
    block.tubes[role.role] = { name: tube.name, type: typeof tube.type === "string" ? tube.type : tube.type.type };
  }
  heatersFollow(blocks);
}

/** Puts another tube into a role: another section, or another type. */
export function setTube(before: BlockFile, id: string, role: string, tube: { name: string; type: string }): BlockFile {
  const { file, blocks } = copyOf(before);
  const block = blocks.find((b) => b.id === id);
  if (!block?.tubes[role]) return before;
  if (block.tubes[role].type !== tube.type) block.renew = usualRoles(block, before);
  block.tubes[role] = tube;
  block.changed = true;
  heatersFollow(blocks);
  return file;
}

/** Hangs a block's port on another node: another rail, ground instead of a bias. */
export function setPort(before: BlockFile, id: string, port: string, node: string): BlockFile {
  const { file, blocks } = copyOf(before);
  const block = blocks.find((b) => b.id === id);
  if (!block || block.ports[port] === undefined) return before;
  block.ports[port] = node;
  block.changed = true;
  return file;
}
