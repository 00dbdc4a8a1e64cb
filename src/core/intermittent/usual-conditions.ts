/** Circumstances that may matter to a fault of this amp, as the matrix of conditions offers them: only of what the amp has. */

import type { Circuit, Element } from "../circuit/circuit";
import type { JobState } from "../tape/fold";
import * as texts from "../texts/intermittent";
import type { Condition } from "./conditions";

/**
 * What came with the amp first (its footswitch, its leads), then the switches of its circuit, then what every amp has: a cabinet, warmth,
 * the mains.
 * @example usualConditions(state, undefined)[0] // { name: "cabinet", settings: ["out of it", "in it"] }
 */
export function usualConditions(state: Pick<JobState, "accessories">, circuit: Circuit | undefined): Condition[] {
  const came = state.accessories.filter((a) => a.state === "here").flatMap((a) => ofAccessory(a.name));
  return [...named(came), ...(circuit ? ofSwitches(circuit) : []), ...texts.everyAmpConditions()];
}

function ofAccessory(name: string): Condition[] {
  const footswitch = /foot\s?-?switch/i.test(name);
  const leads = /\bshort\b.*\blong\b|\blong\b.*\bshort\b/i.test(name) && /\bleads?\b|\bcables?\b/i.test(name);
  if (leads) return [{ name: footswitch ? texts.footswitchLead() : texts.lead(), settings: texts.shortLong() }];
  return footswitch ? [{ name: texts.footswitch(), settings: texts.outIn() }] : [];
}

/** Each once; parts of one ganged switch (S2A, S2B) are one switch. The standby switch is left out: with it open nothing can be heard. */
function ofSwitches(circuit: Circuit): Condition[] {
  return named(
    circuit.elements
      .filter((e) => (e.type === "SW" || e.type === "SW2") && !inSupply(circuit, e))
      .map((e) => ({
        name: e.notes.label ?? e.name.replace(/(\d)[A-Z]$/, "$1"),
        settings: e.type === "SW" ? texts.openClosed() : ["1", "2"],
      })),
  );
}

/** A switch in the way of the supply: at a rectifier or at a rail. One that changes over (pentode and triode) may lie at a rail. */
const inSupply = (circuit: Circuit, e: Element) =>
  e.type === "SW" &&
  e.nodes.some(
    (node) =>
      node !== "0" &&
      (circuit.elements.some((o) => (o.params.vac !== undefined || o.rectifierTube) && o.nodes.includes(node)) ||
        circuit.points.some((p) => p.node === node && /^B\d/.test(p.name))),
  );

const named = (all: readonly Condition[]) => all.filter((c, i) => all.findIndex((d) => d.name === c.name) === i);
