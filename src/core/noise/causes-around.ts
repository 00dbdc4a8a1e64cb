/** Causes from around: what is picked up, grounds inside and between machines, lamps, transmitters, leads, the speaker. */

import type { NoiseCause } from "./cause";
import type { Chain } from "./chain";
import { BUZZ, first, GONE, grid, signal } from "./typical";

export function pickupCauses(chain: Chain): NoiseCause[] {
  const out: NoiseCause[] = [];
  const in0 = first(chain);
  if (chain.speaker)
    out.push({
      id: "induction",
      says: "the mains transformer induces into the output transformer or its leads",
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
        says: s.control
          ? `a long or open lead at ${s.control}'s wiper picks up: its source is highest there at mid-travel`
          : `the input lead inside picks up: high impedance and no shield as far as ${s.name}`,
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
      says: `the shield of ${in0.envelope} or of its lead is missing or not grounded`,
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
      says: "a ground inside the amp carries charging or heater current in series with the first stage",
      refs: [],
      prior: 4,
      sounds: BUZZ,
      changes: [],
      enters: [{ into: cathode, at: "double" }],
      reacts: { star: -16 },
    },
    {
      id: "ground between",
      says: "a ground loop between this amp and what is plugged into it",
      refs: [],
      prior: 4,
      sounds: { "hum-mains": 0.5, buzz: 0.5 },
      changes: [],
      enters: [{ into: in0.in, at: "mains" }],
      reacts: { lead: GONE, outlet: -7, isolation: -25, lift: -20 },
    },
    {
      id: "lift does not lift",
      says: "the ground lift leaves the loop closed: its network, a screw or a shell still connects",
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
      says: "a dimmer, a lamp or a supply nearby gets in by the air or by the mains",
      refs: [],
      prior: 2.5,
      sounds: { buzz: 0.85, "hum-mains": 0.1, crackle: 0.05 },
      changes: [],
      enters: [{ into: in0.in, at: "audio" }],
      reacts: { lamps: GONE, outlet: -8, lead: -6, isolation: -6 },
    },
    {
      id: "radio",
      says: "a transmitter is rectified at the first grid or at a bad joint of the input",
      refs: [],
      prior: 1.5,
      sounds: { "speech or music": 0.9, buzz: 0.1 },
      changes: [],
      enters: [{ into: grid(in0), at: "audio" }],
      reacts: { lead: -14, hand: 6, stopper: -3, foil: -6 },
    },
    {
      id: "lead",
      says: "the input lead or what is plugged in makes it",
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
      says: "the speaker or its lead rattles, rubs or makes bad contact",
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
