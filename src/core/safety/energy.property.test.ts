/**
 * Whatever stands on a tape, whoever wrote it, late or early: PROVEN DEAD is never said with a sign of power or charge after the last
 * reading, with a reservoir unread since it was last live, or with a meter unproved. What is claimed is checked by the few lines below,
 * which know nothing of how the state is worked out.
 */

import fc from "fast-check";
import { readFileSync } from "node:fs";
import { energyOf, viewJob } from "../job/job-view";
import { draws } from "../numeric/draws-for-tests";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { START } from "../tape/tape-for-tests";
import type { JobEvent } from "../tape/events/event";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const RESERVOIRS = ["C1", "C2", "C3"];
const SAFE = 10;

/** A line as it is drawn: seconds, type, payload, and how far back the line is that it takes back. */
interface Drawn {
  at: number;
  type: string;
  payload: Record<string, unknown>;
  back?: number;
}
const power = (state: string, plug?: string) => ({ type: "power", payload: { state, ...(plug ? { plug } : {}) } });
const meter = (expected: number, read: number, name?: string) => ({
  type: "meter-check",
  payload: { source: "battery", expected, read, ...(name ? { meter: name } : {}) },
});
const dead = (reservoir: string, volts: number) => ({ type: "discharge-reading", payload: { reservoir, volts } });

const anyLine = fc.oneof(
  fc.constantFrom(
    power("on", "in"),
    power("off", "out"),
    power("off", "in"),
    power("off"),
    meter(9, 9),
    meter(9, 9, "red"),
    meter(0.1, 0.1),
    meter(9, 2),
    { type: "tool-check", payload: { marked: 2200, read: 2200 } },
    { type: "tool-check", payload: { marked: 2200, read: 1e9 } },
    { type: "clip", payload: { reservoir: "C1", state: "on" } },
    { type: "clip", payload: { reservoir: "C1", state: "off" } },
    { type: "mains-current", payload: { volts: 230, amps: 0.3 } },
    { type: "still-live", payload: { away: 60 } },
    { type: "stage", payload: { stage: "output:V2", result: "passed" } },
    { type: "soak-begun", payload: { fault: "x", failures: 1, hours: 1, onsetMinutes: 0, confidence: 0.9 } },
    {
      type: "bias",
      payload: { stage: "T1", when: "before", rows: [{ tube: "V2", way: "cathode resistor", plateMilliamps: 42 }], rails: [] },
    },
    { type: "reading", payload: { point: "B1", kind: "dcv", value: 290, conditions: {} } },
    { type: "reading", payload: { point: "wire", kind: "dcv", value: 60, conditions: {} } },
    { type: "reading", payload: { point: "B2", kind: "acv", value: 240, conditions: {} } },
    { type: "reading", payload: { point: "V2.k", kind: "ma", value: 40, conditions: {} } },
    { type: "reading", payload: { point: "B1", kind: "dcv", value: 0.1, conditions: {} } },
    {
      type: "change",
      payload: { position: "C1", kind: "replacement", newPart: "small", reversible: true, set: ["C1=100n"] },
    },
    { type: "returned", payload: { to: "the owner", oldPartsHanded: true } },
    { type: "taken-in", payload: { why: "hums" } },
    { type: "note", payload: { text: "a word" } },
  ),
  fc.tuple(fc.constantFrom(...RESERVOIRS, "C77"), fc.constantFrom(0.2, 0.4, 25, 300)).map(([r, v]) => dead(r, v)),
);

/** What a technician would do, from where other lines are put between. */
const sound: Drawn[] = [
  { at: 0, ...power("on", "in") },
  { at: 40, type: "reading", payload: { point: "B1", kind: "dcv", value: 292, conditions: {} } },
  { at: 60, ...power("off", "out") },
  { at: 90, ...meter(9, 9) },
  { at: 91, type: "tool-check", payload: { marked: 2200, read: 2200 } },
  ...RESERVOIRS.map((r, i) => ({ at: 100 + i, ...dead(r, 0.4) })),
  ...RESERVOIRS.map((r, i) => ({ at: 170 + i, ...dead(r, 0.3) })),
  { at: 180, type: "tool-check", payload: { marked: 2200, read: 2200 } },
  { at: 190, ...meter(9, 9) },
];

