/** Blocks put in, taken out, moved and turned into another kind; what stands around them is wired to it. Every function gives a new file. */

import { feedbackReceiver, freshId, newBlock } from "./assemble";
import { blocksOf, type Block, type BlockFile, type Section } from "./block-file";
import { optionSets, usualOptions, type BlockKind, type PortUse } from "./kind";
import { findKind } from "./kinds";
import type { TubeSection } from "./line-up";
import { usualRoles } from "./write-blocks";

const kindOf = (b: Block): BlockKind => findKind(b.kind)!;
const portsOf = (b: Block, ...uses: PortUse[]) => kindOf(b).ports.filter((p) => uses.includes(p.use));

/** The node that a block hands on: a control across the signal hands on the one it lies on. */
const outOf = (b: Block): string | undefined => {
  const kind = kindOf(b);
  if (kind.ports.some((p) => p.name === "out")) return b.ports.out;
  return kind.group === "tone" || kind.group === "input" ? b.ports.in : undefined;
};

const isSignal = (b: Block) =>
  ["input", "gain", "tone", "effect", "inverter"].includes(kindOf(b).group) && portsOf(b, "in").length > 0 && outOf(b) !== undefined;

/** A copy in which blocks may be changed. */
function copyOf(file: BlockFile): { file: BlockFile; blocks: Block[] } {
  const sections = file.sections.map((s): Section =>
    "free" in s
      ? s
      : {
          lines: s.lines,
          block: {
            ...s.block,
            ports: { ...s.block.ports },
            options: { ...s.block.options },
            tubes: { ...s.block.tubes },
            parts: { ...s.block.parts },
          },
        },
  );
  const copy = { ...file, sections };
  return { file: copy, blocks: blocksOf(copy) };
}

function rewire(blocks: readonly Block[], uses: readonly PortUse[], from: string, to: string, but: readonly Block[] = []): void {
  for (const b of blocks) {
    if (but.includes(b)) continue;
    for (const p of portsOf(b, ...uses))
      if (b.ports[p.name] === from) {
        b.ports[p.name] = to;
        b.changed = true;
      }
  }
}

/** The heaters follow the tubes that there are. */
function heatersFollow(blocks: readonly Block[]): void {
  for (const b of blocks) if (b.kind === "heaters") b.changed = true;
}

const railsIn = (blocks: readonly Block[]) =>
  blocks
    .filter((b) => kindOf(b).group === "supply")
    .flatMap((b) => portsOf(b, "rail").map((p) => b.ports[p.name]!))
    .filter((n) => n !== "0");

/**
 * Puts a new block behind the one named, or at the end. It takes what that one hands on, and what hung there hangs on it then.
 * @throws RangeError for a kind that there is not.
 */
export function addBlock(
  before: BlockFile,
  kindName: string,
  after: string | undefined,
  tubes: readonly TubeSection[] = [],
  options: Record<string, string> = {},
): { file: BlockFile; id: string } {
  const kind = findKind(kindName);
  if (!kind) throw new RangeError(kindName);
  const { file, blocks } = copyOf(before);
  const id = freshId(kind, kind.group === "supply" ? [] : tubes, new Set(blocks.map((b) => b.id)));
  const block = newBlock(kind, id, options, tubes, {});
  const rails = railsIn(blocks);
  const at = blocks.find((b) => b.id === after);
  const lower = id.toLowerCase();
  // The rail that its neighbour hangs on, else the last one.
  const near = at && portsOf(at, "feed")[0];
  const rail = (near && at.ports[near.name]) ?? rails.at(-1) ?? "b1";
  for (const p of kind.ports) {
    if (p.use === "feed") block.ports[p.name] = kind.group === "output" ? (rails[0] ?? "b1") : rail;
    if (p.use === "out") block.ports[p.name] = kind.group === "output" ? "out" : `${p.name === "out2" ? "y" : "o"}_${lower}`;
    if (p.use === "bias" || p.use === "feedback") block.ports[p.name] = "0";
    if (p.use === "in" && p.name !== "in" && p.name !== "from") block.ports[p.name] = `${p.name}_${lower}`;
  }
  if (kind.group === "supply" || kind.group === "bias") wireSupply(block, kind, blocks, at, rails);
  else if (kind.group === "feedback") wireFeedback(block, blocks);
  else if (kind.ports.some((p) => p.use === "in")) wireInto(block, kind, blocks, at);
  if (kind.kind === "tremolo-bias") {
    const output = blocks.find((b) => kindOf(b).group === "output");
    block.ports.bias = output?.ports.bias ?? "0";
    block.ports.out = `gl_${lower}`;
    if (output) {
      for (const p of ["bias", "bias2"]) if (output.ports[p] !== undefined) output.ports[p] = block.ports.out;
      output.changed = true;
    }
  }
  if (kind.kind === "tremolo-cathode") {
    const stage = blocks.find((b) => kindOf(b).group === "gain" && b.options.cathode !== "grid leak");
    block.ports.cathode = stage ? `k_${stage.id.toLowerCase()}` : "0";
  }
  heatersFollow(blocks);
  holdGrids([...blocks, block]);
  const index = at ? file.sections.findIndex((s) => "block" in s && s.block === at) : file.sections.findLastIndex((s) => "block" in s);
  const sections = [...file.sections];
  sections.splice(index + 1, 0, { block, lines: [] });
  return { file: { ...file, sections }, id };
}

