/** The solver off the main thread: a thin shell over core. */

import { expose } from "comlink";
import { setLanguage } from "@/core/language/language";
import { circuitOf } from "./circuit-of";
import { releasing } from "./releasing";
import { movesNotLive, predictBringUp, type BringUpPrediction, type LiveMove } from "@/core/bring-up/predict-stages";
import { coldList } from "@/core/cold/cold-list";
import type { GroundMapDrawn } from "@/core/tape/events/noise-events";
import type { JobNoise } from "@/core/noise/job-noise";
import { answerNoise, type NoiseAnswer } from "@/core/noise/noise-answer";
import { NoiseTable } from "@/core/noise/noise-table";
import { responseOf, type Response } from "@/core/signal/response";
import { usualGrounds } from "@/core/noise/usual-grounds";
import type { StageOptions } from "@/core/bring-up/stages";
import { isolate, type Answer, type Isolation } from "@/core/diagnosis/isolate";
import { IsolationTable } from "@/core/bring-up/fuse-isolation-table";
import type { ColdCheck } from "@/core/cold/cold-check";
import { solveExpected } from "@/core/expectation/solve-expected";
import type { Solution } from "@/core/expectation/solution";
import type { FittedType, ReadToo, SuspectsAnswer } from "@/core/ports/solver-port";
import type { Evidence } from "@/core/diagnosis/evidence";
import type { PartHistory } from "@/core/suspects/history";
import type { MainsKnown } from "@/core/suspects/mains-known";
import { nextMeasurements } from "@/core/suspects/next";
import { rank } from "@/core/suspects/rank";
import { FaultTable } from "@/core/suspects/table";
import type { Given, Measured } from "@/core/settle/given";
import { settle, type Settled } from "@/core/settle/settle";
import { solveOnce } from "@/core/expectation/solve-once";
import { fitTube } from "@/core/tubes/fit";
import type { SheetData } from "@/core/tubes/sheet-points";
import { writeTubeType } from "@/core/tubes/type-line";
import { solveKey, type SolveConditions, type Solved } from "@/core/expectation/modelled";

let table: { netlist: string; faults: FaultTable } | undefined;
let noise: { key: string; table: NoiseTable } | undefined;
let isolation: { key: string; table: IsolationTable } | undefined;

/** The fault table of a circuit, solved under these conditions: the same for the suspects and for a noise. */
function faultsFor(netlist: string, conditions: readonly SolveConditions[], progress?: (part: number) => void): FaultTable {
  if (table?.netlist !== netlist) table = { netlist, faults: new FaultTable(circuitOf(netlist)) };
  const { faults } = table;
  const wanted = conditions.filter((c, i) => !faults.has(c) && conditions.findIndex((d) => solveKey(d) === solveKey(c)) === i);
  wanted.forEach((c, i) =>
    faults.shown(c, (part) => {
      progress?.((i + part) / wanted.length);
      return true;
    }),
  );
  return faults;
}

const api = {
  speak: setLanguage,
  expected(netlist: string, conditions: SolveConditions, progress?: (part: number) => void): Solved {
    return solveExpected(circuitOf(netlist), conditions, (part) => {
      progress?.(part);
      return true;
    });
  },
  solve(netlist: string, conditions: SolveConditions): Solution {
    return solveOnce(circuitOf(netlist), conditions);
  },
  settle(netlist: string, given: Given[], measured: Measured[], progress?: (part: number) => void): Settled {
    return settle(circuitOf(netlist), given, measured, (part) => {
      progress?.(part);
      return true;
    });
  },
  suspects(
    netlist: string,
    evidence: Evidence[],
    conditions: SolveConditions,
    history: PartHistory | undefined,
    mains: MainsKnown,
    progress?: (part: number) => void,
  ): SuspectsAnswer {
    const faults = faultsFor(netlist, [...evidence.filter((e) => e.kind !== "ohm").map((e) => e.conditions), conditions], progress);
    const started = performance.now();
    const { posterior, ...ranking } = rank(faults, evidence, history, { mains });
    const next = nextMeasurements(posterior, conditions, 5, mains);
    return { ...ranking, next, evidence, ms: performance.now() - started };
  },
  bringUp(netlist: string, wall: number, lamp: number, options: StageOptions, progress?: (part: number) => void): BringUpPrediction {
    return predictBringUp(circuitOf(netlist), wall, lamp, options, progress);
  },
  notLive(netlist: string, wall: number): LiveMove[] {
    return movesNotLive(circuitOf(netlist), wall);
  },
  cold(netlist: string, progress?: (part: number) => void): ColdCheck[] {
    return coldList(circuitOf(netlist), progress);
  },
  isolate(
    netlist: string,
    bench: { wall: number; lamp: number; fuse?: number },
    answers: Answer[],
    progress?: (part: number) => void,
  ): Isolation {
    const key = JSON.stringify([netlist, bench]);
    if (isolation?.key !== key) isolation = { key, table: new IsolationTable(circuitOf(netlist), { ...bench, progress }) };
    return isolate(isolation.table, answers);
  },
  enters(netlist: string, mains: number, job: JobNoise, read: ReadToo | undefined, progress?: (part: number) => void): NoiseAnswer {
    const key = JSON.stringify([netlist, mains]);
    if (noise?.key !== key) noise = { key, table: new NoiseTable(circuitOf(netlist), { mains, progress }) };
    // Ripple on a rail is an answer about the noise already: it must not count twice.
    const evidence = (read?.evidence ?? []).filter((e) => e.kind !== "acv");
    const conditions = evidence.filter((e) => e.kind !== "ohm").map((e) => e.conditions);
    const ranking =
      evidence.length > 0 ? rank(faultsFor(netlist, conditions, progress), evidence, read?.history, { mains: read?.mains }) : undefined;
    return answerNoise(noise.table, job, ranking);
  },
  response(netlist: string, mains: number | undefined, changes: string[]): Response {
    return responseOf(circuitOf(netlist), mains, changes);
  },
  grounds(netlist: string | undefined, mains: number | undefined): GroundMapDrawn {
    return usualGrounds(netlist === undefined ? undefined : circuitOf(netlist), mains);
  },
  fit(data: SheetData): FittedType {
    const { model, rows, doubts } = fitTube(data);
    const line = writeTubeType({ type: data.type, aliases: [], kind: model.kind, pins: [], heater: { volts: 6.3, amps: 0.3 }, model });
    return { line, rows, doubts };
  },
};

export type SolverApi = typeof api;

expose(releasing(api));
