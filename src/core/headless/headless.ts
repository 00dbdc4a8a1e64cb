/** The engine from a command line: one JSON document out, one JSON error on the error stream, exit codes that mean something. */

import { alter, AlterError, without } from "../circuit/alter";
import type { Circuit, LineNote } from "../circuit/circuit";
import { readCircuit } from "../circuit/read";
import { HELP } from "./help";
import { parseQuantity } from "../quantity/parse";
import { nextMeasurements } from "../suspects/next";
import { rank } from "../suspects/rank";
import { readEvidence } from "../suspects/readings-file";
import { FaultTable } from "../suspects/table";
import { ChartError } from "../settle/given";
import type { Outcome } from "./outcome";
import { settleOn } from "./settle-on";
import { compile } from "../solver/compile";
import { soundsOf, tellSounds } from "../sound/sounds";
import { readWav, WavError } from "../sound/wav";
import { NoMainsError } from "../solver/network";
import { ohmmeter, StoredChargeError } from "../solver/ohmmeter";
import { operatingPoint, readings, tubesAtWork } from "../solver/operating-point";
import { magnitude, phaseDegrees, SmallSignal } from "../solver/small-signal";
import { exportSpice } from "../solver/spice-export";
import { startFrom } from "../solver/steady";
import { parasiticDoubt, limitCycleOf } from "../solver/limit-cycle";
import { sine, transient, TransientError } from "../solver/transient";

/** Something the caller wrote that cannot be used: printed as `{error, line?, found?, expected?}`, exit 2. */
class Usage extends Error {
  constructor(
    message: string,
    readonly found?: string,
    readonly expected?: string,
  ) {
    super(message);
  }
}

const COMMANDS = ["op", "ohm", "ac", "tran", "rank", "settle", "spice", "spectrum"];
const VALUED = ["mains", "without", "set", "meter", "in", "level", "freq", "for", "probe", "loop", "top"];
const FLAGS = ["pulsed", "help"];

interface Call {
  command: string;
  rest: string[];
  options: Map<string, string[]>;
}

function parseCall(args: readonly string[]): Call {
  const rest: string[] = [];
  const options = new Map<string, string[]>();
  for (let i = 0; i < args.length; i++) {
    const word = args[i]!;
    if (!word.startsWith("--")) {
      rest.push(word);
      continue;
    }
    const [name = "", inline] = word.slice(2).split(/=(.*)/s);
    if (FLAGS.includes(name)) {
      options.set(name, []);
      continue;
    }
    if (!VALUED.includes(name))
      throw new Usage(`there is no option --${name}`, word, [...VALUED, ...FLAGS].map((o) => `--${o}`).join(", "));
    const value = inline ?? args[++i];
    if (value === undefined) throw new Usage(`--${name} has no value`, word, `--${name} and a value`);
    options.set(name, [...(options.get(name) ?? []), value]);
  }
  const [command = "", ...others] = rest;
  return { command, rest: others, options };
}

/** Runs one call. @param readFile gives a file's text or throws. @param readBytes gives its bytes or throws. */
export function runEngine(
  args: readonly string[],
  readFile: (path: string) => string,
  readBytes: (path: string) => Uint8Array = () => {
    throw new Error("no files of bytes here");
  },
): Outcome {
  try {
    const call = parseCall(args);
    if (call.options.has("help") || call.command === "help") return { code: 0, out: HELP };
    if (!COMMANDS.includes(call.command))
      throw new Usage(`there is no command ${call.command || "given"}`, call.command, COMMANDS.join(", "));
    const [file, ...more] = call.rest;
    if (call.command === "spectrum") return spectrum(file, more, call, readBytes);
    if (file === undefined) throw new Usage(`${call.command} wants a circuit file`, "nothing", "amp.cir");
    const read = readCircuit(readText(file, readFile));
    if (read.errors.length > 0)
      return fail(read.errors.map((e) => ({ error: `line ${e.line} cannot be read`, line: e.line, found: e.found, expected: e.expected })));
    // What was read but is hardly meant goes to the error stream, whatever comes out.
    const outcome = answer(prepared(read.circuit, call), call, more, read.warnings, readFile);
    return read.warnings.length === 0 ? outcome : { ...outcome, error: `${outcome.error ?? ""}${json({ warnings: read.warnings })}` };
  } catch (thrown) {
    return failure(thrown);
  }
}

