/** What is open at each station of a job, for the rail. */

import { openRun, reformRuns } from "../capacitor/reform-run";
import { isolationOpen } from "../bring-up/fuse-isolation-state";
import { safetyTestsFor } from "../safety/end-of-job-tests";
import type { EnergyState } from "../safety/energy";
import type { Settings } from "../shop/settings";
import { powerOns } from "../tape/fold";
import { questionsOf } from "../repair/questions";
import type { StationId } from "../tape/stations";
import type { JobView } from "./job-view";
import * as texts from "../texts/job";

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
      open.length ? texts.open(open.length, open.length === 1 ? "finding" : "findings") : texts.nothingOpen(),
      open.some((f) => f.severity === "danger" || f.severity === "fault"),
    );
  };
  const missingIntake = [
    !state.complaint && "complaint",
    !state.brief && "brief",
    !state.reproductions.some((r) => r.run === "intake") && texts.reproduceComplaint(),
  ].filter(Boolean);
  const out = rows.filter((r) => r.verdict === "out").length;
  const taken = rows.filter((r) => r.reading).length;
  const tests = safetyTestsFor(settings);
  const testsLeft = tests.filter((t) => !state.safetyTests.get(t.test)?.passed).length;
  const off = state.removed.filter((r) => r.back === undefined).length;
  const asked = questionsOf(state).filter((q) => q.stands === "asked").length;
  const experiments = state.changes.filter((c) => c.kind === "experiment" && (c.outcome ?? "open") === "open").length;
  const ohms = state.readings.filter((r) => r.kind === "ohm").length;
  const powered = powerOns(state).length > 0;
  const inspected = [...state.inspected.values()].filter((i) => i.result !== "open again").length;
  const passed = [...state.stages.values()].filter((s) => s.result === "passed").length;
  const stopped = [...state.stages.values()].filter((s) => s.result === "stopped").length;
  const soaking = state.soaks.some((soak) => !soak.ended);
  const reforming = openRun(reformRuns(state));
  const takeApart = off ? texts.offAmp(off) : "";

  return {
    intake: mark(
      missingIntake.length,
      missingIntake.length === 0,
      missingIntake.length ? texts.stillOpen(missingIntake.join(", ")) : "complete",
    ),
    "make-safe":
      energy.kind === "proven-dead"
        ? mark(0, true, texts.provenDead())
        : energy.kind === "live"
          ? mark(0, false, texts.ampLive(), true)
          : energy.kind === "not-here"
            ? mark(0, true, texts.ampNotHere())
            : mark(energy.proof.missing.length, false, texts.stepsProvenDead(energy.proof.missing.length), energy.kind === "stored"),
    look: {
      ...openFindings("look"),
      open: findingsAt("look").length + off,
      says: `${inspected > 0 ? texts.thingsLooked(inspected) : ""}${openFindings("look").says}${takeApart}`,
    },
    "cold-checks": mark(0, ohms > 0, ohms ? texts.resistancesRead(ohms) : texts.nothingRead()),
    "bring-up": isolationOpen(state)
      ? mark(1, false, texts.fuseHasGoneIsolation(), true)
      : mark(
          0,
          powered && stopped === 0,
          passed > 0
            ? texts.stagesPassed(passed, stopped > 0 ? texts.stopped(stopped) : "")
            : powered
              ? texts.hasBeenPoweredHere()
              : texts.notPoweredHereYet(),
          stopped > 0,
        ),
    walk: mark(
      out,
      taken > 0 && taken === rows.length && out === 0,
      rows.length ? texts.pointsReadOut(taken, rows.length, out) : texts.noTestPoints(),
      out > 0,
    ),
    suspects: openFindings("suspects"),
    signal: openFindings("signal"),
    noise: {
      ...openFindings("noise"),
      open: findingsAt("noise").length + (soaking ? 1 : 0),
      done: !soaking && findingsAt("noise").length === 0 && state.soaks.at(-1)?.ended?.outcome === "cured",
      says: `${soaking ? texts.soakRunning() : ""}${openFindings("noise").says}`,
    },
    work: mark(
      experiments + asked + (reforming ? 1 : 0),
      state.changes.length > 0 && experiments + asked === 0 && !reforming,
      [
        reforming ? texts.reformingOpen(reforming.parts.map((p) => p.part.part).join(", ")) : "",
        texts.changes(state.changes.length),
        asked ? texts.waitingOwner(asked) : "",
        experiments ? texts.experimentsOpen(experiments) : "",
      ]
        .filter(Boolean)
        .join(", "),
    ),
    "output-stage": openFindings("output-stage"),
    prove: mark(
      testsLeft + off,
      testsLeft + off === 0,
      texts.safetyTestsPassed(tests.length - testsLeft, tests.length, takeApart),
      off > 0,
    ),
    return: mark(0, state.returned !== undefined, state.returned ? texts.returnedTo(state.returned.to) : texts.notReturnedYet()),
  };
}
