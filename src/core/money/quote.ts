/** A quote from the planned work: labour by the hour or at a fixed price, parts with the shop's margin. */

import type { Settings } from "../shop/settings";
import type { MoneyLine, QuoteOption } from "../tape/events/money-events";
import type { OptionAim } from "../tape/events/words";
import type { Task } from "../repair/tasks";
import { fixedLine, labourLine, partLine } from "./price";
import { percentOf } from "./amount";
import { moneySum } from "./sum";
import * as texts from "../texts/money";

type Rates = Settings["money"];

/** The lines of one task, each with the key by which it is billed once. */
export function taskLines(task: Pick<Task, "root" | "name" | "estimate" | "fixedPrice" | "parts" | "position">, rates: Rates): MoneyLine[] {
  const of = (line: MoneyLine, what: string): MoneyLine => ({ ...line, planned: task.root, key: `planned ${task.root} ${what}` });
  const work =
    task.fixedPrice !== undefined
      ? [of(fixedLine(task.name, task.fixedPrice), "labour")]
      : task.estimate > 0
        ? [of(labourLine(task.name, task.estimate, rates), "labour")]
        : [];
  const parts = (task.parts ?? []).map((p, i) =>
    of(partLine(texts.partFor(p.text, task.position), p.pieces, p.cost ?? 0, rates), `part ${i + 1}`),
  );
  return [...work, ...parts];
}

/** Parts of tasks for which no cost is known: a quote with them promises too little. */
export const unpricedParts = (tasks: readonly Pick<Task, "name" | "parts">[]): string[] =>
  tasks.flatMap((t) => (t.parts ?? []).filter((p) => p.cost === undefined).map((p) => `${t.name}: ${p.text}`));

export interface OptionDraft {
  name: string;
  aim?: OptionAim;
  consequence?: string;
  /** Tasks that it holds, by root. */
  tasks: readonly number[];
}

/** One option of a quote, priced. */
export function quoteOption({ tasks, ...option }: OptionDraft, all: readonly Task[], rates: Rates): QuoteOption {
  const lines = all.filter((t) => tasks.includes(t.root)).flatMap((t) => taskLines(t, rates));
  return { ...option, lines, sum: moneySum(lines, rates) };
}

/** What is asked for before the work begins: a part of the dearest option. */
export const depositOf = (options: readonly Pick<QuoteOption, "sum">[], { depositPercent, places }: Rates): number =>
  percentOf(Math.max(0, ...options.map((o) => o.sum.total)), depositPercent, places);