function answer(circuit: Circuit, call: Call, more: string[], warnings: readonly LineNote[], readFile: (path: string) => string): Outcome {
  if (call.command === "rank") return rankFiles(circuit, more, call, readFile);
  if (call.command === "settle") return settleOn(circuit, more, { mains: mainsOf(call) }, (file) => readText(file, readFile));
  const expectedNodes = call.command === "ohm" ? 2 : 0;
  if (more.length !== expectedNodes)
    throw new Usage(
      `${call.command} with ${more.length} words after the file`,
      more.join(" ") || "nothing",
      expectedNodes ? "RED BLACK" : "options only",
    );
  if (call.command === "op") return op(circuit, call, warnings);
  if (call.command === "ohm") return ohm(circuit, more[0]!, more[1]!);
  if (call.command === "ac") return ac(circuit, call);
  if (call.command === "tran") return tran(circuit, call);
  return { code: 0, out: exportSpice(circuit, mainsOf(call)) };
}

function failure(thrown: unknown): Outcome {
  if (thrown instanceof Usage) return fail({ error: thrown.message, found: thrown.found, expected: thrown.expected });
  if (thrown instanceof WavError) return fail({ error: thrown.message, found: thrown.found, expected: thrown.expected });
  if (thrown instanceof AlterError)
    return fail({ error: `${thrown.found} cannot be done`, found: thrown.found, expected: thrown.expected });
  if (thrown instanceof NoMainsError) return fail({ error: thrown.message, found: "--mains", expected: "*@mains VOLTS HERTZ in the file" });
  if (thrown instanceof ChartError)
    return fail({
      error: thrown.message,
      found: "nothing",
      expected: "chart.csv and --mains, or chart= figures and *@chart mains= in the file",
    });
  if (thrown instanceof RangeError || thrown instanceof StoredChargeError) return fail({ error: thrown.message });
  if (thrown instanceof TransientError)
    return { code: 1, out: json({ converged: false, unsettled: [thrown.node], seconds: thrown.seconds }) };
  throw thrown;
}

const json = (value: unknown) => `${JSON.stringify(value)}\n`;
const fail = (error: unknown): Outcome => ({ code: 2, error: json(error) });

function opened<T>(file: string, read: (path: string) => T, wanted: string): T {
  try {
    return read(file);
  } catch (error) {
    throw new Usage(`the file cannot be opened: ${(error as Error).message}`, file, wanted);
  }
}

const readText = (file: string, readFile: (path: string) => string) => opened(file, readFile, "a circuit file");

function number(call: Call, name: string, otherwise?: number): number {
  const typed = call.options.get(name)?.at(-1);
  if (typed === undefined) {
    if (otherwise !== undefined) return otherwise;
    throw new Usage(`${call.command} wants --${name}`, "nothing", `--${name} with a number`);
  }
  if (name === "meter" && typed === "open") return Infinity;
  const parsed = parseQuantity(typed);
  if (!parsed.ok || !(parsed.quantity.value > 0))
    throw new Usage(`--${name} ${typed} cannot be read`, typed, "a number above zero such as 117, 10M or 50m");
  return parsed.quantity.value;
}

/** A swing of less than this, and two percent, is no swing to a meter. */
const SWING_VOLTS = 0.05;

const mainsOf = (call: Call) => (call.options.has("mains") ? number(call, "mains") : undefined);

function prepared(circuit: Circuit, call: Call): Circuit {
  const out = (call.options.get("without") ?? []).flatMap((w) => w.split(/[,\s]+/)).filter(Boolean);
  const changed = alter(circuit, call.options.get("set") ?? []);
  return without(changed, out);
}

