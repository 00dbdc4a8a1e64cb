/** What a block is: a stage that the trade has a name for, with its ports, its options and the lines that it writes. */

import type { Options, Pen } from "./pen";

/** Where a block is found in the list of what can be added, and how the chain is wired when one is put in. */
export type Group = "supply" | "bias" | "input" | "gain" | "tone" | "effect" | "inverter" | "output" | "feedback" | "heaters";

/**
 * signal: from the block before or to the one behind; feed: a supply node that comes in; rail: a supply node that this block makes;
 * bias, feedback: a node of another block, or ground.
 */
export type PortUse = "in" | "out" | "feed" | "rail" | "bias" | "feedback";

export interface Port {
  name: string;
  use: PortUse;
}

export interface Option {
  key: string;
  /** The usual one first. */
  values: readonly string[];
}

export interface TubeRole {
  role: string;
  kind: "triode" | "pentode" | "rectifier";
}

export interface BlockKind {
  kind: string;
  group: Group;
  ports: readonly Port[];
  options: readonly Option[];
  /** The tube sections that it takes, in the order of the signal. */
  tubes?(options: Options): TubeRole[];
  /** False for options that cannot stand together. */
  allows?(options: Options): boolean;
  /** Puts down its parts and `*@` lines in the order in which a chassis is read. */
  write(pen: Pen): void;
}

/** The usual options of a kind. */
export function usualOptions({ options }: BlockKind): Record<string, string> {
  return Object.fromEntries(options.map((o) => [o.key, o.values[0]!]));
}

/** Every set of options that a kind allows, those that differ least from `near` first. */
export function optionSets(kind: BlockKind, near: Options = usualOptions(kind)): Record<string, string>[] {
  let sets: Record<string, string>[] = [{}];
  for (const { key, values } of kind.options) sets = sets.flatMap((set) => values.map((value) => ({ ...set, [key]: value })));
  const off = (set: Options) => kind.options.filter((o) => set[o.key] !== near[o.key]).length;
  return sets
    .filter((set) => kind.allows?.(set) ?? true)
    .map((set) => ({ set, off: off(set) }))
    .sort((a, b) => a.off - b.off)
    .map(({ set }) => set);
}
