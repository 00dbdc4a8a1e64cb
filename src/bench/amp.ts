/** An amp on the bench: a model's circuit with parts of its own spread and its true faults, solved for how it stands now. */

import { alter, without } from "@/core/circuit/alter";
import type { Circuit, Element } from "@/core/circuit/circuit";
import { envelopeOf, findElement } from "@/core/circuit/circuit";
import { readCircuit } from "@/core/circuit/read";
import { normalDraws } from "@/core/numeric/random";
import { compile } from "@/core/solver/compile";
import { behindLamp, madeFor, mainsDraw, type Lamp, type MainsDraw } from "@/core/solver/mains-draw";
import { ohmmeter } from "@/core/solver/ohmmeter";
import { pulsesOf, rippleOf } from "@/core/solver/ripple";
import { readings, solveOperatingPoint, tubesAtWork, type OperatingPoint } from "@/core/solver/operating-point";
import { knobsOf, type Knob } from "@/core/solver/tolerance";
import { chainOf } from "@/core/noise/chain";
import { runBlocking, type BlockingRun } from "@/core/output/blocking";
import { outputStages } from "@/core/output/output-stage";
import { levelsInTime } from "@/core/output/signal-walk";
import { humAt } from "@/core/signal/response";
import { parseQuantity } from "@/core/quantity/parse";
import { isRectifier } from "@/core/circuit/special-parts";
import { heaterOf, heaterString } from "@/core/supply/heaters";
import type { Forms } from "./leakage-tester";
import type { Heard } from "./recordings";
import { rippleAt } from "./ripple";

/** A true fault, with the circumstances that it needs to show. */
export interface BenchFault {
  /** As the engine's `--set` takes it: "R9=148k"; or "TAP=1.09", a primary tap that gives so many times the volts it should. */
  set: string;
  /** Shows only after so many minutes of power. */
  afterMinutes?: number;
  /** Shows only while this stands among the switches and controls: "panel on"; of several, joined by " & ", all of them. */
  when?: string;
  /** What it sounds like, where the netlist does not say it: then `set` is empty. */
  sound?: Heard;
  /** The part that takes it along when it is replaced, where `set` names none. */
  part?: string;
  /** How a capacitor takes to reforming: then `set` is empty and `part` names it. */
  forms?: Forms;
  /** What it is once a board was cleaned, in the same words. */
  cleaned?: string;
}

/** How the amp stands: what decides its voltages. */
export interface Stands {
  /** Volts at the amp's own plug. */
  mains: number;
  /** Tubes that are out. */
  without: string[];
  /** Switches and controls as the engine takes them. */
  set: string[];
  warmMinutes: number;
  /** What was noted of switches, controls and circumstances, for faults that depend on it. */
  noted: string;
}

/** How much more a winding gives with every tube out, and what a shorted half leaves of it. */
const REGULATION = 0.06;
const SHORTED_LEAVES = 0.5;
/** A healthy amp's parts lie well within their tolerance. */
const SPREAD = 0.5;
const MOST_KEPT = 60;
const RIPPLE_STEP = 5;
/** Seconds in which an overdriven grid has charged its capacitor to about two thirds. */
const BLOCKS_IN = 0.03;
const TAP = "TAP=";
/** Volts at the speaker that the simulated microphone's pad takes to full scale, peak. */
export const FULL_SCALE_VOLTS = 2;
/** What a sound film capacitor leaks through, ohms; what a tester shows of a sound used tube, percent. */
const SOUND_FILM = 2e9;
const TESTED = 95;
/** What is not in the netlist's own figures. The wall's wandering is the mains instrument's. */
const TURNED: Knob["kind"][] = ["tube current", "amplification factor", "rectifier"];

export class BenchAmp {
  /** The model's circuit with this amp's own resistors. */
  readonly circuit: Circuit;
  private readonly drawn: Map<string, number>;
  private readonly ripples = new Map<string, number>();
  /** Watts that its transformer was made for. */
  private readonly madeFor?: number;
  private readonly kept = new Map<string, OperatingPoint>();
  private readonly blockings = new Map<string, BlockingRun>();

