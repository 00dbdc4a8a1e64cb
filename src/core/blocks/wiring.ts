/** How blocks hang together: what they hand on, who takes it, and what follows when one is changed. */

import { blocksOf, type Block, type BlockFile, type Section } from "./block-file";
import type { BlockKind, PortUse } from "./kind";
import { findKind } from "./kinds";

export const kindOf = (b: Block): BlockKind => findKind(b.kind)!;
export const portsOf = (b: Block, ...uses: PortUse[]) => kindOf(b).ports.filter((p) => uses.includes(p.use));

/** The node that a block hands on: a control across the signal hands on the one it lies on. */
export const outOf = (b: Block): string | undefined => {
  const kind = kindOf(b);
  if (kind.ports.some((p) => p.name === "out")) return b.ports.out;
  return kind.group === "tone" || kind.group === "input" ? b.ports.in : undefined;
};

export const isSignal = (b: Block) =>
  ["input", "gain", "tone", "effect", "inverter"].includes(kindOf(b).group) && portsOf(b, "in").length > 0 && outOf(b) !== undefined;

/** A copy in which blocks may be changed. */
export function copyOf(file: BlockFile): { file: BlockFile; blocks: Block[] } {
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

export function rewire(blocks: readonly Block[], uses: readonly PortUse[], from: string, to: string, but: readonly Block[] = []): void {
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
export function heatersFollow(blocks: readonly Block[]): void {
  for (const b of blocks) if (b.kind === "heaters") b.changed = true;
}

export const railsIn = (blocks: readonly Block[]) =>
  blocks
    .filter((b) => kindOf(b).group === "supply")
    .flatMap((b) => portsOf(b, "rail").map((p) => b.ports[p.name]!))
    .filter((n) => n !== "0");
export function freshNode(stem: string, blocks: readonly Block[], number?: number): string {
  const taken = new Set(blocks.flatMap((b) => Object.values(b.ports)));
  if (number === undefined && !taken.has(stem)) return stem;
  for (let i = number ?? 2; ; i++) if (!taken.has(`${stem}${i}`)) return `${stem}${i}`;
}

/** Blocks behind which a grid is held at ground, or at a plate's own volts. */
const HOLDS = ["input", "input-leak", "volume", "tone-stack", "bass-treble", "mixer", "reverb", "transformer-inverter"];

const holdsGrid = (b: Block, blocks: readonly Block[]): boolean =>
  blocks.some(
    (x) =>
      x !== b &&
      ((Object.values(x.ports).includes(b.ports.in ?? "") && HOLDS.includes(x.kind)) ||
        (x.ports.out === b.ports.in && x.options.coupling === "direct")),
  );

/** Blocks whose grid has no leak of its own and is held by another block. */
export const heldGrids = (blocks: readonly Block[]): Set<string> =>
  new Set(blocks.filter((b) => b.options.input === "none" && holdsGrid(b, blocks)).map((b) => b.id));

/** A grid that lost what held it gets a leak of its own; one that free lines hold is left alone. @param before who was held. */
export function holdGrids(blocks: readonly Block[], before: ReadonlySet<string>): void {
  for (const b of blocks) {
    if (b.options.input !== "none" || !before.has(b.id) || holdsGrid(b, blocks)) continue;
    b.options.input = "leak";
    b.changed = true;
  }
}
