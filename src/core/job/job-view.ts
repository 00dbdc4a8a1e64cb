/** Everything that a screen, a report or the board derives from a tape and a circuit, computed in one place. */

import type { Circuit } from "../circuit/circuit";
import { reservoirsOf, type Reservoir } from "../supply/reservoirs";
import type { ExpectationSource } from "../walk/expectation";
import { modelled, type SolvedLookup } from "../walk/modelled";
import { walkRows, type WalkRow } from "../walk/walk";
import { wallVolts } from "../circuit/line";
import { unloadedRails } from "../walk/unloaded";
import { isolationOpen } from "../bring-up/isolation-state";
import { energyAt, jobReservoirs, type EnergyContext, type EnergyState } from "./energy";
import type { JobEvent } from "./events/event";
import { conditionsNow, foldJob, openApprovals, powerOns, type JobState } from "./fold";
import type { Settings } from "./settings";
import { safetyTestsFor } from "./safety-tests";
import type { StationId } from "./stations";

export interface JobView {
  state: JobState;
  circuit?: Circuit;
  reservoirs: Reservoir[];
  energyContext: EnergyContext;
  source?: ExpectationSource;
  rows: WalkRow[];
}

/** Before anything is solved: the scaled chart stands in. */
const NOTHING_SOLVED: SolvedLookup = () => undefined;

/**
 * Folds the tape and lays the circuit beside it. `now` is milliseconds since 1970.
 * @param solved what the solver has found so far, by conditions.
 */
export function viewJob(
  events: JobEvent[],
  circuit: Circuit | undefined,
  settings: Settings,
  now: number,
  solved: SolvedLookup = NOTHING_SOLVED,
): JobView {
  const state = foldJob(events);
  const source = circuit && modelled(circuit, solved);
  const fromCircuit = circuit ? reservoirsOf(circuit) : [];
  const energyContext: EnergyContext = {
    circuit,
    reservoirs: fromCircuit,
    safeVolts: settings.safeVolts,
    proofHours: settings.proofHours,
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
    const rails = unloadedRails(circuit, wall);
    energyContext.unloadedVolts = (reservoir) => {
      const rail = rails.find((r) => r.capacitor === reservoir.name)?.volts;
      const expected = energyContext.expectedVolts(reservoir);
      return rail !== undefined && (expected ?? 0) < 0 ? -rail : rail;
    };
  }
  const conditions = conditionsNow(state, now);
  if (conditions.mains === undefined) conditions.mains = settings.mainsVolts;
  return {
    state,
    circuit,
    source,
    energyContext,
    reservoirs: jobReservoirs(state.effective, fromCircuit),
    rows: circuit && source ? walkRows(circuit, state, source, conditions) : [],
  };
}

export function energyOf(view: JobView, now: number): EnergyState {
  return energyAt(view.state.effective, now, view.energyContext);
}

export interface StationMark {
  /** How many things are open here. */
  open: number;
  warning: boolean;
  done: boolean;
  /** In words, for the tooltip and the screen reader. */
  says: string;
}

/** What is open at each station, for the rail. */
export function stationMarks(view: JobView, energy: EnergyState, settings: Settings): Record<StationId, StationMark> {
  const { state, rows } = view;
  const mark = (open: number, done: boolean, says: string, warning = false): StationMark => ({ open, done, says, warning });
  const findingsAt = (id: StationId) => state.findings.filter((f) => f.station === id && !f.closed);
  const openFindings = (id: StationId) => {
    const open = findingsAt(id);
    return mark(
      open.length,
      open.length === 0 && state.findings.some((f) => f.station === id),
      open.length ? `${open.length} ${open.length === 1 ? "finding" : "findings"} open` : "nothing open",
      open.some((f) => f.severity === "danger" || f.severity === "fault"),
    );
  };
  const missingIntake = [
    !state.complaint && "complaint",
    !state.brief && "brief",
    !state.reproductions.some((r) => r.run === "intake") && "reproduce the complaint",
  ].filter(Boolean);
  const out = rows.filter((r) => r.verdict === "out").length;
  const taken = rows.filter((r) => r.reading).length;
  const tests = safetyTestsFor(settings);
  const testsLeft = tests.filter((t) => !state.safetyTests.get(t.test)?.passed).length;
  const off = state.removed.filter((r) => r.back === undefined).length;
  const asked = openApprovals(state).length;
  const experiments = state.changes.filter((c) => c.kind === "experiment" && (c.outcome ?? "open") === "open").length;
  const ohms = state.readings.filter((r) => r.kind === "ohm").length;
  const powered = powerOns(state).length > 0;
  const inspected = [...state.inspected.values()].filter((i) => i.result !== "open again").length;
  const passed = [...state.stages.values()].filter((s) => s.result === "passed").length;
  const stopped = [...state.stages.values()].filter((s) => s.result === "stopped").length;
  const soaking = state.soaks.some((soak) => !soak.ended);
  const takeApart = off ? `, ${off} off the amp` : "";

  return {
    intake: mark(
      missingIntake.length,
      missingIntake.length === 0,
      missingIntake.length ? `still open: ${missingIntake.join(", ")}` : "complete",
    ),
    "make-safe":
      energy.kind === "proven-dead"
        ? mark(0, true, "proven dead")
        : energy.kind === "live"
          ? mark(0, false, "the amp is live", true)
          : mark(energy.proof.missing.length, false, `${energy.proof.missing.length} steps to proven dead`, energy.kind === "stored"),
    look: {
      ...openFindings("look"),
      open: findingsAt("look").length + off,
      says: `${inspected > 0 ? `${inspected} things looked at, ` : ""}${openFindings("look").says}${takeApart}`,
    },
    "cold-checks": mark(0, ohms > 0, ohms ? `${ohms} resistances read` : "nothing read"),
    "bring-up": isolationOpen(state)
      ? mark(1, false, "a fuse has gone: isolation under way", true)
      : mark(
          0,
          powered && stopped === 0,
          passed > 0
            ? `${passed} stages passed${stopped > 0 ? `, ${stopped} stopped` : ""}`
            : powered
              ? "has been powered here"
              : "not powered here yet",
          stopped > 0,
        ),
    walk: mark(
      out,
      taken > 0 && taken === rows.length && out === 0,
      rows.length ? `${taken} of ${rows.length} points read, ${out} out` : "no test points",
      out > 0,
    ),
    suspects: openFindings("suspects"),
    signal: openFindings("signal"),
    noise: {
      ...openFindings("noise"),
      open: findingsAt("noise").length + (soaking ? 1 : 0),
      done: !soaking && findingsAt("noise").length === 0 && state.soaks.at(-1)?.ended?.outcome === "cured",
      says: `${soaking ? "a soak is running, " : ""}${openFindings("noise").says}`,
    },
    work: mark(
      experiments + asked,
      state.changes.length > 0 && experiments + asked === 0,
      [
        `${state.changes.length} changes`,
        asked ? `${asked} waiting for the owner` : "",
        experiments ? `${experiments} experiments open` : "",
      ]
        .filter(Boolean)
        .join(", "),
    ),
    "output-stage": openFindings("output-stage"),
    prove: mark(
      testsLeft + off,
      testsLeft + off === 0,
      `${tests.length - testsLeft} of ${tests.length} safety tests passed${takeApart}`,
      off > 0,
    ),
    return: mark(0, state.returned !== undefined, state.returned ? `returned to ${state.returned.to}` : "not returned yet"),
  };
}
