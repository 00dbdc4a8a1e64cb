/** Causes from around: what is picked up, grounds inside and between machines, lamps, transmitters, leads, the speaker. */

import type { NoiseCause } from "./cause";
import type { Chain } from "./chain";
import { BUZZ, first, GONE, grid, signal } from "./typical";
import * as texts from "../texts/noise";

export function pickupCauses(chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const in0 = first(chain);
  if (chain.speaker)
    out.push({
      id: "induction",
      says: texts.mainsTransformerInducesInto(),
      refs: [],
      prior: 2,
      sounds: { "hum-mains": 0.7, buzz: 0.15, "hum-double": 0.15 },
      changes: [],
      enters: [{ into: chain.speaker, at: "mains" }],
      reacts: { turn: -12, pullOutput: 0 },
    });
  for (const s of signal(chain))
    if (s.control || s === in0)
      out.push({
        id: `pickup ${s.name}`,
        says: s.control ? texts.longOpenLeadWiper(s.control) : texts.inputLeadInsidePicks(s.name),
        refs: s.control ? [s.control] : [],
        prior: 3,
        sounds: { "hum-mains": 0.55, buzz: 0.45 },
        changes: [],
        enters: [{ into: s.in, at: "mains" }],
        reacts: { hand: 9, foil: -14, stick: -7 },
      });
  if (in0)
    out.push({
      id: "shield",
      says: texts.shieldLeadMissingNot(in0.envelope),
      refs: [in0.envelope],
      prior: 3,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: grid(in0), at: "mains" }],
      reacts: { hand: 12, foil: GONE, stick: 0 },
    });
  return out;
}

export function groundCauses(chain: Chain): NoiseCause[] {
  const in0 = first(chain);
  if (!in0) return [];
  const cathode = in0.cathode && in0.cathode !== "0" ? in0.cathode : grid(in0);
  const out: NoiseCause[] = [
    {
      id: "ground inside",
      says: texts.groundInsideAmpCarries(),
      refs: [],
      prior: 4,
      sounds: BUZZ,
      changes: [],
      enters: [{ into: cathode, at: "double" }],
      reacts: { star: -16 },
    },
    {
      id: "ground between",
      says: texts.groundLoopBetweenAmp(),
      refs: [],
      prior: 4,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, outlet: -7, isolation: -25, lift: -20 },
    },
    {
      id: "lift does not lift",
      says: texts.groundLiftLeavesLoop(),
      refs: [],
      prior: 1.2,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, outlet: -7, isolation: -25, lift: 0 },
    },
  ];
  return out;
}

export function outsideCauses(chain: Chain): NoiseCause[] {
  const in0 = first(chain);
  if (!in0) return [];
  const out: NoiseCause[] = [
    {
      id: "interference",
      says: texts.dimmerLampSupplyNearby(),
      refs: [],
      prior: 2.5,
      sounds: { buzz: 0.85, "hum-mains": 0.1, crackle: 0.05 },
      changes: [],
      enters: [{ into: in0.in, at: "audio" }],
      reacts: { lamps: GONE, outlet: -8, lead: -6, isolation: -6 },
    },
    {
      id: "radio",
      says: texts.transmitterRectifiedFirstGrid(),
      refs: [],
      prior: 1.5,
      sounds: { "speech or music": 0.9, buzz: 0.1 },
      changes: [],
      enters: [{ into: grid(in0), at: "audio" }],
      reacts: { lead: -14, hand: 6, stopper: -3, foil: -6 },
    },
    {
      id: "lead",
      says: texts.inputLeadWhatPlugged(),
      refs: [],
      prior: 3,
      sounds: { "hum-mains": 0.4, crackle: 0.4, buzz: 0.2 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, stick: 3 },
      fitful: true,
    },
  ];
  if (chain.speaker)
    out.push({
      id: "speaker",
      says: texts.speakerLeadRattlesRubs(),
      refs: [],
      prior: 2,
      sounds: { crackle: 0.75, "bursts on peaks": 0.15, buzz: 0.1 },
      changes: [],
      enters: [{ into: chain.speaker, at: "audio" }],
      reacts: { speaker: GONE, cabinet: -8 },
      fitful: true,
    });
  return out;
}
