/** Tests from outside: which speaker has it, controls, leads, outlets, lamps, the cabinet, a hand, a stick. */

import type { Chain } from "./chain";
import { CHANGES_HEARD, LIVE, OFF, SWEPT, type NoiseTest } from "./test";

/** Of a set with several channels: in which one it is. What is alike in all is in what they share. */
export const ALIKE = "alike in all";

export function sideTest(chain: Chain): NoiseTest[] {
  if (chain.speakers.length < 2) return [];
  const outcomes = [...chain.speakers.map((s) => `at ${s.name}`), ALIKE];
  return [{ id: "side", what: "Which speaker has it?", how: "Or which has gone silent. Each by itself.", outcomes, cost: 0.3 }];
}

export function controlTests(chain: Chain): NoiseTest[] {
  return chain.controls.flatMap((c): NoiseTest[] => [
    {
      id: `down:${c}`,
      what: `Turn ${c} right down`,
      how: "Listen, then put it back.",
      outcomes: CHANGES_HEARD,
      cost: 0.5,
      circuit: { set: [`${c}=0`] },
    },
    {
      id: `up:${c}`,
      what: `Turn ${c} right up`,
      how: "Mind the ears; then put it back.",
      outcomes: CHANGES_HEARD,
      cost: 0.7,
      circuit: { set: [`${c}=1`] },
    },
    {
      id: `sweep:${c}`,
      what: `Turn ${c} slowly from end to end`,
      how: "Where is it loudest?",
      outcomes: SWEPT,
      cost: 0.8,
      circuit: { sweep: c },
    },
    { id: `scratch:${c}`, what: `Turn ${c} to and fro`, how: "Does turning itself make it?", outcomes: CHANGES_HEARD, cost: 0.5 },
  ]);
}

export function outsideTests(): NoiseTest[] {
  const test = (id: string, what: string, how: string, cost: number, caution?: string): NoiseTest => ({
    id,
    what,
    how,
    outcomes: CHANGES_HEARD,
    cost,
    caution,
    ...(caution === OFF ? { inside: true } : {}),
  });
  return [
    test("lead", "Pull every lead but the mains and the speaker", "Input, effects, pedals, lines out.", 0.4),
    test("outlet", "Another outlet, on another circuit", "For the amp alone.", 1),
    test("lamps", "Dimmers, fluorescent lamps, chargers and screens off", "In this room and the next.", 0.8),
    test(
      "isolation",
      "Feed the other machine through an isolation transformer in the signal lead",
      "Not in the mains: the safety earth stays.",
      1.5,
    ),
    test(
      "lift",
      "Lift the ground of the signal lead",
      "With the switch, or a lead whose screen is open at one end. Never the safety earth.",
      0.8,
      "The safety earth of no machine is ever lifted.",
    ),
    test("speaker", "Another speaker and lead", "The right impedance.", 1.2),
    test("cabinet", "The chassis out of its cabinet, away from the speaker", "Same leads, longer.", 3, OFF),
    test("hand", "Bring a hand near the input stage, not onto it", "Flat, a hand's breadth off.", 0.6, LIVE),
    test("stick", "Move the leads with a dry stick", "One after the other, the input's first.", 1, LIVE),
    test("foil", "A grounded foil between the input stage and the rest", "Insulated, clipped to chassis before power goes on.", 1.8, OFF),
  ];
}
