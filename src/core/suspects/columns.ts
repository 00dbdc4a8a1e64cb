/** Each piece of evidence as a column: what every hypothesis predicts for it, on the scale that it is judged on. */

import { envelopeOf, findElement } from "../circuit/circuit";
import { bulbCelsius, bulbSigma } from "./temperature";
import { observationChance } from "./observations";
import type { Evidence, Observable } from "./evidence";
import { togetherOf, type FaultTable, type Hypothesis, type Shown } from "./table";

/** A column over the hypotheses of a table. */
export interface Column {
  /** What was read, on the scale of the predictions; NaN for what has not been measured. */
  y: number;
  /** Predictions; NaN where nothing holds the point. */
  mean: Float64Array;
  /** One sigma of what is this reading's alone: meter, model, the part's own spread where it is not in the table. */
  own(mean: number): number;
  /** Where a direct voltage stands in the table: what was solved under its conditions, the point's number, the number of knobs. */
  place?: { shown: Shown[]; at: number; knobs: number };
  /** One sigma by all shared knobs together; 0 where there are none. */
  sharedSigma(hypothesis: number): number;
  /** Probability density of a slip. */
  slip: number;
  /** Chance of an observation, in place of y and mean. */
  chance?: Float64Array;
  evidence?: Evidence;
}

/** A meter of the bench, and what the model itself may be off. */
const METER = 0.005;
const MODEL = 0.008;
const FLOOR_VOLTS = 0.02;
const USUAL_PART = 0.5;
/** Resistances above this read as open. */
const OPEN_OHMS = 1e8;

/** Below this a bench meter's AC range shows its own noise: no signal is no signal. */
const LEAST_AC = 1e-3;
const logAc = (volts: number) => Math.log(Math.max(volts, LEAST_AC));

const nothingShared = () => 0;

const logOhms = (ohms: number) => Math.log(Math.min(OPEN_OHMS, Math.max(0.05, ohms)));

/**
 * The column of something measured (`value`) or only thought of (NaN).
 * @param lines for what is only thought of: the lines that matter. Resistances of the others are taken as those of a sound amp.
 * @throws RangeError for what the circuit does not have.
 */
export function columnOf(table: FaultTable, o: Observable, value: number, lines?: ReadonlySet<number>): Column {
  const evidence = Number.isNaN(value) ? undefined : { ...o, value };
  const { circuit } = table;
  switch (o.kind) {
    case "dcv": {
      const at = table.points.findIndex((p) => p.toLowerCase() === o.point.toLowerCase());
      if (at < 0) throw new RangeError(`no point ${o.point}`);
      const shown = table.shown(o.conditions);
      const k = table.knobCount;
      const usual = Math.abs(shown[0]!.volts[at]!) || 0;
      return {
        evidence,
        y: value,
        mean: Float64Array.from(shown, (s) => (s.converged ? s.volts[at]! : NaN)),
        // A rail that should be gone still shows some tenths: what the model leaves out goes with what the point usually carries.
        own: (mean) => Math.hypot(METER * mean, MODEL * Math.max(Math.abs(mean), USUAL_PART * usual), FLOOR_VOLTS),
        place: { shown, at, knobs: k },
        sharedSigma: (h) => shown[h]!.sigma[at]!,
        slip: 1 / 600,
      };
    }
    case "ohm": {
      const [a, b] = ohmNodes(table, o.point);
      const part = findElement(circuit, o.point);
      const tol = part?.notes.tol ?? 0.1;
      const healthy = logOhms(table.ohmsOf([], a, b));
      const wanted = (h: Hypothesis, line: number) => coldMatters(h) && (lines === undefined || lines.has(line));
      return {
        evidence,
        y: logOhms(value),
        mean: Float64Array.from(table.hypotheses, (h, line) => (wanted(h, line) ? logOhms(table.ohmsOf(h.changes, a, b)) : healthy)),
        own: () => Math.hypot(tol / Math.sqrt(3), 0.02),
        sharedSigma: nothingShared,
        slip: 1 / 20,
      };
    }
    case "ma": {
      const shown = table.shown(o.conditions);
      const name = o.point.toUpperCase();
      return {
        evidence,
        y: value,
        mean: Float64Array.from(shown, (s) => (s.converged ? (s.tubeMilliamps.get(name) ?? 0) : NaN)),
        own: (mean) => Math.hypot(0.15 * mean, 0.05),
        sharedSigma: nothingShared,
        slip: 1 / 200,
      };
    }
    case "gm": {
      const tube = findElement(circuit, o.point);
      if (!tube?.tube) throw new RangeError(`no tube ${o.point}`);
      return {
        evidence,
        y: value,
        mean: Float64Array.from(table.hypotheses, (h) => 95 * emissionLeft(h, tube.name)),
        own: () => 12,
        sharedSigma: nothingShared,
        slip: 1 / 150,
      };
    }
    case "temp": {
      const name = o.point.toUpperCase();
      const sections = circuit.elements.filter((e) => e.tube && envelopeOf(e.name) === name);
      const type = sections[0]?.tube;
      if (!type) throw new RangeError(`no tube ${o.point}`);
      const shown = table.shown(o.conditions);
      const watts = (s: Shown) => sections.reduce((sum, e) => sum + (s.tubeWatts.get(e.name) ?? 0), 0);
      return {
        evidence,
        y: value,
        mean: Float64Array.from(table.hypotheses, (h, i) =>
          shown[i]!.converged ? bulbCelsius(type, watts(shown[i]!), heated(h, name), sections.length) : NaN,
        ),
        own: bulbSigma,
        sharedSigma: nothingShared,
        slip: 1 / 400,
      };
    }
    case "leak": {
      const c = findElement(circuit, o.point);
      if (c?.letter !== "C") throw new RangeError(`no capacitor ${o.point}`);
      const shown = table.shown({ ...o.conditions, without: [] });
      const source = (h: number) =>
        Math.max(...c.nodes.map((n) => Math.abs(shown[h]!.volts[circuit.points.findIndex((p) => p.node === n)] ?? 0)), 0);
      return {
        evidence,
        y: value,
        // One leg lifted, the meter between it and ground: V·Rm/(Rm + Rleak).
        mean: Float64Array.from(table.hypotheses, (h, i) => (source(i) * table.meterOhms) / (table.meterOhms + leakOhms(h, c.name))),
        own: (mean) => Math.hypot(0.15 * mean, 0.15),
        sharedSigma: nothingShared,
        slip: 1 / 300,
      };
    }
    case "acv": {
      if (!o.drive) throw new RangeError(`an AC level at ${o.point} wants the node that is driven, its frequency and level`);
      const mean = table.acColumn(o.point, o.drive, o.conditions).map((v) => logAc(v));
      return { evidence, y: logAc(value), mean, own: () => 0.2, sharedSigma: nothingShared, slip: 1 / 20 };
    }
    case "observe":
      return {
        evidence,
        y: value,
        mean: new Float64Array(table.hypotheses.length),
        own: () => 1,
        sharedSigma: nothingShared,
        slip: 1,
        chance: observationChance(table, o.point, o.conditions),
      };
  }
}

