/** Causes in tubes and parts, and what lets no signal through. */

import type { Circuit } from "../circuit/circuit";
import type { NoiseCause } from "./cause";
import type { Chain, ChainStage } from "./chain";
import { CRACKLE, GONE, grid, signal } from "./typical";
import * as texts from "../texts/noise";

export function tubeCauses(chain: Chain): NoiseCause[] {
  return chain.stages.flatMap((s, i): NoiseCause[] => {
    if (!s.tube) return [];
    const near = s.output ? 0.5 : 1.5 / (1 + 0.5 * i);
    return [
      {
        id: `${s.name} microphonic`,
        says: texts.isMicrophonic(s.envelope),
        refs: [s.envelope],
        prior: 2 * near,
        sounds: { squeal: 0.7, motorboating: 0.1, crackle: 0.2 },
        changes: [],
        enters: [{ into: grid(s), at: "audio" }],
        reacts: { [`swap:${s.envelope}`]: GONE, [`tap:${s.envelope}`]: 12, cabinet: -20 },
      },
      {
        id: `${s.name} noisy`,
        says: texts.isNoisy(s.envelope),
        refs: [s.envelope],
        prior: 3 * near,
        sounds: { hiss: 0.5, crackle: 0.45, squeal: 0.05 },
        changes: [],
        enters: [{ into: s.cathode && s.cathode !== "0" ? s.cathode : grid(s), at: "audio" }],
        reacts: { [`swap:${s.envelope}`]: GONE, [`tap:${s.envelope}`]: 3 },
        fitful: true,
      },
    ];
  });
}

export function partCauses(circuit: Circuit, chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const rails = new Set(chain.rails.map((r) => r.node));
  for (const s of signal(chain)) {
    const load = circuit.elements.find((e) => e.letter === "R" && e.nodes.includes(s.out) && e.nodes.some((n) => rails.has(n)));
    if (load)
      out.push({
        id: `${load.name} noisy`,
        says: texts.plateResistorNoisy(load.name, s.name),
        refs: [load.name],
        prior: /carbon/.test(load.notes.kind ?? "carbon") ? 3 : 0.4,
        sounds: { crackle: 0.55, hiss: 0.45 },
        changes: [],
        enters: [{ into: s.out, at: "audio" }],
        reacts: { [`freeze:${load.name}`]: -9 },
        fitful: true,
      });
    for (const c of couplings(circuit, s, chain))
      out.push({
        id: `${c.name} leaky`,
        says: texts.leaksDirectVoltageReaches(c.name),
        refs: [c.name],
        prior: 2.5,
        sounds: CRACKLE,
        changes: [`${c.name}=leak:3000000`],
        enters: [{ into: c.to, at: "audio" }],
        reacts: c.control ? { [`scratch:${c.control}`]: 14 } : {},
        fitful: true,
        fault: `${c.name} leaky`,
      });
    if (s.control)
      out.push({
        id: `${s.control} dirty`,
        says: texts.dirtyWorn(s.control),
        refs: [s.control],
        prior: 4,
        sounds: { crackle: 0.9, hiss: 0.1 },
        changes: [],
        enters: [{ into: s.in, at: "audio" }],
        reacts: { [`scratch:${s.control}`]: 14 },
        fitful: true,
      });
    out.push({
      id: `${s.name} contacts`,
      says: texts.socketJointMakesBad(s.envelope),
      refs: [s.envelope],
      prior: 2.5,
      sounds: { crackle: 0.85, "hum-mains": 0.15 },
      changes: [],
      enters: [{ into: grid(s), at: "audio" }],
      reacts: { [`tap:${s.envelope}`]: 12, stick: 8, [`swap:${s.envelope}`]: -4 },
      fitful: true,
    });
  }
  return out;
}

/** Neighbours on the board that flux or wax may join. */
export function boardLeaks(circuit: Circuit): NoiseCause[] {
  return circuit.near.map(([a, b]) => ({
    id: `${a}~${b} board leak`,
    says: texts.fluxWaxConductsBoard(a, b),
    refs: [`${a}~${b}`],
    prior: 1,
    sounds: CRACKLE,
    changes: [`${a}~${b}=5000000`],
    enters: [{ into: b, at: "audio" }],
    reacts: { stick: 3 },
    fitful: true,
    fault: `${a}~${b} board leak`,
  }));
}

/** Coupling capacitors out of a stage, with the node that they feed and the control that it is. */
function couplings(circuit: Circuit, s: ChainStage, chain: Chain): { name: string; to: string; control?: string }[] {
  return circuit.elements.flatMap((e) => {
    if (e.letter !== "C" || !e.nodes.includes(s.out) || e.nodes.includes("0")) return [];
    const to = e.nodes.find((n) => n !== s.out)!;
    const control = circuit.elements.find((p) => p.type === "POT" && p.nodes.includes(to))?.name;
    return [{ name: e.name, to, control: control && chain.controls.includes(control) ? control : undefined }];
  });
}

/** What lets no signal through: no noise, but the touch of a grid tells where. */
export function lostSignal(circuit: Circuit, chain: Chain): NoiseCause[] {
  const silent = {
    prior: 1,
    sounds: { "nothing at all": 0.95, clean: 0.05 } as NoiseCause["sounds"],
    enters: [],
    reacts: {},
    silent: true,
  };
  return chain.stages.flatMap((s): NoiseCause[] => [
    ...(s.tube && !s.output
      ? [
          {
            ...silent,
            id: `${s.name} dead`,
            fault: `${s.tube.name} dead`,
            says: texts.passesNothing(s.envelope),
            refs: [s.envelope],
            changes: [`${s.tube.name}=dead`],
          },
        ]
      : []),
    ...(s.output
      ? []
      : couplings(circuit, s, chain).map((c) => ({
          ...silent,
          id: `${c.name} open`,
          fault: `${c.name} open`,
          says: texts.passesNothing2(c.name),
          refs: [c.name],
          changes: [`${c.name}=open`],
        }))),
  ]);
}
