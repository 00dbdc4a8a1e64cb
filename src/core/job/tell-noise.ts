/** Lines about noise and about faults that come and go, in words. */

import { formatQuantity } from "../quantity/format";
import { is, type JobEvent } from "./events/event";

/** @returns undefined for a line about something else. */
export function tellNoise(e: JobEvent): string | undefined {
  if (is(e, "recording"))
    return `Recording, ${e.payload.when}: ${e.payload.sounds.map((s) => s.kind).join(", ")} (${e.payload.name}, ${e.payload.seconds.toFixed(1)} s)`;
  if (is(e, "noise-test")) return `${e.payload.what}: ${e.payload.outcome}`;
  if (is(e, "conditions")) return `Conditions to be tried: ${e.payload.conditions.map((c) => c.name).join(", ")}`;
  if (is(e, "conditions-run"))
    return `Run: ${e.payload.settings.map(({ name, setting }) => `${name} ${setting}`).join(", ")}: ${{ none: "no fault", some: "some", bad: "bad" }[e.payload.bad]}${e.payload.note ? `, ${e.payload.note}` : ""}`;
  if (is(e, "ground-map")) return `Ground map: ${e.payload.wires.length} wires, ${e.payload.currents.length} currents`;
  if (is(e, "provoked")) {
    const { place, by, tool, response, ohmsFrom, ohmsTo } = e.payload;
    const jump =
      ohmsFrom !== undefined && ohmsTo !== undefined ? `, ${formatQuantity(ohmsFrom, "Ω", 3)} to ${formatQuantity(ohmsTo, "Ω", 3)}` : "";
    return `${{ tap: "Tapped", flex: "Flexed", heat: "Heated", cold: "Cooled" }[by]} ${place}${tool ? ` with ${tool}` : ""}: ${response}${jump}`;
  }
  if (is(e, "occurrence"))
    return `IT SHOWED: ${e.payload.what}${e.payload.warmMinutes === undefined ? "" : `, after ${Math.round(e.payload.warmMinutes)} min`}`;
  if (is(e, "soak-begun")) return `Soak begun for: ${e.payload.fault}`;
  if (is(e, "soak-ended")) return `Soak ended: ${e.payload.outcome}${e.payload.done ? `, ${e.payload.done}` : ""}`;
  return undefined;
}
