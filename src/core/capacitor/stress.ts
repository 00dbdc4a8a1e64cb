/** What each capacitor bears: volts with the tubes at work, with nothing drawing, both at high mains, and the ripple current through it. */

import { without } from "../circuit/alter";
import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import { unloadedRails } from "../expectation/unloaded";
import { idealVolts, operatingPoint, type OperatingPoint } from "../solver/operating-point";
import { pulsesOf, rippleAmp } from "../solver/ripple";
import { isElectrolytic } from "./role";
import * as texts from "../texts/capacitor";

export interface CapacitorStress {
  part: string;
  /** Volts, first terminal above the second, tubes warm, at the mains asked for. */
  loaded: number;
  /** The most with the tubes out or cold, size only. */
  unloaded: number;
  /** The same two with the mains up by a tenth. */
  highLoaded: number;
  highUnloaded: number;
  /** The largest of the four, size only: what a rating has to be above. */
  worst: number;
  /** Amperes rms of the supply's ripple through it at idle. */
  ripple: number;
  /** An electrolytic with its plus at the lower volts. */
  backwards: boolean;
}

/** A tenth up: what a supply may do by EN 50160. */
export const HIGH_MAINS = 1.1;
/** An electrolytic stands so much the wrong way round by its oxide on the other foil. */
const REVERSE_BORNE = 1;

const capacitors = (circuit: Circuit) => circuit.elements.filter((e) => e.letter === "C");

function settled(circuit: Circuit, mains: number): OperatingPoint {
  const op = operatingPoint(circuit, { mains });
  if (!op.converged) throw new RangeError(texts.doesNotSettle(op.unsettled.join(", "), mains));
  return op;
}

/** Every tube out but a rectifier. */
export function tubesOut(circuit: Circuit): Circuit {
  const tubes = [...new Set(circuit.elements.filter((e) => e.tube).map((e) => envelopeOf(e.name)))];
  return tubes.length > 0 ? without(circuit, tubes) : circuit;
}

const across = (op: OperatingPoint, e: Element) => idealVolts(op, e.nodes[0]!) - idealVolts(op, e.nodes[1]!);

/**
 * @param mains volts at the plug. @throws RangeError where the amp does not settle.
 */
export function capacitorStresses(circuit: Circuit, mains: number): Map<string, CapacitorStress> {
  const cold = tubesOut(circuit);
  const ripples = rippleCurrents(settled(circuit, mains));
  const at = [mains, mains * HIGH_MAINS].map((volts) => ({
    loaded: settled(circuit, volts),
    unloaded: settled(cold, volts),
    // The peak of the winding itself: no drop in the rectifier, no leak of the model.
    peaks: new Map(unloadedRails(circuit, volts).map((r) => [r.capacitor, r.volts])),
  }));
  return new Map(
    capacitors(circuit).map((c) => {
      const [now, high] = at.map(({ loaded, unloaded, peaks }) => ({
        loaded: across(loaded, c),
        unloaded: Math.max(Math.abs(across(unloaded, c)), peaks.get(c.name) ?? 0),
      })) as [{ loaded: number; unloaded: number }, { loaded: number; unloaded: number }];
      const sizes = [now.loaded, now.unloaded, high.loaded, high.unloaded].map(Math.abs);
      const stress: CapacitorStress = {
        part: c.name,
        loaded: now.loaded,
        unloaded: now.unloaded,
        highLoaded: high.loaded,
        highUnloaded: high.unloaded,
        worst: Math.max(...sizes),
        ripple: ripples.get(c.name) ?? 0,
        backwards: isElectrolytic(c) && now.loaded < -REVERSE_BORNE,
      };
      return [c.name, stress];
    }),
  );
}

/**
 * Amperes rms of ripple in every capacitor: each harmonic of the rectifiers' pulses through the linear amp, I = |V|·2πf·C. In what lies
 * straight across a rectifier the harmonics above those that the solver keeps flow as well: they are its rms less what was counted.
 */
export function rippleCurrents(op: OperatingPoint): Map<string, number> {
  const { network } = op;
  const pulses = pulsesOf(op);
  const amp = rippleAmp(op, pulses);
  const index = (node: string) => (node === "0" ? -1 : (network.index.get(node) ?? -1));
  const list = capacitors(network.circuit).map((e) => ({ e, a: index(e.nodes[0]!), b: index(e.nodes[1]!), square: 0 }));
  for (const p of pulses) {
    let counted = 0;
    p.harmonics.forEach((i, h) => {
      const hertz = (h + 1) * p.hertz;
      const size = Math.hypot(i.re, i.im);
      counted += size ** 2 / 2;
      const volts = amp.inject(p.into, p.from, hertz);
      for (const c of list) {
        const [re, im] = [
          (c.a < 0 ? 0 : volts[c.a]!.re) - (c.b < 0 ? 0 : volts[c.b]!.re),
          (c.a < 0 ? 0 : volts[c.a]!.im) - (c.b < 0 ? 0 : volts[c.b]!.im),
        ];
        c.square += (Math.hypot(re, im) * size * 2 * Math.PI * hertz * c.e.value!) ** 2 / 2;
      }
    });
    const left = Math.max(0, p.rms ** 2 - p.mean ** 2 - counted);
    const straight = list.filter((c) => (c.a === p.into && c.b === p.from) || (c.b === p.into && c.a === p.from));
    const farads = straight.reduce((s, c) => s + c.e.value!, 0);
    for (const c of straight) c.square += left * (c.e.value! / farads) ** 2;
  }
  return new Map(list.map((c) => [c.e.name, Math.sqrt(c.square)]));
}
