/** A first ground map of an amp from its circuit: the points that every amp has, with the currents that are known of it. */

import type { Circuit } from "../circuit/circuit";
import type { GroundMapDrawn } from "../tape/events/noise-events";
import { operatingPoint } from "../solver/operating-point";
import { pulsesOf } from "../solver/ripple";
import { chainOf } from "./chain";
import * as texts from "../texts/noise";

/** Copper of the usual hook-up wire, mm², and a length inside a chassis, m. */
const HOOKUP = 0.35;
const INSIDE = 0.12;
/** What a heater winding drives through its reference by the leakage of sockets and heaters, amperes. */
const HEATER_LEAKS = 2e-4;
const ALONE = { inputGround: texts.inputJack, stageGround: texts.firstStage };

/** @param mains volts. The map is a bus as most amps have one: to be corrected to what is found. */
export function usualGrounds(circuit: Circuit | undefined, mains: number | undefined): GroundMapDrawn {
  const wire = (from: string, to: string, length = INSIDE) => ({ from, to, area: HOOKUP, length });
  const chain = circuit && chainOf(circuit);
  const names = [texts.firstReservoir(), ...(chain?.rails.slice(1).map((r) => texts.minus(r.capacitors[0])) ?? [texts.secondReservoir()])];
  const wires = [
    wire(texts.inputJack2(), texts.firstStage2()),
    wire(texts.firstStage2(), names.at(-1)!),
    ...names
      .slice(1)
      .map((n, i) => wire(n, names[i]!))
      .reverse(),
    wire(texts.outputStage(), texts.firstReservoir()),
    wire(texts.speakerJack(), texts.firstReservoir()),
    wire(texts.firstReservoir(), "chassis", 0.05),
    // A jack whose bushing touches the panel: as most were made.
    { from: texts.inputJack2(), to: "chassis", area: 0, length: 0 },
    wire(texts.transformerCentreTap(), texts.firstReservoir()),
  ];
  const watts = Number(circuit?.facts.watts) || 10;
  const load = circuit?.elements.find((e) => e.type?.startsWith("OPT_"))?.params.load;
  const currents = [
    { what: texts.chargingPulses(), from: texts.firstReservoir(), to: texts.transformerCentreTap(), amps: pulseAmps(circuit, mains) },
    { what: texts.outputStageSignal(), from: texts.outputStage(), to: texts.firstReservoir(), amps: 0.05 },
    {
      what: "speaker",
      from: texts.speakerJack(),
      to: texts.firstReservoir(),
      amps: Math.sqrt(watts / (typeof load === "number" ? load : 8)),
    },
    { what: texts.heaterLeakage(), from: texts.firstStage2(), to: "chassis", amps: HEATER_LEAKS },
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
