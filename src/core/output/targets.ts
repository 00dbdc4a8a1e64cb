/** What current the idle is set to, by each school: shown together, so that a choice is seen beside the others. */

import type { Circuit } from "../circuit/circuit";
import type { IdleSchool } from "../tape/events/words";
import * as texts from "../texts/output";
import { idleAtAim, type Aim, type Idle } from "./idle";
import type { OutputStage } from "./output-stage";

export type School = IdleSchool;

/** Parts of the plate rating that the schools idle a fixed-bias stage at. */
export const SCHOOL_SHARES = { cool: 0.55, middle: 0.675, hot: 0.8 } as const;

/** What the schools that are no share of a rating go by. */
export interface TargetFacts {
  /** Plate amperes a tube, as the amp's label and its manual have it. */
  label?: number;
  manual?: number;
  /** Plate amperes at which crossover distortion is just gone. */
  crossover?: number;
  /** The technician's own figure. */
  own?: number;
  /** The owner's first aim. */
  brief?: "reliability" | "originality" | "tone" | "cost";
}

export interface Target {
  school: School;
  /** Plate amperes of each tube on average, and what they come to at the rails that this idle leaves. */
  amps: number;
  plateVolts: number;
  ofRating: number;
  ofScreenRating?: number;
  why: string;
  idle: Idle;
  /** Above the tube's plate or screen rating. */
  above: boolean;
}

/** The share that the owner's brief asks for: long life and low cost run cool, tone hot; who wants it original gets the middle. */
const BRIEF_SHARE = { reliability: "cool", cost: "cool", tone: "hot", originality: "middle" } as const;

/**
 * Each school's target with the rails that it leaves. A figure that no bias reaches is left out.
 * @param circuit the amp, its tubes as strong as they were read.
 */
export function targetsOf(circuit: Circuit, stage: OutputStage, facts: TargetFacts, mains?: number): Target[] {
  const rated = stage.tubes[0]?.type.ratings?.plateWatts;
  const share = (school: keyof typeof SCHOOL_SHARES): Aim | undefined => (rated ? { ofRating: SCHOOL_SHARES[school] } : undefined);
  const amps = (a: number | undefined): Aim | undefined => (a !== undefined && a > 0 ? { amps: a } : undefined);
  const briefSchool = facts.brief && BRIEF_SHARE[facts.brief];
  const wanted: [School, Aim | undefined, string][] = [
    ["cool", share("cool"), texts.whyCool()],
    ["middle", share("middle"), texts.whyMiddle()],
    ["hot", share("hot"), texts.whyHot()],
    ["label", amps(facts.label), texts.whyLabel()],
    ["manual", amps(facts.manual), texts.whyManual()],
    ["crossover", amps(facts.crossover), texts.whyCrossover()],
    ["brief", briefSchool && share(briefSchool), facts.brief ? texts.whyBrief(facts.brief, briefSchool!) : ""],
    ["own", amps(facts.own), texts.whyOwn()],
  ];
  return wanted.flatMap(([school, aim, why]): Target[] => {
    const found = aim && idleAtAim(circuit, stage, aim, mains);
    return found ? [targetOf(school, why, found.idle, stage)] : [];
  });
}

function targetOf(school: School, why: string, idle: Idle, stage: OutputStage): Target {
  const of = idle.tubes.filter((t) => stage.tubes.some((s) => s.name === t.name));
  const mean = (value: (t: (typeof of)[number]) => number) => of.reduce((sum, t) => sum + value(t), 0) / of.length;
  const screens = of.flatMap((t) => t.ofScreenRating ?? []);
  return {
    school,
    amps: mean((t) => t.plate),
    plateVolts: mean((t) => t.plateVolts),
    ofRating: mean((t) => t.ofRating ?? NaN),
    ...(screens.length > 0 ? { ofScreenRating: Math.max(...screens) } : {}),
    why,
    idle,
    above: of.some((t) => (t.ofRating ?? 0) > 1 || (t.ofScreenRating ?? 0) > 1),
  };
}
