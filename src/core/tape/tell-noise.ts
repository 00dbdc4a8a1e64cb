/** Lines about noise and about faults that come and go, in words. */

import { fixed } from "../language/language";
import { formatQuantity } from "../quantity/format";
import type { Tellings } from "./telling";
import { saidSound, sayOutcome } from "./sound-words";
import * as texts from "../texts/tape";

export const NOISE_TOLD = {
  recording: (l) => texts.recordingS(l.when, l.sounds.map((s) => saidSound(s.kind)).join(", "), l.name, fixed(l.seconds, 1)),
  "noise-test": (l) => `${l.what.replace(/\?$/, "")}: ${sayOutcome(l.outcome)}`,
  conditions: (l) => texts.conditionsTried(l.conditions.map((c) => c.name).join(", ")),
  "conditions-run": (l) =>
    `Run: ${l.settings.map(({ name, setting }) => `${name} ${setting}`).join(", ")}: ${{ none: texts.noFault(), some: "some", bad: "bad" }[l.bad]}${l.note ? `, ${l.note}` : ""}`,
  "ground-map": (l) => texts.groundMapWiresCurrents(l.wires.length, l.currents.length),
  provoked: ({ place, by, tool, response, ohmsFrom, ohmsTo }) => {
    const jump =
      ohmsFrom !== undefined && ohmsTo !== undefined ? `, ${formatQuantity(ohmsFrom, "Ω", 3)} to ${formatQuantity(ohmsTo, "Ω", 3)}` : "";
    return `${{ tap: "Tapped", flex: "Flexed", heat: "Heated", cold: "Cooled" }[by]} ${place}${tool ? texts.withText(tool) : ""}: ${response}${jump}`;
  },
  occurrence: (l) => texts.itShowed(l.what, l.warmMinutes === undefined ? "" : texts.afterMin(Math.round(l.warmMinutes))),
  "soak-begun": (l) => texts.soakBegun(l.fault),
  "soak-ended": (l) => texts.soakEnded(l.outcome, l.done ? `, ${l.done}` : ""),
} satisfies Partial<Tellings>;
