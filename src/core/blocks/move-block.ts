/** Blocks taken out, and moved along the signal. */

import { blocksOf, type Block, type BlockFile } from "./block-file";
import { copyOf, heatersFollow, heldGrids, holdGrids, isSignal, kindOf, outOf, portsOf, rewire } from "./wiring";

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
  holdGrids(rest, heldGrids(blocksOf(before)));
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
