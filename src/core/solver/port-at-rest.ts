/**
 * What hangs on a rectifier of a circuit at its own mains, by the averaged law: as a rule it is the same to the ripple wherever the amp is
 * solved, and its curve is made once. The same whatever was solved before.
 */

import type { Circuit } from "../circuit/circuit";
import { alike, SupplyCurve } from "../supply/supply-curve";
import { impulseOf, multiplesOf, samplesOf } from "../supply/pulse-train";
import { compile } from "./compile";
import type { RectifierPart } from "./network";
import { solveNewton } from "./newton";
import { Workspace } from "./workspace";
import { portImpedances } from "./port-impedance";
import { portOfRipple } from "./pulses";

interface AtRest {
  ohms: readonly [number, number];
  impulse: Float64Array;
  /** By the rectifier's model: at another mains it is another one. */
  curves: Map<string, SupplyCurve>;
}

const known = new WeakMap<Circuit, Map<string, AtRest | undefined>>();

/** The curve of a rectifier whose ripple sees those ohms; undefined where that is not what it sees at rest. */
export function curveAtRest(circuit: Circuit, { device, model }: RectifierPart, ohms: readonly [number, number]): SupplyCurve | undefined {
  let rests = known.get(circuit);
  if (!rests) known.set(circuit, (rests = restsOf(circuit)));
  const rest = rests.get(device.name);
  if (!rest || !alike(rest.ohms, ohms)) return undefined;
  const key = JSON.stringify(model);
  let curve = rest.curves.get(key);
  if (!curve) rest.curves.set(key, (curve = new SupplyCurve(model, rest.impulse)));
  return curve;
}

/** Of each rectifier by its name. */
function restsOf(circuit: Circuit): Map<string, AtRest | undefined> {
  const network = compile(circuit);
  const work = new Workspace(network);
  const x = new Float64Array(network.size);
  const out = new Map<string, AtRest | undefined>();
  if (!solveNewton(work, x).converged) return out;
  for (const part of network.rectifiers) {
    if (part.model.pulses === 0 || part.model.through) continue;
    const port = portOfRipple(network, work, part, x);
    const ohms = port(1);
    const z = ohms && portImpedances(port, multiplesOf(part.model));
    if (z) out.set(part.device.name, { ohms, impulse: impulseOf(z, samplesOf(part.model)), curves: new Map() });
  }
  return out;
}