function wireSupply(block: Block, kind: BlockKind, blocks: readonly Block[], at: Block | undefined, rails: readonly string[]): void {
  if (kind.kind === "bias-supply" || kind.kind === "back-bias") {
    block.ports.out = freshNode("bn", blocks);
    if (kind.kind === "bias-supply") return;
    block.ports.minus = "bminus";
    const supply = blocks.find((b) => b.ports.minus === "0");
    if (supply) Object.assign(supply, { changed: true, ports: { ...supply.ports, minus: "bminus" } });
    return;
  }
  if (kind.kind === "bias-adjuster") {
    const source = blocks.find((b) => b.kind === "bias-supply" || b.kind === "back-bias");
    const output = blocks.find((b) => kindOf(b).group === "output");
    block.ports.from = source?.ports.out ?? "0";
    block.ports.out = freshNode("bw", blocks);
    block.ports.out2 = block.options.adjusters === "level and balance" ? freshNode("bx", blocks) : block.ports.out;
    if (!output) return;
    output.changed = true;
    output.ports.bias = block.ports.out;
    if (output.ports.bias2 !== undefined) output.ports.bias2 = block.ports.out2;
    return;
  }
  const from = (at && kindOf(at).group === "supply" && at.ports.out) || rails.at(-1) || "b1";
  for (const p of kind.ports) {
    if (p.use === "feed") block.ports[p.name] = from;
    if (p.use === "rail") block.ports[p.name] = kind.kind === "standby" ? freshNode(`${from}s`, blocks) : freshNode("b", blocks, 1);
  }
  if (!kind.ports.some((p) => p.use === "rail") || !kind.ports.some((p) => p.use === "feed")) return;
  // Further sections hang behind the new one. At the end of the chain it takes the stages before the inverter.
  const behind = blocks.filter((b) => kindOf(b).group === "supply" && b.ports.from === from && b.ports.out !== undefined);
  if (behind.length > 0 || kind.kind === "standby") rewire(kind.kind === "standby" ? blocks : behind, ["feed"], from, block.ports.out!);
  else
    rewire(
      blocks.filter((b) => ["gain", "effect"].includes(kindOf(b).group)),
      ["feed"],
      from,
      block.ports.out!,
    );
}

function freshNode(stem: string, blocks: readonly Block[], number?: number): string {
  const taken = new Set(blocks.flatMap((b) => Object.values(b.ports)));
  if (number === undefined && !taken.has(stem)) return stem;
  for (let i = number ?? 2; ; i++) if (!taken.has(`${stem}${i}`)) return `${stem}${i}`;
}

function wireFeedback(block: Block, blocks: readonly Block[]): void {
  const output = blocks.find((b) => kindOf(b).group === "output");
  block.ports.from = output?.ports.out ?? "out";
  block.ports.to = freshNode("fb", blocks);
  const receiver = feedbackReceiver(blocks.filter((b) => b.ports.feedback === "0"));
  if (!receiver) return;
  receiver.ports.feedback = block.ports.to;
  receiver.changed = true;
}

/** Blocks behind which a grid is held at ground, or at a plate's own volts. */
const HOLDS = ["input", "input-leak", "volume", "tone-stack", "bass-treble", "mixer", "reverb", "transformer-inverter"];

/** A grid that lost what held it gets a leak of its own. */
function holdGrids(blocks: readonly Block[]): void {
  for (const b of blocks) {
    if (b.options.input !== "none") continue;
    const node = b.ports.in;
    const held = blocks.some(
      (x) =>
        (x !== b && Object.values(x.ports).includes(node ?? "") && HOLDS.includes(x.kind)) ||
        (x.ports.out === node && x.options.coupling === "direct"),
    );
    if (held) continue;
    b.options.input = "leak";
    b.changed = true;
  }
}

