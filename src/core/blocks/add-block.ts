/** A new block in a file, wired to what stands around it. */

import { feedbackReceiver, freshId, newBlock } from "./assemble";
import { blocksOf, type Block, type BlockFile } from "./block-file";
import type { BlockKind } from "./kind";
import { findKind } from "./kinds";
import type { TubeSection } from "./line-up";
import { copyOf, freshNode, heatersFollow, heldGrids, holdGrids, isSignal, kindOf, outOf, portsOf, railsIn, rewire } from "./wiring";

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
  holdGrids([...blocks, block], heldGrids(blocksOf(before)));
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

function wireFeedback(block: Block, blocks: readonly Block[]): void {
  const output = blocks.find((b) => kindOf(b).group === "output");
  block.ports.from = output?.ports.out ?? "out";
  block.ports.to = freshNode("fb", blocks);
  const receiver = feedbackReceiver(blocks.filter((b) => b.ports.feedback === "0"));
  if (!receiver) return;
  receiver.ports.feedback = block.ports.to;
  receiver.changed = true;
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
