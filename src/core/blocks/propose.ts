/** The usual chain for a line-up of tubes, with the reason of each choice and what else it could be. */

import { isOutputType } from "../anatomy/cathode-current";
import type { TubeType } from "../tubes/library";
import * as texts from "../texts/line-up";
import type { Planned } from "./assemble";
import { sectionsOf, type LineUp, type TubeSection } from "./line-up";
import { usualDuty } from "./usual-output";

/** One thing that the line-up leaves open. */
export interface Choice {
  /** The letter that turns it on to the next answer. */
  key: string;
  name: "output" | "inverter" | "bias" | "screens" | "supply" | "filter" | "tone" | "rest" | "feedback";
  /** What it could be, the proposed one among them. */
  answers: readonly string[];
  chosen: string;
  why: string;
}

export type Answers = Partial<Record<Choice["name"], string>>;

export interface Proposal {
  choices: Choice[];
  chain: Planned[];
  /** The mains of a set whose heaters say it. */
  mains?: number;
  hertz?: number;
}

const KEYS: Record<Choice["name"], string> = {
  output: "o",
  inverter: "i",
  bias: "b",
  screens: "g",
  supply: "s",
  filter: "c",
  tone: "t",
  rest: "r",
  feedback: "n",
};

/** Small triodes that are built for driving and for inverters: little gain, much current. */
const isLowMu = (type: TubeType) => (type.typical?.mu ?? 100) < 35;

/** @param answers what was chosen other than proposed; an answer that no longer fits the line-up is passed over. */
export function propose({ tubes }: Pick<LineUp, "tubes">, answers: Answers = {}): Proposal {
  const output = tubes.filter((t) => isOutputType(t.type));
  const rectifier = tubes.find((t) => t.type.kind === "rectifier");
  const small = tubes.filter((t) => t !== rectifier && !output.includes(t));
  const choices: Choice[] = [];
  // The second of two channels is as the first: what was asked once is not asked again.
  const choose: Choose = (name, possible, usual, why) => {
    const before = choices.find((c) => c.name === name);
    if (before) return before.chosen;
    const wanted = answers[name];
    const chosen = wanted !== undefined && possible.includes(wanted) ? wanted : usual;
    choices.push({ key: KEYS[name], name, answers: possible, chosen, why });
    return chosen;
  };

  const type = output[0]?.type;
  const line = lineConnected(tubes);
  const form = type === undefined ? "none" : outputForm(output.length, sectionsOf(small), choose);
  const duty = usualDuty(type, form === "push-pull" || form === "two push-pull");
  const bias = type
    ? choose(
        "bias",
        form.includes("push-pull") ? ["cathode", "fixed, sensed", "fixed", "cathode each", "mixed"] : ["cathode", "fixed"],
        duty.fixed ? "fixed, sensed" : "cathode",
        duty.fixed ? texts.fixedUsual(type.type) : texts.cathodeUsual(type.type),
      )
    : "cathode";
  const screens = type
    ? choose(
        "screens",
        ["direct", "resistor", "ultralinear", "triode"],
        duty.supply > 300 ? "resistor" : "direct",
        duty.supply > 300 ? texts.screensHigh() : texts.screensLow(),
      )
    : "direct";
  const supply = supplyKind(rectifier?.type, line, choose);
  const filter = choose(
    "filter",
    ["resistors", "choke"],
    duty.fixed && form.includes("push-pull") ? "choke" : "resistors",
    duty.fixed && form.includes("push-pull") ? texts.chokeUsual() : texts.resistorsUsual(),
  );

  const channels = form === "two push-pull" || form === "two single-ended" ? ["left", "right"] : [undefined];
  const shares = channels.map((_, c) => ({
    small: small.filter((_, i) => channels.length === 1 || i % channels.length === c || small.length < channels.length),
    output: output.filter((_, i) => Math.floor((i * channels.length) / output.length) === c),
  }));
  const signal = channels.flatMap((channel, c) => {
    const half = channels.length > 1 && small.length < channels.length;
    const sections = sectionsOf(shares[c]!.small).filter((s) => !half || s.name.endsWith(c === 0 ? "A" : "B"));
    return signalChain(sections, shares[c]!.output, form, { bias, screens }, choose).map((p) => ({ ...p, channel }));
  });

  const inverter = signal.some((p) => INVERTERS.includes(p.kind));
  const rails = type === undefined || line ? 1 : inverter ? 3 : 2;
  const chain: Planned[] = [
    { kind: supply.kind, options: supply.options, tubes: rectifier ? [{ name: rectifier.name, type: rectifier.type }] : [] },
    ...Array.from({ length: rails }, (_, i): Planned => ({
      kind: "filter",
      options: { element: filter === "choke" && i === 0 ? "choke" : "resistor" },
    })),
    ...(bias.startsWith("fixed") || bias === "mixed"
      ? [{ kind: "bias-supply" }, ...channels.map((channel) => ({ kind: "bias-adjuster", channel }))]
      : []),
    ...signal,
    { kind: "heaters", options: { wiring: line ? "string" : "parallel" } },
  ];
  // A set for 110 to 120 V has heaters that add up to less than that.
  const heaters = tubes.reduce((sum, t) => sum + t.type.heater.volts, 0);
  return { choices, chain, ...(line && heaters < 150 ? { mains: 117, hertz: 60 } : {}) };
}

