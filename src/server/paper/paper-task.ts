/** What is asked of the process that makes reports, and what comes back. */

import type { Block } from "@/core/papers/block";
import type { Language } from "@/core/language/language";
import type { Settings } from "@/core/shop/settings";
import type { PaperName } from "@/core/papers/paper-name";
import type { WholeJob } from "../shop";
import type { PaperSize } from "./sheet";

export type PaperTask =
  | { what: "blocks"; job: WholeJob; name: PaperName }
  /** The bench sheet of a circuit file, solved at the wall's volts. */
  | { what: "bench-sheet"; settings: Settings; netlist: string; mains?: number; size: PaperSize }
  /** Photos by hash, ready to print. */
  | { what: "pdf"; language: Language; blocks: Block[]; size: PaperSize; photos: [string, Uint8Array][] };

export type PaperAnswer = { id: number; result: unknown } | { id: number; error: string };
