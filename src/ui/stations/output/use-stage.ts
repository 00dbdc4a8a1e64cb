"use client";
/** The output stage that is looked at: which one, what was read of it, and what the circuit makes of it. */

import { createContext, useContext } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import type { AskedOf } from "@/core/output/answers";
import type { StageRead } from "@/core/output/from-tape";
import type { OutputStage } from "@/core/output/output-stage";
import type { TargetFacts } from "@/core/output/targets";

export interface StageValue {
  circuit: Circuit;
  netlist: string;
  stage: OutputStage;
  /** Volts at the wall that everything is solved at. */
  mains?: number;
  read: StageRead;
  /** What every question begins with. */
  ask: AskedOf;
  facts: TargetFacts;
  setFacts(facts: TargetFacts): void;
}

export const StageContext = createContext<StageValue | undefined>(undefined);

export function useStage(): StageValue {
  const value = useContext(StageContext);
  if (!value) throw new Error("used outside an output stage");
  return value;
}

/** A key for an answer: what the question is and everything that it depends on. */
export const keyOf = (...parts: unknown[]): string => JSON.stringify(parts);

export const percent = (part: number | undefined): string =>
  part === undefined || !Number.isFinite(part) ? "–" : `${Math.round(part * 100)} %`;
