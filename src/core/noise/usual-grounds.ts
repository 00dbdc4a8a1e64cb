/** A first ground map of an amp from its circuit: the points that every amp has, with the currents that are known of it. */

import type { Circuit } from "../circuit/circuit";
import type { GroundMapDrawn } from "../job/events/noise";
import { operatingPoint } from "../solver/operating-point";
import { pulsesOf } from "../solver/ripple";
import { chainOf } from "./chain";

/** Copper of the usual hook-up wire, mm², and a length inside a chassis, m. */
const HOOKUP = 0.35;
const INSIDE = 0.12;
/** What a heater winding drives through its reference by the leakage of sockets and heaters, amperes. */
const HEATER_LEAKS = 2e-4;
const ALONE = { inputGround: "input jack", stageGround: "first stage" };

/** @param mains volts. The map is a bus as most amps have one: to be corrected to what is found. */
export function usualGrounds(circuit: Circuit | undefined, mains: number | undefined): GroundMapDrawn {
  const wire = (from: string, to: string, length = INSIDE) => ({ from, to, area: HOOKUP, length });
  const chain = circuit && chainOf(circuit);
  const names = ["first reservoir", ...(chain?.rails.slice(1).map((r) => `${r.capacitors[0]} minus`) ?? ["second reservoir"])];
  const wires = [
    wire("input jack", "first stage"),
    wire("first stage", names.at(-1)!),
    ...names
      .slice(1)
      .map((n, i) => wire(n, names[i]!))
      .reverse(),
    wire("output stage", "first reservoir"),
    wire("speaker jack", "first reservoir"),
    wire("first reservoir", "chassis", 0.05),
    // A jack whose bushing touches the panel: as most were made.
    { from: "input jack", to: "chassis", area: 0, length: 0 },
    wire("transformer centre tap", "first reservoir"),
  ];
  const watts = Number(circuit?.facts.watts) || 10;
  const load = circuit?.elements.find((e) => e.type?.startsWith("OPT_"))?.params.load;
  const currents = [
    { what: "charging pulses", from: "first reservoir", to: "transformer centre tap", amps: pulseAmps(circuit, mains) },
    { what: "output stage, signal", from: "output stage", to: "first reservoir", amps: 0.05 },
    { what: "speaker", from: "speaker jack", to: "first reservoir", amps: Math.sqrt(watts / (typeof load === "number" ? load : 8)) },
    { what: "heater leakage", from: "first stage", to: "chassis", amps: HEATER_LEAKS },
  ];
  return { wires, currents: currents.map((c) => ({ ...c, amps: Number(c.amps.toPrecision(2)) })), ...ALONE };
}

/** Amperes rms of the rectifier's pulses, their average left out; a usual figure where there is no circuit to work it out from. */
function pulseAmps(circuit: Circuit | undefined, mains: number | undefined): number {
  if (!circuit) return 0.15;
  const op = operatingPoint(circuit, { mains });
  const main = op.converged ? pulsesOf(op).find((p) => p.into >= 0) : undefined;
  if (!main) return 0.15;
  return Math.sqrt(main.harmonics.reduce((sum, h) => sum + (h.re * h.re + h.im * h.im) / 2, 0));
}
