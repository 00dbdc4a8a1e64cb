/** Properties of the entry line over many random lines. */

import { readFileSync } from "node:fs";
import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { readCircuit } from "../circuit/read";
import { reservoirsOf } from "../supply/reservoirs";
import { payloadErrors } from "../tape/events/validate";
import { foldJob } from "../tape/fold";
import { parseEntry, type EntryContext } from "./entry";
import { measurementDraft } from "./measurement-lines";

const AMPS = ["wren-5", "lantern-15", "drover-40", "halberd-120"].map(
  (n) => readCircuit(readFileSync(`demo/amps/${n}.cir`, "utf8")).circuit,
);
const context = (more: Partial<EntryContext> = {}): EntryContext => {
  const circuit = more.circuit ?? AMPS[0]!;
  return {
    circuit,
    reservoirs: reservoirsOf(circuit),
    energy: "live",
    state: foldJob([]),
    conditions: { mains: 230 },
    station: "walk",
    decimal: ".",
    ...more,
  };
};
const energy = fc.constantFrom("live", "stored", "unknown", "proven-dead") as fc.Arbitrary<EntryContext["energy"]>;
const words = fc.constantFrom(
  ...[
    "B1",
    "V2.k",
    "c6",
    "R7",
    "fit",
    "on",
    "off",
    "note",
    "mains",
    "meter",
    "undo",
    "correct",
    "saw",
    "find",
    "ohm",
    "ac",
    "leak",
    "318",
    "4k7",
    "-3",
    "12,5",
    "22n",
    "was",
    "leaky",
    ":",
    "V4",
    "cold",
    "without",
    "because",
    "OL",
    "__proto__",
    "constructor",
    "µ",
    "∞",
    "99999",
    "9M",
    "1e9",
    "lamp",
    "V1,V2",
    "owner",
    "fuse",
  ],
);
const line = fc.oneof(
  fc.string({ unit: "grapheme", maxLength: 60 }),
  fc.array(words, { maxLength: 8 }).map((w) => w.join(" ")),
);

test("whatever is typed, it is understood as lines that the tape accepts, or refused with the reason and what is accepted", () => {
  fc.assert(
    fc.property(line, energy, fc.constantFrom(".", ",") as fc.Arbitrary<"." | ",">, (text, state, decimal) => {
      const entry = parseEntry(text, context({ energy: state, decimal }));
      if (entry.ok) {
        expect(entry.echo.length).toBeGreaterThan(0);
        expect(entry.drafts.length).toBeGreaterThan(0);
        for (const d of entry.drafts) expect(payloadErrors(d.type, d.payload)).toEqual([]);
      } else {
        expect(entry.why.length).toBeGreaterThan(0);
        expect(entry.accepted.length).toBeGreaterThan(0);
      }
    }),
    // The first one was found by other draws: more volts than the tape takes.
    { numRuns: 2000, examples: [["meter 4k7", "live", "."]] },
  );
});

test("a reading that a form has and the same one typed are the same line, for every point of every amp", () => {
  const value = fc.integer({ min: -60_000, max: 60_000 }).map((n) => n / 100);
  fc.assert(
    fc.property(fc.constantFrom(...AMPS), fc.nat(), value, (circuit, pick, volts) => {
      const point = circuit.points[pick % circuit.points.length]!;
      const ctx = context({ circuit });
      const typed = parseEntry(`${point.name} ${volts}`, ctx);
      const form = measurementDraft({ point: point.name, kind: "dcv", text: String(volts) }, ctx);
      expect(typed).toEqual(form);
      expect(form).toMatchObject({ ok: true, drafts: [{ type: "reading", payload: { point: point.name, value: volts } }] });
    }),
    { numRuns: 500 },
  );
});

describe("a point that is called as a command is", () => {
  const named = (name: string) => {
    const wren = AMPS[0]!;
    return { ...wren, points: [...wren.points, { ...wren.points[0]!, name, label: "mains at the fuse" }] };
  };
  const commands = ["note", "on", "off", "mains", "meter", "fit", "saw", "find", "remove", "back", "ask", "wait", "correct", "undo"];
  test.each(commands)("%s with a value is a reading of the point", (word) => {
    const circuit = named(word.toUpperCase());
    expect(parseEntry(`${word} 231`, context({ circuit }))).toMatchObject({
      ok: true,
      drafts: [{ type: "reading", payload: { point: word.toUpperCase(), value: 231 } }],
    });
  });
  test("a form's reading of it never becomes a mains voltage, in any state of the amp", () => {
    const circuit = named("MAINS");
    for (const state of ["live", "stored", "unknown", "proven-dead"] as const) {
      const entry = measurementDraft({ point: "MAINS", kind: "dcv", text: "231" }, context({ circuit, energy: state }));
      for (const d of entry.ok ? entry.drafts : []) expect(d.type).not.toBe("mains");
    }
  });
  test("where it cannot be read now, the line asks instead of guessing", () => {
    const entry = parseEntry(
      "mains 231",
      context({
        circuit: { ...named("MAINS"), points: [{ ...AMPS[0]!.points.at(-1)!, name: "MAINS" }] },
        reservoirs: [],
        energy: "unknown",
      }),
    );
    expect(entry).toMatchObject({ ok: false, why: expect.stringContaining("MAINS is a point of this amp, and also a command") });
  });
  test("without a value the command is meant", () => {
    expect(parseEntry("off", context({ circuit: named("OFF") }))).toMatchObject({ ok: true, drafts: [{ type: "power" }] });
  });
});