function spectrum(file: string | undefined, more: string[], call: Call, readBytes: (path: string) => Uint8Array): Outcome {
  if (file === undefined || more.length > 0)
    throw new Usage("spectrum wants one recording", [file, ...more].filter(Boolean).join(" ") || "nothing", "file.wav");
  const nominal = mainsOf(call);
  if (nominal !== undefined && (nominal < 15 || nominal > 440))
    throw new Usage(`a mains of ${nominal} Hz`, `--mains ${nominal}`, "50 or 60");
  return { code: 0, out: json(tellSounds(soundsOf(readWav(opened(file, readBytes, "a WAV file")), nominal))) };
}

function op(circuit: Circuit, call: Call, warnings: readonly LineNote[]): Outcome {
  let point = operatingPoint(circuit, { mains: mainsOf(call) });
  // The first solve also compiles this program; the second shows what a solve takes.
  const started = performance.now();
  point = operatingPoint(circuit, { mains: mainsOf(call) });
  const ms = Number((performance.now() - started).toFixed(2));
  if (!point.converged) return { code: 1, out: json({ converged: false, iterations: point.iterations, ms, unsettled: point.unsettled }) };
  const read = readings(point, circuit.points, number(call, "meter", 10e6));
  const { network } = point;
  // An amp that swings about its operating point shows a meter its mean.
  const unrest = limitCycleOf(point);
  const shown = (p: Circuit["points"][number]) => {
    const swing = unrest?.swing.get(p.node) ?? 0;
    const mean = unrest?.average.get(p.node) ?? 0;
    return swing > SWING_VOLTS + 0.02 * Math.abs(mean) ? { volts: mean, swing } : { volts: read.get(p.name) };
  };
  return {
    code: 0,
    out: json({
      converged: true,
      iterations: point.iterations,
      ms,
      ...(unrest ? { unstable: true } : {}),
      points: Object.fromEntries(circuit.points.map((p) => [p.name, shown(p)])),
      // Inner nodes of blocks are the solver's own business.
      nodes: Object.fromEntries(network.nodes.flatMap((node, k) => (node.includes("#") ? [] : [[node, point.x[k]]]))),
      tubes: Object.fromEntries(tubesAtWork(point)),
      undetermined: point.undetermined,
      ...(warnings.length > 0 ? { warnings } : {}),
      doubts: [...point.doubts, ...[parasiticDoubt(point)].filter((d) => d !== undefined)],
    }),
  };
}

function ohm(circuit: Circuit, red: string, black: string): Outcome {
  const reading = ohmmeter(circuit, red, black);
  const shown = (ohms: number) => (Number.isFinite(ohms) ? ohms : null);
  return {
    code: 0,
    out: json({ settled: shown(reading.settled), ohms: shown(reading.ohms), testVolts: reading.testVolts, polarity: reading.polarity }),
  };
}

function ac(circuit: Circuit, call: Call): Outcome {
  const point = operatingPoint(circuit, { mains: mainsOf(call) });
  if (!point.converged) return { code: 1, out: json({ converged: false, unsettled: point.unsettled }) };
  const signal = new SmallSignal(point);
  const input = signal.node(word(call, "in"));
  const hertz = number(call, "freq");
  const answer = signal.drive(input, number(call, "level"), hertz);
  const loop = call.options.get("loop")?.at(-1);
  return {
    code: 0,
    out: json({
      points: Object.fromEntries(
        circuit.points.map((p) => {
          const k = point.network.index.get(p.node);
          const v = k === undefined ? { re: 0, im: 0 } : answer[k]!;
          return [p.name, { volts: magnitude(v), phaseDeg: phaseDegrees(v) }];
        }),
      ),
      ...(loop === undefined ? {} : { loop: loopOf(circuit, signal, loop, hertz) }),
    }),
  };
}

function loopOf(circuit: Circuit, signal: SmallSignal, name: string, hertz: number) {
  const part = circuit.elements.find((e) => e.letter === "R" && e.name === name.toUpperCase());
  if (!part) throw new Usage(`--loop ${name} is no resistor`, name, "the feedback resistor, for example --loop R17");
  const at = (node: string) => (node === "0" ? -1 : signal.node(node));
  // Broken at the end that the amp drives: the one with the lower impedance.
  const ends = part.nodes.map(at) as [number, number];
  const impedance = (k: number) => (k < 0 ? 0 : magnitude(signal.inject(k, -1, hertz)[k]!));
  const [drive, other] = impedance(ends[0]) <= impedance(ends[1]) && ends[0] >= 0 ? ends : [ends[1], ends[0]];
  const gain = signal.loopGain(drive!, other!, 1 / part.value!, hertz);
  return { gain: magnitude(gain), dB: 20 * Math.log10(magnitude({ re: 1 + gain.re, im: gain.im })), phaseDeg: phaseDegrees(gain) };
}

