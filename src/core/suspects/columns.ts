/** Each piece of evidence as a column: what every hypothesis predicts for it, on the scale that it is judged on. */

import { envelopeOf, findElement } from "../circuit/circuit";
import { electrodeNode, roleOf, tubesAt } from "../anatomy/points";
import { bulbCelsius, bulbSigma } from "./temperature";
import { observationChance } from "./observations";
import type { Evidence, Observable } from "../diagnosis/evidence";
import { covarianceOf, type FaultTable, type Hypothesis, type Prediction } from "./table";
import * as texts from "../texts/suspects";

/** Where a direct voltage stands in a table. */
export interface Place {
  shown: Prediction[];
  at: number;
  knobs: number;
  /** Number of the knob that is the mains; undefined without one. */
  mainsKnob: number | undefined;
  /** Hundredths of the mains that one sigma of it is. */
  mains: number;
}

/** A column over the hypotheses of a table. */
export interface Column {
  /** What was read, on the scale of the predictions; NaN for what has not been measured. */
  y: number;
  /** Predictions; NaN where nothing holds the point. */
  mean: Float64Array;
  /** One sigma of what is this reading's alone: meter, model, the part's own spread where it is not in the table. */
  own(mean: number): number;
  /** Where a direct voltage stands in the table: what was solved under its conditions, the point's number, the number of knobs. */
  place?: Place;
  /** One sigma by all shared knobs together; 0 where there are none. */
  sharedSigma(hypothesis: number): number;
  /** Probability density of a slip. */
  slip: number;
  /** Chance of an observation, in place of y and mean. */
  chance?: Float64Array;
  evidence?: Evidence;
}

