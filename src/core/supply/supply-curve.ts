/**
 * A rectifier into its reservoir as a curve: the average volts that its pulses leave against the average current. The pulses are solved
 * where the curve is needed, at currents a tenth apart, and kept; between them it is drawn by a cubic in the logarithm of the current.
 */

import { pulseTrain, swingOf, type PulseTrain } from "./pulse-train";
import { averageCurrent, type RectifierModel } from "./rectifier";

/** Logarithm of the ratio of one solved current to the next. */
const STEP = Math.log(1.1);

/**
 * Where two parabolas of neighbouring currents are further apart than this part of the volts, near a short, the curve bends too much to be
 * drawn. The cubic between them is a good deal nearer: over six amps, all their faults and three mains 999 of 1,000 nodes stand within two
 * parts in 10,000 of what a solve without curves gives.
 */
const BENT = 1e-3;

export interface SupplyPoint {
  /** Average across the rectifier. */
  volts: number;
  /** Peak to peak, as a part of the average volts; infinite where there are none. */
  swing: number;
}

export const supplyPoint = (train: PulseTrain): SupplyPoint => ({
  volts: train.volts,
  swing: train.volts > 0 ? swingOf(train) / train.volts : Infinity,
});

export class SupplyCurve {
  private readonly solved = new Map<number, SupplyPoint | undefined>();

  /** @param impulse of what the rectifier feeds, over `samplesOf(model)` steps. */
  constructor(
    private readonly model: RectifierModel,
    private readonly impulse: Float64Array,
  ) {}

  /**
   * @param amps average current, above zero. @returns undefined where no pulses were found close by, or the curve bends too much.
   * @example new SupplyCurve(model, capacitorImpulse(32e-6, 100, samplesOf(model))).at(0.1) // { volts: 362.4, swing: 0.06 }
   */
  at(amps: number): SupplyPoint | undefined {
    const place = Math.log(amps) / STEP;
    const first = Math.floor(place) - 1;
    const nodes: SupplyPoint[] = [];
    for (let k = 0; k < 4; k++) {
      const node = this.node(first + k);
      if (!node || node.swing === Infinity) return undefined;
      nodes.push(node);
    }
    const t = place - first;
    const between = (of: (p: SupplyPoint) => number) => {
      const [a, b, c, d] = nodes.map(of) as [number, number, number, number];
      // The parabolas through the first and the last three; the cubic lies between them.
      const left = ((t - 1) * (t - 2) * a) / 2 - t * (t - 2) * b + (t * (t - 1) * c) / 2;
      const right = ((t - 2) * (t - 3) * b) / 2 - (t - 1) * (t - 3) * c + ((t - 1) * (t - 2) * d) / 2;
      return { value: left + (t / 3) * (right - left), apart: Math.abs(right - left) };
    };
    const volts = between((p) => p.volts);
    if (!(volts.apart < BENT * volts.value)) return undefined;
    const swing = between((p) => p.swing).value;
    return { volts: volts.value, swing };
  }

  /** Solved from the averaged law, never from a neighbour: the same whatever was asked before. */
  private node(number: number): SupplyPoint | undefined {
    if (!this.solved.has(number)) {
      const amps = Math.exp(number * STEP);
      const train = pulseTrain(this.model, amps, this.impulse, averageVolts(this.model, amps));
      this.solved.set(number, train && supplyPoint(train));
    }
    return this.solved.get(number);
  }
}

/** Volts at which the averaged law gives that current: between none and the winding's peak. */
function averageVolts(model: RectifierModel, amps: number): number {
  const out = new Float64Array(2);
  let [low, high] = [0, model.peak];
  for (let k = 0; k < 30; k++) {
    const middle = (low + high) / 2;
    averageCurrent(model, middle, out);
    if (out[0]! > amps) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** What a rectifier feeds: the capacitor straight across it, and where that is not all, the ohms at the ripple's frequency, real and imaginary. */
export interface Fed {
  farads: number;
  hertz: number;
  ohms?: readonly [number, number] | undefined;
}

/** Ohms may differ by this part of their size: of the volts that the ripple costs as small a part. */
const ALIKE = 0.002;
/** Supplies that are kept. */
const MOST_KEPT = 400;

interface Kept {
  ohms?: readonly [number, number];
  /** Who asked first: a single solve does better with the pulses themselves. */
  asker: object;
  curve?: SupplyCurve;
}

const kept = new Map<string, Kept[]>();
let count = 0;

/**
 * The curve of a supply, kept from one solve to the next. @param asker the solve that asks. @param impulse is asked when the curve is made.
 * @returns undefined as long as only one solve has asked for it, and more than a capacitor hangs on it.
 */
export function supplyCurve(
  model: RectifierModel,
  fed: Fed,
  asker: object,
  impulse: () => Float64Array | undefined,
): SupplyCurve | undefined {
  const key = `${JSON.stringify(model)} ${fed.farads} ${fed.hertz}`;
  const known = kept.get(key)?.find((k) => alike(k.ohms, fed.ohms));
  if (known) {
    if (known.curve || known.asker === asker) return known.curve;
    const shape = impulse();
    return shape && (known.curve = new SupplyCurve(model, shape));
  }
  if (++count > MOST_KEPT) {
    kept.clear();
    count = 1;
  }
  const { ohms } = fed;
  const shape = ohms ? undefined : impulse();
  const curve = shape && new SupplyCurve(model, shape);
  kept.set(key, [...(kept.get(key) ?? []), { asker, ...(ohms ? { ohms } : {}), ...(curve ? { curve } : {}) }]);
  return curve;
}

/** Whether what two ripples see is the same to them. */
export const alike = (a: readonly [number, number] | undefined, b: readonly [number, number] | undefined): boolean =>
  a === undefined || b === undefined ? a === b : Math.hypot(a[0] - b[0], a[1] - b[1]) < ALIKE * Math.hypot(...a);
