/** Lines about capacitors in words. */

import { formatQuantity, formatVolts } from "../quantity/format";
import type { Unit } from "../quantity/unit";
import { is, type JobEvent } from "./events/event";
import type { CapacitorTestKind } from "./events/words";
import * as texts from "../texts/tape";

const UNIT: Record<CapacitorTestKind, Unit | undefined> = { leakage: "A", capacitance: "F", "series ohms": "Ω", dissipation: undefined };

/** @returns undefined for a line about something else. */
export function tellCapacitors(e: JobEvent): string | undefined {
  if (is(e, "capacitor")) {
    const { part, farads, volts, kind, year, celsius, marking, place, safetyClass, caseLead, lug, note } = e.payload;
    return texts.readOff(
      part,
      [
        farads === undefined ? "" : formatQuantity(farads, "F", 3),
        volts === undefined ? "" : `${volts} V`,
        kind,
        year,
        celsius === undefined ? "" : `${celsius} °C`,
        marking,
        place,
        safetyClass === undefined ? "" : safetyClass === "none" ? texts.noSafetyClass() : texts.safetyClass(safetyClass),
        caseLead === undefined ? "" : texts.caseAt(caseLead),
        lug === undefined ? "" : texts.onLug(lug),
        note,
      ]
        .filter(Boolean)
        .join(", "),
    );
  }
  if (is(e, "capacitor-test")) {
    const { part, kind, value, volts, hertz, note } = e.payload;
    return [
      `${part} ${kind} ${formatQuantity(value, UNIT[kind], 3)}`,
      volts === undefined ? "" : `at ${formatVolts(volts)}`,
      hertz === undefined ? "" : `at ${formatQuantity(hertz, "Hz", 3)}`,
      note ?? "",
    ]
      .filter(Boolean)
      .join(" ");
  }
  if (is(e, "board-test")) return texts.boardTested(e.payload.grid, e.payload.part, e.payload.test, e.payload.outcome);
  if (is(e, "board-cleaned")) return texts.boardCleaned(e.payload.grids.join(", "), e.payload.how ?? "");
  if (is(e, "reform-begun")) {
    const { parts, steps, ohms, pace } = e.payload;
    return texts.reformBegun(
      parts.map((p) => p.part).join(", "),
      steps[0]!,
      Math.min(...parts.map((p) => p.target)),
      formatQuantity(ohms, "Ω", 2),
      pace ? texts.simulatedTime(pace) : "",
    );
  }
  if (is(e, "reform-point")) {
    const { part, supply, volts, amps } = e.payload;
    return texts.reformPoint(part, formatVolts(volts), formatQuantity(amps, "A", 3), supply);
  }
  if (is(e, "reform-turn")) {
    const { what, supply, result, part, why } = e.payload;
    return texts.reformTurn(what, supply, result ?? "", part ?? "", why ?? "");
  }
  return undefined;
}