type Choose = (name: Choice["name"], possible: readonly string[], usual: string, why: string) => string;

/** Heaters of one current and volts that add up to the line's: a set without a mains transformer. */
function lineConnected(tubes: LineUp["tubes"]): boolean {
  const amps = new Set(tubes.map((t) => t.type.heater.amps));
  return tubes.length > 1 && amps.size === 1 && tubes.some((t) => t.type.heater.volts >= 25);
}

function outputForm(count: number, small: readonly TubeSection[], choose: Choose): string {
  if (count === 1) return "single-ended";
  const possible = [
    ...(small.some((t) => t.type.kind === "triode") ? ["push-pull"] : []),
    ...(count === 2 && small.length >= 2 ? ["two single-ended"] : []),
    ...(count === 2 ? ["parallel single-ended"] : []),
    ...(count === 4 && small.length >= 4 ? ["two push-pull"] : []),
  ];
  return choose("output", possible, possible[0]!, count === 2 ? texts.twoOutput() : texts.fourOutput());
}

function supplyKind(type: TubeType | undefined, line: boolean, choose: Choose): { kind: string; options: Record<string, string> } {
  if (line) return { kind: "line-connected", options: { rectifier: type ? "tube" : "silicon" } };
  if (type) {
    const kind = type.pins[0]?.["plate 2"] === undefined ? "half-wave" : "full-wave";
    return { kind, options: { rectifier: "tube" } };
  }
  const kind = choose("supply", ["bridge", "full-wave", "doubler", "half-wave"], "bridge", texts.noRectifierTube());
  return { kind, options: { rectifier: "silicon" } };
}

/** Controls hold the grid behind them at ground. */
const isControl = (kind: string) => ["volume", "tone-stack", "bass-treble"].includes(kind);
const DETECTORS = ["12SQ7", "6AV6", "12AV6"];
const INVERTERS = ["split-load", "long-tailed-pair", "paraphase", "floating paraphase", "transformer-inverter"];

/** Sections each inverter takes. */
const TAKES: Record<string, number> = {
  "split-load": 1,
  "transformer-inverter": 1,
  "long-tailed-pair": 2,
  paraphase: 2,
  "floating paraphase": 2,
};

