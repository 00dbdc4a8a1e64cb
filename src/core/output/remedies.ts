/** Remedies against blocking, each made in the circuit and driven the same: what it does to recovery, bass, clean power and originality. */

import { alter } from "../circuit/alter";
import { couplingCapacitorsTo } from "../anatomy/points";
import type { Circuit, Element } from "../circuit/circuit";
import { chainOf, channelsOf } from "../noise/chain";
import { formatQuantity } from "../quantity/format";
import { nearestInSeries } from "../quantity/series";
import { magnitude, SmallSignal } from "../solver/small-signal";
import * as texts from "../texts/output";
import { runBlocking, USUAL_DRIVE, type BlockingQuestion } from "./blocking";
import { leakOf } from "./grid-return";
import { withGridShift } from "./idle";
import type { OutputStage } from "./output-stage";
import { playAtClip, toneAmp, type ToneAmp } from "./tone";

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
