/** Which block of a solved amp cannot be right, and why: burnt parts, a tube that is cut off or full on, a value far from usual. */

import type { Solution } from "../expectation/solution";
import { formatQuantity, formatVolts } from "../quantity/format";
import * as texts from "../texts/blocks";
import type { Block } from "./block-file";
import { doubtOf, type Slot } from "./values";
import { kindOf } from "./wiring";

export interface Judged {
  /** What is wrong, the worst first. */
  wrong: string[];
  /** Short figures for the block's card: the plate's volts, its watts of the rating. */
  figures: string[];
}

/** Milliamperes under which a tube stands still, and plate volts from the cathode under which it can do nothing. */
const STILL_MA = 0.02;
const FULL_ON_VOLTS = 12;

export function judgeBlock(
  block: Block,
  solution: Pick<Solution, "converged" | "tubes" | "stresses" | "nodes"> | undefined,
  slots: readonly Slot[],
): Judged {
  const wrong: { says: string; size: number }[] = [];
  const figures: string[] = [];
  for (const slot of slots.filter((s) => s.block === block.id)) {
    const doubt = doubtOf(slot, slot.value);
    if (doubt) wrong.push({ says: `${slot.element.name}: ${doubt}`, size: 1000 });
  }
  if (!solution?.converged) return { wrong: wrong.map((w) => w.says), figures };
  const names = new Set(Object.values(block.parts).map((e) => e.name));
  for (const s of solution.stresses) {
    if (!names.has(s.part) || s.share === undefined || s.share <= 1) continue;
    wrong.push({ says: texts.runsAt(s.part, s.kind, Math.round(s.share * 100)), size: s.share });
  }
  for (const { name } of Object.values(block.tubes)) {
    const work = solution.tubes[name];
    if (!work) continue;
    if (work.plateMilliamps < STILL_MA)
      wrong.push({ says: texts.cutOff(name, formatQuantity(work.plateMilliamps / 1e3, "A", 2)), size: 50 });
    else if (work.plateVolts < FULL_ON_VOLTS) wrong.push({ says: texts.fullOn(name, formatVolts(work.plateVolts)), size: 40 });
    const watts = solution.stresses.find((s) => s.part === name && s.kind === "plate watts");
    figures.push(
      `${formatVolts(work.plateVolts)} ${formatQuantity(work.plateMilliamps / 1e3, "A", 2)}${watts?.share !== undefined && watts.share > 0.4 ? ` ${Math.round(watts.share * 100)} %` : ""}`,
    );
  }
  // Of a supply or a bias the volts that it makes.
  const made = ["supply", "bias"].includes(kindOf(block).group) ? solution.nodes[block.ports.out ?? ""] : undefined;
  if (made !== undefined) figures.push(formatVolts(made));
  return { wrong: wrong.sort((a, b) => b.size - a.size).map((w) => w.says), figures };
}
