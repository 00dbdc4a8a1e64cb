/** The solver off the main thread: a thin shell over core. */

import { expose } from "comlink";
import { readCircuit } from "@/core/circuit/read";
import type { Circuit } from "@/core/circuit/circuit";
import { solveExpected } from "@/core/solver/expected";
import type { FittedType, Solution } from "@/core/solver/port";
import { solveOnce } from "@/core/solver/solution";
import { fitTube } from "@/core/tubes/fit";
import type { SheetData } from "@/core/tubes/sheet-points";
import { writeTubeType } from "@/core/tubes/type-line";
import type { SolveConditions, Solved } from "@/core/walk/modelled";

let last: { netlist: string; circuit: Circuit } | undefined;

function circuitOf(netlist: string): Circuit {
  if (last?.netlist === netlist) return last.circuit;
  const { circuit, errors } = readCircuit(netlist);
  if (errors.length > 0)
    throw new Error(`line ${errors[0]!.line} cannot be read: found ${errors[0]!.found}; expected ${errors[0]!.expected}`);
  last = { netlist, circuit };
  return circuit;
}

const api = {
  expected(netlist: string, conditions: SolveConditions, progress?: (part: number) => void): Solved {
    return solveExpected(circuitOf(netlist), conditions, (part) => {
      progress?.(part);
      return true;
    });
  },
  solve(netlist: string, conditions: SolveConditions): Solution {
    return solveOnce(circuitOf(netlist), conditions);
  },
  fit(data: SheetData): FittedType {
    const { model, rows, doubts } = fitTube(data);
    const line = writeTubeType({ type: data.type, aliases: [], kind: model.kind, pins: [], heater: { volts: 6.3, amps: 0.3 }, model });
    return { line, rows, doubts };
  },
};

export type SolverApi = typeof api;

expose(api);
