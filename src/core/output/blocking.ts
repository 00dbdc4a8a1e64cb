/**
 * Blocking: an overdriven grid draws current and charges its coupling capacitor, the bias shifts, and creeps back when the tone stops.
 * Meanwhile the stage is cold or cut off. The transient is the truth; the closed form says where to look.
 */

import { alter } from "../circuit/alter";
import { couplingCapacitorsTo, ohmsToGround } from "../anatomy/points";
import type { Circuit, Element } from "../circuit/circuit";
import { chainOf, channelsOf } from "../noise/chain";
import { formatQuantity } from "../quantity/format";
import { nearestInSeries } from "../quantity/series";
import { magnitude, SmallSignal } from "../solver/small-signal";
import { transient } from "../solver/transient";
import * as texts from "../texts/output";
import { withGridShift } from "./idle";
import type { OutputStage } from "./output-stage";
import { burst, playAtClip, toneAmp, type ToneAmp } from "./tone";

/** Seconds of the tone, and of the watch after it. */
export const DRIVEN = 0.1;
const HERTZ = 400;
/** Times the drive at clip that a hard player gives. */
export const USUAL_DRIVE = 3;
const SAMPLES = 600;

export interface BlockingRun {
  /** Seconds from the start of the tone; every course below stands at these. */
  t: number[];
  /** Volts at the load. */
  out: number[];
  /** Grid-to-chassis volts of each output tube: the mean over a period while the tone plays, afterwards as they are. */
  grids: { tube: string; volts: number[]; rest: number; shifted: number }[];
  /** Seconds of tone. */
  driven: number;
  /** The furthest that a grid goes below its rest, by the drive or when it stops, volts. */
  shift: number;
  /** Seconds from the end of the tone until that grid is within 5 % of its shift, or of half a volt, of rest; undefined where it was not by the end. */
  recovery?: number;
  /** Seconds for which the gain of the stage is more than 3 dB down, by the grid's volts; 0 where it never is. */
  deaf: number;
  finished: boolean;
}

export interface BlockingQuestion {
  mains?: number;
  /** Volts peak at the input. */
  peak: number;
  /** Seconds watched after the tone; long enough for five time constants unless given. */
  watch?: number;
  /** Relative error of a step: smaller for a finer transient. */
  tolerance?: number;
}

/** Drives the amp beyond clip, stops, and watches. @throws RangeError as `toneAmp` does. */
export function runBlocking(
  circuit: Circuit,
  stage: OutputStage,
  { mains, peak, watch, tolerance = 1e-3 }: BlockingQuestion,
  progress?: (part: number) => boolean | void,
): BlockingRun {
  const amp = toneAmp(circuit, stage, mains);
  const index = amp.op.network.index;
  const grids = [...new Map(stage.tubes.map((t) => [t.grid, t])).values()];
  const places = grids.map((g) => index.get(g.grid)!);
  const keep = [amp.speaker, ...places];
  // The grid current also charges what the grid leaks lead to: a bias supply takes far longer than the coupling capacitor to come back.
  const wait = watch ?? Math.min(3, Math.max(0.3, 8 * Math.max(...grids.map((g) => longestConstant(circuit, g.grid)))));
  const told = (from: number, part: number) => progress?.(from + 0.5 * part) !== false;
  const driven = transient(amp.op.network, {
    start: amp.op.x,
    stop: DRIVEN,
    drive: burst(amp.input, peak, HERTZ, DRIVEN),
    keep,
    mostStep: 1 / HERTZ / 40,
    tolerance,
    progress: (part) => told(0, part),
  });
  // Silence is watched with steps as long as the error lets them be.
  const silent = driven.finished
    ? transient(amp.op.network, {
        start: driven.end,
        stop: wait,
        keep,
        mostStep: wait / 200,
        tolerance,
        progress: (part) => told(0.5, part),
      })
    : undefined;
  const t = [...driven.t, ...(silent?.t.slice(1).map((x) => x + DRIVEN) ?? [])];
  const v = driven.v.map((course, i) => [...course, ...(silent?.v[i]!.slice(1) ?? [])]);
  return judge(
    t,
    v,
    grids.map((g) => g.name),
    amp,
    DRIVEN + wait,
    silent?.finished === true,
  );
}

