/**
 * What a technician hears at a Drover 40 with each cause of noise in it, written by hand from its schematic and without the table of
 * causes: where the noise enters along the signal, and what takes it away.
 */

import type { SoundWord } from "@/core/tape/sound-words";

/** Places along the signal in the order of the schematic; a half lies between two. */
const AT = { jack: 0, g1: 1, V1: 2, p1: 3, P1: 4, g2a: 5, V2: 6, p2a: 7, g4a: 8, V4: 9, p4a: 10, g5: 11, V5: 12, out: 13 };

/** Each of these silences what enters no later than this place. */
const SILENCES: Record<string, number> = {
  "short:input": AT.jack,
  "ground:g1": AT.g1,
  "pull:V1": AT.p1,
  "down:P1": AT.P1,
  "ground:g2a": AT.g2a,
  "pull:V2": AT.p2a,
  "ground:g4a": AT.g4a,
  "pull:V4": AT.p4a,
  pullOutput: AT.V5,
};

type Heard = "gone" | "less" | "more" | "no change" | "loudest part-way";

interface ByHand {
  id: string;
  sound: SoundWord;
  at: number;
  /** What it does other than by its place. */
  does?: Record<string, Heard>;
  /** Rails that read too much ripple. */
  ripple?: Record<string, "two to five times" | "over five times">;
  /** No signal passes this place. */
  blocks?: number;
}

const tube = (name: string, place: number, signal: number): ByHand[] => [
  {
    id: `${signal === AT.V2 ? "V2A" : name} microphonic`,
    sound: "squeal",
    at: place,
    does: { [`tap:${name}`]: "more", [`swap:${name}`]: "gone", cabinet: "gone" },
  },
  { id: `${signal === AT.V2 ? "V2A" : name} noisy`, sound: "hiss", at: place, does: { [`swap:${name}`]: "gone" } },
];
const heaterLeak = (id: string, name: string, at: number): ByHand => ({
  id,
  sound: "hum-mains",
  at,
  does: { [`swap:${name}`]: "gone", reference: "less" },
});
const contacts = (id: string, name: string, at: number): ByHand => ({
  id,
  sound: "crackle",
  at,
  does: { [`tap:${name}`]: "more", stick: "more", [`swap:${name}`]: "less" },
});
const plateResistor = (part: string, at: number): ByHand => ({
  id: `${part} noisy`,
  sound: "hiss",
  at,
  does: { [`freeze:${part}`]: "less" },
});
const dead = (id: string, blocks: number): ByHand => ({ id, sound: "nothing at all", at: AT.out, blocks });
const lost = (part: string, node: string, at: number, sound: SoundWord, also: string[] = []): ByHand[] =>
  (["open", "low"] as const).map((how) => ({
    id: `${part} ${how}`,
    sound,
    at,
    does: { [`bridge:${part}`]: "gone", "down:P1": "no change" },
    ripple: Object.fromEntries([node, ...also].map((n) => [n, how === "open" ? "over five times" : "two to five times"])),
  }));