/** A meter of the bench, and what the model itself may be off. */
const METER = 0.01;
const MODEL = 0.008;
const FLOOR_VOLTS = 0.02;
/** A point that has lost its volts still shows some: what leaks past an open part goes with what the point usually carries. */
const USUAL_PART = 0.004;
const GONE_PART = 0.012;
const GONE = 0.05;
const goneVolts = (mean: number, usual: number) => (Math.abs(mean) < GONE * usual ? GONE_PART : USUAL_PART) * usual;
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
      if (at < 0) throw new RangeError(texts.noPoint(o.point));
      const shown = table.shown(o.conditions);
      const k = table.knobCount;
      const usual = Math.abs(shown[0]!.volts[at]!) || 0;
      let place: Place;
      const rough = roughness(table, at);
      return {
        evidence,
        y: value,
        mean: voltsOf(shown, at),
        own: (mean) =>
          Math.sqrt(
            (METER * METER + MODEL * MODEL) * mean * mean + goneVolts(mean, usual) ** 2 + FLOOR_VOLTS * FLOOR_VOLTS + rough(mean) ** 2,
          ),
        place: (place = { shown, at, knobs: k, mainsKnob: table.mainsKnob, mains: 1 }),
        sharedSigma: (h) => sigmaAt(place, h),
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
      if (!tube?.tube) throw new RangeError(texts.noTube(o.point));
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
      if (!type) throw new RangeError(texts.noTube(o.point));
      const shown = table.shown(o.conditions);
      const watts = (s: Prediction) => sections.reduce((sum, e) => sum + (s.tubeWatts.get(e.name) ?? 0), 0);
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
      if (c?.letter !== "C") throw new RangeError(texts.noCapacitor(o.point));
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
      if (!o.drive) return rippleColumn(table, o, value, evidence);
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

/** A grid near zero stands where contact potential and grid current leave it: that differs from tube to tube by some tenths of a volt. */
const CONTACT_VOLTS = 0.25;
const NEAR_ZERO = 3;
/** The plate of a tube that biases itself by it follows: part of its volts. */
const CONTACT_BIASED = 0.2;

/** One sigma that the model adds at a point, by what the point is, from the volts that it predicts there. */
function roughness(table: FaultTable, at: number): (mean: number) => number {
  const { circuit } = table;
  const node = circuit.points[at]!.node;
  if (tubesAt(circuit, node, "grid").length > 0) return (mean) => (Math.abs(mean) < NEAR_ZERO ? CONTACT_VOLTS : 0);
  const biased = tubesAt(circuit, node, "plate").some((t) => electrodeNode(t, "cathode") === "0");
  return biased ? (mean) => CONTACT_BIASED * mean : () => 0;
}

const columnsOfVolts = new WeakMap<Prediction[], (Float64Array | undefined)[]>();

/** Volts of one point over all hypotheses: the same for every ranking. */
function voltsOf(shown: Prediction[], at: number): Float64Array {
  let columns = columnsOfVolts.get(shown);
  if (!columns) columnsOfVolts.set(shown, (columns = []));
  return (columns[at] ??= Float64Array.from(shown, (s) => (s.converged ? s.volts[at]! : NaN)));
}

/** Faults that change a rail's ripple by more than the direct voltages tell. */
const RIPPLES = /electrolytic|can lifted|rectifier|winding|switch/;
/** Ripple below this is the meter's own. */
const LEAST_RIPPLE = 2e-3;
/** One sigma of its logarithm: capacitors and windings differ. */
const RIPPLE_SPREAD = 0.25;

/** Alternating volts at a point without a tone: the ripple of its rail. */
function rippleColumn(table: FaultTable, o: Observable, value: number, evidence: Evidence | undefined): Column {
  const point = table.circuit.points.find((p) => p.name.toLowerCase() === o.point.toLowerCase());
  if (!point) throw new RangeError(texts.noPoint(o.point));
  if (!["rail", "bias"].includes(roleOf(table.circuit, point))) throw new RangeError(texts.alternatingVoltsWantTone(o.point));
  const log = (volts: number | undefined) => (volts === undefined ? NaN : Math.log(Math.max(volts, LEAST_RIPPLE)));
  const healthy = log(table.ripple(0, o.conditions).get(point.node));
  const moves = (h: Hypothesis) => RIPPLES.test(h.fault.kind);
  const mean = Float64Array.from(table.hypotheses, (h, line) =>
    moves(h) ? log(table.ripple(line, o.conditions).get(point.node)) : healthy,
  );
  return { evidence, y: log(value), mean, own: () => RIPPLE_SPREAD, sharedSigma: nothingShared, slip: 1 / 12 };
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
  throw new RangeError(texts.noPartPointNor(typed));
}

/** Faults that an ohmmeter on a cold amp can see at all. */
const COLD =
  /resistor|wrong value|miswired|electrolytic (leaky|shorted)|coupling (leaky|shorted)|shorted|board|winding|wiper|switch|heater-cathode|pin|pair/;
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
  const solved = new Map<Prediction[], SharedBy>();
  const of = (place: Place) => {
    let s = solved.get(place.shown);
    if (!s) solved.set(place.shown, (s = sharedBy(place, line)));
    return s;
  };
  for (let i = 0; i < n; i++) {
    const c = columns[i]!;
    const m = c.mean[line]!;
    out[i * n + i] = c.own(Number.isNaN(m) ? 0 : m) ** 2;
    if (!c.place) continue;
    const a = of(c.place);
    for (let j = 0; j <= i; j++) {
      const d = columns[j]!.place;
      if (!d) continue;
      const b = d.shown === c.place.shown ? a : of(d);
      const byMains = (c.place.mains * d.mains - 1) * a.mains[c.place.at]! * b.mains[d.at]!;
      const sum = (a === b ? a.covariance[c.place.at * a.points + d.at]! : across(c.place, d, line)) + byMains;
      out[i * n + j]! += sum;
      if (i !== j) out[j * n + i]! += sum;
    }
  }
  return out;
}

/** What the points of one line share under one set of conditions. */
interface SharedBy {
  points: number;
  covariance: Float64Array;
  /** Volts of each point for a hundredth of the mains. */
  mains: Float64Array;
}

function sharedBy({ shown, knobs, mainsKnob }: Place, line: number): SharedBy {
  const here = shown[line]!;
  const { sensitivities } = here;
  const points = here.volts.length;
  return {
    points,
    covariance: covarianceOf(here, knobs),
    mains: Float64Array.from({ length: points }, (_, i) => (mainsKnob === undefined ? 0 : sensitivities[i * knobs + mainsKnob]!)),
  };
}

/** Under different conditions the same parts still hang together; that is rare enough to be summed each time. */
function across(a: Place, b: Place, line: number): number {
  const [here, there] = [a.shown[line]!.sensitivities, b.shown[line]!.sensitivities];
  let sum = 0;
  for (let k = 0; k < a.knobs; k++) sum += here[a.at * a.knobs + k]! * there[b.at * b.knobs + k]!;
  return sum;
}

/** One sigma of a point by all shared knobs, the mains as it is known. */
function sigmaAt({ shown, at, knobs, mainsKnob, mains }: Place, line: number): number {
  const { sigma, sensitivities } = shown[line]!;
  const byMains = mainsKnob === undefined ? 0 : sensitivities[at * knobs + mainsKnob]!;
  return Math.sqrt(sigma[at]! ** 2 + (mains * mains - 1) * byMains * byMains);
}
