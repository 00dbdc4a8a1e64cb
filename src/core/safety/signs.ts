/**
 * What each kind of line says of the amp's energy. The table holds every kind there is: one that is new does not compile before it has
 * said. What is proven falls by any sign of power or charge that is younger than it.
 */

import type { JobEvent } from "../tape/events/event";
import type { EventType, Payloads } from "../tape/events/registry";
import { formatQuantity, formatVolts } from "../quantity/format";
import * as texts from "../texts/safety";

export type Sign =
  /** Only an amp that is plugged in and on can show it. */
  | { shows: "power"; says: string }
  /** Volts above the safe ones at a place that has a name. */
  | { shows: "charge"; place: string; volts: number; says: string };

/** Says of a payload whether it is a sign. */
type Reads<T extends EventType> = (payload: Payloads[T], safeVolts: number) => Sign | undefined;

/**
 * "power": switches, or says how it stands. "proof": a step of the proof. "forming": a supply for reforming. "away": the amp leaves or
 * comes. "reservoirs": another list of them. "nothing": it tells of no energy, or of a time that it does not claim to know.
 */
type Says<T extends EventType> = "power" | "proof" | "forming" | "away" | "reservoirs" | "nothing" | Reads<T>;

/** AC of a point that only an amp with power can have: all that is more than a tone at an input, in volts. */
const LEAST_AC = 1;
/** Milliamperes and amperes below which a meter shows its own zero. */
const LEAST_MILLIAMPS = 0.1;
const LEAST_MAINS_AMPS = 2e-3;
/** Stages of the bring-up that are done beside the amp, with the power off. */
const UNPOWERED_STAGES = ["isolation", "string", "load"];

const power = (says: string): Sign => ({ shows: "power", says });

const SIGNS: { [T in EventType]: Says<T> } = {
  power: "power",
  "still-live": "power",
  "meter-check": "proof",
  "tool-check": "proof",
  clip: "proof",
  "discharge-reading": "proof",
  "reservoir-unread": "proof",
  reservoir: "reservoirs",
  "circuit-given": "reservoirs",
  "reform-begun": "forming",
  "reform-turn": "forming",
  "reform-point": "forming",
  returned: "away",
  "taken-in": "away",
  "brought-in": "away",

  reading: ({ point, kind, value, conditions }, safeVolts) => {
    const size = Math.abs(value);
    const shown = kind === "ma" ? formatQuantity(value / 1000, "A", 3) : formatVolts(value);
    const says = texts.readAtPoint(shown, kind === "acv" ? "AC" : "", point);
    if (kind === "acv") return size > Math.max(LEAST_AC, 2 * (conditions.toneVolts ?? 0)) ? power(says) : undefined;
    if (kind === "ma") return size > LEAST_MILLIAMPS ? power(says) : undefined;
    return (kind === "dcv" || kind === "leak") && size > safeVolts ? { shows: "charge", place: point, volts: value, says } : undefined;
  },
  "mains-current": ({ volts, amps, glow }) =>
    (amps ?? 0) > LEAST_MAINS_AMPS || (glow !== undefined && glow !== "dark") || (amps === undefined && volts > LEAST_AC)
      ? power(texts.mainsCurrentFlows())
      : undefined,
  bias: ({ rows, rails, when }, safeVolts) =>
    when !== "trial" &&
    (rows.some((r) => r.plateMilliamps > LEAST_MILLIAMPS || (r.plateVolts ?? 0) > safeVolts) ||
      rails.some((r) => Math.abs(r.volts) > safeVolts))
      ? power(texts.biasWasRead())
      : undefined,
  stage: ({ stage, result }) => (result === "passed" && !UNPOWERED_STAGES.includes(stage) ? power(texts.stagePassed(stage)) : undefined),
  "isolation-step": ({ test, what }) => (test.startsWith("power:") ? power(what) : undefined),
  "soak-begun": () => power(texts.soakBegan()),
  "grid-read": ({ tube }) => power(texts.gridReadUnderDrive(tube)),
  waveform: ({ source, when }) => (source === "oscilloscope" && when !== "trial" ? power(texts.waveformTaken()) : undefined),
  "signal-figure": ({ kind, value }) => ((value ?? 0) > 0 ? power(texts.figureAtLoad(kind)) : undefined),
  "capacitor-test": ({ part, kind, volts = 0 }, safeVolts) =>
    kind === "leakage" && volts > safeVolts
      ? { shows: "charge", place: part, volts, says: texts.testedAtVolts(part, formatVolts(volts)) }
      : undefined,

  // Nobody knows what it said: the replay looks at the type under which it was logged.
  unreadable: "nothing",
  // What is told of a sound, a fault or a test of listening may be of yesterday.
  observation: "nothing",
  recording: "nothing",
  "noise-test": "nothing",
  "conditions-run": "nothing",
  reproduction: "nothing",
  occurrence: "nothing",
  provoked: "nothing",
  temperature: "nothing",
  "control-check": "nothing",
  "soak-ended": "nothing",
  "job-opened": "nothing",
  complaint: "nothing",
  brief: "nothing",
  claim: "nothing",
  accessory: "nothing",
  photo: "nothing",
  identity: "nothing",
  "date-code": "nothing",
  // The volts of the wall, not of the amp.
  mains: "nothing",
  "live-check": "nothing",
  "gate-passed": "nothing",
  point: "nothing",
  finding: "nothing",
  "finding-closed": "nothing",
  note: "nothing",
  removed: "nothing",
  "put-back": "nothing",
  inspection: "nothing",
  "pot-sweep": "nothing",
  "tube-test": "nothing",
  conditions: "nothing",
  "ground-map": "nothing",
  "bias-figures": "nothing",
  adjusted: "nothing",
  blocking: "nothing",
  "tube-seen": "nothing",
  "tube-fitted": "nothing",
  capacitor: "nothing",
  "board-test": "nothing",
  "board-cleaned": "nothing",
  planned: "nothing",
  "planned-ended": "nothing",
  "plan-order": "nothing",
  timer: "nothing",
  time: "nothing",
  // What it does to the list of reservoirs is seen in the circuit as it stood at each line.
  change: "nothing",
  "cure-test": "nothing",
  approval: "nothing",
  "safety-test": "nothing",
  waiting: "nothing",
  "handed-on": "nothing",
  quote: "nothing",
  "bill-line": "nothing",
  bill: "nothing",
  "bill-cancelled": "nothing",
  payment: "nothing",
  advice: "nothing",
  "books-taken": "nothing",
  undo: "nothing",
};

/** The sign of power or charge that a line is; undefined where it shows none, or is a line whose whole subject is the energy. */
export function signOf(e: JobEvent, safeVolts: number): Sign | undefined {
  const says = SIGNS[e.type] as Says<EventType>;
  return typeof says === "function" ? says(e.payload, safeVolts) : undefined;
}

/** Whether a line of this type is about the amp's energy by its subject: by one that cannot be read nothing stays proven. */
export function isOfEnergy(type: string): boolean {
  const says = Object.hasOwn(SIGNS, type) ? SIGNS[type as EventType] : "nothing";
  return typeof says === "string" && says !== "nothing";
}
