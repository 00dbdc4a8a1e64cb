/**
 * Output tubes that idle with their screens far above where the sheet gives their current: real ones pass less there than the sheet's
 * tube carried on to those volts. What shops find is 10 to 25 % below; nothing is known better until a model is settled on a chart.
 */

import type { TubeType } from "../tubes/library";
import { SHEET_DATA } from "../tubes/sheet-points";
import type { OperatingPoint } from "./operating-point";

/** Part of the sheet's tube that is usual there, and one sigma about it. */
export const USUAL_IDLE = 0.88;
export const IDLE_SIGMA = 0.17;
/** From this many times the highest screen volts that the sheet's points reach. */
const FAR_ABOVE = 1.1;
/** Watts of plate rating from which a pentode is an output tube. */
const OUTPUT_WATTS = 4;

/** The highest screen volts at which the type's fit has a point of its sheet. */
function highestScreen(type: TubeType): number | undefined {
  const points = SHEET_DATA.find((d) => d.type === type.type)?.points ?? [];
  const volts = [type.typical?.vg2, ...points.map((p) => p.vg2)].filter((v) => v !== undefined);
  return volts.length > 0 ? Math.max(...volts) : undefined;
}

/** Names of the output tubes of a solved amp whose screens stand far above the sheet's point. */
export function idlingAboveSheet(op: Pick<OperatingPoint, "network" | "x" | "converged">): Set<string> {
  const out = new Set<string>();
  if (!op.converged) return out;
  const volts = (k: number) => (k < 0 ? 0 : op.x[k]!);
  for (const { element, device } of op.network.tubes) {
    const type = element.tube!;
    const sheet = highestScreen(type);
    // A strength that the model was settled at is what such tubes do.
    if (
      element.notes.strength !== undefined ||
      device.at.length !== 4 ||
      sheet === undefined ||
      (type.ratings?.plateWatts ?? 0) < OUTPUT_WATTS
    )
      continue;
    if (volts(device.at[1]!) - volts(device.at[3]!) > FAR_ABOVE * sheet) out.add(element.name);
  }
  return out;
}