  /** @param seed makes this amp's own parts. @throws Error when the netlist cannot be read. */
  constructor(
    netlist: string,
    seed: number,
    readonly faults: readonly BenchFault[] = [],
  ) {
    const { circuit, errors } = readCircuit(netlist);
    if (errors.length > 0) throw new Error(`line ${errors[0]!.line}: ${errors[0]!.expected}`);
    const normal = normalDraws(seed);
    // Drawn for the whole amp, by name: a fault or a tube taken out does not change the other parts.
    const knobs = knobsOf(compile(circuit));
    this.drawn = new Map(knobs.map((k) => [`${k.kind} ${k.name}`, 1 + SPREAD * k.sigma * normal()]));
    // Resistors are spread in the circuit itself, so that the ohmmeter sees them as the voltages do, and a fault's value stands.
    const factor = (e: Element) => this.drawn.get(`${e.letter === "R" ? "resistor" : "control"} ${e.name}`) ?? 1;
    const own = (e: Element) => (e.letter === "R" || e.type === "POT") && e.value !== undefined;
    this.circuit = { ...circuit, elements: circuit.elements.map((e) => (own(e) ? { ...e, value: e.value! * factor(e) } : e)) };
    this.madeFor = circuit.mains && madeFor(circuit);
  }

  /** The faults of parts that show while it stands so; of two for one part the later one counts. */
  showing(stands: Pick<Stands, "warmMinutes" | "noted">): string[] {
    const shown = new Map(this.sets(stands).map((set) => [partOf(set), set]));
    return [...shown.values()];
  }

  /** Times the volts that its primary tap should give. */
  private tap(stands: Pick<Stands, "warmMinutes" | "noted">): number {
    const found = this.faults.find((f) => f.set.startsWith(TAP) && this.sets(stands, true).includes(f.set));
    return found ? Number(found.set.slice(TAP.length)) : 1;
  }

  private sets({ warmMinutes, noted }: Pick<Stands, "warmMinutes" | "noted">, taps = false): string[] {
    const about = noted.toLowerCase();
    return this.faults
      .filter((f) => f.set !== "" && f.set.startsWith(TAP) === taps)
      .filter((f) => shows(f, warmMinutes, about))
      .map((f) => f.set);
  }

  /** What it sounds like as it stands: its faults by name, and the hum of its supply at the speaker. */
  sounds(stands: Stands): Heard[] {
    const about = stands.noted.toLowerCase();
    const faults = this.faults.flatMap((f) => (f.sound && shows(f, stands.warmMinutes, about) ? [f.sound] : []));
    const whole = { ...stands, mains: Math.max(1, Math.round(stands.mains)) };
    const op = this.solved(whole);
    const out = op.network.index.get(chainOf(this.circuit).speaker ?? "");
    const hum = out === undefined ? 0 : humAt(op, out);
    return hum > 1e-6 ? [{ kind: "hum-double", level: 20 * Math.log10((hum * Math.SQRT2) / FULL_SCALE_VOLTS) }, ...faults] : faults;
  }

  /** The circuit as it stands: faults, switches, tubes out. */
  altered(stands: Omit<Stands, "mains">): Circuit {
    const there = new Set(this.circuit.elements.filter((e) => e.tube ?? e.rectifierTube).map((e) => envelopeOf(e.name)));
    const out = new Set(stands.without.map((t) => envelopeOf(t.toUpperCase())).filter((t) => there.has(t)));
    // A control stands where the hand has left it, whatever it stood at when the amp came in.
    const turned = stands.set.filter((set) => findElement(this.circuit, set.slice(0, set.indexOf("=")))?.type === "POT");
    const others = stands.set.filter((set) => !turned.includes(set));
    return without(alter(this.circuit, [...others, ...this.showing(stands), ...turned]), [...out]);
  }

  /** Volts to chassis at a node, as a meter of `meterOhms` there reads them. @throws Error when the amp does not settle. */
  volts(node: string, stands: Stands, meterOhms = 10e6): number {
    if (node === "0") return 0;
    // Between whole volts of mains everything goes straight enough: so the wandering wall does not mean a solve each time.
    const low = Math.floor(stands.mains);
    const part = stands.mains - low;
    const at = (mains: number) => {
      const op = this.solved({ ...stands, mains });
      return op.network.index.has(node) ? readings(op, [{ name: "here", node, order: 0, label: "", line: 0 }], meterOhms).get("here")! : 0;
    };
    const below = at(low);
    return part === 0 ? below : below + part * (at(low + 1) - below);
  }