const tapes = fc
  .record({
    kept: fc.array(fc.boolean(), { minLength: sound.length, maxLength: sound.length }),
    drop: fc.integer({ min: 0, max: 3 }),
    put: fc.array(
      fc.record({
        line: anyLine,
        place: fc.nat(30),
        at: fc.oneof(fc.integer({ min: 0, max: 260 }), fc.constant(-1)),
        undo: fc.option(fc.integer({ min: 1, max: 12 }), { freq: 6, nil: undefined }),
      }),
      { maxLength: 4 },
    ),
    again: fc.boolean(),
  })
  .map(({ kept, drop, put, again }): JobEvent[] => {
    let left = drop;
    const lines: Drawn[] = sound.filter((_, i) => kept[i] || left-- <= 0);
    for (const { line, place, at, undo } of put) {
      const here = Math.min(place, lines.length);
      // Without a time of its own it is logged as it comes.
      const time = at >= 0 ? at : (lines[here - 1]?.at ?? 0) + 0.5;
      lines.splice(here, 0, undo === undefined ? { at: time, ...line } : { at: time, type: "undo", payload: {}, back: undo });
    }
    if (again) lines.push(...sound.slice(2).map((l) => ({ ...l, at: l.at + 300 })));
    return lines.map(({ at, type, payload, back }, i) => {
      const seq = i + 1;
      const struck = back === undefined ? undefined : seq - back;
      return {
        seq,
        id: `x${seq}`,
        at: new Date(START + at * 1000).toISOString(),
        who: i % 3 ? "J.M." : "O.V.",
        ...(struck === undefined || struck < 1
          ? back === undefined
            ? { type, payload }
            : { type: "note", payload: { text: "nothing to undo" } }
          : { type, payload, supersedes: struck, reason: "slip" }),
      } as JobEvent;
    });
  });

/** What speaks against PROVEN DEAD on this tape, in words; nothing where it may be said. */
function against(tape: JobEvent[]): string[] {
  const fallen = new Set<number>();
  for (const e of [...tape].reverse()) if (e.supersedes !== undefined && !fallen.has(e.seq)) fallen.add(e.supersedes);
  const seconds = (e: JobEvent) => (Date.parse(e.at) - START) / 1000;
  const p = (e: JobEvent) => e.payload as unknown as Record<string, never> & { value: number; volts: number; amps: number };
  const standing = tape.filter((e) => !fallen.has(e.seq));
  const showsPower = (e: JobEvent) =>
    (e.type === "power" && p(e).state === "on") ||
    ["still-live", "stage", "soak-begun", "bias", "mains-current"].includes(e.type) ||
    (e.type === "reading" && p(e).kind !== "dcv");
  const showsCharge = (e: JobEvent) =>
    (e.type === "reading" && p(e).kind === "dcv" && p(e).value > SAFE) || (e.type === "discharge-reading" && p(e).volts > SAFE);
  const out: string[] = [];
  const lastOn = Math.max(-Infinity, ...standing.filter(showsPower).map(seconds));
  const offs = standing.filter((e) => e.type === "power" && p(e).state === "off" && p(e).plug === "out" && seconds(e) >= lastOn - 10);
  if (offs.length === 0) out.push("nobody said off with the plug out since the last sign of power");
  const off = Math.min(Infinity, ...offs.map(seconds));
  const meters = standing.filter((e) => e.type === "meter-check" && p(e).volts === undefined && Number(p(e).expected) >= 9);
  const right = meters.filter((e) => Math.abs(Number(p(e).read) - Number(p(e).expected)) < 0.5);
  for (const r of RESERVOIRS) {
    const low = standing.filter(
      (e) => e.type === "discharge-reading" && p(e).reservoir === (r as never) && p(e).volts <= SAFE && seconds(e) >= Math.max(off, lastOn),
    );
    if (low.length === 0) {
      out.push(`${r} was not read low since it was off`);
      continue;
    }
    const last = Math.max(...low.map(seconds));
    const lastLine = Math.max(...low.map((e) => e.seq));
    const later = standing.filter((e) => (showsPower(e) || showsCharge(e)) && seconds(e) > last && seconds(e) > off);
    if (later.length > 0) out.push(`${later[0]!.type} after the last reading of ${r}`);
    const on = tape.filter((e) => e.type === "power" && p(e).state === "on" && e.seq > lastLine && seconds(e) > last);
    if (on.length > 0) out.push(`it was said to be on after the last reading of ${r}`);
    if (!low.some((e) => right.some((m) => m.seq < e.seq && seconds(m) <= seconds(e) && seconds(e) - seconds(m) <= 1800)))
      out.push(`no meter was proved before ${r}`);
    if (!right.some((m) => seconds(m) >= Math.min(...low.map(seconds)) && m.seq > Math.min(...low.map((e) => e.seq))))
      out.push(`no meter was proved after ${r}`);
  }
  const away = standing.findLast((e) => e.type === "returned" || e.type === "taken-in" || (e.type === "power" && p(e).state === "on"));
  if (away?.type === "returned") out.push("it went back");
  return out;
}

test("no tape ends in PROVEN DEAD against its own evidence", () => {
  let proven = 0;
  let other = 0;
  fc.assert(
    fc.property(tapes, (tape) => {
      const now = START + 600_000;
      const { kind } = energyOf(viewJob(tape, WREN, DEFAULT_SETTINGS, now), now);
      if (kind !== "proven-dead") {
        other++;
        return;
      }
      proven++;
      expect(against(tape)).toEqual([]);
    }),
    { numRuns: draws(1500, 50_000) },
  );
  // Both happen often enough for the claim to be one.
  expect(proven).toBeGreaterThan(50);
  expect(other).toBeGreaterThan(50);
});
