/** What is usual in an amp by its output stage, which its supplies and its bias are made for. */

import type { Circuit } from "../circuit/circuit";
import { findTubeType, type TubeType } from "../tubes/library";
import { blocksOf, type BlockFile } from "./block-file";
import { idleOf, usualDuty, type Usual } from "./usual-output";

export const typeIn = (circuit: Pick<Circuit, "tubeTypes">, name: string): TubeType | undefined =>
  circuit.tubeTypes[name.toUpperCase()] ?? findTubeType(name);

/** Without an output stage an ordinary preamplifier's supply is taken. */
export function usualOf(file: Pick<BlockFile, "sections" | "circuit">): Usual {
  const blocks = blocksOf(file);
  const mains = file.circuit.mains?.volts ?? 230;
  const lineConnected = blocks.some((b) => b.kind === "line-connected");
  const output = blocks.find((b) => b.kind === "push-pull" || b.kind === "single-ended");
  if (!output) return { supply: 300, bias: -30, mains, lineConnected };
  const type = typeIn(file.circuit, output.tubes["tube 1"]?.type ?? "");
  const { supply } = usualDuty(type, output.kind === "push-pull");
  const bias = idleOf(type, supply, "fixed")?.grid ?? -30;
  return { supply: lineConnected ? mains * 1.05 : supply, bias, mains, lineConnected };
}
