/** Times and energy in the words of the screens. */

import type { EnergyState } from "@/core/safety/energy";
import type { Proof, ProofStep } from "@/core/safety/proof";
import { formatDuration, formatQuantity, formatVolts } from "@/core/quantity/format";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });
const dayMonth = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });
const whole = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });

export const clockTime = (iso: string) => clock.format(new Date(iso));
export const dayTime = (iso: string) => `${dayMonth.format(new Date(iso))} ${clockTime(iso)}`;
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
/** The start of a sentence within another; names such as C1 stay. @example uncapital("Read C1") // "read C1" */
export const uncapital = (text: string) => text.replace(/^[A-Z](?=[a-z])/, (letter) => letter.toLowerCase());
export const day = (iso: string) => whole.format(new Date(iso));

/** The guard's one line. It reports readings; it never says that anything is safe. */
export function energyWords(energy: EnergyState): { title: string; detail: string } {
  switch (energy.kind) {
    case "live":
      return energy.reforming
        ? {
            title: "LIVE",
            detail: `reforming ${energy.reforming.parts.join(", ")} at ${formatVolts(energy.reforming.volts)}, up to ${formatQuantity(energy.reforming.joules, "J", 2)}`,
          }
        : { title: "LIVE", detail: `since ${clockTime(energy.since)}` };
    case "stored":
      return {
        title: "STORED",
        detail: `≈ ${formatVolts(energy.volts)}, ${formatQuantity(energy.joules, "J", 2)}, ${energy.secondsToSafe === Infinity ? "no bleeder: it will not discharge by itself" : energy.secondsToSafe > 0 ? `falling, ${formatDuration(energy.secondsToSafe)} to go by estimate` : "discharged by estimate, not proven"}${energy.plug === "in" ? ", PLUG IN" : ""}${again(energy.proof)}`,
      };
    case "proven-dead":
      return {
        title: `PROVEN DEAD ${clockTime(energy.at)}`,
        detail: energy.proof.reservoirs
          .map((r) =>
            r.second
              ? `${r.name} ${formatVolts(r.first!.volts).replace(" V", "")} → ${formatVolts(r.second.volts)}`
              : `${r.name} ${formatVolts(r.first!.volts)}`,
          )
          .concat(energy.proof.clips.map((c) => `clip on ${c}`))
          .join(", "),
      };
    case "not-here":
      return { title: "NOT HERE", detail: `it went back to its owner at ${dayTime(energy.since)}` };
    case "unknown":
      return { title: "UNKNOWN", detail: `${energy.why}: treat it as charged` };
  }
}

/** The second reading that is waited for, counted down. */
function again(proof: Proof): string {
  const next = proof.missing[0];
  return next?.do === "read" && next.round === 2 && next.wait > 0 ? `; ${next.reservoir} again in ${next.wait} s` : "";
}

export function stepWords(step: ProofStep): string {
  switch (step.do) {
    case "unplug":
      return "Switch off and pull the plug";
    case "name-reservoirs":
      return "Name the reservoir capacitors: this job has no circuit";
    case "meter":
      return step.when === "before" ? "Prove the meter on a known source" : "Prove the meter again";
    case "tool":
      return step.when === "before" ? "Measure the discharge tool" : "Measure the discharge tool again";
    case "reach":
      return `${step.reservoir} is not proven: ${step.reason}`;
    case "discharge":
      return `Discharge ${step.reservoir}: it holds ${formatVolts(step.volts)}`;
    case "read":
      return step.round === 1 ? `Read ${step.reservoir}` : `Read ${step.reservoir} again${step.wait > 0 ? ` in ${step.wait} s` : ""}`;
  }
}
