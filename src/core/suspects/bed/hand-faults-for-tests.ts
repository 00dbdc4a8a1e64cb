/**
 * Bench faults written by hand as changes of the circuit file, each with the parts that a technician would have to name. Nothing here
 * knows which faults the program ranks; severities are drawn freely between the ends given.
 */

/** A circuit file with a fault in it, and what no line of a file says. */
export interface Faulty {
  text: string;
  /** Part of the emission that is left, by tube section. */
  emission: Record<string, number>;
  /** Of the mains that is believed. */
  mains: number;
  /** Types that are in the sockets in place of the file's. */
  types: Record<string, string>;
}

export interface HandFault {
  amp: string;
  says: string;
  /** Any of these names it. */
  refs: string[];
  /** What kind of thing it is, for the table of results. */
  kind: string;
  /** It is a matter of ripple: solved pulse by pulse, with alternating volts of the rails among the readings. */
  ripple?: boolean;
  /** @param u 0 to 1: how bad. */
  make(file: Faulty, u: number): Faulty;
}

const between = (low: number, high: number, u: number) => low * (high / low) ** u;
type Change = (file: Faulty, u: number) => Faulty;

const lineOf = (text: string, name: string): string[] => {
  const line = text.split("\n").find((l) => l.toUpperCase().startsWith(`${name.toUpperCase()} `));
  if (!line) throw new Error(`no line ${name}`);
  return line.split(/\s+/);
};
const edited = (file: Faulty, name: string, edit: (words: string[]) => string[]): Faulty => {
  const words = lineOf(file.text, name);
  return {
    ...file,
    text: file.text
      .split("\n")
      .map((l) => (l.toUpperCase().startsWith(`${name.toUpperCase()} `) ? edit(words).join(" ") : l))
      .join("\n"),
  };
};
const added = (file: Faulty, ...lines: string[]): Faulty => ({
  ...file,
  text: file.text.replace(/\n\.end/, `\n${lines.join("\n")}\n.end`),
});

/** A resistance across a part, or between two nodes. */
const across =
  (name: string, low: number, high: number): Change =>
  (file, u) => {
    const [, a, b] = lineOf(file.text, name);
    return added(file, `RFAULT ${a} ${b} ${between(low, high, u).toPrecision(5)}`);
  };
const joined =
  (a: string, b: string, low: number, high: number): Change =>
  (file, u) =>
    added(file, `RFAULT ${a} ${b} ${between(low, high, u).toPrecision(5)}`);
const numberOf = (typed: string) =>
  Number(typed.replace(/meg$/i, "e6").replace(/k$/i, "e3").replace(/u$/i, "e-6").replace(/n$/i, "e-9").replace(/p$/i, "e-12"));
const times =
  (name: string, low: number, high: number): Change =>
  (file, u) =>
    edited(file, name, ([n = "", a = "", b = "", value = "", ...rest]) => [
      n,
      a,
      b,
      (numberOf(value) * between(low, high, u)).toPrecision(5),
      ...rest,
    ]);
/** One end of a part lifted: the pin goes to a node of its own. */
const lifted =
  (name: string, pin: number): Change =>
  (file) =>
    added(
      edited(file, name, (words) => words.map((w, i) => (i === pin ? "loose" : w))),
      "RLOOSE loose 0 1e10",
    );
const swapped =
  (name: string, one: number, other: number): Change =>
  (file) =>
    edited(file, name, (words) => words.map((w, i) => (i === one ? words[other]! : i === other ? words[one]! : w)));
const emission =
  (tubes: string[], low: number, high: number): Change =>
  (file, u) => ({ ...file, emission: { ...file.emission, ...Object.fromEntries(tubes.map((t) => [t, between(low, high, u)])) } });
const mains =
  (low: number, high: number): Change =>
  (file, u) => ({ ...file, mains: between(low, high, u) });
const types =
  (by: Record<string, string>): Change =>
  (file) => ({ ...file, types: by });

