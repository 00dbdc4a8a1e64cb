/** Lines about capacitors in words. */

import { formatQuantity, formatVolts } from "../quantity/format";
import type { Unit } from "../quantity/unit";
import type { Tellings } from "./telling";
import type { CapacitorTestKind } from "./events/words";
import * as texts from "../texts/tape";

const UNIT: Record<CapacitorTestKind, Unit | undefined> = { leakage: "A", capacitance: "F", "series ohms": "Ω", dissipation: undefined };

export const CAPACITORS_TOLD = {
  capacitor: ({ part, farads, volts, kind, year, celsius, marking, place, safetyClass, caseLead, lug, note }) =>
    texts.readOff(
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
    ),
  "capacitor-test": ({ part, kind, value, volts, hertz, note }) =>
    [
      `${part} ${kind} ${formatQuantity(value, UNIT[kind], 3)}`,
      volts === undefined ? "" : `at ${formatVolts(volts)}`,
      hertz === undefined ? "" : `at ${formatQuantity(hertz, "Hz", 3)}`,
      note ?? "",
    ]
      .filter(Boolean)
      .join(" "),
  "board-test": (l) => texts.boardTested(l.grid, l.part, l.test, l.outcome),
  "board-cleaned": (l) => texts.boardCleaned(l.grids.join(", "), l.how ?? ""),
  "reform-begun": ({ parts, steps, ohms, pace }) =>
    texts.reformBegun(
      parts.map((p) => p.part).join(", "),
      steps[0]!,
      Math.min(...parts.map((p) => p.target)),
      formatQuantity(ohms, "Ω", 2),
      pace ? texts.simulatedTime(pace) : "",
    ),
  "reform-point": ({ part, supply, volts, amps }) => texts.reformPoint(part, formatVolts(volts), formatQuantity(amps, "A", 3), supply),
  "reform-turn": ({ what, supply, result, part, why }) => texts.reformTurn(what, supply, result ?? "", part ?? "", why ?? ""),
} satisfies Partial<Tellings>;
