/** A new part beside the old one in the engine: rails, ripple, hum at the speaker, bass corner. */

import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { idealVolts, operatingPoint } from "../solver/operating-point";
import { pulsesOf, rippleOf } from "../solver/ripple";
import { responseOf } from "../signal/response";
import { stresses } from "../solver/stress";
import * as texts from "../texts/capacitor";

export interface Figures {
  points: { point: string; volts: number; ripple: number }[];
  /** Volts rms at the speaker by ripple; undefined for an amp without a signal chain. */
  hum?: number;
  /** Hertz at which the bass is 3 dB down. */
  bass?: number;
  treble?: number;
  /** Amperes at the highest instant of the rectifier of the high tension. */
  peak?: number;
  /** Parts over their rating, in words. */
  over: string[];
}

export interface Beside {
  now: Figures;
  then: Figures;
}

function figuresOf(circuit: Circuit, mains: number): Figures {
  const op = operatingPoint(circuit, { mains });
  if (!op.converged) throw new RangeError(texts.doesNotSettle(op.unsettled.join(", "), mains));
  const ripple = rippleOf(op);
  const peaks = pulsesOf(op);
  const chain = circuit.stages.length > 0 ? responseIn(circuit, mains) : undefined;
  return {
    points: circuit.points
      .filter((p) => !p.name.includes("."))
      .map((p) => ({ point: p.name, volts: idealVolts(op, p.node), ripple: ripple.get(p.node) ?? 0 })),
    ...(chain ?? {}),
    ...(peaks.length > 0 ? { peak: Math.max(...peaks.map((p) => p.peak)) } : {}),
    over: stresses(op)
      .filter((s) => (s.share ?? 0) > 1)
      .map((s) => `${s.part} ${s.kind}`),
  };
}

/** An amp that has no way through has no hum and no bass either; anything else that goes wrong is told. */
function responseIn(circuit: Circuit, mains: number): Pick<Figures, "hum" | "bass" | "treble"> | undefined {
  const chained = circuit.elements.some((e) => e.type === "OPT_SE" || e.type === "OPT_PP");
  if (!chained) return undefined;
  const { humMillivolts, low, high } = responseOf(circuit, mains);
  return { ...(Number.isFinite(humMillivolts) ? { hum: humMillivolts / 1e3 } : {}), bass: low, treble: high };
}

/** @param set the new part in the engine's words. @throws AlterError, RangeError where the amp does not settle with it. */
export function figuresBeside(circuit: Circuit, set: readonly string[], mains: number): Beside {
  return { now: figuresOf(circuit, mains), then: figuresOf(alter(circuit, set), mains) };
}
