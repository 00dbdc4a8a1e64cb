/** Lines that log a measurement: a name, perhaps a kind, a value. */

import { findElement } from "../circuit/circuit";
import { formatQuantity } from "../quantity/format";
import { isOverload, OPEN_OHMS } from "../quantity/ohms";
import { parseQuantity } from "../quantity/parse";
import type { Reservoir } from "../supply/reservoirs";
import type { Reading } from "../tape/events/measuring-events";
import type { ReadingKind } from "../tape/events/words";
import { readingProblem } from "../tape/reading-limits";
import { type Entry, type EntryContext, KIND_UNIT, no, yes } from "./context";
import * as texts from "../texts/entry";

/** Words for a kind of reading. */
export const KIND_WORD: Record<string, ReadingKind> = {
  ohm: "ohm",
  ohms: "ohm",
  Ω: "ohm",
  ac: "acv",
  acv: "acv",
  dc: "dcv",
  dcv: "dcv",
  ma: "ma",
  leak: "leak",
  gm: "gm",
};
const KIND_NAME: Record<ReadingKind, string> = {
  dcv: "DC",
  acv: "AC",
  ma: "current",
  ohm: "resistance",
  leak: texts.leakageLegLifted,
  gm: texts.ofNew,
};

/** Places that are no point or part of the netlist: heaters, windings, the grid pin of a socket. */
const OUTSIDE = /^(V\d+\.heater|V\d+[A-D]?\.[gk]|HT\d?(\.[12])?|H\d+(\.(string|ballast))?|BIAS\.ac)$/i;

/** A measurement as a form has it: where, what kind where the form knows it, and what was typed into its field. */
export interface Measured {
  point: string;
  kind?: ReadingKind;
  text: string;
}

/** One line of the entry line: a name, perhaps a kind, a value. */
export function readMeasurement(name: string, others: string[], line: string, ctx: EntryContext): Entry {
  if (others.length === 0) return unknownFirstWord(name, line, ctx) ?? no(line, texts.hasNoValue(name), texts.ohmK(name, name));
  return knownPlace(name, kindIn(others.join(" ")).kind, ctx)
    ? measurementDraft({ point: name, text: others.join(" ") }, ctx)
    : unknown(name, line, ctx);
}

const unknown = (name: string, line: string, ctx: EntryContext) =>
  unknownFirstWord(name, line, ctx) ?? no(name, texts.noSuchPoint(), "a point");

/** A kind written before the value, "ohm 118k", or said by its unit, "118kΩ". */
export function kindIn(text: string): { kind?: ReadingKind; typed: string } {
  const [first = "", ...rest] = text.trim().split(/\s+/);
  const word = first.toLowerCase();
  if (rest.length > 0 && Object.hasOwn(KIND_WORD, word)) return { kind: KIND_WORD[word], typed: rest.join(" ") };
  const typed = text.trim();
  return { kind: /(ohms?|[ΩΩ])$/i.test(typed) ? "ohm" : /\dm?a$/i.test(typed) ? "ma" : undefined, typed };
}

interface Place {
  /** As the circuit spells it. */
  name: string;
  /** With its label, for the echo. */
  where: string;
  reservoir?: Reservoir;
}

/** A point, a part, a reservoir, a place outside the netlist, or a pair of nodes; without a circuit any name that carries a number. */
function knownPlace(name: string, kind: ReadingKind | undefined, ctx: EntryContext): Place | undefined {
  const same = (other: string) => other.toLowerCase() === name.toLowerCase();
  const point = ctx.circuit?.points.find((p) => same(p.name));
  const part = ctx.circuit && findElement(ctx.circuit, name);
  const reservoir = ctx.reservoirs.find((r) => same(r.name) || (point && r.node === point.node && r.returnNode === "0"));
  const pair = /^([\w.]+):([\w.]+)$/.test(name) && kind === "ohm";
  if (!point && !part && !reservoir && !OUTSIDE.test(name) && !pair && (ctx.circuit || !/\d|^bias$/i.test(name))) return undefined;
  const label = point?.name ?? reservoir?.name ?? part?.name ?? name;
  return { name: label, where: point ? `${point.name} (${point.label})` : label, reservoir };
}

/**
 * A measurement as an event for the tape: of a form, or of a line that was typed.
 * The amp's state decides what it can be: a reservoir with the power off is a reading of the proof, ohms of a live amp are refused.
 */