/** Seconds of the slowest way back of a grid: its coupling capacitor, or the capacitor that holds the end of its leak. */
function longestConstant(circuit: Circuit, grid: string): number {
  const own = timeConstant(circuit, grid)?.seconds ?? 0.02;
  const leak = leakOf(circuit, grid);
  const end = leak?.nodes.find(
    (n) => n !== grid && circuit.elements.some((e) => e.letter === "C" && e.nodes.includes(n) && e.nodes.includes("0")),
  );
  const held = circuit.elements.find(
    (e) => e.letter === "C" && e.nodes.includes("0") && end !== undefined && end !== "0" && e.nodes.includes(end),
  );
  const ohms = end === undefined || end === "0" ? 0 : ohmsToGround(circuit, end);
  return Math.max(own, held?.value && Number.isFinite(ohms) ? held.value * Math.min(ohms, 100e3) : 0);
}

function judge(t: number[], v: number[][], names: string[], amp: ToneAmp, stop: number, finished: boolean): BlockingRun {
  // Half of the samples for the tone, half for the silence, however long that is.
  const half = SAMPLES / 2;
  const times = Array.from({ length: SAMPLES }, (_, i) =>
    i < half ? (DRIVEN * i) / half : DRIVEN + ((stop - DRIVEN) * (i - half)) / (half - 1),
  );
  const period = 1 / HERTZ;
  const grids = names.map((tube, i) => {
    const course = v[i + 1]!;
    const volts = slidingMean(t, course, times, period);
    return { tube, volts, rest: course[0]!, shifted: meanOver(t, course, DRIVEN - 2 * period, DRIVEN) };
  });
  // The inverter before it blocks too: what it does when the tone stops may take a grid further down than the drive did.
  const lowest = (i: number) => {
    const { rest, shifted } = grids[i]!;
    return t.reduce((low, at, k) => (at > DRIVEN ? Math.min(low, v[i + 1]![k]! - rest) : low), shifted - rest);
  };
  const shifts = names.map((_, i) => lowest(i));
  const shift = Math.min(...shifts);
  const worst = grids[shifts.indexOf(shift)]!;
  const close = Math.max(0.05 * Math.abs(shift), 0.05);
  // From the moment that the tone stops: the grid itself, no mean over a period.
  const course = v[names.indexOf(worst.tube) + 1]!;
  let back: number | undefined;
  for (let k = t.length - 1; k >= 0 && t[k]! >= DRIVEN; k--) {
    if (Math.abs(course[k]! - worst.rest) > close) break;
    back = t[k]!;
  }
  const gone = (rest: number, now: number) => now < rest * 1.25 - 1;
  let deaf = 0;
  for (let k = 1; k < t.length; k++) if (t[k]! > DRIVEN && gone(worst.rest, course[k]!)) deaf += t[k]! - t[k - 1]!;
  return {
    t: times,
    out: times.map((at) => valueAt(t, v[0]!, at)),
    grids,
    driven: DRIVEN,
    shift,
    ...(back === undefined || !finished ? {} : { recovery: back - DRIVEN }),
    deaf,
    finished,
  };
}

function valueAt(t: readonly number[], v: readonly number[], at: number): number {
  let [low, high] = [0, t.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (t[middle]! <= at) low = middle;
    else high = middle;
  }
  const part = Math.min(1, Math.max(0, (at - t[low]!) / (t[high]! - t[low]! || 1)));
  return v[low]! + (v[high]! - v[low]!) * part;
}

/** Mean of a course over an interval, by trapezoids between its own steps. */
function meanOver(t: readonly number[], v: readonly number[], from: number, to: number): number {
  let sum = 0;
  let before = { t: from, v: valueAt(t, v, from) };
  for (let k = 0; k < t.length; k++) {
    if (t[k]! <= from) continue;
    if (t[k]! >= to) break;
    sum += ((v[k]! + before.v) / 2) * (t[k]! - before.t);
    before = { t: t[k]!, v: v[k]! };
  }
  sum += ((valueAt(t, v, to) + before.v) / 2) * (to - before.t);
  return sum / (to - from);
}

