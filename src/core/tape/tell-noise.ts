/** Lines about noise and about faults that come and go, in words. */

import { fixed } from "../language/language";
import { formatQuantity } from "../quantity/format";
import { is, type JobEvent } from "./events/event";
import { saidSound, sayOutcome } from "./sound-words";
import * as texts from "../texts/tape";

/** @returns undefined for a line about something else. */
export function tellNoise(e: JobEvent): string | undefined {
  if (is(e, "recording"))
    return texts.recordingS(
      e.payload.when,
      e.payload.sounds.map((s) => saidSound(s.kind)).join(", "),
      e.payload.name,
      fixed(e.payload.seconds, 1),
    );
  if (is(e, "noise-test")) return `${e.payload.what.replace(/\?$/, "")}: ${sayOutcome(e.payload.outcome)}`;
  if (is(e, "conditions")) return texts.conditionsTried(e.payload.conditions.map((c) => c.name).join(", "));
  if (is(e, "conditions-run"))
    return `Run: ${e.payload.settings.map(({ name, setting }) => `${name} ${setting}`).join(", ")}: ${{ none: texts.noFault(), some: "some", bad: "bad" }[e.payload.bad]}${e.payload.note ? `, ${e.payload.note}` : ""}`;
  if (is(e, "ground-map")) return texts.groundMapWiresCurrents(e.payload.wires.length, e.payload.currents.length);
  if (is(e, "provoked")) {
    const { place, by, tool, response, ohmsFrom, ohmsTo } = e.payload;
    const jump =
      ohmsFrom !== undefined && ohmsTo !== undefined ? `, ${formatQuantity(ohmsFrom, "Ω", 3)} to ${formatQuantity(ohmsTo, "Ω", 3)}` : "";
    return `${{ tap: "Tapped", flex: "Flexed", heat: "Heated", cold: "Cooled" }[by]} ${place}${tool ? texts.withText(tool) : ""}: ${response}${jump}`;
  }
  if (is(e, "occurrence"))
    return texts.itShowed(e.payload.what, e.payload.warmMinutes === undefined ? "" : texts.afterMin(Math.round(e.payload.warmMinutes)));
  if (is(e, "soak-begun")) return texts.soakBegun(e.payload.fault);
  if (is(e, "soak-ended")) return texts.soakEnded(e.payload.outcome, e.payload.done ? `, ${e.payload.done}` : "");
  return undefined;
}
