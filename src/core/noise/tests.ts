/** Every test that the bench can do about a noise, with what it costs and what to mind. */

import type { Circuit } from "../circuit/circuit";
import type { NoiseCause } from "./cause";
import { swapPair } from "./causes-supply";
import { channelsOf, envelopesOf, feedbackOf, type Chain } from "./chain";
import { CHANGES_HEARD, LIVE, OFF, RIPPLE_READ, TOUCHED, WORDS, type NoiseTest } from "./test";
import { controlTests, outsideTests, sideTest } from "./tests-outside";
import * as texts from "../texts/noise";

/** Grounds a grid for signal: large beside any grid leak at mains frequency. */
const GROUNDING_FARADS = 1e-6;

/** @param refused told of tests that this amp forbids, with the reason. @param rises rails over a rating with these tubes out, in words. @param unloaded volts of a rail while nothing draws from it. */
export function noiseTests(
  circuit: Circuit,
  chain: Chain,
  causes: readonly NoiseCause[],
  rises: (without: readonly string[]) => string | undefined,
  refused: (what: string, why: string) => void,
  unloaded: (node: string) => number | undefined,
): NoiseTest[] {
  return [
    {
      id: "sound",
      what: texts.whatDoesSoundLike(),
      how: texts.recordChooseEarNothing(),
      outcomes: WORDS,
      cost: 0.3,
    },
    ...sideTest(chain),
    ...controlTests(chain),
    ...outsideTests(),
    ...inputTests(chain),
    ...tubeTests(chain, rises, refused),
    ...insideTests(circuit, chain, causes, unloaded),
    ...railTests(chain),
    ...touchTests(chain, refused),
  ];
}

function inputTests(chain: Chain): NoiseTest[] {
  if (!chain.input) return [];
  const grids = [...new Set(chain.stages.filter((s) => !s.output).map((s) => s.grid ?? s.in))];
  return [
    {
      id: "short:input",
      what: texts.shortInputJack(),
      how: texts.shortedPlug(),
      outcomes: CHANGES_HEARD,
      cost: 0.5,
      circuit: { set: channelsOf(chain).flatMap((c) => (c.input ? [`${c.input}~0=1`] : [])) },
    },
    ...grids
      .filter(() => !chain.lineConnected)
      .map((g): NoiseTest => {
        const stage = chain.stages.find((s) => (s.grid ?? s.in) === g)!;
        return {
          id: `ground:${g}`,
          what: texts.groundGridThrough(stage.name),
          how: texts.capacitorClippedChassisMore(),
          outcomes: CHANGES_HEARD,
          cost: 1.6,
          caution: LIVE,
          circuit: { capacitor: { node: g, farads: GROUNDING_FARADS } },
        };
      }),
  ];
}

function tubeTests(
  chain: Chain,
  rises: (without: readonly string[]) => string | undefined,
  refused: (what: string, why: string) => void,
): NoiseTest[] {
  const out: NoiseTest[] = [];
  const output = [...new Set(chain.stages.filter((s) => s.output).map((s) => s.envelope))];
  for (const v of envelopesOf(chain)) {
    out.push({
      id: `tap:${v}`,
      what: texts.tapLightly(v),
      how: texts.pencilRubberEnd(),
      outcomes: CHANGES_HEARD,
      cost: 0.6,
      caution: LIVE,
    });
    out.push({
      id: `swap:${v}`,
      what: texts.knownGoodTube(v),
      how: texts.offWaitSwapOld(),
      outcomes: CHANGES_HEARD,
      cost: 1.5,
      caution: texts.powerOffOutputTubes(),
    });
    if (output.includes(v)) continue;
    if (chain.string) {
      refused(texts.pulling(v), texts.heaterOneSeriesString());
      continue;
    }
    const over = rises([v]);
    if (over) refused(texts.pulling(v), over);
    else
      out.push({
        id: `pull:${v}`,
        what: texts.pull(v),
        how: texts.offOutAgain(),
        outcomes: CHANGES_HEARD,
        cost: 2,
        caution: texts.powerOffBeforeTube(),
        circuit: { without: [v] },
      });
  }
  for (const channel of channelsOf(chain)) {
    const pair = channel.stages.filter((s) => s.output && s.tube);
    if (pair.length < 2) continue;
    out.push({
      id: swapPair(pair),
      what: texts.swapAnd(pair[0]!.envelope, pair[1]!.envelope),
      how: texts.fitMatchedPair(),
      outcomes: CHANGES_HEARD,
      cost: 1.6,
      caution: texts.powerOffTheyStay(),
    });
  }
  if (output.length > 0 && !chain.string) {
    const over = rises(output);
    if (over) refused(texts.pulling(output.join(", ")), over);
    else
      out.push({
        id: "pullOutput",
        what: texts.pullOutput(output.length > 1 ? "tubes" : "tube", output.join(", ")),
        how: texts.whatStillHeardDoes(),
        outcomes: CHANGES_HEARD,
        cost: 2.4,
        caution: texts.powerOffFirstEvery(),
        circuit: { without: output },
      });
  }
  return out;
}