  /** Volts rms of ripple at a node. */
  ripple(node: string, stands: Stands): number {
    if (node === "0" || stands.mains < 1) return 0;
    // Done once for a few volts of mains, between which ripple goes as the mains does.
    const mains = Math.max(1, Math.round(stands.mains / RIPPLE_STEP) * RIPPLE_STEP);
    const key = JSON.stringify([node, mains, stands.without, stands.set, this.showing(stands), this.tap(stands)]);
    let volts = this.ripples.get(key);
    if (volts === undefined) {
      const whole = { ...stands, mains };
      const op = this.solved(whole);
      // Pulse by pulse, a second of work, only where no steady state is found for the rectifier.
      volts =
        pulsesOf(op).length > 0 || op.network.rectifiers.length === 0
          ? (rippleOf(op).get(node) ?? 0)
          : rippleAt(this.altered(whole), node, mains * this.tap(whole), op);
      this.ripples.set(key, volts);
    }
    return (volts * stands.mains) / mains;
  }

  /** Volts rms of a tone at a node, from a generator at the first stage's input; by the transient, so that a stage clips where it would. */
  level(node: string, stands: Stands, { volts, hertz }: { volts: number; hertz: number }): number {
    if (node === "0" || volts <= 0 || stands.mains < 1) return 0;
    const whole = { ...stands, mains: Math.max(1, Math.round(stands.mains / RIPPLE_STEP) * RIPPLE_STEP) };
    const key = JSON.stringify(["tone", node, volts, hertz, whole.mains, stands.without, stands.set, this.showing(stands)]);
    let level = this.ripples.get(key);
    if (level === undefined) {
      const op = this.solved(whole);
      const [input, at] = [op.network.index.get(chainOf(this.circuit).input ?? ""), op.network.index.get(node)];
      level = input === undefined || at === undefined ? 0 : levelsInTime(op, input, { volts, hertz }, [at])[0]!;
      this.ripples.set(key, level);
    }
    return level;
  }

  /**
   * Volts by which an output grid stands off its rest while it is overdriven, and after the tone has stopped.
   * @param driven seconds of tone so far, or in all. @param since seconds since it stopped; undefined while it plays.
   */
  gridShift(node: string, stands: Stands, tone: { volts: number; hertz: number }, driven: number, since?: number): number {
    if (tone.volts <= 0 || stands.mains < 1) return 0;
    const stage = outputStages(this.circuit).find((s) => s.tubes.some((t) => t.grid === node));
    if (!stage) return 0;
    const key = JSON.stringify(["blocking", stage.name, tone, stands.without, stands.set, this.showing(stands)]);
    let run = this.blockings.get(key);
    if (!run)
      this.blockings.set(
        key,
        (run = runBlocking(this.altered(stands), stage, { peak: tone.volts * Math.SQRT2, mains: Math.round(stands.mains) })),
      );
    const tube = stage.tubes.find((t) => t.grid === node)!;
    const grid = run.grids.find((g) => g.tube === tube.name) ?? run.grids[0]!;
    const built = (grid.shifted - grid.rest) * (1 - Math.exp(-driven / BLOCKS_IN));
    if (since === undefined) return built;
    const at = run.driven + since;
    const k = run.t.findIndex((t) => t >= at);
    return k < 0 ? 0 : ((grid.volts[k]! - grid.rest) * built) / (grid.shifted - grid.rest || 1);
  }

  /** Ohms between two nodes with the power off and the tubes in; undefined without any way between them. */
  ohms(red: string, black: string, stands: Omit<Stands, "mains">): number | undefined {
    const circuit = this.altered(stands);
    const there = (n: string) => n === "0" || circuit.elements.some((e) => e.nodes.includes(n));
    if (!there(red) || !there(black)) return undefined;
    const { settled } = ohmmeter(circuit, red, black);
    return settled < 1e9 ? settled : undefined;
  }

