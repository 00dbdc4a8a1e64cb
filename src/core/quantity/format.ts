/** Values as Scutum shows them: engineering notation, the unit always there and always spaced. */

import { figure } from "../language/language";
import type { Unit } from "./unit";
import * as texts from "../texts/quantity";

const STEPS: [number, string][] = [
  [1e9, "G"],
  [1e6, "M"],
  [1e3, "k"],
  [1, ""],
  [1e-3, "m"],
  [1e-6, "µ"],
  [1e-9, "n"],
  [1e-12, "p"],
];

/** Volts and watts of a tube amp are read whole: 1 200 V is never "1.2 kV" on a meter at the bench. */
const PLAIN_ABOVE_ONE: ReadonlySet<Unit> = new Set<Unit>(["V", "%", "J"]);

/**
 * Engineering notation with `digits` significant digits: 4700 Ω → "4.7 kΩ", 0.0312 A → "31.2 mA".
 * Zero has no magnitude and is shown as "0".
 */
export function formatQuantity(value: number, unit?: Unit, digits = 3): string {
  if (!Number.isFinite(value)) return value > 0 ? "open" : "—";
  const suffix = (prefix: string) => (unit || prefix ? ` ${prefix}${unit ?? ""}` : "");
  if (value === 0) return `0${suffix("")}`;
  const rounded = Number(value.toPrecision(digits));
  const size = Math.abs(rounded);
  const plain = unit !== undefined && PLAIN_ABOVE_ONE.has(unit) && size >= 1;
  const [step, prefix] =
    plain || unit === "%" ? ([1, ""] as const) : (STEPS.find(([s]) => size >= s * 0.9999999) ?? STEPS[STEPS.length - 1]!);
  const scaled = rounded / step;
  const whole = Math.floor(Math.log10(Math.abs(scaled))) + 1;
  return `${figure(scaled.toFixed(Math.max(0, Math.min(6, digits - Math.max(whole, 1)))))}${suffix(prefix)}`;
}

/** Volts as a bench meter shows them: no decimals from 100 V, one from 10 V, two below, three under 1 V. */
export function formatVolts(volts: number): string {
  const size = Math.abs(volts);
  const decimals = size >= 99.95 ? 0 : size >= 9.995 ? 1 : size >= 0.9995 || size === 0 ? 2 : 3;
  return `${figure(volts.toFixed(decimals).replace(/^-0(\.0+)?$/, "0$1"))} V`;
}

/** A length of time in words short enough for the guard: "4 s", "2 min 10 s", "3 h 5 min". */
export function formatDuration(seconds: number): string {
  if (!Number.isFinite(seconds)) return texts.neverItself();
  const s = Math.max(0, Math.round(seconds));
  if (s < 60) return `${s} s`;
  if (s < 3600) return s % 60 ? texts.minS(Math.floor(s / 60), s % 60) : texts.min(s / 60);
  const minutes = Math.round(s / 60);
  return minutes % 60 ? texts.hMin(Math.floor(minutes / 60), minutes % 60) : `${minutes / 60} h`;
}
