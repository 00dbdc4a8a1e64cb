/** What paper is made of: an ordered list of blocks, painted as HTML and as PDF. */

import type { Linework } from "../drawing/linework";
import type { Verdict } from "../expectation/expectation";
import type { StaircaseStep } from "../walk/walk";

/** Text of a table, or a reading with its verdict. */
export type Cell = string | { text: string; verdict: Verdict };

export interface Column {
  title: string;
  /** Part of the width; the parts are scaled to the whole. */
  share: number;
  align?: "right";
}

export type Block =
  | { block: "title"; shop: string; address: string; title: string; facts: string[] }
  | { block: "heading"; text: string }
  /** `quote`: the owner's own words; `small`: beside the point. */
  | { block: "text"; text: string; look?: "quote" | "small" | "strong" }
  | { block: "list"; items: string[] }
  /** `totals` are never parted from the last row. */
  | { block: "table"; columns: Column[]; rows: Cell[][]; totals?: Cell[][] }
  /** What follows begins a new page. */
  | { block: "page" }
  /** The supply chain as two descending staircases on one scale, volts from `axis[0]` to `axis[1]`: around the step, so that it is seen. */
  | { block: "stairs"; before: StaircaseStep[]; after: StaircaseStep[]; axis: [number, number] }
  /** Decibels on the curve's own frequencies. */
  | { block: "spectrum"; hertz: number; before: readonly number[]; after?: readonly number[] }
  /** One period at the speaker, before and after, in volts on one scale. */
  | { block: "waves"; before?: readonly number[]; after?: readonly number[] }
  /** A schematic or a part of one, in its own units. */
  | ({ block: "drawing"; caption?: string } & Linework)
  | { block: "photos"; photos: { hash: string; caption: string }[] };
