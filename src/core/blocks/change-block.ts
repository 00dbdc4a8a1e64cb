/** A block changed where it stands: its options, its kind, its tubes, the nodes that it hangs on. */

import { addBlock } from "./add-block";
import { blocksOf, type Block, type BlockFile } from "./block-file";
import { optionSets, usualOptions, type BlockKind } from "./kind";
import { findKind } from "./kinds";
import { copyOf, heatersFollow, kindOf, portsOf, railsIn } from "./wiring";
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
  becomes(block, kindOf(block), set, blocks);
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

/** Turns a block into another kind of its group; parts with the same role, and ports of the same name, stay. */
export function turnBlock(before: BlockFile, id: string, kindName: string): BlockFile {
  const { file, blocks } = copyOf(before);
  const block = blocks.find((b) => b.id === id);
  const stood = blocksOf(before).find((b) => b.id === id);
  const kind = findKind(kindName);
  if (!block || !stood || !kind) return before;
  const options = {
    ...usualOptions(kind),
    ...Object.fromEntries(
      kind.options.flatMap((o) => (o.values.includes(block.options[o.key] ?? "") ? [[o.key, block.options[o.key]!]] : [])),
    ),
  };
  const lower = block.id.toLowerCase();
  for (const p of kind.ports)
    block.ports[p.name] ??=
      p.use === "out"
        ? `${p.name === "out2" ? "y" : "o"}_${lower}`
        : p.use === "feed"
          ? (railsIn(blocks).at(-1) ?? "b1")
          : p.use === "in"
            ? `${p.name}_${lower}`
            : "0";
  for (const name of Object.keys(block.ports)) if (!kind.ports.some((p) => p.name === name)) delete block.ports[name];
  block.renew = usualRoles(stood, before);
  block.kind = kind.kind;
  becomes(block, kind, optionSets(kind, options)[0]!, blocks);
  return file;
}

/** Gives a block its options and the tubes that they need; what the old ones needed alone is left out. */
function becomes(block: Block, kind: BlockKind, options: Record<string, string>, blocks: readonly Block[]): void {
  const had = Object.values(block.tubes);
  block.options = options;
  block.changed = true;
  const roles = kind.tubes?.(options) ?? [];
  const others = new Set(blocks.filter((b) => b !== block).flatMap((b) => Object.values(b.tubes).map((t) => t.name)));
  const own = had.filter((t) => !others.has(t.name));
  block.tubes = Object.fromEntries(
    roles.map((r, i) => [
      r.role,
      own[i] ?? {
        name: freshTube(new Set([...others, ...own.map((t) => t.name)]), i - own.length),
        type: own[0]?.type ?? (r.kind === "triode" ? "12AX7" : r.kind === "pentode" ? "6V6GT" : "GZ34"),
      },
    ]),
  );
  heatersFollow(blocks);
}

/** The next socket that nothing stands in; `skip` of them are taken by the same change. */
export function freshTube(taken: ReadonlySet<string>, skip = 0): string {
  const sockets = new Set([...taken].map((n) => Number(/\d+/.exec(n)?.[0] ?? 0)));
  for (let i = 1, left = skip; ; i++) if (!sockets.has(i) && left-- <= 0) return `V${i}`;
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
