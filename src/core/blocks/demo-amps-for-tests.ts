/** The demo shop's six amps put together from blocks: what is chosen and typed for each, and what is left for free lines. */

import { setValue } from "../circuit/edit-line";
import { readCircuit } from "../circuit/read";
import { findTubeType } from "../tubes/library";
import { assemble, type Planned } from "./assemble";
import { blocksOf, readBlockFile } from "./block-file";
import { setPort } from "./change-block";
import { writeBlockFile } from "./write-blocks";

/** Values typed over the usual ones: by block and role; a parameter of a line as "role:parameter". */
type Typed = Record<string, Record<string, string>>;

interface Plan {
  file: string;
  mains: [number, number];
  chain: Planned[];
  typed: Typed;
  /** Lines that no block writes. */
  free?: string[];
  /** Ports hung elsewhere than usual. */
  ports?: [id: string, port: string, node: string][];
}

const tube = (name: string, type: string) => ({ name, type: findTubeType(type)! });
const ax = (name: string) => tube(name, "12AX7");

/** What is typed for a gain stage of the demo amps. */
const plain = (load = "100k", cathode = "1.5k") => ({ "plate load": load, "cathode resistor": cathode, "coupling capacitor": "22n" });

const WREN: Plan = {
  file: "wren-5.cir",
  mains: [230, 50],
  chain: [
    { kind: "full-wave", tubes: [tube("V3", "EZ80")] },
    { kind: "filter" },
    { kind: "filter" },
    { kind: "input" },
    { kind: "triode", options: { input: "none" }, tubes: [ax("V1A")] },
    { kind: "volume" },
    { kind: "triode", options: { input: "none" }, tubes: [ax("V1B")] },
    { kind: "single-ended", options: { screens: "resistor" }, tubes: [tube("V2", "EL84")] },
    { kind: "heaters" },
  ],
  typed: {
    PS: { rectifier: "235", "rectifier:rs": "180", reservoir: "32u" },
    F1: { "filter resistor": "2.2k", "filter capacitor": "32u" },
    F2: { "filter resistor": "22k", "filter capacitor": "16u" },
    V1A: plain(),
    V1B: plain(),
    V2: {
      "grid leak": "470k",
      "screen resistor": "100",
      "cathode resistor": "180",
      "output transformer": "5200",
      "output transformer:dcr": "240",
      "output transformer:load": "15",
      load: "15",
    },
  },
};

const LANTERN: Plan = {
  file: "lantern-15.cir",
  mains: [230, 50],
  chain: [
    { kind: "full-wave", tubes: [tube("V6", "GZ34")] },
    { kind: "bleeder" },
    ...Array.from({ length: 3 }, () => ({ kind: "filter" })),
    { kind: "input" },
    { kind: "triode", options: { input: "none" }, tubes: [ax("V1A")] },
    { kind: "volume" },
    { kind: "triode", options: { input: "none" }, tubes: [ax("V2A")] },
    { kind: "split-load", tubes: [ax("V3A")] },
    { kind: "tremolo-bias", tubes: [ax("V3B")], rails: { rail: 3 } },
    { kind: "push-pull", options: { screens: "resistor" }, tubes: [tube("V4", "6V6GT"), tube("V5", "6V6GT")] },
    { kind: "heaters" },
  ],
  typed: {
    PS: { rectifier: "270", "rectifier:rs": "120", reservoir: "32u" },
    F1: { "filter resistor": "470", "filter capacitor": "32u" },
    F2: { "filter resistor": "10k", "filter capacitor": "16u" },
    F3: { "filter resistor": "15k", "filter capacitor": "16u" },
    V1A: plain(),
    V2A: plain(),
    V3A: {},
    V4: {
      "upper grid leak": "220k",
      "lower grid leak": "220k",
      "upper screen resistor": "470",
      "lower screen resistor": "470",
      "cathode resistor": "250",
      "output transformer": "8000",
      "output transformer:dcr": "180",
      "output transformer:dcr2": "195",
    },
  },
};

