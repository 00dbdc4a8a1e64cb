/** What is usual around an output tube: supply, load, idle. Where the sheet's tube idles is computed from its model. */

import { nearestInSeries } from "../quantity/series";
import { modelAt } from "../tubes/fit";
import { screenShare, type TubeType } from "../tubes/library";

/** What the blocks ask of the amp as a whole to say what is usual. */
export interface Usual {
  /** Volts of the first reservoir. */
  supply: number;
  /** Grid volts of the output tubes with fixed bias, below zero. */
  bias: number;
  /** The wall's volts. */
  mains: number;
  lineConnected: boolean;
}

export interface OutputDuty {
  /** Plate and screen volts from the cathode. */
  supply: number;
  /** Ohms of one tube's load (single-ended), or from plate to plate of one pair. */
  load: number;
}

interface Row {
  single: OutputDuty;
  pushPull: OutputDuty;
  /** True where push-pull amps with it usually have fixed bias. */
  fixed: boolean;
}

const row = (single: [number, number], pushPull: [number, number], fixed = false): Row => ({
  single: { supply: single[0], load: single[1] },
  pushPull: { supply: pushPull[0], load: pushPull[1] },
  fixed,
});

/** Typical operation in the published data sheets, as such amps were built: supply volts, load ohms. */
const ROWS: Record<string, Row> = {
  EL84: row([255, 5200], [310, 8000]),
  "6V6GT": row([260, 5000], [330, 8000]),
  "6AQ5": row([250, 5000], [260, 10000]),
  "6L6GC": row([270, 2500], [430, 4500], true),
  "5881": row([260, 2700], [360, 6600], true),
  EL34: row([265, 2000], [430, 3500], true),
  KT66: row([260, 2200], [420, 6600], true),
  KT88: row([260, 2200], [450, 4500], true),
  "6550": row([260, 2200], [450, 4500], true),
  "7591A": row([300, 3000], [380, 6600], true),
  "35C5": row([110, 2500], [110, 5000]),
  "50C5": row([110, 2500], [110, 5000]),
  "50L6GT": row([110, 2000], [110, 4000]),
};

/** The usual duty of an output tube; of a type without a row from its sheet's typical point. */
export function usualDuty(type: TubeType | undefined, pushPull: boolean): OutputDuty & { fixed: boolean } {
  const known = type && ROWS[type.type];
  if (known) return { ...(pushPull ? known.pushPull : known.single), fixed: pushPull && known.fixed };
  const { va = 250, ia = 40 } = type?.typical ?? {};
  const load = nearestInSeries((va / (ia / 1e3)) * (pushPull ? 1.6 : 1)).nearest;
  return { supply: va, load, fixed: false };
}

/** Part of the plate's rating that a tube usually idles at. */
const IDLE = { single: 0.9, cathode: 0.85, fixed: 0.65 };

export interface Idle {
  /** Grid volts from the cathode, below zero. */
  grid: number;
  /** Plate and screen together, amperes. */
  amps: number;
}

/** Where a tube idles at `volts` on plate and screen with so much of its plate rating; undefined without a model or rating. */
export function idleOf(type: TubeType | undefined, volts: number, share: keyof typeof IDLE): Idle | undefined {
  const watts = type?.ratings?.plateWatts;
  const model = type?.model;
  if (!watts || !model) return undefined;
  const at = (vg: number) => modelAt(model, { va: volts, vg2: volts, vg });
  // The plate's current falls with the grid: halving finds where its watts are those.
  let [low, high] = [-volts, 0];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if ((at(middle).ia / 1e3) * volts < IDLE[share] * watts) low = middle;
    else high = middle;
  }
  const { ia, ig2 = (ia * screenShare(type)) / (1 - screenShare(type)) } = at(high);
  return { grid: high, amps: (ia + ig2) / 1e3 };
}

/** The cathode resistor for so many tubes together, a value that exists; the tube then stands on its own cathode volts. */
export function usualCathodeResistor(type: TubeType | undefined, supply: number, share: "single" | "cathode", tubes: number): number {
  const first = idleOf(type, supply, share);
  const idle = first && idleOf(type, supply + first.grid, share);
  return nearestInSeries(idle ? -idle.grid / (tubes * idle.amps) : 250 / tubes, "E12").nearest;
}
