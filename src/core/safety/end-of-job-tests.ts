/** End-of-job electrical safety tests against the shop's limits. Local codes and a licensed person decide. */

import { figure } from "../language/language";
import { formatQuantity } from "../quantity/format";
import { OPEN_OHMS } from "../quantity/ohms";
import type { Unit } from "../quantity/unit";
import type { SafetyTestKind } from "../tape/events/words";
import type { Settings } from "../shop/settings";
import * as texts from "../texts/safety";

export interface SafetyTestSpec {
  test: SafetyTestKind;
  name: string;
  how: string;
  /** Measured tests have a unit and a limit; the others are looked at. */
  unit?: Unit;
  limit?: number;
  sense?: "at most" | "at least";
}

export const SAFETY_NOTE = texts.theseLimitsSettingsShop;

export function safetyTestsFor(settings: Settings): SafetyTestSpec[] {
  const { limits } = settings;
  return [
    {
      test: "earth bond",
      name: texts.earthBond(),
      how: texts.plugEarthPinBare(),
      unit: "Ω",
      limit: limits.earthBondOhms,
      sense: "at most",
    },
    {
      test: "insulation",
      name: "Insulation",
      how: texts.liveNeutralTogetherChassis(),
      unit: "Ω",
      limit: limits.insulationOhms,
      sense: "at least",
    },
    {
      test: "leakage",
      name: texts.leakageEarth(),
      how: texts.fullMainsBothPlug(),
      unit: "A",
      limit: limits.leakageAmps,
      sense: "at most",
    },
    { test: "fuse", name: "Fuse", how: texts.typeRatingPlateChart() },
    { test: "polarity", name: texts.polaritySwitchOrder(), how: texts.liveGoesFuseFirst() },
    { test: "cord", name: texts.cordStrainRelief(), how: texts.noDamageGripHolds() },
  ];
}

/** Does the value hold its limit? Same unit for both. */
export function holdsLimit(spec: Pick<SafetyTestSpec, "limit" | "sense">, value: number): boolean {
  if (spec.limit === undefined) return true;
  return spec.sense === "at least" ? value >= spec.limit : value <= spec.limit;
}

/**
 * The other test that a figure is rather of: ohms as insulation has them, typed at the earth bond. Undefined where nothing speaks against it.
 * An earth bond that is open is typed as an overload.
 */
function testOfThatSize(spec: SafetyTestSpec, value: number, all: readonly SafetyTestSpec[]): SafetyTestSpec | undefined {
  if (spec.sense !== "at most") return undefined;
  return all.find(
    (s) => s.test !== spec.test && s.unit === spec.unit && s.sense === "at least" && s.limit !== undefined && value >= s.limit,
  );
}

/** Amperes above which nothing is a leakage: a fuse of the wall goes first. */
const MOST_LEAKAGE = 1;

/** Why a figure cannot be that of a test, with what is accepted; undefined where nothing speaks against it. */
export function figureProblem(spec: SafetyTestSpec, value: number, all: readonly SafetyTestSpec[]): string | undefined {
  const { unit } = spec;
  if (!unit) return undefined;
  if (unit === "A" && value > MOST_LEAKAGE) return texts.noLeakage(formatQuantity(value, "A", 3));
  const another = value >= OPEN_OHMS ? undefined : testOfThatSize(spec, value, all);
  return another && texts.figureOfAnother(testValue(value, unit), another.name, spec.name);
}

/** A test's figure as the trade says it: fractions of an ohm in ohms, leakage in milliamperes. */
export function testValue(value: number, unit: Unit): string {
  if (unit === "Ω" && value >= OPEN_OHMS) return "OL";
  if (unit === "Ω" && value < 1) return `${figure(Number(value.toPrecision(3)))} Ω`;
  if (unit === "A") return `${figure(Number((value * 1000).toPrecision(3)))} mA`;
  return formatQuantity(value, unit, 3);
}

/** "at most 0.1 Ω". */
export function limitText(spec: SafetyTestSpec): string {
  return spec.limit === undefined || !spec.unit ? "" : `${spec.sense} ${testValue(spec.limit, spec.unit)}`;
}