function ohmNodes(table: FaultTable, typed: string): [string, string] {
  if (typed.includes(":")) {
    const [a = "", b = ""] = typed
      .toLowerCase()
      .split(":")
      .map((n) => n.trim());
    return [a, b];
  }
  const part = findElement(table.circuit, typed);
  if (part && part.nodes.length >= 2) return [part.nodes[0]!, part.nodes[1]!];
  const point = table.circuit.points.find((p) => p.name.toLowerCase() === typed.toLowerCase());
  if (point) return [point.node, "0"];
  throw new RangeError(`no part or point ${typed}, nor two nodes a:b`);
}

/** Faults that an ohmmeter on a cold amp can see at all. */
const COLD = /resistor|electrolytic (leaky|shorted)|coupling (leaky|shorted)|shorted|board|winding|wiper|switch|heater-cathode|pin|pair/;
const coldMatters = (h: Hypothesis) => COLD.test(h.fault.kind);

function emissionLeft(h: Hypothesis, tube: string): number {
  const about = h.changes.find((c) => c.replace(/^X/i, "").split("=")[0]!.toUpperCase() === tube);
  const word = about?.split("=")[1] ?? "";
  return word === "dead" ? 0 : word.startsWith("weak:") ? Number(word.slice(5)) : 1;
}

/** Part of this envelope's heater that burns: a dead tube mostly has an open heater, but not always. */
function heated(h: Hypothesis, envelope: string): number {
  const about = h.fault.refs.some((r) => envelopeOf(r) === envelope);
  return about && h.fault.kind === "heater open" ? 0 : about && h.fault.kind === "tube dead" ? 0.3 : 1;
}

function leakOhms(h: Hypothesis, capacitor: string): number {
  const about = h.changes.find((c) => c.split("=")[0]!.toUpperCase() === capacitor);
  const word = about?.split("=")[1] ?? "";
  // A sound film capacitor leaks through gigohms.
  return word === "short" ? 1 : word.startsWith("leak:") ? Number(word.slice(5)) : 2e9;
}

/** Σ = S·Sᵀ over the shared knobs, and each reading's own variance. */
export function covariance(columns: Column[], line: number): Float64Array {
  const n = columns.length;
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    const c = columns[i]!;
    const m = c.mean[line]!;
    out[i * n + i] = c.own(Number.isNaN(m) ? 0 : m) ** 2;
    if (!c.place) continue;
    for (let j = 0; j <= i; j++) {
      const d = columns[j]!.place;
      if (!d) continue;
      const sum = shared(c.place, d, line);
      out[i * n + j]! += sum;
      if (i !== j) out[j * n + i]! += sum;
    }
  }
  return out;
}

type Place = NonNullable<Column["place"]>;

function shared(a: Place, b: Place, line: number): number {
  const here = a.shown[line]!;
  if (a.shown === b.shown) return togetherOf(here, a.knobs)[a.at * here.volts.length + b.at]!;
  // Under different conditions the same parts still hang together; that is rare enough to be summed each time.
  const there = b.shown[line]!;
  let sum = 0;
  for (let k = 0; k < a.knobs; k++) sum += here.spread[a.at * a.knobs + k]! * there.spread[b.at * b.knobs + k]!;
  return sum;
}