const DROVER: Plan = {
  file: "drover-40.cir",
  mains: [230, 50],
  chain: [
    { kind: "bridge" },
    { kind: "bleeder" },
    { kind: "standby" },
    { kind: "filter", options: { element: "choke" } },
    { kind: "filter" },
    { kind: "filter" },
    { kind: "bias-supply", options: { bleeder: "yes" } },
    { kind: "bias-adjuster" },
    { kind: "input" },
    { kind: "pentode", options: { input: "none" }, tubes: [tube("V1", "EF86")] },
    { kind: "volume" },
    { kind: "triode", options: { input: "none", cathode: "not bypassed" }, tubes: [ax("V2A")] },
    { kind: "reverb", tubes: [ax("V3A"), ax("V3B")] },
    { kind: "long-tailed-pair", tubes: [tube("V4A", "12AU7"), tube("V4B", "12AU7")] },
    { kind: "push-pull", options: { biasing: "fixed, sensed", screens: "resistor" }, tubes: [tube("V5", "KT66"), tube("V6", "KT66")] },
    { kind: "feedback" },
    { kind: "heaters" },
  ],
  typed: {
    PS: { rectifier: "325", "rectifier:rs": "40", reservoir: "50u" },
    F1: { "filter capacitor": "50u" },
    F2: { "filter resistor": "10k" },
    F3: { "filter resistor": "15k" },
    BIAS: { "bias rectifier": "58", "bias reservoir": "50u" },
    ADJ: { "bias level:pos": "0.52" },
    V1: { "screen resistor": "1MEG" },
    V4A: { "upper plate load": "47k", "lower plate load": "47k", "inverter cathode resistor": "820", "tail resistor": "15k" },
    V5: {
      "upper grid leak": "100k",
      "lower grid leak": "100k",
      "output transformer": "6600",
      "output transformer:dcr": "95",
      "output transformer:dcr2": "104",
      "output transformer:load": "16",
      load: "16",
    },
    NFB: { "feedback resistor": "15k", "feedback foot": "4.7k" },
  },
};

const MINOR: Plan = {
  file: "minor.cir",
  mains: [117, 50],
  chain: [
    { kind: "line-connected", tubes: [tube("V3", "35Z5GT")] },
    { kind: "filter" },
    { kind: "other-draw" },
    { kind: "input-leak" },
    { kind: "volume" },
    { kind: "triode", options: { input: "capacitor", cathode: "grid leak", "plate-capacitor": "yes" }, tubes: [tube("V1", "12SQ7")] },
    { kind: "single-ended", options: { screens: "direct" }, tubes: [tube("V2", "50L6GT")] },
    { kind: "heaters", options: { wiring: "string" } },
  ],
  typed: {
    PS: { reservoir: "40u" },
    F1: { "filter resistor": "1.2k", "filter capacitor": "40u" },
    DRAW: { "other draw": "12k" },
    VOL1: { "volume:pos": "0" },
    V1: { "plate load": "220k", "grid leak": "10MEG" },
    V2: {
      "grid leak": "470k",
      "cathode resistor": "150",
      "output transformer": "2500",
      "output transformer:dcr": "180",
      "output transformer:load": "3.2",
      load: "3.2",
    },
  },
};

const HALBERD: Plan = {
  file: "halberd-120.cir",
  mains: [230, 50],
  chain: [
    { kind: "bridge", options: { reservoir: "series" } },
    { kind: "filter", options: { element: "choke" } },
    { kind: "filter" },
    { kind: "filter" },
    { kind: "bias-supply", options: { rectifier: "selenium" } },
    { kind: "bias-adjuster" },
    { kind: "input" },
    { kind: "triode", options: { input: "none" }, tubes: [ax("V1A")] },
    { kind: "volume" },
    { kind: "triode", options: { input: "none" }, tubes: [ax("V2A")] },
    { kind: "volume" },
    { kind: "triode", options: { input: "none", coupling: "direct" }, tubes: [ax("V2B")] },
    { kind: "long-tailed-pair", tubes: [tube("V3A", "12AU7"), tube("V3B", "12AU7")] },
    {
      kind: "push-pull",
      options: { pairs: "two", biasing: "fixed, sensed", screens: "resistor", stoppers: "yes", load: "line" },
      tubes: ["V4", "V5", "V6", "V7"].map((n) => tube(n, "EL34")),
    },
    { kind: "feedback" },
    { kind: "heaters" },
  ],
  typed: {
    PS: {
      rectifier: "365",
      "rectifier:rs": "28",
      "upper reservoir": "200u",
      "lower reservoir": "200u",
      "upper balancing resistor": "100k",
      "lower balancing resistor": "100k",
    },
    F1: { "filter choke": "4", "filter capacitor": "50u" },
    F2: { "filter resistor": "10k" },
    F3: { "filter resistor": "22k" },
    BIAS: { "bias rectifier": "66", "bias rectifier:rs": "470", "bias reservoir": "50u" },
    ADJ: { "upper bias resistor": "15k", "lower bias resistor": "27k", "bias level:pos": "0.7" },
    V1A: { "cathode resistor": "1.8k" },
    V2A: { "cathode resistor": "1.8k" },
    V2B: { "cathode resistor": "1.8k" },
    V3A: { "upper plate load": "47k", "lower plate load": "47k", "inverter cathode resistor": "1k", "tail resistor": "18k" },
    V4: {
      ...Object.fromEntries(["upper 1", "upper 2", "lower 1", "lower 2"].map((t) => [`${t} screen resistor`, "1k"])),
      "upper grid leak": "100k",
      "lower grid leak": "100k",
      "output transformer": "1900",
      "output transformer:dcr": "32",
      "output transformer:dcr2": "35",
      "output transformer:load": "83",
      load: "83",
    },
    NFB: { "feedback resistor": "100k", "feedback foot": "2.2k" },
  },
};

