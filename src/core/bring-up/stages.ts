/** The stages of bringing an amp up, generated from its circuit: what is out, how far the dial is turned, what is read. */

import type { Circuit } from "../circuit/circuit";
import { anatomyOf, type BringUpAnatomy } from "../anatomy/kind-of-amp";
import { biasWatches, cathodeWatches, railWatches, socketWatches, windingWatches, type Watch } from "./watches";
import * as texts from "../texts/bring-up";

export interface BringUpStage {
  id: string;
  title: string;
  /** In short lines, in order. */
  doing: string[];
  /** Why this stage is here in this amp. */
  why: string;
  /** False for what is done with the plug out. */
  powered: boolean;
  /** Tubes that are out, by envelope. */
  without: string[];
  /** Parts of the wall's volts that the dial is turned to. */
  steps: number[];
  watch: Watch[];
  /** Stages that must be passed before this one. */
  after: string[];
}

export interface StageOptions {
  /** One output tube after another, as after a blown fuse. */
  oneAtATime?: boolean;
}

const SLOW = [0.25, 0.5, 0.75, 1];
/** A tube rectifier does nothing before its heater has most of its volts. */
const TUBE_RECTIFIER = [0.5, 0.7, 0.85, 1];

export function stagesOf(circuit: Circuit, options: StageOptions = {}): BringUpStage[] {
  const a = anatomyOf(circuit);
  const stages = a.lineConnected || a.string.length > 0 ? stringStages(circuit, a) : transformerStages(circuit, a, options);
  // Each stage stands on the ones before it.
  return stages.map((s, i) => ({ ...s, after: stages.slice(0, i).map((b) => b.id) }));
}

type Draft = Omit<BringUpStage, "after">;

function transformerStages(circuit: Circuit, a: BringUpAnatomy, { oneAtATime = false }: StageOptions): Draft[] {
  const every = [...a.rectifierTubes, ...a.small, ...a.output];
  const out: Draft[] = [];
  const solid = a.high.every((e) => !e.rectifierTube);
  const rails = railWatches(circuit, a);
  const steps = a.rectifierTubes.length > 0 ? TUBE_RECTIFIER : SLOW;
  out.push({
    id: "no-tubes",
    title: solid ? texts.noTubesRailsCome() : texts.noTubesWindingsOnly(),
    doing: [texts.pullEveryTubeNote(), solid ? texts.solidStateRectifierCharges() : texts.nothingRectifiesCurrentTransformers()],
    why: solid ? (a.doubler ? texts.doublerUnloadedRailReaches() : texts.solidStateRectifierNo()) : texts.shortedTransformerShowsHere(),
    powered: true,
    without: every,
    steps: SLOW,
    watch: [...windingWatches(circuit, a), ...(solid ? [...biasWatches(circuit, a), ...rails] : [])],
  });
  if (!solid)
    out.push({
      id: "rectifier",
      title: texts.rectifierOnlyRailsUnloaded(),
      doing: [texts.putOnly(a.rectifierTubes.join(" and ")), texts.turnSlowlyRailsRise()],
      why: texts.tubeRectifierDoesLittle(),
      powered: true,
      without: [...a.small, ...a.output],
      steps,
      watch: [...biasWatches(circuit, a), ...rails],
    });
  if (a.fixedBias)
    out.push({
      id: "bias",
      title: texts.biasEachOutputSocket(),
      doing: [texts.outputTubesStillOut(), texts.readGridPinEvery()],
      why: texts.withoutBiasOutputTube(),
      powered: true,
      without: [...a.small, ...a.output],
      steps: [1],
      watch: socketWatches(circuit, a, true),
    });
  out.push({
    id: "load",
    title: texts.loadConnected(),
    doing: [texts.powerOffSpeakerDummy()],
    why: texts.outputTransformerWithoutLoad(),
    powered: false,
    without: [],
    steps: [],
    watch: [],
  });
  out.push({
    id: "small",
    title: texts.smallTubes(),
    doing: [texts.putOutputTubesStill(a.small.join(", ") || "none"), ...(a.fixedBias ? [] : [texts.readGridPinEach()])],
    why: a.fixedBias ? texts.railsBeginComeDown() : texts.couplingCapacitorsGetTheir(),
    powered: true,
    without: a.output,
    steps,
    watch: [...(a.fixedBias ? [] : socketWatches(circuit, a, false)), ...rails],
  });
  const cathodes = cathodeWatches(circuit, a);
  if (oneAtATime && a.output.length > 1)
    a.output.forEach((tube, i) =>
      out.push({
        id: `output:${tube}`,
        title: texts.outputTube(tube),
        doing: [
          `Add ${tube}; ${i === 0 ? texts.othersStayOut() : texts.stayIn(a.output.slice(0, i).join(", "))}`,
          texts.stopFirstGlowPlate(),
        ],
        why: texts.fuseHasBlownOne(),
        powered: true,
        without: a.output.slice(i + 1),
        steps,
        watch: [...cathodes.filter((w) => w.label.startsWith(tube)), ...rails.slice(0, 1)],
      }),
    );
  else
    out.push({
      id: "output",
      title: a.output.length > 1 ? texts.outputTubes() : texts.outputTube2(),
      doing: [texts.putIn(a.output.join(", ")), texts.watchPlatesFromSide()],
      why: texts.fullLoad(),
      powered: true,
      without: [],
      steps,
      watch: [...cathodes, ...rails.slice(0, 1)],
    });
  out.push(...endStages(circuit, a, cathodes, rails));
  return out;
}

