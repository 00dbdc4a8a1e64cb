/** The circuit in use: the model's, with the parts that were fitted, the experiments that are in the amp and the test points that the job has of its own. Every screen and paper of a job judges by this one. */

import { withUsualPoints } from "../anatomy/usual-points";
import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { addPoints } from "../circuit/edit-line";
import { readOnce } from "../circuit/read-once";
import { writeCircuit } from "../circuit/write";
import { isIn, type JobState } from "../tape/fold";
import { rootOf } from "../tape/line-root";

export interface CircuitInUse {
  /** Its file. */
  netlist: string;
  circuit: Circuit;
  /** What is changed in the amp but cannot be made in the model, with the reason: what is judged leaves them out. */
  leftOut: { line: number; position: string; why: string }[];
}

/** A new part or an experiment that is in the amp, an adjuster that was turned or a tube from stock, with what it changes in the engine's words: "R4=270". */
interface InTheAmp {
  line: number;
  position: string;
  set: readonly string[];
}

/** The new parts and experiments that were in the amp when a line was logged. What an experiment does comes on top of the part that it is made on. */
function changesAt(state: Pick<JobState, "changes" | "lines">, line: number): InTheAmp[] {
  return state.changes.flatMap((c) =>
    c.set?.length && rootOf(state, c.seq) < line && (isIn(c) || c.seq > line) ? [{ line: c.seq, position: c.position, set: c.set }] : [],
  );
}

type Changed = Pick<JobState, "changes" | "lines" | "adjusted" | "tubesFitted">;

/** Where adjusters stand and which tubes are in by a line: the last of each counts. */
function setAt(state: Changed, line: number): InTheAmp[] {
  const last = new Map<string, InTheAmp>();
  for (const a of state.adjusted)
    if (a.seq < line && a.position !== undefined)
      last.set(a.control, { line: a.seq, position: a.control, set: [`${a.control}=${a.position}`] });
  for (const t of state.tubesFitted) {
    if (t.seq >= line) continue;
    // One whose test says nothing of its current is the sheet's tube again.
    last.set(t.tube, { line: t.seq, position: t.tube, set: [`${t.tube}=strength:${t.strength ?? 1}`] });
  }
  return [...last.values()].sort((a, b) => a.line - b.line);
}

const inTheAmpAt = (state: Changed, line: number): InTheAmp[] => [...changesAt(state, line), ...setAt(state, line)];

/** What is changed in the amp now, new parts and experiments first, in the engine's words. */
export function changesIn(state: Changed): string[] {
  return inTheAmpAt(state, Infinity).flatMap((e) => e.set);
}

/** The last few, since a screen asks for the same one at every line of its tape. */
const known = new Map<string, CircuitInUse>();
const MOST_KEPT = 50;

/**
 * The circuit of a job.
 * @param stored the circuit file of the library that the job has; one without test points is read with the usual ones.
 * @param line the circuit as it was when that line was logged; as it is now unless given.
 */
export function circuitInUse(state: Changed & Pick<JobState, "points">, stored: string, line = Infinity): CircuitInUse {
  const model = withUsualPoints(stored, readOnce(stored));
  const experiments = inTheAmpAt(state, line);
  // A reading is judged at its point however late the point was made known.
  const own = state.points.map(({ name, node, label }) => ({ name, node, label }));
  const key = JSON.stringify([model, experiments, own]);
  const before = known.get(key);
  if (before) return before;
  let circuit = readOnce(model);
  const leftOut: CircuitInUse["leftOut"] = [];
  for (const { line: at, position, set } of experiments) {
    try {
      circuit = alter(circuit, set);
    } catch (error) {
      leftOut.push({ line: at, position, why: (error as Error).message });
    }
  }
  const altered = leftOut.length < experiments.length;
  const netlist = withPoints(altered ? writeCircuit(circuit) : model, circuit, own);
  // Read back, so that line numbers are those of the file that is shown.
  const inUse = { netlist, circuit: readOnce(netlist), leftOut };
  if (known.size >= MOST_KEPT) known.delete(known.keys().next().value!);
  known.set(key, inUse);
  return inUse;
}

/** The file with more test points; those whose node is gone, or whose name the file has by now, are left out. */
export function withPoints(netlist: string, circuit: Circuit, points: readonly { name: string; node: string; label: string }[]): string {
  const taken = new Set(circuit.points.map((p) => p.name.toLowerCase()));
  const nodes = new Set(circuit.elements.flatMap((e) => e.nodes));
  const last = Math.max(0, ...circuit.points.map((p) => p.order));
  const there = points.flatMap(({ name, node: typed, label }, i) => {
    const node = typed.toLowerCase();
    if (taken.has(name.toLowerCase()) || !nodes.has(node)) return [];
    taken.add(name.toLowerCase());
    return [{ name, node, order: last + 10 * (i + 1), label }];
  });
  return addPoints(netlist, there);
}