const channel = (name: string, first: string, pair: string, output: [string, string]): Planned[] =>
  (
    [
      { kind: "bias-adjuster", options: { adjusters: "own ends" } },
      { kind: "input-leak" },
      { kind: "volume" },
      { kind: "triode", options: { input: "none", cathode: "not bypassed", coupling: "direct" }, tubes: [ax(first)] },
      { kind: "long-tailed-pair", tubes: [tube(`${pair}A`, "12AU7"), tube(`${pair}B`, "12AU7")], rails: { rail: 2 } },
      { kind: "push-pull", options: { biasing: "fixed, sensed", screens: "ultralinear" }, tubes: output.map((n) => tube(n, "7591A")) },
      { kind: "feedback" },
    ] satisfies Planned[] as Planned[]
  ).map((p) => ({ ...p, channel: name }));

const typedChannel = (first: string, pair: string, output: string, bias: string, loop: string, volume: string): Typed => ({
  [bias]: { "bias level": "10k" },
  [volume]: { volume: "500k" },
  [first]: { "plate load": "100k", "cathode resistor": "1.5k" },
  [`${pair}A`]: { "upper plate load": "39k", "lower plate load": "39k", "inverter cathode resistor": "1k", "tail resistor": "15k" },
  [output]: {
    "upper grid leak": "270k",
    "lower grid leak": "270k",
    "upper screen resistor": "100",
    "lower screen resistor": "100",
    "output transformer": "6600",
    "output transformer:dcr": "92",
    "output transformer:dcr2": "85",
    "output transformer:load": "16",
    load: "16",
  },
  [loop]: { "feedback resistor": "10k", "feedback foot": "100" },
});

const PICTURE_HOUSE: Plan = {
  file: "picture-house.cir",
  mains: [230, 50],
  chain: [
    { kind: "bridge" },
    { kind: "bleeder" },
    { kind: "filter" },
    { kind: "filter" },
    { kind: "bias-supply" },
    ...channel("left", "V1A", "V2", ["V4", "V5"]),
    ...channel("right", "V1B", "V3", ["V6", "V7"]),
    { kind: "heaters" },
  ],
  typed: {
    PS: { rectifier: "305", "rectifier:rs": "25", reservoir: "100u" },
    BLEED: { bleeder: "150k" },
    F1: { "filter resistor": "4.7k", "filter capacitor": "50u" },
    F2: { "filter resistor": "22k", "filter capacitor": "50u" },
    BIAS: { "bias rectifier": "28", "bias rectifier:rs": "220", "bias reservoir": "100u" },
    ...typedChannel("V1A", "V2", "V4", "ADJ", "NFB", "VOL1"),
    ...typedChannel("V1B", "V3", "V6", "ADJ1", "NFB1", "VOL2"),
  },
  // Both adjusters lie between two ends of their own; the feedback returns to the first stage.
  ports: [
    ...["ADJ", "ADJ1"].flatMap((id): [string, string, string][] => [
      [id, "from", "ba"],
      [id, "foot", "bz"],
    ]),
    ["V1A", "feedback", "fbl"],
    ["V2A", "feedback", "0"],
    ["V1B", "feedback", "fbr"],
    ["V3A", "feedback", "0"],
  ],
  free: ["R90 bn ba 10k ;@tol 5% @watts 0.5 @kind carbon", "R91 bz 0 12k ;@tol 5% @watts 0.5 @kind carbon"],
};

/** The six, each as a circuit file, with its free lines. */
export function demoPlans(): { file: string; text: string; free: string[] }[] {
  return [WREN, LANTERN, DROVER, MINOR, HALBERD, PICTURE_HOUSE].map(({ file, mains, chain, typed, free = [], ports = [] }) => {
    let text = assemble({ maker: "Test", model: file, mains: mains[0], hertz: mains[1] }, chain);
    if (free.length > 0) text = text.replace("*@block BIAS", `${free.join("\n")}\n*@block BIAS`);
    for (const [id, port, node] of ports) text = writeBlockFile(setPort(readBlockFile(text), id, port, node));
    for (const [id, values] of Object.entries(typed))
      for (const [name, value] of Object.entries(values)) {
        const [role = "", key] = name.split(":");
        const block = blocksOf(readBlockFile(text)).find((b) => b.id === id);
        const element = block?.parts[role];
        if (!element) throw new Error(`${file}: ${id} has no ${role}: ${block ? Object.keys(block.parts).join(", ") : "no such block"}`);
        text = setValue(text, element, value, "seen", key ?? undefined);
      }
    const { errors } = readCircuit(text);
    if (errors[0]) throw new Error(`${file} line ${errors[0].line}: ${errors[0].found}\n${text}`);
    return { file, text, free };
  });
}
