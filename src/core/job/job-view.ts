/** Everything that a screen, a report or the board derives from a tape and a circuit, computed in one place. */

import type { Circuit } from "../circuit/circuit";
import { reservoirsOf, type Reservoir } from "../supply/reservoirs";
import type { ExpectationSource } from "../expectation/expectation";
import { modelled, type SolvedLookup } from "../expectation/modelled";
import { walkRows, type WalkRow } from "../walk/walk";
import { wallVolts } from "../circuit/mains-connection";
import { unloadedRails } from "../expectation/unloaded";
import { energyAt, reservoirsToProve, type EnergyState } from "../safety/energy";
import type { EnergyContext } from "../safety/energy-context";
import type { JobEvent } from "../tape/events/event";
import { conditionsNow, foldJob, type JobState } from "../tape/fold";
import type { Settings } from "../shop/settings";
import { circuitInUse, type CircuitInUse } from "./circuit-in-use";

export interface JobView {
  state: JobState;
  /** The circuit that everything here is judged by; none where the job has no model. */
  inUse?: CircuitInUse;
  /** That of `inUse`. */
  circuit?: Circuit;
  reservoirs: Reservoir[];
  energyContext: EnergyContext;
  source?: ExpectationSource;
  /** What was to be expected by the circuit as it was when a line was logged: before an experiment a reading is judged without it. */
  sourceAt(line: number): ExpectationSource | undefined;
  /** Worked out when it is first asked for. */
  readonly rows: WalkRow[];
}

/** What the solver has found so far for a circuit file, by conditions. */
export type SolvedFor = (netlist: string) => SolvedLookup;

/** Before anything is solved: the scaled chart stands in. */
const NOTHING_SOLVED: SolvedFor = () => () => undefined;

/**
 * Folds the tape and lays the circuit in use beside it. `now` is milliseconds since 1970.
 * @param model circuit file of the job's model.
 */
export function viewJob(
  events: JobEvent[],
  model: string | undefined,
  settings: Settings,
  now: number,
  solvedFor: SolvedFor = NOTHING_SOLVED,
): JobView {
  const state = foldJob(events);
  const sourceOf = (used: CircuitInUse | undefined) => used && modelled(used.circuit, solvedFor(used.netlist));
  const inUse = model === undefined ? undefined : circuitInUse(state, model);
  const circuit = inUse?.circuit;
  const source = sourceOf(inUse);
  const fromCircuit = circuit ? reservoirsOf(circuit) : [];
  const energyContext: EnergyContext = {
    circuit,
    reservoirs: fromCircuit,
    safeVolts: settings.safeVolts,
    proofHours: settings.proofHours,
    meterMinutes: settings.meterMinutes,
    meterSource: settings.meterSource,
    ...(model === undefined
      ? {}
      : { reservoirsAt: (line: number) => reservoirsOf(circuitInUse(foldJob(events.filter((e) => e.seq <= line)), model).circuit) }),
    expectedVolts(reservoir) {
      const at = (node: string) => {
        if (node === "0") return 0;
        const point = circuit?.points.find((p) => p.node === node);
        const expected = point && source?.expect(point, { mains: state.mainsVolts });
        return expected && !("none" in expected) ? expected.volts : undefined;
      };
      // One of two in series holds what lies between its own ends.
      const [high, low] = [at(reservoir.node), at(reservoir.returnNode)];
      return high === undefined || low === undefined ? undefined : high - low;
    },
  };
  if (circuit) {
    const wall = state.mainsVolts ?? wallVolts(circuit, settings.mainsVolts);
    let rails: ReturnType<typeof unloadedRails> | undefined;
    energyContext.unloadedVolts = (reservoir) => {
      rails ??= unloadedRails(circuit, wall);
      const rail = rails.find((r) => r.capacitor === reservoir.name)?.volts;
      const expected = energyContext.expectedVolts(reservoir);
      return rail !== undefined && (expected ?? 0) < 0 ? -rail : rail;
    };
  }
  const conditions = conditionsNow(state, now);
  if (conditions.mains === undefined) conditions.mains = wallVolts(circuit, settings.mainsVolts);
  // Many views are made for one figure of theirs: the board asks for energy alone.
  let rows: WalkRow[] | undefined;
  return {
    state,
    inUse,
    circuit,
    source,
    sourceAt: (line) => (model === undefined ? undefined : sourceOf(circuitInUse(state, model, line))),
    energyContext,
    reservoirs: reservoirsToProve(state, energyContext),
    get rows() {
      return (rows ??= circuit && source ? walkRows(circuit, state, source, conditions) : []);
    },
  };
}

export function energyOf(view: JobView, now: number): EnergyState {
  return energyAt(view.state, now, view.energyContext);
}