/** Into the signal: behind `at`, else behind the last block that hands a signal on. */
function wireInto(block: Block, kind: BlockKind, blocks: readonly Block[], at: Block | undefined): void {
  const source = at && isSignal(at) ? at : blocks.filter(isSignal).at(-1);
  const node = (source && outOf(source)) ?? "in";
  const into = kind.ports.find((p) => p.use === "in")!.name;
  block.ports[into] = node;
  const out = kind.group === "output" ? undefined : outOf(block);
  if (out !== undefined && out !== node) rewire(blocks, ["in"], node, out, source ? [source] : []);
  // An inverter before an output pair gives it both its signals.
  if (kind.group === "inverter")
    for (const b of blocks)
      if (b.kind === "push-pull" && b.ports.in === out) Object.assign(b, { changed: true, ports: { ...b.ports, in2: block.ports.out2! } });
  if (source) couple(source, kind.kind);
}

/** Takes the plate itself where the next block has its own capacitor, through a capacitor where not. */
function couple(source: Block, next: string): void {
  if (source.options.coupling === undefined || !kindOf(source).options.some((o) => o.key === "coupling" && o.values.includes("direct")))
    return;
  const wanted = next === "tone-stack" || next === "long-tailed-pair" || next === "follower" ? "direct" : source.options.coupling;
  if (wanted === source.options.coupling) return;
  source.options.coupling = wanted;
  source.changed = true;
}

/** Takes a block out; what hung on it hangs on what it hung on. */
export function removeBlock(before: BlockFile, id: string): BlockFile {
  const { file, blocks } = copyOf(before);
  const block = blocks.find((b) => b.id === id);
  if (!block) return before;
  const rest = blocks.filter((b) => b !== block);
  const input = portsOf(block, "in")[0];
  const out = outOf(block);
  if (out !== undefined && input && kindOf(block).group !== "output") {
    rewire(rest, ["in"], out, block.ports[input.name]!);
    // What fed a tone stack or a pair from its plate is coupled again, unless what comes has a capacitor of its own.
    const source = rest.find((b) => outOf(b) === block.ports[input.name] && b.options.coupling === "direct");
    const next = rest.find((b) => portsOf(b, "in").some((p) => b.ports[p.name] === block.ports[input.name]));
    if (source && (!next || !["tone-stack", "long-tailed-pair", "follower"].includes(next.kind)))
      Object.assign(source, { changed: true, options: { ...source.options, coupling: "capacitor" } });
  }
  const feed = portsOf(block, "feed")[0];
  if (kindOf(block).group === "supply" && feed && block.ports.out !== undefined)
    rewire(rest, ["feed"], block.ports.out, block.ports[feed.name]!);
  if (block.kind === "feedback") rewire(rest, ["feedback"], block.ports.to!, "0");
  if (block.kind === "back-bias") rewire(rest, ["feedback"], block.ports.minus!, "0");
  if (kindOf(block).group === "bias" || block.kind === "tremolo-bias")
    for (const p of ["out", "out2"])
      if (block.ports[p]) rewire(rest, ["bias"], block.ports[p], block.ports.bias ?? block.ports.from ?? "0");
  heatersFollow(rest);
  holdGrids(rest);
  return { ...file, sections: file.sections.filter((s) => !("block" in s && s.block === block)) };
}

/** Moves a block of the signal one place towards the input (−1) or the output (+1); unchanged where there is no neighbour to change with. */
export function moveBlock(before: BlockFile, id: string, by: -1 | 1): BlockFile {
  const chain = blocksOf(before).filter(isSignal);
  const at = chain.findIndex((b) => b.id === id);
  const [first, second] = by === 1 ? [chain[at], chain[at + 1]] : [chain[at - 1], chain[at]];
  if (
    !first ||
    !second ||
    at < 0 ||
    kindOf(first).group === "inverter" ||
    kindOf(second).group === "inverter" ||
    outOf(first) !== second.ports.in
  )
    return before;
  const { file, blocks } = copyOf(before);
  const [a, b] = [first, second].map((x) => blocks.find((y) => y.id === x.id)!) as [Block, Block];
  const [into, middle, end] = [a.ports.in!, outOf(a)!, outOf(b)!];
  const rest = blocks.filter((x) => x !== a && x !== b);
  const through = (x: Block) => x.ports.out === undefined;
  // Each keeps the node it hands on; one that lies across the signal lies on the node of the block before it.
  b.ports.in = into;
  const afterB = through(b) ? into : b.ports.out!;
  a.ports.in = afterB;
  const afterA = through(a) ? afterB : a.ports.out!;
  if (end !== afterA) rewire(rest, ["in"], end, afterA);
  if (through(b) && middle !== afterA) rewire(rest, ["in"], middle, afterA);
  a.changed = b.changed = true;
  const index = (x: Block) => file.sections.findIndex((s) => "block" in s && s.block === x);
  const sections = [...file.sections];
  const [i, j] = [index(a), index(b)];
  [sections[i], sections[j]] = [sections[j]!, sections[i]!];
  return { ...file, sections };
}

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
  return file;
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