  /** Amperes of the fuse that belongs in its line; undefined where the file does not say. */
  get fuse(): number | undefined {
    const amps = Number(this.circuit.facts.fuse);
    return amps > 0 ? amps : undefined;
  }

  /**
   * Ohms of what is no resistor of the netlist: "V3.heater" cold, "HT.1" of the high-tension winding, "H1.string" across a series string.
   * Infinity when open, undefined for what is not there.
   */
  windingOhms(what: string, stands: Omit<Stands, "mains">): number | undefined {
    const showing = this.showing(stands);
    const tube = /^(V\d+)[ .]heater$/i.exec(what)?.[1]?.toUpperCase();
    if (tube) {
      const heater = heaterOf(this.circuit, tube);
      return heater && (showing.includes(`${tube}=heater-open`) ? Infinity : heater.alone.ohms);
    }
    const string = this.circuit.heaters.find((h) => h.string && what.toUpperCase() === `${h.name}.STRING`);
    if (string)
      return string.tubes.some((t) => showing.includes(`${t}=heater-open`)) ? Infinity : heaterString(this.circuit, string, 117).coldOhms;
    const half = /^HT(?:\d)?(?:\.([12]))?$/i.exec(what);
    const rectifier = this.circuit.elements.find((e) => isRectifier(e.type) && e.nodes[0] !== "0");
    if (!half || !rectifier || typeof rectifier.params.rs !== "number") return undefined;
    // A few turns of the outer half are all that is left of one with a short.
    const shorted = showing.includes(`${rectifier.name}=winding-short`) && half[1] === "1";
    return 0.5 * rectifier.params.rs * (shorted ? 0.12 : half[1] === "2" ? 1.04 : 1);
  }

  /** Volts rms of a winding by its name in the bring-up, "HT.1" or "H1"; undefined for what is not there. */
  windingVolts(what: string, stands: Stands): number | undefined {
    const name = what.toUpperCase();
    const rectifier = this.circuit.elements.find((e) => isRectifier(e.type) && (e.nodes[0] === "0") === name.startsWith("BIAS"));
    const rated = /^HT\d?(\.[12])?$|^BIAS\.AC$/.test(name)
      ? rectifier?.params.vac
      : this.circuit.heaters.find((h) => h.name === name)?.volts;
    if (typeof rated !== "number") return undefined;
    const tubes = this.circuit.elements.filter((e) => e.tube).length;
    const out = this.altered(stands).elements.filter((e) => e.tube).length;
    const unloaded = 1 + REGULATION * (1 - out / Math.max(1, tubes));
    const shorted = this.showing(stands).some((f) => f.endsWith("=winding-short")) ? SHORTED_LEAVES : 1;
    return rated * (stands.mains / this.circuit.mains!.volts) * this.tap(stands) * unloaded * shorted;
  }

  /** Milliamperes of a tube's cathode; 0 for a tube that is out. */
  milliamps(tube: string, stands: Stands): number {
    const work = tubesAtWork(this.solved({ ...stands, mains: Math.round(stands.mains) })).get(tube.toUpperCase());
    return work ? work.plateMilliamps + (work.screenMilliamps ?? 0) : 0;
  }

  /** Volts at a capacitor's lifted leg, a meter of `meterOhms` between it and chassis: V·Rm/(Rm + Rleak). */
  leakage(capacitor: string, stands: Stands, meterOhms = 10e6): number {
    const c = findElement(this.circuit, capacitor);
    if (c?.letter !== "C") return 0;
    const source = Math.max(...c.nodes.map((n) => Math.abs(this.volts(n, stands))));
    const leak = this.faultOf(c.name, stands);
    const ohms = leak === "short" ? 1 : leak?.startsWith("leak:") ? ohmsOf(leak.slice(5)) : SOUND_FILM;
    return (source * meterOhms) / (meterOhms + ohms);
  }

  /** How a capacitor takes to reforming: as its fault says, else soundly. */
  formsLike(part: string): Forms {
    const name = part.toUpperCase();
    const own = this.faults.find((f) => f.forms && f.part?.toUpperCase() === name)?.forms;
    const fault = this.faults.find((f) => f.set !== "" && partOf(f.set) === name)?.set ?? "";
    return own ?? (fault.endsWith("=short") ? "punctured" : fault.includes("=leak:") ? "hopeless" : "good");
  }