const slidingMean = (t: readonly number[], v: readonly number[], times: readonly number[], period: number) => {
  // The integral at every step, so that each mean costs two look-ups.
  const integral = [0];
  for (let k = 1; k < t.length; k++) integral.push(integral[k - 1]! + ((v[k]! + v[k - 1]!) / 2) * (t[k]! - t[k - 1]!));
  return times.map((at) => {
    // Under drive a whole period that lies in it; afterwards what is there.
    if (at >= DRIVEN) return valueAt(t, v, at);
    const from = Math.min(DRIVEN - period, Math.max(0, at - period / 2));
    return (valueAt(t, integral, from + period) - valueAt(t, integral, from)) / period;
  });
};

/** What charges at a grid and through what it discharges, where it is one capacitor and resistors. */
export interface TimeConstant {
  capacitor: string;
  farads: number;
  ohms: number;
  seconds: number;
}

/** Seconds of a grid's recovery: its coupling capacitor times the ohms from the grid to chassis and the driving plate's. Undefined without one. */
export function timeConstant(circuit: Circuit, grid: string): TimeConstant | undefined {
  const capacitor = couplingCapacitorsTo(circuit, grid)[0];
  if (!capacitor?.value) return undefined;
  const ohms = leakOhms(circuit, grid);
  return ohms === undefined ? undefined : { capacitor: capacitor.name, farads: capacitor.value, ohms, seconds: capacitor.value * ohms };
}

/** Ohms of the grid's leak: what holds it, to chassis or to a point that a capacitor or a supply holds still. */
export function leakOhms(circuit: Circuit, grid: string): number | undefined {
  const leak = leakOf(circuit, grid);
  if (leak?.value) return leak.value;
  const straight = ohmsToGround(circuit, grid);
  return Number.isFinite(straight) ? straight : undefined;
}

/** The grid's leak resistor: from the grid, or from behind its stopper, to where no coupling capacitor ends. */
export function leakOf(circuit: Circuit, grid: string): Element | undefined {
  const near = [grid];
  const couplings = couplingCapacitorsTo(circuit, grid);
  const coupled = couplings.flatMap((c) => c.nodes);
  const stopper = circuit.elements.find(
    (e) => e.letter === "R" && e.nodes.includes(grid) && e.nodes.some((n) => n !== grid && coupled.includes(n)),
  );
  if (stopper) near.push(stopper.nodes.find((n) => n !== grid)!);
  return circuit.elements
    .filter((e) => e !== stopper && e.letter === "R" && e.nodes.some((n) => near.includes(n)) && !e.nodes.every((n) => near.includes(n)))
    .sort((a, b) => b.value! - a.value!)[0];
}

export const REMEDIES = [
  "none",
  "coupling capacitor",
  "grid leak",
  "grid stopper",
  "before the inverter",
  "colder bias",
  "driver tube",
] as const;
export type RemedyKind = (typeof REMEDIES)[number];

export interface Remedy {
  kind: RemedyKind;
  /** In words: "C6, C7: 220 nF → 100 nF". */
  what: string;
  /** The change in the engine's words; empty for what a change of parts does not make. */
  set: string[];
  shift: number;
  recovery?: number;
  deaf: number;
  /** −3 dB towards the bass, hertz; undefined where it lies below 5 Hz. */
  bass?: number;
  /** Watts at clip. */
  watts: number;
  /** What it does to originality. */
  original: string;
}

const BASS_FROM = 5;

