/** Causes in the supplies and the heaters: capacitors, the output pair, references, leaks from heater to cathode. */

import type { Circuit } from "../circuit/circuit";
import type { Enters, NoiseCause } from "./cause";
import type { Chain, ChainStage } from "./chain";
import { GONE, grid, HUM, RIPPLE, signal } from "./typical";
import * as texts from "../texts/noise";

export function supplyCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  for (const rail of [...chain.rails, ...chain.bias]) {
    const bias = chain.bias.includes(rail);
    for (const name of rail.capacitors) {
      const part = circuit.elements.find((e) => e.name === name)!;
      const old = part.notes.kind === "electrolytic" && (part.notes.year ?? 1960) < 2005;
      // With its prefix: a bare number of a capacitor is taken for microfarads.
      const left = (share: number) => `${name}=${Number((share * part.value! * 1e6).toPrecision(3))}u`;
      const base = {
        refs: [name],
        enters: bias ? ("bias ripple" as const) : ("ripple" as const),
        sounds: bias ? HUM : RIPPLE,
        reacts: {},
      };
      out.push({
        ...base,
        id: `${name} open`,
        fault: `${name} open`,
        says: texts.hasLostCapacitanceNo(name, rail.name),
        prior: old ? 5 : 1,
        changes: [`${name}=open`],
      });
      out.push({
        ...base,
        id: `${name} low`,
        says: texts.hasLittleCapacitanceLeft(name),
        prior: old ? 7 : 1,
        changes: [left(0.25)],
        severities: [[left(0.5)], [left(0.1)]],
      });
    }
  }
  const decouplers = chain.rails.slice(1).filter((r) => chain.stages.filter((s) => s.rail === r.node).length > 0);
  for (const rail of decouplers)
    for (const name of rail.capacitors)
      out.push({
        id: `${name} motorboating`,
        says: texts.stagesFeedBackThrough(name, rail.name),
        refs: [name],
        prior: 1.5,
        sounds: { motorboating: 0.85, squeal: 0.1, "hum-double": 0.05 },
        changes: [`${name}=open`],
        enters: [{ into: rail.node, at: "audio" }],
        reacts: { [`bridge:${name}`]: GONE },
        fault: `${name} open`,
      });
  return out;
}

/** The output pair of a channel, one half the weaker. */
export function pairCauses(channel: Chain): NoiseCause[] {
  const pair = channel.stages.filter((s) => s.output && s.tube);
  if (pair.length < 2) return [];
  return pair.slice(0, 2).map((weak) => ({
    id: `${weak.envelope} weak`,
    says: texts.outputPairUnbalancedWeaker(weak.envelope),
    refs: [weak.envelope],
    prior: 4,
    sounds: RIPPLE,
    changes: [`${weak.tube!.name}=weak:0.35`],
    enters: "ripple",
    reacts: { [swapPair(pair)]: -9, [`swap:${weak.envelope}`]: -14 },
    fault: `${weak.tube!.name} weak`,
  }));
}

/** Name of the test that swaps the first two of an output stage. */
export const swapPair = (pair: readonly ChainStage[]) =>
  `swap-pair:${pair
    .slice(0, 2)
    .map((s) => s.envelope)
    .join("+")}`;

export function heaterCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const small = signal(chain);
  if (small.length === 0) return [];
  const intoGrids = (weight: (i: number) => number): Enters[] => small.map((s, i) => ({ into: grid(s), at: "mains", weight: weight(i) }));
  const out: NoiseCause[] = [
    {
      id: "heater reference",
      says: texts.heaterWindingHasNo(),
      refs: [],
      prior: circuit.heaters.some((h) => !h.string && !h.reference) ? 6 : 2,
      sounds: HUM,
      changes: [],
      enters: intoGrids((i) => 1 / (1 + i)),
      reacts: { reference: -22, stick: 0 },
    },
    {
      id: "heater unbalanced",
      says: texts.heaterWindingsTwoSides(),
      refs: [],
      prior: 2.5,
      sounds: HUM,
      changes: [],
      enters: intoGrids((i) => 1 / (1 + i)),
      reacts: { reference: -12, stick: 0 },
    },
    {
      id: "heater wiring",
      says: texts.heaterWiresRunToo(),
      refs: [],
      prior: 2,
      sounds: HUM,
      changes: [],
      enters: [{ into: grid(small[0]!), at: "mains" }],
      reacts: { stick: -8, reference: -6 },
    },
  ];
  for (const s of small)
    if (s.tube)
      out.push({
        id: `${s.name} hk`,
        says: texts.leaksFromHeaterCathode(s.envelope),
        refs: [s.envelope],
        prior: 3,
        sounds: HUM,
        changes: [`${s.tube.name}=hk:220k`],
        enters: [{ into: s.cathode && s.cathode !== "0" ? s.cathode : grid(s), at: "mains" }],
        reacts: { [`swap:${s.envelope}`]: GONE, reference: -5 },
        fault: `${s.tube.name} heater–cathode leak`,
      });
  return out;
}