const rows: [amp: string, says: string, refs: string, kind: string, change: Change, ripple?: true][] = [
  ["wren-5", "cathode bypass leaks badly", "C4", "cathode bypass", across("C4", 10, 300)],
  ["wren-5", "driver's cathode bypass leaks", "C7", "cathode bypass", across("C7", 20, 900)],
  ["wren-5", "coupling capacitor to the output grid leaks", "C6", "coupling capacitor", across("C6", 3e5, 2e7)],
  ["wren-5", "output cathode resistor open", "R4", "resistor", times("R4", 300, 3000)],
  ["wren-5", "driver's plate resistor gone high", "R6", "resistor", times("R6", 1.6, 5)],
  ["wren-5", "input plate resistor open", "R8", "resistor", times("R8", 1e4, 1e5)],
  ["wren-5", "dropper gone high", "R2", "resistor", times("R2", 1.7, 4)],
  ["wren-5", "output tube tired", "V2", "tube", emission(["V2"], 0.25, 0.5)],
  ["wren-5", "driver half dead", "V1B V1", "tube", emission(["V1B"], 1e-4, 1e-3)],
  ["wren-5", "mains below what was typed", "mains", "mains", mains(0.82, 0.91)],
  ["wren-5", "mains above what was typed", "mains", "mains", mains(1.09, 1.17)],
  ["wren-5", "screen resistor open", "R3", "resistor", times("R3", 1e5, 1e6)],
  ["wren-5", "second filter capacitor leaks", "C2", "filter capacitor", across("C2", 6e3, 3e4)],
  ["wren-5", "screen leaks to the grid inside the output tube", "V2", "tube short", joined("s2", "g2", 4e5, 8e6)],
  ["wren-5", "brown read for red: output cathode resistor ten times too small", "R4", "wrong value", times("R4", 0.1, 0.1001)],
  ["wren-5", "driver's cathode resistor ten times too large", "R7", "wrong value", times("R7", 10, 10.01)],
  ["wren-5", "12AU7 in the 12AX7's socket", "V1 V1A V1B", "wrong tube", types({ V1A: "12AU7", V1B: "12AU7" })],
  ["wren-5", "reservoir dried out", "C1", "low capacitor", times("C1", 0.04, 0.25), true],
  ["lantern-15", "shared cathode bypass leaks", "C5", "cathode bypass", across("C5", 15, 250)],
  ["lantern-15", "coupling capacitor to V4 leaks", "C6", "coupling capacitor", across("C6", 3e5, 1.5e7)],
  ["lantern-15", "inverter's plate resistor gone high", "R9", "resistor", times("R9", 1.5, 4)],
  ["lantern-15", "inverter's cathode resistor open", "R11", "resistor", times("R11", 100, 1000)],
  ["lantern-15", "screen resistor of V5 open", "R6", "resistor", times("R6", 1e4, 1e5)],
  ["lantern-15", "V4 dead", "V4", "tube", emission(["V4"], 1e-4, 1e-3)],
  ["lantern-15", "rail capacitor of the preamplifier leaks", "C4", "filter capacitor", across("C4", 1.5e4, 8e4)],
  ["lantern-15", "heater touches the cathode of V2A", "V2A V2", "heater to cathode", across("R14", 20, 400)],
  ["lantern-15", "mains below what was typed", "mains", "mains", mains(0.82, 0.9)],
  ["lantern-15", "V1A's plate lead off", "V1A V1", "open joint", lifted("XV1A", 1)],
  ["lantern-15", "12AT7 in the inverter's socket", "V3 V3A V3B", "wrong tube", types({ V3A: "12AT7", V3B: "12AT7" })],
  ["lantern-15", "reservoir dried out", "C1", "low capacitor", times("C1", 0.03, 0.2), true],
  ["drover-40", "coupling capacitor to V5 leaks", "C5", "coupling capacitor", across("C5", 5e5, 2e7)],
  ["drover-40", "bias supply's resistor gone high", "R41", "resistor", times("R41", 3, 10)],
  ["drover-40", "tail resistor open", "R13", "resistor", times("R13", 100, 1000)],
  ["drover-40", "plate resistor of the inverter gone high", "R10", "resistor", times("R10", 1.5, 4)],
  ["drover-40", "EF86's screen resistor gone high", "R32", "resistor", times("R32", 1.8, 5)],
  ["drover-40", "EF86's screen capacitor leaks", "C17", "coupling capacitor", across("C17", 1e5, 1e6)],
  ["drover-40", "EF86's cathode bypass leaks", "C18", "cathode bypass", across("C18", 30, 1000)],
  ["drover-40", "recovery stage's cathode resistor open", "R30", "resistor", times("R30", 300, 3000)],
  ["drover-40", "choke open", "L1", "winding", lifted("L1", 2)],
  ["drover-40", "bias capacitor leaks", "C20", "filter capacitor", across("C20", 500, 4e3)],
  ["drover-40", "grid leak of V6 gone high", "R9", "resistor", times("R9", 30, 200)],
  ["drover-40", "mains above what was typed", "mains", "mains", mains(1.09, 1.16)],
  ["drover-40", "reservoir dried out", "C1", "low capacitor", times("C1", 0.03, 0.2), true],
  ["minor", "output cathode bypass leaks", "C4", "cathode bypass", across("C4", 15, 250)],
  ["minor", "coupling capacitor leaks", "C6", "coupling capacitor", across("C6", 3e5, 1.5e7)],
  ["minor", "output cathode resistor gone high", "R4", "resistor", times("R4", 2, 10)],
  ["minor", "plate resistor gone high", "R6", "resistor", times("R6", 2, 6)],
  ["minor", "second filter capacitor leaks", "C2", "filter capacitor", across("C2", 1.5e3, 6e3)],
  ["minor", "output transformer's primary open", "T1", "winding", lifted("XT1", 2)],
  ["minor", "dropper gone high", "R1", "resistor", times("R1", 1.8, 5)],
  ["minor", "mains below what was typed", "mains", "mains", mains(0.82, 0.9)],
  ["minor", "output tube dead", "V2", "tube", emission(["V2"], 1e-4, 1e-3)],
  ["minor", "reservoir dried out", "C1", "low capacitor", times("C1", 0.04, 0.3), true],
  ["picture-house", "coupling capacitor to V4 leaks", "C21", "coupling capacitor", across("C21", 1e6, 3e7)],
  ["picture-house", "plate resistor of the inverter gone high", "R27", "resistor", times("R27", 1.5, 4)],
  ["picture-house", "left bias capacitor leaks", "C20", "filter capacitor", across("C20", 1e3, 8e3)],
  ["picture-house", "V6's cathode resistor open", "R41", "resistor", times("R41", 1e3, 1e4)],
  ["picture-house", "first stage's plate resistor open", "R53", "resistor", times("R53", 1e3, 1e4)],
  ["picture-house", "V5 dead", "V5", "tube", emission(["V5"], 1e-4, 1e-3)],
  ["picture-house", "right channel's inverter: one half dead", "V3A V3", "tube", emission(["V3A"], 1e-4, 1e-3)],
  ["picture-house", "preamplifier's rail capacitor leaks", "C4", "filter capacitor", across("C4", 1.2e4, 8e4)],
  ["picture-house", "mains above what was typed", "mains", "mains", mains(1.09, 1.16)],
  ["picture-house", "first stage's cathode resistor ten times too large", "R34", "wrong value", times("R34", 10, 10.01)],
  ["picture-house", "reservoir dried out", "C1", "low capacitor", times("C1", 0.02, 0.15), true],
  ["halberd-120", "coupling capacitor to the upper pair leaks", "C6", "coupling capacitor", across("C6", 3e5, 1e7)],
  ["halberd-120", "balancing resistor open", "R31", "resistor", times("R31", 1e3, 1e4)],
  ["halberd-120", "V5 dead", "V5", "tube", emission(["V5"], 1e-4, 1e-3)],
  ["halberd-120", "screen resistor of V6 open", "R10", "resistor", times("R10", 1e4, 1e5)],
  ["halberd-120", "tail resistor gone high", "R21", "resistor", times("R21", 1.6, 4)],
  ["halberd-120", "second stage's bypass leaks", "C12", "cathode bypass", across("C12", 40, 1200)],
  ["halberd-120", "third stage's plate resistor gone high", "R26", "resistor", times("R26", 1.6, 5)],
  ["halberd-120", "bias divider's resistor open", "R41", "resistor", times("R41", 100, 1000)],
  ["halberd-120", "screen choke open", "L1", "winding", lifted("L1", 2)],
  ["halberd-120", "plate and cathode wires of V2A swapped", "V2A V2", "miswired socket", swapped("XV2A", 1, 3)],
  ["halberd-120", "inverter rail's capacitor leaks", "C4", "filter capacitor", across("C4", 8e3, 5e4)],
  ["halberd-120", "mains below what was typed", "mains", "mains", mains(0.82, 0.9)],
];

export const HAND_FAULTS: HandFault[] = rows.map(([amp, says, refs, kind, make, ripple]) => ({
  amp,
  says,
  refs: refs.split(" "),
  kind,
  make,
  ...(ripple ? { ripple } : {}),
}));
