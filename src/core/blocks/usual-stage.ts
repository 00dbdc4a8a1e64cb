/** Usual values around a small tube by what its sheet says of it. */

import type { TubeType } from "../tubes/library";

export interface UsualStage {
  load: number;
  cathode: number;
  /** Of a pentode. */
  screen: number;
}

/** Plate load, cathode and screen resistor as resistance-coupled stages have them (resistance-coupled amplifier charts of published tube manuals). */
export function usualStage(type: TubeType | undefined): UsualStage {
  if (type?.kind === "pentode") return { load: 220e3, cathode: 2200, screen: 1e6 };
  const mu = type?.typical?.mu ?? 100;
  if (mu >= 60 && (type?.typical?.gm ?? 1.6) < 3) return { load: 100e3, cathode: 1500, screen: 1e6 };
  if (mu >= 35) return { load: 82e3, cathode: 1500, screen: 1e6 };
  return { load: 47e3, cathode: 1500, screen: 1e6 };
}

/** The plate's rating that a capacitor behind it needs: the supply before the tubes draw. */
export const couplingVolts = (supply: number) => (supply > 350 ? 630 : 400);