function signalChain(
  sections: TubeSection[],
  output: LineUp["tubes"],
  form: string,
  { bias, screens }: { bias: string; screens: string },
  choose: Choose,
): Planned[] {
  const pushPull = form.includes("push-pull");
  const triodes = sections.filter((s) => s.type.kind === "triode");
  const inverterKind = pushPull ? pickInverter(triodes, sections.length, choose) : undefined;
  const takes = inverterKind ? TAKES[inverterKind]! : 0;
  const forInverter = takes === 0 ? [] : inverterSections(triodes, takes);
  const left = sections.filter((s) => !forInverter.includes(s));
  // Three stages of gain are what an amp with an output stage uses; what is left over does something else.
  const most = output.length === 0 ? left.length : Math.min(left.length, inverterKind === "split-load" || !pushPull ? 3 : 2);
  const rest =
    left.length - most > 0
      ? choose(
          "rest",
          possibleRest(left.slice(most)),
          possibleRest(left.slice(most))[0]!,
          texts.sectionsLeft(left.slice(most).map((s) => s.name)),
        )
      : "unused";
  const gain = left.slice(0, rest === "gain stage" ? left.length : most);
  const spare = left.slice(gain.length).filter((s) => s.type.kind === "triode");
  // A network stands behind the first stage, and needs one behind it that makes up for its loss.
  const networks = gain.length >= 2 ? ["none", "tone control", "tone stack", "bass and treble"] : ["none", "tone control"];
  const tone = choose(
    "tone",
    networks,
    gain.length >= 3 || (pushPull && gain.length >= 2) ? "tone stack" : "none",
    gain.length >= 2 ? texts.toneUsual() : texts.noGainForTone(),
  );
  const feedback =
    output.length > 0 && gain.length > 0
      ? choose(
          "feedback",
          ["none", "global", "with presence"],
          inverterKind === "long-tailed-pair" ? "global" : "none",
          inverterKind === "long-tailed-pair" ? texts.pairTakesFeedback() : texts.feedbackNone(),
        )
      : "none";

  const chain: Planned[] = [{ kind: "input" }];
  gain.forEach((section, i) => {
    const before = chain.at(-1)!.kind;
    // A control before the grid is its leak; the jack's leak holds the first one.
    const input = i === 0 || isControl(before) ? "none" : "leak";
    const last = i === gain.length - 1;
    // What has a capacitor of its own behind it takes the plate as it is: a tone stack, a long-tailed pair.
    const direct =
      (i === 0 && gain.length > 1 && tone === "tone stack") ||
      (last && inverterKind === "long-tailed-pair" && rest !== "reverb" && gain.length > 1);
    // The triode of a set's detector has its grid leak for bias.
    const detector = DETECTORS.includes(section.type.type);
    if (detector && i === 0) chain.push({ kind: "volume" });
    chain.push({
      kind: section.type.kind === "pentode" ? "pentode" : "triode",
      options: {
        input: detector ? "capacitor" : input,
        coupling: direct ? "direct" : "capacitor",
        ...(detector ? { cathode: "grid leak", "plate-capacitor": "yes" } : {}),
      },
      tubes: [section],
    });
    if (i === 0 && gain.length > 1) {
      if (tone === "tone stack") chain.push({ kind: "tone-stack" });
      if (tone === "bass and treble") chain.push({ kind: "bass-treble" });
      chain.push({ kind: "volume" });
    }
    if (tone === "tone control" && i === Math.min(1, gain.length - 1)) chain.push({ kind: "tone-control" });
  });
  if (gain.length === 1 && !chain.some((p) => p.kind === "volume")) chain.push({ kind: "volume" });
  if (rest === "reverb" && spare.length >= 2) chain.push({ kind: "reverb", tubes: spare.slice(0, 2) });
  if (inverterKind) chain.push(inverterPlan(inverterKind, forInverter, chain.at(-1)!.kind));
  if (rest === "tremolo" && spare.length >= 1) chain.push({ kind: "tremolo-bias", tubes: spare.slice(0, 1) });
  if (output.length > 0) {
    const all = sectionsOf(output);
    const options = { biasing: bias, screens, stoppers: bias.startsWith("fixed") ? "yes" : "no" };
    // An inverter that is a transformer drives the grids; a control before a single tube is its leak.
    const input = inverterKind === "transformer-inverter" || (!pushPull && chain.at(-1)!.kind === "volume") ? "none" : "leak";
    if (pushPull)
      chain.push({
        kind: "push-pull",
        options: { ...options, input, pairs: ["one", "two", "three", "four"][all.length / 2 - 1]! },
        tubes: all,
      });
    else
      chain.push({
        kind: "single-ended",
        options: { ...options, input, biasing: bias === "fixed, sensed" ? "fixed" : bias, tubes: all.length > 1 ? "two" : "one" },
        tubes: all,
      });
    if (feedback !== "none") chain.push({ kind: "feedback", options: { control: feedback === "with presence" ? "presence" : "none" } });
  }
  if (output.length === 0) chain.push({ kind: "line-outlet" });
  return chain;
}

/** What sections that are left over can do: springs take two triodes, an oscillator takes one. */
function possibleRest(left: readonly TubeSection[]): string[] {
  const triodes = left.filter((s) => s.type.kind === "triode").length;
  return [...(triodes >= 2 ? ["reverb"] : []), ...(triodes >= 1 ? ["tremolo"] : []), "gain stage", "unused"];
}

function pickInverter(triodes: readonly TubeSection[], sections: number, choose: Choose): string {
  const possible = INVERTERS.filter(
    (kind) => triodes.length >= TAKES[kind]! && sections > TAKES[kind]! - (kind === "paraphase" || kind === "floating paraphase" ? 1 : 0),
  );
  const roomy = sections - 2 >= 2 && possible.includes("long-tailed-pair");
  const usual =
    roomy || (triodes.some((t) => isLowMu(t.type)) && possible.includes("long-tailed-pair"))
      ? "long-tailed-pair"
      : possible.includes("split-load")
        ? "split-load"
        : (possible[0] ?? "transformer-inverter");
  return choose(
    "inverter",
    possible.length > 0 ? possible : ["transformer-inverter"],
    usual,
    usual === "long-tailed-pair" ? texts.pairUsual(sections) : texts.splitUsual(sections),
  );
}

/** The sections nearest to the output tubes, both of one tube where it is two; a tube with little gain and much current before others. */
function inverterSections(triodes: readonly TubeSection[], takes: number): TubeSection[] {
  const low = triodes.filter((t) => isLowMu(t.type));
  const from = low.length >= takes ? low : triodes;
  return from.slice(-takes);
}

function inverterPlan(kind: string, tubes: readonly TubeSection[], before: string): Planned {
  const held = isControl(before);
  if (kind === "floating paraphase") return { kind: "paraphase", options: { form: "floating", input: held ? "none" : "leak" }, tubes };
  if (kind === "paraphase" || kind === "transformer-inverter") return { kind, options: { input: held ? "none" : "leak" }, tubes };
  return kind === "split-load" && held ? { kind, options: { grid: "capacitor" }, tubes } : { kind, tubes };
}
