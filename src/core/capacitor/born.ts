/** What every part bears at the worst of the mains: what a substitute is held against. */

import type { Circuit } from "../circuit/circuit";
import { idealVolts, operatingPoint } from "../solver/operating-point";
import { pulsesOf } from "../solver/ripple";
import { stresses } from "../solver/stress";
import { HIGH_MAINS } from "./stress";
import * as texts from "../texts/capacitor";

export interface Born {
  part: string;
  /** Volts across it, or from plate to cathode. */
  volts: number;
  /** Watts in a resistor or at a plate, and at a screen. */
  watts?: number;
  screenWatts?: number;
  /** Amperes direct through a winding or out of a rectifier. */
  amps?: number;
}

/** Resistors, controls, tubes, rectifiers and output transformers, the mains a tenth up. */
export function bornBy(circuit: Circuit, mains: number): Born[] {
  const high = mains * HIGH_MAINS;
  const op = operatingPoint(circuit, { mains: high });
  if (!op.converged) throw new RangeError(texts.doesNotSettle(op.unsettled.join(", "), high));
  const at = (node: string | undefined) => (node === undefined ? 0 : idealVolts(op, node));
  const all = stresses(op);
  const of = (part: string, kind: string) => all.find((s) => s.part === part && s.kind === kind)?.value;
  const pulses = pulsesOf(op);
  return circuit.elements.flatMap((e): Born[] => {
    const [a, b] = e.nodes;
    if (e.letter === "R" || e.letter === "L") return [{ part: e.name, volts: Math.abs(at(a) - at(b)), watts: of(e.name, "watts") }];
    if (e.type === "POT") {
      const volts = Math.abs(at(a) - at(e.nodes[2]));
      return [{ part: e.name, volts, watts: volts ** 2 / e.value! }];
    }
    if (e.tube)
      return [
        { part: e.name, volts: at(a) - at(e.nodes.at(-1)), watts: of(e.name, "plate watts"), screenWatts: of(e.name, "screen watts") },
      ];
    const pulse = pulses.find((p) => op.network.rectifiers[p.rectifier]?.element.name === e.name);
    if (pulse) return [{ part: e.name, volts: Math.abs(at(a) - at(b)), amps: pulse.mean }];
    return [];
  });
}