/** Every remedy by the same drive, the amp as it is first. @param progress told 0 to 1; answers false to stop. */
export function remediesOf(
  circuit: Circuit,
  stage: OutputStage,
  question: BlockingQuestion,
  progress?: (part: number) => boolean | void,
): Remedy[] {
  const made = changesFor(circuit, stage);
  const out: Remedy[] = [];
  for (const [i, change] of made.entries()) {
    if (progress?.(i / made.length) === false) break;
    const amp = change.make(circuit);
    const run = runBlocking(amp, stageIn(amp, stage), question, (part) => progress?.((i + 0.7 * part) / made.length));
    const tone = toneAmp(amp, stageIn(amp, stage), question.mains);
    out.push({
      kind: change.kind,
      what: change.what,
      set: change.set,
      shift: run.shift,
      ...(run.recovery === undefined ? {} : { recovery: run.recovery }),
      deaf: run.deaf,
      ...(bassOf(tone) === undefined ? {} : { bass: bassOf(tone)! }),
      watts: playAtClip(tone, { start: question.peak / USUAL_DRIVE }).watts,
      original: change.original,
    });
  }
  return out;
}

/** The stage of a changed circuit: its tubes' grids may be other nodes by now. */
const stageIn = (circuit: Circuit, stage: OutputStage): OutputStage => ({
  ...stage,
  tubes: stage.tubes.map((t) => {
    const e = circuit.elements.find((x) => x.name === t.name)!;
    return { ...t, grid: e.nodes[e.nodes.length - 2]! };
  }),
});

function bassOf(amp: ToneAmp): number | undefined {
  const signal = new SmallSignal(amp.op);
  const gain = (f: number) => magnitude(signal.drive(amp.input, 1, f)[amp.speaker]!);
  const middle = gain(1000) / Math.SQRT2;
  let [low, high] = [BASS_FROM, 1000];
  if (gain(low) > middle) return undefined;
  for (let i = 0; i < 30; i++) {
    const f = Math.sqrt(low * high);
    if (gain(f) > middle) high = f;
    else low = f;
  }
  return high;
}

interface MadeChange {
  kind: RemedyKind;
  what: string;
  set: string[];
  original: string;
  make(circuit: Circuit): Circuit;
}

function changesFor(circuit: Circuit, stage: OutputStage): MadeChange[] {
  const grids = [...new Set(stage.tubes.map((t) => t.grid))];
  const couplings = [...new Set(grids.flatMap((g) => couplingCapacitorsTo(circuit, g)))];
  const leaks = [...new Set(grids.flatMap((g) => leakOf(circuit, g) ?? []))];
  const bySet = (kind: RemedyKind, what: string, set: string[], original: string): MadeChange => ({
    kind,
    what,
    set,
    original,
    make: (c) => alter(c, set),
  });
  const out: MadeChange[] = [{ kind: "none", what: texts.asItIs(), set: [], original: texts.originalAsIs(), make: (c) => c }];
  const smaller = couplings.map((c) => ({ c, to: nearestInSeries(c.value! / 2.2, "E6").nearest }));
  if (smaller.length > 0)
    out.push(
      bySet(
        "coupling capacitor",
        texts.partsTo(smaller.map((s) => s.c.name).join(", "), shown(smaller[0]!.c.value!, "F"), shown(smaller[0]!.to, "F")),
        smaller.map((s) => `${s.c.name}=${nano(s.to)}`),
        texts.originalParts(smaller.length),
      ),
    );
  const lower = leaks.map((r) => ({ r, to: nearestInSeries(r.value! / 2.2, "E12").nearest }));
  if (lower.length > 0)
    out.push(
      bySet(
        "grid leak",
        texts.partsTo(lower.map((s) => s.r.name).join(", "), shown(lower[0]!.r.value!, "Ω"), shown(lower[0]!.to, "Ω")),
        lower.map((s) => `${s.r.name}=${s.to}`),
        texts.originalParts(lower.length),
      ),
    );
  out.push(stoppers(circuit, stage));
  const inverter = inverterCapacitor(circuit, stage, couplings);
  if (inverter) {
    const to = nearestInSeries(inverter.value! / 4.7, "E6").nearest;
    out.push(
      bySet(
        "before the inverter",
        texts.partsTo(inverter.name, shown(inverter.value!, "F"), shown(to, "F")),
        [`${inverter.name}=${nano(to)}`],
        texts.originalParts(1),
      ),
    );
  }
  if (stage.bias !== "cathode")
    out.push({
      kind: "colder bias",
      what: texts.colder(),
      set: [],
      original: texts.originalReversible(),
      make: (c) => withGridShift(c, stage, -3),
    });
  const driver = driverOf(circuit, couplings);
  if (driver)
    out.push(bySet("driver tube", texts.typeFor(driver.names.join(", "), driver.from, driver.to), driver.set, texts.originalTube()));
  return out;
}