function stringStages(circuit: Circuit, a: BringUpAnatomy): Draft[] {
  const rails = railWatches(circuit, a);
  const cathodes = cathodeWatches(circuit, a);
  const out: Draft[] = [];
  if (a.lineConnected)
    out.push({
      id: "isolation",
      title: texts.isolationTransformer(),
      doing: [texts.setBehindIsolationTransformer(), texts.measureChassisEarthPlug()],
      why: texts.oneSideLineChassis(),
      powered: false,
      without: [],
      steps: [],
      watch: [],
    });
  out.push({
    id: "string",
    title: texts.heaterStringCold(),
    doing: [texts.ohmsAcrossStringSwitch(), texts.openReadAcrossSingle()],
    why: texts.seriesStringOneOpen(a.string.join(", ")),
    powered: false,
    without: [],
    steps: [],
    watch: [],
  });
  out.push({
    id: "load",
    title: texts.loadConnected(),
    doing: [texts.speakerDummyLoadMeasure()],
    why: texts.outputTransformerWithoutLoad(),
    powered: false,
    without: [],
    steps: [],
    watch: [],
  });
  out.push({
    id: "output",
    title: texts.allTubesDialUp(),
    doing: [texts.everyTubeStaysPulling(), texts.halfVoltsFirstHeaters(), texts.readReservoirRectifierWarms()],
    why: texts.seriesStringThereNo(),
    powered: true,
    without: [],
    steps: TUBE_RECTIFIER,
    watch: [...rails, ...cathodes],
  });
  out.push(...endStages(circuit, a, cathodes, rails));
  return out;
}

function endStages(circuit: Circuit, a: BringUpAnatomy, cathodes: Watch[], rails: Watch[]): Draft[] {
  return [
    {
      id: "full",
      title: texts.fullMainsNoLimiter(),
      doing: [a.lineConnected ? texts.takeLampOutIsolated() : texts.takeLampOutStraight(), texts.currentOnceMoreThen()],
      why: texts.onlyNowDoPrinted(),
      powered: true,
      without: [],
      steps: [1],
      watch: [...biasWatches(circuit, a), ...rails.slice(0, 1), ...cathodes],
    },
    {
      id: "settle",
      title: texts.settlingRun(),
      doing: [texts.leaveIdleReadBias(), texts.throughWhenReadingsNo()],
      why: texts.whatChangesWarmsShows(),
      powered: true,
      without: [],
      steps: [1],
      watch: [...biasWatches(circuit, a), ...rails.slice(0, 1), ...cathodes],
    },
  ].map((s) => ({ ...s, watch: s.watch.map((w) => ({ ...w, must: s.id === "settle" ? false : w.must })) }));
}

export interface StageFit {
  /** Tubes that this stage wants in and that are out, and the other way round. */
  wantedIn: string[];
  wantedOut: string[];
}

/** Whether the tubes are as a stage wants them. @param without tubes that are out by the tape. */
export function stageFit(circuit: Circuit, stage: Pick<BringUpStage, "without">, without: readonly string[]): StageFit {
  const a = anatomyOf(circuit);
  const every = [...a.rectifierTubes, ...a.small, ...a.output];
  const out = new Set(without.map((t) => t.toUpperCase()));
  return {
    wantedIn: every.filter((t) => out.has(t) && !stage.without.includes(t)),
    wantedOut: stage.without.filter((t) => !out.has(t)),
  };
}