  /** Percent of new that a tube tester shows; 0 for a dead tube. */
  percentOfNew(tube: string, stands: Pick<Stands, "warmMinutes" | "noted">): number {
    const e = findElement(this.circuit, tube);
    if (!e?.tube) return 0;
    const fault = this.faultOf(e.name, stands);
    const left = fault === "dead" ? 0 : fault?.startsWith("weak:") ? Number(fault.slice(5)) : 1;
    return TESTED * left * (this.drawn.get(`tube current ${e.name}`) ?? 1);
  }

  /** What is wrong with a part now, as written behind its "=". */
  private faultOf(name: string, stands: Pick<Stands, "warmMinutes" | "noted">): string | undefined {
    const found = this.showing(stands).find((f) => partOf(f) === name.toUpperCase());
    return found?.slice(found.indexOf("=") + 1);
  }

  /** What it takes from the wall. */
  draw(stands: Stands): MainsDraw {
    const draw = mainsDraw(this.solved({ ...stands, mains: Math.max(1, Math.round(stands.mains)) }), { madeFor: this.madeFor });
    return { ...draw, amps: draw.amps * this.tap(stands) };
  }

  /** What a series lamp leaves it of the wall's volts. */
  lampLeaves(stands: Stands, lamp: Lamp): { ampVolts: number; amps: number; glow: number } {
    const tap = this.tap(stands);
    // Seen from the amp's side of the tap the lamp is one for so many times the volts.
    const behind = behindLamp(this.altered(stands), { watts: lamp.watts, volts: lamp.volts * tap }, stands.mains * tap, {
      madeFor: this.madeFor,
    });
    return { ampVolts: behind.ampVolts / tap, amps: behind.amps * tap, glow: behind.glow };
  }

  /** The node that a point or a part's end stands for. */
  nodeOf(point: string): string | undefined {
    const name = point.toLowerCase();
    const found = this.circuit.points.find((p) => p.name.toLowerCase() === name);
    if (found) return found.node;
    return name === "0" || this.circuit.elements.some((e) => e.nodes.includes(name)) ? name : undefined;
  }

  /** The two nodes of "a:b", of a part, or of a point and chassis. */
  nodesOf(what: string): [string, string] | undefined {
    if (what.includes(":")) {
      const [a, b] = what.split(":").map((w) => this.nodeOf(w.trim()));
      return a !== undefined && b !== undefined ? [a, b] : undefined;
    }
    const part = findElement(this.circuit, what);
    if (part && part.nodes.length >= 2) return [part.nodes[0]!, part.nodes[1]!];
    const node = this.nodeOf(what);
    return node === undefined ? undefined : [node, "0"];
  }

  private solved(stands: Stands): OperatingPoint {
    const key = JSON.stringify([stands.mains, stands.without, stands.set, this.showing(stands), this.tap(stands)]);
    let op = this.kept.get(key);
    if (!op) {
      const network = compile(this.altered(stands), { mains: stands.mains * this.tap(stands) });
      for (const knob of knobsOf(network)) if (TURNED.includes(knob.kind)) knob.turn(this.drawn.get(`${knob.kind} ${knob.name}`) ?? 1);
      op = solveOperatingPoint(network);
      if (!op.converged) throw new Error(`the amp does not settle at ${op.unsettled.join(", ")}`);
      this.kept.set(key, op);
      if (this.kept.size > MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
    }
    return op;
  }
}

const shows = (f: BenchFault, warmMinutes: number, noted: string) =>
  warmMinutes >= (f.afterMinutes ?? 0) &&
  (f.when ?? "")
    .toLowerCase()
    .split(" & ")
    .every((w) => noted.includes(w));

/** What a fault is of, upper case: "XV2.g=open" is of V2.G. */
export function partOf(set: string): string {
  return set
    .slice(0, set.indexOf("="))
    .replace(/^X(?=V)/i, "")
    .toUpperCase();
}

function ohmsOf(text: string): number {
  const parsed = parseQuantity(text, { unit: "Ω" });
  if (!parsed.ok) throw new Error(`${text} is no resistance`);
  return parsed.quantity.value;
}