/** A stopper of 47 kΩ into each output grid, or the one that is there made so. */
function stoppers(circuit: Circuit, stage: OutputStage): MadeChange {
  const OHMS = 47e3;
  const own = stage.tubes.map((t) => {
    const coupled = couplingCapacitorsTo(circuit, t.grid).flatMap((c) => c.nodes);
    return circuit.elements.find(
      (e) => e.letter === "R" && e.nodes.includes(t.grid) && e.nodes.some((n) => n !== t.grid && coupled.includes(n)),
    );
  });
  if (own.every((r) => r !== undefined)) {
    const set = own.map((r) => `${r.name}=47k`);
    return {
      kind: "grid stopper",
      what: texts.partsTo(own.map((r) => r.name).join(", "), shown(own[0]!.value!, "Ω"), shown(OHMS, "Ω")),
      set,
      original: texts.originalParts(own.length),
      make: (c) => alter(c, set),
    };
  }
  return {
    kind: "grid stopper",
    what: texts.stopperAdded(shown(OHMS, "Ω")),
    set: [],
    original: texts.originalAdded(stage.tubes.length),
    make: (c) => {
      const named = new Set(stage.tubes.map((t) => t.name));
      const added: Element[] = [];
      const elements = c.elements.map((e) => {
        if (!named.has(e.name)) return e;
        const at = e.nodes.length - 2;
        const inner = `${e.name.toLowerCase()}.g#stopper`;
        added.push({
          name: `R#${e.name}stopper`,
          letter: "R",
          nodes: [e.nodes[at]!, inner],
          value: OHMS,
          params: {},
          notes: {},
          line: e.line,
        });
        return { ...e, nodes: e.nodes.map((n, i) => (i === at ? inner : n)) };
      });
      return { ...c, elements: [...elements, ...added] };
    },
  };
}

/** The tubes whose plates or cathodes drive the output grids. */
const driversOf = (circuit: Circuit, couplings: readonly Element[]) =>
  circuit.elements.filter((e) => e.tube && couplings.some((c) => c.nodes.some((n) => n === e.nodes[0] || n === e.nodes.at(-1))));

/** The capacitor by which signal comes to the inverter: less bass before it is less overdrive behind it. */
function inverterCapacitor(circuit: Circuit, stage: OutputStage, couplings: readonly Element[]): Element | undefined {
  const grids = driversOf(circuit, couplings).map((d) => d.nodes[d.nodes.length - 2]!);
  const channel = channelsOf(chainOf(circuit)).find((c) => c.speaker === stage.speaker);
  const inputs = [...new Set([...(channel?.stages.map((s) => s.in) ?? []), ...grids])];
  return grids
    .filter((g) => inputs.includes(g))
    .flatMap((g) =>
      circuit.elements.filter((e) => e.letter === "C" && e.nodes.includes(g) && !e.nodes.includes("0") && !couplings.includes(e)),
    )
    .sort((a, b) => a.value! - b.value!)[0];
}

/** A driver of less gain in the same basing; there is none below a 12AU7. */
const OTHER_DRIVER: Record<string, string> = { "12AX7": "12AT7", "12AT7": "12AU7", "6SL7GT": "6SN7GTB" };

function driverOf(
  circuit: Circuit,
  couplings: readonly Element[],
): { names: string[]; from: string; to: string; set: string[] } | undefined {
  const drivers = driversOf(circuit, couplings);
  const from = drivers[0]?.tube?.type;
  const to = from && OTHER_DRIVER[from];
  if (!from || !to) return undefined;
  const names = drivers.map((d) => d.name);
  return { names, from, to, set: names.map((n) => `${n}=type:${to}`) };
}

/** Farads as the engine takes them: a bare small figure would be microfarads. */
const nano = (farads: number) => `${Number((farads * 1e9).toPrecision(6))}n`;
const shown = (value: number, unit: "F" | "Ω") => formatQuantity(value, unit, 2);
