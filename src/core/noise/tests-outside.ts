/** Tests from outside: which speaker has it, controls, leads, outlets, lamps, the cabinet, a hand, a stick. */

import type { Chain } from "./chain";
import { CHANGES_HEARD, LIVE, OFF, SWEPT, type NoiseTest } from "./test";
import * as texts from "../texts/noise";

/** Of a set with several channels: in which one it is. What is alike in all is in what they share. */
export const ALIKE = texts.alikeAll;

export function sideTest(chain: Chain): NoiseTest[] {
  if (chain.speakers.length < 2) return [];
  const outcomes = [...chain.speakers.map((s) => `at ${s.name}`), ALIKE];
  return [{ id: "side", what: texts.whichSpeakerHas(), how: texts.whichHasGoneSilent(), outcomes, cost: 0.3 }];
}

export function controlTests(chain: Chain): NoiseTest[] {
  return chain.controls.flatMap((c): NoiseTest[] => [
    {
      id: `down:${c}`,
      what: texts.turnRightDown(c),
      how: texts.listenThenPutBack(),
      outcomes: CHANGES_HEARD,
      cost: 0.5,
      circuit: { set: [`${c}=0`] },
    },
    {
      id: `up:${c}`,
      what: texts.turnRightUp(c),
      how: texts.mindEarsThenPut(),
      outcomes: CHANGES_HEARD,
      cost: 0.7,
      circuit: { set: [`${c}=1`] },
    },
    {
      id: `sweep:${c}`,
      what: texts.turnSlowlyFromEnd(c),
      how: texts.whereLoudest(),
      outcomes: SWEPT,
      cost: 0.8,
      circuit: { sweep: c },
    },
    { id: `scratch:${c}`, what: texts.turnFro(c), how: texts.doesTurningItselfMake(), outcomes: CHANGES_HEARD, cost: 0.5 },
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
    test("lead", texts.pullEveryLeadBut(), texts.inputEffectsPedalsLines(), 0.4),
    test("outlet", texts.anotherOutletAnotherCircuit(), texts.ampAlone(), 1),
    test("lamps", texts.dimmersFluorescentLampsChargers(), texts.roomNext(), 0.8),
    test("isolation", texts.feedOtherMachineThrough(), texts.notMainsSafetyEarth(), 1.5),
    test("lift", texts.liftGroundSignalLead(), texts.switchLeadWhoseScreen(), 0.8, texts.safetyEarthNoMachine()),
    test("speaker", texts.anotherSpeakerLead(), texts.rightImpedance(), 1.2),
    test("cabinet", texts.chassisOutCabinetAway(), texts.sameLeadsLonger(), 3, OFF),
    test("hand", texts.bringHandNearInput(), texts.flatHandsBreadthOff(), 0.6, LIVE),
    test("stick", texts.moveLeadsDryStick(), texts.oneAfterOtherInputs(), 1, LIVE),
    test("foil", texts.groundedFoilBetweenInput(), texts.insulatedClippedChassisBefore(), 1.8, OFF),
  ];
}
