/** Puts a chain of blocks together from nothing: names, nodes between them, supplies. */

import { quotedFact } from "../circuit/edit-line";
import type { Circuit } from "../circuit/circuit";
import type { Block, Section } from "./block-file";
import { usualOptions, type BlockKind } from "./kind";
import { findKind } from "./kinds";
import { writeBlockFile } from "./write-blocks";
import type { TubeSection } from "./line-up";

/** A block that is to be: its kind, the options that differ from the usual ones, its tubes in the order of its roles. */
export interface Planned {
  kind: string;
  options?: Record<string, string>;
  tubes?: readonly TubeSection[];
  /** Which of several channels it belongs to; none for what they share. */
  channel?: string;
  /** Rails by number where it does not hang on the usual one: { rail: 3 }. */
  rails?: Record<string, number>;
}

export interface Head {
  maker: string;
  model: string;
  mains: number;
  hertz: number;
  facts?: Record<string, string>;
}

const ID: Record<string, string> = {
  filter: "F",
  standby: "STBY",
  bleeder: "BLEED",
  "other-draw": "DRAW",
  "bias-supply": "BIAS",
  "back-bias": "BIAS",
  "bias-adjuster": "ADJ",
  input: "IN",
  "input-leak": "LEAK",
  mixer: "MIX",
  volume: "VOL",
  "tone-stack": "TONE",
  "bass-treble": "TONE",
  "tone-control": "CUT",
  feedback: "NFB",
  "line-outlet": "LINE",
  heaters: "HEAT",
};

/** A name that no block has yet: that of its first tube, else one of its kind with a number. */
export function freshId(kind: BlockKind, tubes: readonly { name: string }[], taken: ReadonlySet<string>): string {
  const stem = tubes[0]?.name ?? ID[kind.kind] ?? (kind.group === "supply" ? "PS" : kind.kind.toUpperCase().replace(/[^A-Z]/g, ""));
  if (!taken.has(stem) && !["F", "VOL", "TONE"].includes(stem)) return stem;
  for (let i = 1; ; i++) if (!taken.has(`${stem}${i}`)) return `${stem}${i}`;
}

/** A block without lines of its own yet. */
export function newBlock(
  kind: BlockKind,
  id: string,
  options: Record<string, string>,
  tubes: readonly TubeSection[],
  ports: Record<string, string>,
): Block {
  const all = { ...usualOptions(kind), ...options };
  const roles = kind.tubes?.(all) ?? [];
  const byRole = Object.fromEntries(
    roles.map((r, i) => [r.role, { name: tubes[i]?.name ?? `V?${i}`, type: tubes[i]?.type.type ?? "12AX7" }]),
  );
  return {
    id,
    kind: kind.kind,
    ports,
    options: all,
    tubes: byRole,
    parts: {},
    raw: { parts: {}, annotations: [], extra: [] },
    changed: true,
  };
}

/** The circuit file of a planned amp. */
export function assemble(head: Head, planned: readonly Planned[]): string {
  const taken = new Set<string>();
  const blocks: { block: Block; kind: BlockKind; plan: Planned }[] = [];
  for (const plan of planned) {
    const kind = findKind(plan.kind)!;
    const id = freshId(kind, kind.group === "supply" ? [] : (plan.tubes ?? []), taken);
    taken.add(id);
    blocks.push({ block: newBlock(kind, id, plan.options ?? {}, plan.tubes ?? [], {}), kind, plan });
  }
  wire(blocks);
  const facts = { maker: head.maker, model: head.model, ...head.facts };
  const free = [
    `${head.maker} ${head.model}`.trim() || "New amplifier",
    `*@mains ${head.mains} ${head.hertz}`,
    `*@fact ${Object.entries(facts)
      .map(([k, v]) => quotedFact(k, v))
      .join(" ")}`,
  ];
  const sections: Section[] = [{ free }, ...blocks.map(({ block }) => ({ block, lines: [] })), { free: [".end", ""] }];
  const circuit: Circuit = {
    title: "",
    mains: { volts: head.mains, hertz: head.hertz },
    elements: [],
    points: [],
    stages: [],
    heaters: [],
    near: [],
    models: {},
    tubeTypes: {},
    facts: {},
  };
  return writeBlockFile({ sections, circuit });
}

type Wired = { block: Block; kind: BlockKind; plan: Planned }[];