export function measurementDraft(measured: Measured, ctx: EntryContext): Entry {
  const said = kindIn(measured.text);
  const kind: ReadingKind = measured.kind ?? said.kind ?? "dcv";
  const { typed } = said;
  if (measured.kind && said.kind && said.kind !== measured.kind)
    return no(measured.text, texts.askedHere(KIND_NAME[said.kind], KIND_NAME[measured.kind]), texts.valueAlone(UNIT_NAME[measured.kind]));
  if (typed === "") return no(measured.point, texts.hasNoValue(measured.point), "a value");
  const place = knownPlace(measured.point, kind, ctx) ?? { name: measured.point, where: measured.point };
  if (kind === "ohm" && ctx.energy === "live") return no(`${place.name} ${typed}`, texts.resistanceReadPowerOff(), texts.typeOffFirst());
  if (kind === "ohm" && isOverload(typed))
    return yes(texts.open(place.name), reading({ point: place.name, kind, value: OPEN_OHMS, digits: 1, conditions: ctx.conditions }));
  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kind], decimal: ctx.decimal });
  if (!parsed.ok) return no(parsed.read, parsed.why, parsed.accepted);
  // Milliamperes are the unit of the bench: a bare 38 behind "ma" is 38 mA.
  const bareMilliamps = kind === "ma" && /^[-−+\d.,]+$/.test(typed);
  const value = kind === "ma" ? (bareMilliamps ? parsed.quantity.value : parsed.quantity.value * 1000) : parsed.quantity.value;
  const problem = readingProblem(kind, value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
  const shown = formatQuantity(kind === "ma" ? value / 1000 : value, KIND_UNIT[kind], Math.max(2, parsed.quantity.digits));
  if (place.reservoir && kind === "dcv" && ctx.energy !== "live")
    return yes(texts.powerOff2(place.reservoir.name, place.reservoir.label, shown), {
      type: "discharge-reading",
      payload: { reservoir: place.reservoir.name, volts: value },
    });
  if (LIVE_KINDS.has(kind) && ctx.energy !== "live")
    return no(`${place.name} ${typed}`, texts.ampNotLoggedSo(), texts.typeFirstReservoirsCan());
  return yes(
    `${place.where} ${shown} ${KIND_NAME[kind]}`,
    reading({ point: place.name, kind, value, digits: parsed.quantity.digits, conditions: ctx.conditions }),
  );
}

/** A reservoir read with the power off, as a step of the proof has it. */
export function dischargeDraft(reservoir: string, text: string, decimal: "." | ","): Entry {
  const parsed = parseQuantity(text, { unit: "V", decimal });
  if (!parsed.ok) return no(parsed.read, parsed.why, parsed.accepted);
  const problem = readingProblem("dcv", parsed.quantity.value);
  if (problem) return no(text, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
  return yes(texts.powerOff3(reservoir, parsed.quantity.echo), {
    type: "discharge-reading",
    payload: { reservoir, volts: parsed.quantity.value },
  });
}

/** What is read with the amp on. */
const LIVE_KINDS = new Set<ReadingKind>(["dcv", "acv", "ma", "leak"]);
const UNIT_NAME: Record<ReadingKind, string> = { dcv: "V", acv: "V", ma: "mA", ohm: "Ω", leak: "V", gm: texts.ofNew2 };
const reading = (payload: Reading) => ({ type: "reading", payload }) as const;

/** Names of this amp that can be measured: points, parts, reservoirs. */
function namesOf(ctx: EntryContext): string[] {
  return [
    ...(ctx.circuit?.points.map((p) => p.name) ?? []),
    ...(ctx.circuit?.elements.map((e) => e.name) ?? []),
    ...ctx.reservoirs.map((r) => r.name),
  ];
}

/** Whether a word is the name of something in this amp. */
export const isName = (word: string, ctx: EntryContext): boolean => namesOf(ctx).some((n) => n.toLowerCase() === word.toLowerCase());

function unknownFirstWord(name: string, line: string, ctx: EntryContext): Entry | undefined {
  const known = namesOf(ctx);
  if (known.some((k) => k.toLowerCase() === name.toLowerCase())) return undefined;
  const near = known.filter((k) => k.toLowerCase().startsWith(name.toLowerCase().slice(0, 2))).slice(0, 4);
  return no(
    line,
    texts.notPointPartWord(name),
    near.length ? texts.noteOffFitFind(near.join(", ")) : texts.pointSuchNoteOff(known.slice(0, 3).join(", ") || "B1"),
  );
}
