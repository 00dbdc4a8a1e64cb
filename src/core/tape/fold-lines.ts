/** What each kind of line does to the state of its job. One that is new does not compile before it has a row. */

import type { JobEvent } from "./events/event";
import type { EventType, Payloads } from "./events/registry";
import type { JobState, Line } from "./job-state";
import { rootOf } from "./line-root";

type Folds<T extends EventType> = (state: JobState, line: Line<Payloads[T]>) => unknown;

const nothing = () => undefined;

const FOLDS: { [T in EventType]: Folds<T> } = {
  "job-opened": (s, l) => void (s.opened = l),
  complaint: (s, l) => void (s.complaint = l),
  brief: (s, l) => void (s.brief = l),
  claim: (s, l) => s.claims.push(l),
  accessory: (s, l) => s.accessories.push(l),
  photo: (s, l) => s.photos.push(l),
  reproduction: (s, l) => s.reproductions.push(l),
  identity: (s, l) => void (s.identity = l),
  "date-code": (s, l) => s.dateCodes.push(l),
  mains: (s, l) => {
    s.mainsVolts = l.volts;
    s.mainsSeq = l.seq;
    s.mainsAt = l.at;
  },
  power: (s, l) => {
    // Fitting or pulling tubes is done with the power off, so each power-on says what is in.
    if (l.state === "on" && s.power?.state !== "on") s.liveChecked = false;
    s.power = { state: l.state, at: l.at, seq: l.seq, without: l.without ?? [], through: l.through };
  },
  "live-check": (s) => void (s.liveChecked = true),
  reading: (s, l) => s.readings.push(l),
  point: (s, l) => s.points.push(l),
  finding: (s, l) => s.findings.push(l),
  "finding-closed": (s, l) => {
    const finding = s.findings.find((f) => f.seq === l.finding);
    if (finding) finding.closed = l.how;
  },
  removed: (s, l) => s.removed.push(l),
  "put-back": (s, l) => {
    const removed = s.removed.find((r) => r.seq === l.removed);
    if (removed) removed.back = l.seq;
  },
  bias: (s, l) => s.biases.push(l),
  "bias-figures": (s, l) => s.biasFigures.push(l),
  adjusted: (s, l) => s.adjusted.push(l),
  waveform: (s, l) => s.waveforms.push(l),
  "grid-read": (s, l) => s.gridReads.push(l),
  blocking: (s, l) => s.blockings.push(l),
  "tube-seen": (s, l) => s.tubesSeen.push(l),
  "tube-fitted": (s, l) => s.tubesFitted.push(l),
  "signal-figure": (s, l) => s.signalFigures.push(l),
  capacitor: (s, l) => s.capacitors.push(l),
  "capacitor-test": (s, l) => s.capacitorTests.push(l),
  "board-test": (s, l) => s.boardTests.push(l),
  "board-cleaned": (s, l) => s.boardsCleaned.push(l),
  "reform-begun": (s, l) => s.reforms.push({ ...l, points: [], turns: [] }),
  "reform-point": (s, l) => s.reforms.find((r) => r.seq === l.reform)?.points.push(l),
  "reform-turn": (s, l) => s.reforms.find((r) => r.seq === l.reform)?.turns.push(l),
  planned: (s, l) => s.planned.push({ ...l, root: rootOf(s, l.seq) }),
  "planned-ended": (s, l) => {
    const task = s.planned.find((p) => p.root === l.planned);
    if (task) task.ended = l;
  },
  "plan-order": (s, l) => void (s.planOrder = l),
  timer: (s, l) => s.timers.push(l),
  time: (s, l) => s.times.push(l),
  "cure-test": (s, l) => s.cureTests.push(l),
  change: (s, l) => s.changes.push(l),
  approval: (s, l) => s.approvals.push(l),
  "safety-test": (s, l) => s.safetyTests.set(l.test, l),
  observation: (s, l) => s.observations.push(l),
  "control-check": (s, l) => (s.controlChecks = [...s.controlChecks.filter((c) => c.control !== l.control), l]),
  inspection: (s, l) => s.inspected.set(l.item, l),
  "pot-sweep": (s, l) => s.sweeps.set(l.pot.toUpperCase(), l),
  "tube-test": (s, l) => s.tubeTests.push(l),
  temperature: (s, l) => s.temperatures.push(l),
  stage: (s, l) => s.stages.set(l.stage, l),
  "mains-current": (s, l) => s.mainsCurrents.push(l),
  "isolation-step": (s, l) => s.isolation.push(l),
  recording: (s, l) => s.recordings.push(l),
  "noise-test": (s, l) => s.noiseTests.push(l),
  conditions: (s, l) => void (s.conditions = l),
  "conditions-run": (s, l) => s.conditionsRuns.push(l),
  "ground-map": (s, l) => void (s.groundMap = l),
  provoked: (s, l) => s.provoked.push(l),
  occurrence: (s, l) => s.occurrences.push(l),
  "soak-begun": (s, l) => s.soaks.push(l),
  "soak-ended": (s, l) => {
    const soak = s.soaks.find((x) => x.seq === l.soak);
    if (soak) soak.ended = l;
  },
  "gate-passed": (s, l) => s.gatesPassed.push(l),
  waiting: (s, l) => void (s.waiting = l),
  "handed-on": (s, l) => void (s.handedOn = l),
  quote: (s, l) => s.quotes.push(l),
  bill: (s, l) => s.bills.push(l),
  "bill-cancelled": (s, l) => {
    const bill = s.bills.find((b) => b.seq === l.bill);
    if (bill) bill.cancelled = l;
  },
  payment: (s, l) => s.payments.push(l),
  "bill-line": (s, l) => s.bill.push(l),
  advice: (s, l) => void (s.advice = l),
  returned: (s, l) => void (s.returned = l),
  "taken-in": (s) => void (s.returned = undefined),
  "brought-in": (s, l) => void (s.broughtIn = l.seq),
  "books-taken": (s, l) => void (s.booksTaken = l.seq),

  // The replay of the energy reads these off the tape itself.
  "meter-check": nothing,
  reservoir: nothing,
  "discharge-reading": nothing,
  clip: nothing,
  "circuit-given": nothing,
  note: nothing,
  "tool-check": nothing,
  "reservoir-unread": nothing,
  "still-live": nothing,
  undo: nothing,
  unreadable: nothing,
};

/** Adds a standing line to the state of its job. @param state is changed. */
export function foldLine(state: JobState, e: JobEvent): void {
  (FOLDS[e.type] as Folds<EventType>)(state, { ...e.payload, seq: e.seq, at: e.at, who: e.who } as Line<Payloads[EventType]>);
}