const FREEZE = "freeze:";

function insideTests(
  circuit: Circuit,
  chain: Chain,
  causes: readonly NoiseCause[],
  unloaded: (node: string) => number | undefined,
): NoiseTest[] {
  const test = (id: string, what: string, how: string, cost: number): NoiseTest => ({
    id,
    what,
    how,
    outcomes: CHANGES_HEARD,
    cost,
    caution: OFF,
    inside: true,
  });
  const out: NoiseTest[] = [
    test("reference", texts.giveHeaterWindingTemporary(), texts.fromEachSideChassis(), 2.6),
    test("star", texts.returnFirstStagesGround(), texts.firstReservoirsMinusOld(), 3.5),
    test("stopper", texts.fitStoppersOutputGrids(), texts.rightSockets(), 3.5),
  ];
  for (const rail of [...chain.rails, ...chain.bias])
    for (const name of rail.capacitors) {
      const part = circuit.elements.find((e) => e.name === name)!;
      out.push({
        ...test(`bridge:${name}`, texts.holdGoodCapacitorAcross(name), texts.sameSizeNearRated(above(unloaded(rail.node), rail.name)), 2.2),
        circuit: { capacitor: { node: rail.node, farads: part.value! } },
      });
    }
  for (const part of new Set(
    causes.flatMap((c) => Object.keys(c.reacts).filter((id) => id.startsWith(FREEZE))).map((id) => id.slice(FREEZE.length)),
  ))
    out.push({
      ...test(`${FREEZE}${part}`, texts.coolFreezingSpray(part), texts.shortBurstThroughStraw(), 1.2),
      caution: LIVE,
      inside: false,
    });
  for (const channel of channelsOf(chain)) {
    const fed = feedbackOf(circuit, channel);
    if (fed) out.push(test(`feedback:${fed}`, texts.openFeedbackLead(), `At ${fed}.`, 2.8));
  }
  if (chain.speaker) out.push(test("turn", texts.turnOutputTransformerMove(), texts.loosenKeepLeadsClear(), 4));
  return out;
}

const above = (volts: number | undefined, rail: string) =>
  volts === undefined ? texts.railUnloaded() : texts.aboveRisesUnloaded(Math.round(Math.abs(volts)), rail);

function railTests(chain: Chain): NoiseTest[] {
  return [...chain.rails, ...chain.bias].map((r) => ({
    id: `ac:${r.node}`,
    what: texts.acVolts(r.name),
    how: texts.meterAcTrueRms(),
    outcomes: RIPPLE_READ,
    cost: 0.9,
    caution: LIVE,
    node: r.node,
  }));
}

function touchTests(chain: Chain, refused: (what: string, why: string) => void): NoiseTest[] {
  if (chain.lineConnected) {
    refused(texts.touchingGrids(), texts.oneSideLineChassis());
    return [];
  }
  return chain.stages.map((s) => ({
    id: `touch:${s.grid ?? s.in}`,
    what: texts.touchGridThroughSafe(s.name),
    how: texts.insulatedProbeNfQuick(),
    outcomes: TOUCHED,
    cost: 0.8,
    caution: LIVE,
    node: s.grid ?? s.in,
  }));
}
