/** End-of-job electrical safety tests against the shop's limits. Local codes and a licensed person decide. */

import { formatQuantity } from "../quantity/format";
import type { Unit } from "../quantity/unit";
import type { SafetyTestKind } from "./events/words";
import type { Settings } from "./settings";

export interface SafetyTestSpec {
  test: SafetyTestKind;
  name: string;
  how: string;
  /** Measured tests have a unit and a limit; the others are looked at. */
  unit?: Unit;
  limit?: number;
  sense?: "at most" | "at least";
}

export const SAFETY_NOTE =
  "These limits are settings of this shop. Local codes decide what is required, and a licensed person signs where the code asks for one. A passed test is a record of a measurement, not a promise that the amplifier is safe to touch.";

export function safetyTestsFor(settings: Settings): SafetyTestSpec[] {
  const { limits } = settings;
  return [
    {
      test: "earth bond",
      name: "Earth bond",
      how: "Plug earth pin to bare chassis metal, cord flexed while reading.",
      unit: "Ω",
      limit: limits.earthBondOhms,
      sense: "at most",
    },
    {
      test: "insulation",
      name: "Insulation",
      how: "Live and neutral together to chassis at 500 V, switch on.",
      unit: "Ω",
      limit: limits.insulationOhms,
      sense: "at least",
    },
    {
      test: "leakage",
      name: "Leakage to earth",
      how: "At full mains, both plug polarities, the larger figure.",
      unit: "A",
      limit: limits.leakageAmps,
      sense: "at most",
    },
    { test: "fuse", name: "Fuse", how: "Type and rating as the plate or chart says; holder sound; in the live conductor." },
    { test: "polarity", name: "Polarity and switch order", how: "Live goes to the fuse first, then the switch; neutral is not fused." },
    { test: "cord", name: "Cord and strain relief", how: "No damage, grip holds, earth is the longest conductor on its own bolt." },
  ];
}

/** Does the value hold its limit? Same unit for both. */
export function holdsLimit(spec: Pick<SafetyTestSpec, "limit" | "sense">, value: number): boolean {
  if (spec.limit === undefined) return true;
  return spec.sense === "at least" ? value >= spec.limit : value <= spec.limit;
}

/** A test's figure as the trade says it: fractions of an ohm in ohms, leakage in milliamperes. */
export function testValue(value: number, unit: Unit): string {
  if (unit === "Ω" && value < 1) return `${Number(value.toPrecision(3))} Ω`;
  if (unit === "A") return `${Number((value * 1000).toPrecision(3))} mA`;
  return formatQuantity(value, unit, 3);
}

/** "at most 0.1 Ω". */
export function limitText(spec: SafetyTestSpec): string {
  return spec.limit === undefined || !spec.unit ? "" : `${spec.sense} ${testValue(spec.limit, spec.unit)}`;
}
