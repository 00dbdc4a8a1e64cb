/** The pulses of one rectifier at an operating point: against the capacitor that lies across it, or against all that hangs on it. */

import { averageCurrent, pulsesAlike } from "../supply/rectifier";
import { capacitorImpulse, impulseOf, multiplesOf, pulseTrain, samplesOf, type PulseTrain } from "../supply/pulse-train";
import type { Network, RectifierPart } from "./network";
import type { Workspace } from "./workspace";
import { portImpedances, portOf, type Port } from "./port-impedance";

/** ωCR, times the pulses of a period, from which the averaged law is good to two parts in ten thousand and nothing is corrected. */
const STEADY = 1000;
/** What is corrected already stays so a little longer: its correction alone must not decide that it needs none. */
const STAYS = 1.05;
/** From here on a capacitor straight across the rectifier is all that the ripple sees. */
const CAPACITOR_ALONE = 60;
/** Microamperes leave any capacitor full; a short has no ripple to speak of. */
const LEAST_AMPS = 2e-5;
const LEAST_PART = 0.02;

export const voltsAcross = (part: RectifierPart, x: Float64Array) => (part.a < 0 ? 0 : x[part.a]!) - (part.b < 0 ? 0 : x[part.b]!);

/** How a rectifier stands: what it passes on average, and what its ripple sees. */
export interface SupplyCase {
  volts: number;
  amps: number;
  /** Straight across it. */
  farads: number;
  /** What its ripple sees: that capacitor alone, or the whole amp. */
  sees: "capacitor" | "amp";
}

/**
 * @param always also where the averaged law is good as it is.
 * @returns undefined where it carries next to nothing or needs no correction.
 */
export function caseOf(network: Network, part: RectifierPart, x: Float64Array, always = false): SupplyCase | undefined {
  const { model } = part;
  const volts = voltsAcross(part, x);
  const out = new Float64Array(2);
  averageCurrent(model, volts + part.correction.shift, out);
  const amps = out[0]!;
  if (model.pulses === 0 || model.through || amps < (always ? 1e-6 : LEAST_AMPS) || volts < LEAST_PART * model.peak) return undefined;
  let farads = 0;
  for (const c of network.capacitors) if ((c.a === part.a && c.b === part.b) || (c.a === part.b && c.b === part.a)) farads += c.farads;
  const steady = steadiness(network, part, farads, volts / amps);
  if (steady > steadyFrom(part) && !always) return undefined;
  return { volts, amps, farads, sees: steady > CAPACITOR_ALONE ? "capacitor" : "amp" };
}

const steadyFrom = (part: RectifierPart) => (part.correction.shift === 0 ? STEADY : STEADY * STAYS);

const rippleHertz = (network: Network, part: RectifierPart) => network.hertz * pulsesAlike(part.model);

/** ωCR at the ripple's frequency. */
const steadiness = (network: Network, part: RectifierPart, farads: number, ohms: number) =>
  2 * Math.PI * rippleHertz(network, part) * farads * ohms;

/** The amp as the ripple of this rectifier sees it. */
export const portOfRipple = (network: Network, work: Workspace, part: RectifierPart, x: Float64Array): Port =>
  portOf(network, work, part, x, rippleHertz(network, part));

/** Capacitors in series, or behind a small resistance, hold the rail as well: nothing is corrected. @param z ohms at the ripple's frequency */
export function heldSteady(
  network: Network,
  part: RectifierPart,
  { volts, amps }: SupplyCase,
  [re, im]: readonly [number, number],
): boolean {
  const farads = -im / (re * re + im * im) / (2 * Math.PI * rippleHertz(network, part));
  return im < 0 && steadiness(network, part, farads, volts / amps) > steadyFrom(part);
}

/** Volts after an ampere in one step of a period. @param port of the amp where the ripple sees it. @returns undefined where it has no answer. */
export function impulseOfCase(network: Network, part: RectifierPart, { farads }: SupplyCase, port?: Port): Float64Array | undefined {
  const samples = samplesOf(part.model);
  if (!port) return capacitorImpulse(farads, rippleHertz(network, part), samples);
  const z = portImpedances(port, multiplesOf(part.model));
  return z && impulseOf(z, samples);
}

/** @param from pulses of a like case, to begin the search from. */
export const trainOfCase = (
  { model }: RectifierPart,
  { volts, amps }: SupplyCase,
  impulse: Float64Array,
  from?: PulseTrain,
): PulseTrain | undefined => (from && pulseTrain(model, amps, impulse, from)) ?? pulseTrain(model, amps, impulse, volts);

/** The rectifier's pulses at this operating point, also where the averaged law is good as it is. @returns undefined where there are none. */
export function trainOf(network: Network, work: Workspace, part: RectifierPart, x: Float64Array): PulseTrain | undefined {
  const stands = caseOf(network, part, x, true);
  const port = stands?.sees === "amp" ? portOfRipple(network, work, part, x) : undefined;
  const impulse = stands && impulseOfCase(network, part, stands, port);
  return impulse && trainOfCase(part, stands, impulse);
}
