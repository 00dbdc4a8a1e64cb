/** The whole discharge plan of an amp: what the tool at hand does now, whether it bears full charge, and one that would. */

import type { Circuit } from "../circuit/circuit";
import { storedEnergy } from "../supply/stored-energy";
import { dischargeSequence, type DischargeSequence } from "./discharge-sequence";
import { sizeTool, toolDoubts, type SizedTool, type Tool, type ToolDoubt } from "./discharge-tool";
import { formatDuration } from "../quantity/format";
import type { Reservoir } from "../supply/reservoirs";
import * as texts from "../texts/safety";

export interface AmpPlan {
  /** Where to clip the tool on now. */
  sequence: DischargeSequence;
  /** Joules, and the highest volts between two clips, at full charge. */
  joules: number;
  highest: number;
  doubts: ToolDoubt[];
  sized?: SizedTool;
  /** Seconds that the sized tool takes through this amp's own droppers. */
  sizedSeconds?: number;
}

/** A smaller tool that is not this much faster is not worth its watts: the droppers let no more through. */
const FASTER = 0.95;
const LESS = 0.8;

/**
 * @param now volts of each reservoir as estimated, `full` at full charge, in the order of `reservoirs`; signs as they stand.
 * @param seconds in which a tool should be through.
 * @returns undefined where nothing can hold more than the safe voltage.
 */
export function planDischarge(
  circuit: Circuit | undefined,
  reservoirs: readonly Reservoir[],
  now: readonly number[],
  full: readonly number[],
  tool: Tool,
  safeVolts: number,
  seconds: number,
): AmpPlan | undefined {
  if (!full.some((v) => Math.abs(v) > safeVolts)) return undefined;
  const through = (from: readonly number[], ohms: number) => dischargeSequence(circuit, reservoirs, from, ohms, safeVolts);
  const joules = reservoirs.reduce((sum, r, i) => sum + storedEnergy(r.farads, full[i]!), 0);
  const highest = Math.max(...full.map(Math.abs), ...through(full, tool.ohms).clips.map((c) => c.volts));
  // What a tool sees: one capacitor at the highest volts that holds all of it.
  const farads = (2 * joules) / highest ** 2;
  const plan: AmpPlan = { sequence: through(now, tool.ohms), joules, highest, doubts: toolDoubts(tool, farads, highest, safeVolts) };
  if (!(seconds > 0)) return plan;
  let sized = sizeTool(farads, highest, safeVolts, seconds);
  let takes = through(full, sized.ohms).seconds;
  // Sized as one capacitor; behind droppers it takes longer, so a smaller one is tried as long as that helps.
  for (let ask = LESS * seconds; takes > seconds; ask *= LESS) {
    const next = sizeTool(farads, highest, safeVolts, ask);
    if (next.ohms >= sized.ohms) {
      if (ask < seconds / 20) break;
      continue;
    }
    const faster = through(full, next.ohms).seconds;
    if (faster > FASTER * takes) break;
    const why = faster > seconds ? texts.noSmallerOneMuch() : texts.largestThroughBehindDroppers(formatDuration(seconds));
    [sized, takes] = [{ ...next, why }, faster];
  }
  return { ...plan, sized, sizedSeconds: takes };
}