/** Gives every port its node, from the first to the last block. */
function wire(blocks: Wired): void {
  // Supplies first: the other blocks hang on their rails.
  const rails: string[] = [];
  const back = blocks.find((b) => b.kind.kind === "back-bias");
  for (const { block, kind } of blocks.filter((b) => b.kind.group === "supply")) {
    const from = rails.at(-1) ?? "b1";
    for (const p of kind.ports) {
      if (p.use === "feed") block.ports[p.name] = from;
      else if (p.name === "minus") block.ports.minus = back ? "bminus" : "0";
      else block.ports[p.name] = kind.kind === "standby" ? `${from}s` : `b${rails.filter((r) => !r.endsWith("s")).length + 1}`;
    }
    if (kind.ports.some((p) => p.use === "rail")) rails.push(block.ports.out!);
  }
  const filtered = rails.filter((r) => !r.endsWith("s"));
  const railOf = (number: number) => filtered[Math.min(number, filtered.length) - 1] ?? "b1";
  for (const { block, kind, plan } of blocks) {
    const feed =
      kind.group === "output"
        ? { rail: 1, screen: 2 }
        : kind.group === "inverter"
          ? { rail: 3 }
          : kind.group === "supply"
            ? undefined
            : { rail: filtered.length };
    for (const p of kind.ports)
      if (p.use === "feed" && kind.group !== "supply")
        block.ports[p.name] = railOf(plan.rails?.[p.name] ?? feed?.[p.name as "rail"] ?? filtered.length);
    if (kind.group === "supply" && plan.rails?.from !== undefined) block.ports.from = railOf(plan.rails.from);
  }
  const channels = [...new Set(blocks.map((b) => b.plan.channel).filter((c) => c !== undefined))];
  for (const channel of channels.length > 0 ? channels : [undefined]) {
    const here = blocks.filter((b) => b.plan.channel === channel || b.plan.channel === undefined);
    wireBias(here, channel);
    wireSignal(
      here.filter((b) => b.plan.channel === channel),
      channel,
    );
  }
}

const suffix = (name: string, channel: string | undefined) => (channel === undefined ? name : `${name}${channel.charAt(0).toLowerCase()}`);

function wireSignal(blocks: Wired, channel: string | undefined): void {
  let at: [string, string] = [suffix("in", channel), "0"];
  for (const { block, kind } of blocks) {
    if (!["input", "gain", "tone", "effect", "inverter", "output"].includes(kind.group)) continue;
    for (const p of kind.ports) {
      if (p.use === "in")
        block.ports[p.name] =
          p.name === "in2" && kind.group === "output"
            ? at[1]
            : p.name === "in" || p.name === "from"
              ? at[0]
              : `${p.name}_${block.id.toLowerCase()}`;
      if (p.use === "out")
        block.ports[p.name] =
          kind.group === "output" ? suffix("out", channel) : `${p.name === "out2" ? "y" : "o"}_${block.id.toLowerCase()}`;
      if (p.use === "feedback") block.ports[p.name] = "0";
    }
    if (block.ports.out !== undefined && kind.ports.some((p) => p.name === "out" && p.use === "out"))
      at = [block.ports.out, block.ports.out2 ?? "0"];
  }
  const loop = blocks.find((b) => b.kind.group === "feedback");
  if (!loop) return;
  loop.block.ports.from = suffix("out", channel);
  loop.block.ports.to = suffix("fb", channel);
  const receiver = feedbackReceiver(blocks.map((b) => b.block));
  if (receiver) receiver.ports.feedback = loop.block.ports.to;
}

/** Where global feedback usually returns: to a long-tailed pair, else to the cathode of the last stage before the inverter or the output. */
export function feedbackReceiver(blocks: readonly Block[]): Block | undefined {
  const can = blocks.filter((b) => findKind(b.kind)!.ports.some((p) => p.name === "feedback"));
  return can.find((b) => b.kind === "long-tailed-pair") ?? can.at(-1);
}

function wireBias(blocks: Wired, channel: string | undefined): void {
  const own = (b: Wired[number]) => b.plan.channel === channel;
  let bias = "0";
  let second = "0";
  for (const b of blocks) {
    const { block, kind } = b;
    if (kind.kind === "bias-supply") bias = second = block.ports.out = "bn";
    if (kind.kind === "back-bias") {
      block.ports.minus = "bminus";
      bias = second = block.ports.out = "bn";
    }
    if (kind.kind === "bias-adjuster" && own(b)) {
      block.ports.from = "bn";
      block.ports.foot = "0";
      bias = block.ports.out = suffix("bw", channel);
      second = block.ports.out2 = block.options.adjusters === "level and balance" ? suffix("bx", channel) : bias;
    }
    if (kind.kind === "tremolo-bias" && own(b)) {
      block.ports.bias = bias;
      bias = second = block.ports.out = suffix("gl", channel);
    }
    if (kind.kind === "tremolo-cathode" && own(b)) {
      const stage = blocks.find((x) => own(x) && x.kind.group === "gain" && x.block.options.cathode !== "grid leak");
      block.ports.cathode = stage ? `k_${stage.block.id.toLowerCase()}` : "0";
    }
  }
  for (const b of blocks.filter(own)) {
    if (b.kind.group === "output" && b.block.ports.bias === undefined) {
      const fixed =
        b.block.options.biasing?.startsWith("fixed") ||
        b.block.options.biasing === "mixed" ||
        blocks.some((x) => own(x) && x.kind.kind === "tremolo-bias");
      b.block.ports.bias = fixed ? bias : "0";
      if (b.kind.kind === "push-pull") b.block.ports.bias2 = fixed ? second : "0";
    }
    if (b.kind.kind === "transformer-inverter") b.block.ports.bias = bias;
  }
}
