/** Stored energy and discharging through a resistor. */

import * as texts from "../texts/supply";

/** Joules in `farads` at `volts`: E = ½CV². */
export function storedEnergy(farads: number, volts: number): number {
  return 0.5 * farads * volts * volts;
}

export interface DischargePlan {
  /** RC, seconds. */
  timeConstant: number;
  peakAmps: number;
  peakWatts: number;
  joules: number;
  /** Seconds until the safe voltage: τ·ln(V₁/V₂); 0 when already there. */
  seconds: number;
  /** Watts averaged over that time: what the resistor must bear, beside its peak and its voltage. */
  averageWatts: number;
}

/**
 * Bleeding `farads` from `volts` to `safeVolts` through `ohms`.
 * @throws RangeError unless all four are positive.
 */
export function dischargePlan(farads: number, volts: number, ohms: number, safeVolts: number): DischargePlan {
  for (const [name, x] of Object.entries({ farads, volts, ohms, safeVolts }))
    if (!(x > 0)) throw new RangeError(texts.aboveZeroWantedRead(name, x));
  const timeConstant = ohms * farads;
  const seconds = volts > safeVolts ? timeConstant * Math.log(volts / safeVolts) : 0;
  const joules = storedEnergy(farads, volts);
  const drained = joules - storedEnergy(farads, Math.min(volts, safeVolts));
  return {
    timeConstant,
    peakAmps: volts / ohms,
    peakWatts: (volts * volts) / ohms,
    joules,
    seconds,
    averageWatts: seconds > 0 ? drained / seconds : 0,
  };
}