export const DROVER_BY_HAND: ByHand[] = [
  // The rails: the one whose capacitor is gone shows it, and what it feeds.
  ...lost("C1", "b1", AT.V5, "hum-double", ["b2", "b3", "b4"]),
  ...lost("C2", "b2", AT.V5, "hum-double", ["b3", "b4"]),
  ...lost("C3", "b3", AT.V4, "hum-double", ["b4"]),
  ...lost("C4", "b4", AT.p1, "hum-double").map((c) => ({ ...c, does: { ...c.does, "down:P1": "less" as const } })),
  // The bias is rectified half-wave: its ripple is at the mains frequency.
  ...lost("C20", "bn", AT.g5, "hum-mains", ["bw"]),
  ...lost("C21", "bw", AT.g5, "hum-mains"),
  { id: "C3 motorboating", sound: "motorboating", at: AT.V4, does: { "bridge:C3": "gone" } },
  { id: "C4 motorboating", sound: "motorboating", at: AT.p1, does: { "bridge:C4": "gone" } },
  { id: "heater reference", sound: "hum-mains", at: AT.g1, does: { reference: "gone" } },
  { id: "heater unbalanced", sound: "hum-mains", at: AT.g1, does: { reference: "less" } },
  { id: "heater wiring", sound: "hum-mains", at: AT.g1, does: { stick: "less", reference: "less" } },
  heaterLeak("V1 hk", "V1", AT.V1),
  heaterLeak("V2A hk", "V2", AT.V2),
  heaterLeak("V4 hk", "V4", AT.V4),
  ...["V5", "V6"].map((v): ByHand => ({
    id: `${v} weak`,
    sound: "hum-double",
    at: AT.V5,
    does: { [`swap:${v}`]: "gone", "swap-pair:V5+V6": "less" },
  })),
  { id: "induction", sound: "hum-mains", at: AT.out, does: { turn: "less" } },
  { id: "pickup V1", sound: "hum-mains", at: AT.g1, does: { hand: "more", foil: "less", stick: "less" } },
  {
    id: "pickup V2A",
    sound: "hum-mains",
    at: AT.g2a,
    does: { hand: "more", foil: "less", stick: "less", "down:P1": "gone", "sweep:P1": "loudest part-way" },
  },
  { id: "shield", sound: "buzz", at: AT.g1, does: { hand: "more", foil: "gone" } },
  { id: "ground inside", sound: "buzz", at: AT.g1, does: { star: "less" } },
  { id: "ground between", sound: "buzz", at: AT.jack, does: { lead: "gone", lift: "gone", isolation: "gone", outlet: "less" } },
  { id: "lift does not lift", sound: "buzz", at: AT.jack, does: { lead: "gone", lift: "no change", isolation: "gone", outlet: "less" } },
  ...tube("V1", AT.V1, AT.V1),
  ...tube("V2", AT.V2, AT.V2),
  ...tube("V4", AT.V4, AT.V4),
  ...tube("V5", AT.V5, AT.V5),
  ...tube("V6", AT.V5, AT.V5),
  plateResistor("R31", AT.p1),
  plateResistor("R22", AT.p2a),
  plateResistor("R10", AT.p4a),
  { id: "C11 leaky", sound: "crackle", at: AT.P1, does: { "scratch:P1": "more" } },
  { id: "P1 dirty", sound: "crackle", at: AT.P1, does: { "scratch:P1": "more" } },
  { id: "C9 leaky", sound: "crackle", at: AT.p2a },
  { id: "C5 leaky", sound: "crackle", at: AT.g5 },
  contacts("V1 contacts", "V1", AT.V1),
  contacts("V2A contacts", "V2", AT.V2),
  contacts("V4 contacts", "V4", AT.V4),
  { id: "feedback reversed", sound: "squeal", at: AT.V4, does: { "feedback:R17": "gone" } },
  ...(
    [
      ["V1", AT.g1],
      ["V2A", AT.g2a],
      ["V4", AT.g4a],
    ] as const
  ).map(([v, at]): ByHand => ({ id: `${v} lead dress`, sound: "squeal", at, does: { stick: "less", foil: "less" } })),
  { id: "stopper", sound: "squeal", at: AT.g5, does: { stopper: "gone" } },
  { id: "parasitic", sound: "bursts on peaks", at: AT.g5, does: { stopper: "less", stick: "less" } },
  { id: "interference", sound: "buzz", at: AT.g1, does: { lamps: "gone", outlet: "less" } },
  { id: "radio", sound: "speech or music", at: AT.g1, does: { lead: "less", hand: "more" } },
  { id: "lead", sound: "crackle", at: AT.jack, does: { lead: "gone", stick: "more" } },
  { id: "speaker", sound: "crackle", at: AT.out, does: { speaker: "gone", pullOutput: "gone" } },
  dead("V1 dead", AT.V1),
  dead("C11 open", AT.p1),
  dead("V2A dead", AT.V2),
  dead("C9 open", AT.p2a),
  dead("V4 dead", AT.V4),
  dead("C5 open", AT.p4a),
  { id: "p4a~g5 board leak", sound: "crackle", at: AT.g5, does: { stick: "more" } },
  { id: "b4~g2a board leak", sound: "crackle", at: AT.g2a, does: { stick: "more" } },
];

/** How a grid that is touched comes through a sound amp. */
const TOUCHED: Record<string, [place: number, heard: string]> = {
  g1: [AT.g1, "loud"],
  g2a: [AT.g2a, "loud"],
  g4a: [AT.g4a, "soft"],
  g5: [AT.g5, "soft"],
  g6: [AT.g5, "soft"],
};

/** What is heard or read at a test. Where nothing was written down for it, the place along the signal says it. */
export function heardAt(cause: ByHand, test: string): string {
  if (test === "sound") return cause.sound;
  if (test.startsWith("ac:")) return cause.ripple?.[test.slice(3)] ?? "as it should be";
  if (test.startsWith("touch:")) {
    const [place, heard] = TOUCHED[test.slice(6)]!;
    return cause.blocks !== undefined && place <= cause.blocks ? "nothing" : heard;
  }
  const own = cause.does?.[test];
  if (own) return own;
  if (test === "sweep:P1") return cause.at <= AT.P1 ? "louder as it goes up" : "no change";
  if (test === "up:P1") return cause.at <= AT.P1 ? "more" : "no change";
  const silences = SILENCES[test];
  return silences !== undefined && cause.at <= silences ? "gone" : "no change";
}