function word(call: Call, name: string): string {
  const typed = call.options.get(name)?.at(-1);
  if (typed === undefined) throw new Usage(`${call.command} wants --${name}`, "nothing", `--${name} with a node`);
  return typed;
}

function tran(circuit: Circuit, call: Call): Outcome {
  const averaged = operatingPoint(circuit, { mains: mainsOf(call) });
  if (!averaged.converged) return { code: 1, out: json({ converged: false, unsettled: averaged.unsettled }) };
  const pulsed = call.options.has("pulsed");
  const network = pulsed ? compile(circuit, { mains: mainsOf(call), supply: "pulsed" }) : averaged.network;
  const start = pulsed ? startFrom(averaged, network) : averaged.x;
  const node = (name: string) => {
    const k = network.index.get(name.toLowerCase());
    if (k === undefined)
      throw new Usage(`there is no node ${name}`, name, [...network.index.keys()].filter((x) => !x.includes("#")).join(", "));
    return k;
  };
  const probes = word(call, "probe")
    .split(/[,\s]+/)
    .filter(Boolean);
  const drive = call.options.has("in") ? sine(node(word(call, "in")), number(call, "level"), number(call, "freq")) : undefined;
  const stop = number(call, "for");
  const run = transient(network, {
    start,
    stop,
    drive,
    keep: probes.map(node),
    mostStep: drive ? 1 / number(call, "freq") / 40 : undefined,
  });
  return { code: 0, out: json({ t: run.t, v: Object.fromEntries(probes.map((p, i) => [p, run.v[i]])) }) };
}

/** Ranks each file of readings in turn; the fault table is solved once for all of them. */
function rankFiles(circuit: Circuit, files: string[], call: Call, readFile: (path: string) => string): Outcome {
  if (files.length === 0) throw new Usage("rank wants a file of readings", "nothing", "readings.csv");
  const mains = mainsOf(call) ?? circuit.mains?.volts;
  if (mainsOf(call) !== undefined && !circuit.mains) throw new NoMainsError();
  const base = { ...(circuit.mains && mains !== undefined ? { mains } : {}), without: [], set: [] };
  const read = files.map((file) => readEvidence(readText(file, readFile), circuit, base));
  const problems = read.flatMap(({ problems: p }, i) =>
    p.map((x) => ({ error: `${files[i]}: line ${x.line} cannot be read`, line: x.line, found: x.found, expected: x.expected })),
  );
  if (problems.length > 0) return fail(problems);
  const table = new FaultTable(circuit, number(call, "meter", 10e6));
  const top = Math.round(number(call, "top", 10));
  const answers = read.map(({ evidence }) => {
    // A mains that was given was typed in; one that was not is nobody's reading.
    const known = mainsOf(call) !== undefined || evidence.some((e) => e.conditions.mains !== base.mains) ? "entered" : "assumed";
    const ranking = rank(table, evidence, undefined, { mains: known });
    const conditions = evidence.findLast((e) => e.kind === "dcv")?.conditions ?? base;
    return {
      suspects: ranking.suspects.slice(0, top).map(({ fault, refs, group, groupProbability, fitted, explains, against }) => ({
        fault,
        refs,
        group,
        probability: groupProbability,
        ...(fitted === undefined ? {} : { fitted }),
        explains,
        against,
      })),
      notYetTestable: ranking.notYetTestable,
      next: nextMeasurements(ranking.posterior, conditions, 5, known),
      recheck: ranking.recheck,
      ...(Object.keys(ranking.slips).length > 0 ? { slips: ranking.slips } : {}),
      ...(ranking.circuitDoubtful ? { doubt: "this circuit does not describe this amp: too many readings fit no fault" } : {}),
    };
  });
  return { code: 0, out: json(answers.length === 1 ? answers[0] : answers) };
}
