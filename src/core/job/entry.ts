/**
 * The entry line: what a technician would say, typed. `B1 318`, `v2.k 7.4`, `r7 ohm 118k`, `off`, `c1 0.3`,
 * `note hum drops with V2 out`, `fit C6 22n 630V film, was leaky`. Understood before Enter, refused with the reason.
 */

import { findElement, type Circuit, type Element } from "../circuit/circuit";
import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import type { Unit } from "../quantity/unit";
import type { Reservoir } from "../supply/reservoirs";
import type { EnergyState } from "./energy";
import type { Conditions } from "./events/bench";
import { READING_KINDS, type ReadingKind } from "./events/words";
import type { EventDraft } from "./events/event";
import { latestReading, type JobState } from "./fold";
import { readingProblem } from "./reading-limits";
import type { StationId } from "./stations";

export interface EntryContext {
  circuit?: Circuit;
  reservoirs: Reservoir[];
  energy: EnergyState["kind"];
  state: JobState;
  conditions: Conditions;
  station: StationId;
  decimal: "." | ",";
}

export type Entry =
  | { ok: true; echo: string; drafts: EventDraft[] }
  | { ok: false; read: string; why: string; accepted: string };

interface Verb {
  form: string;
  read(rest: string, ctx: EntryContext): Entry;
}

const yes = (echo: string, ...drafts: EventDraft[]): Entry => ({ ok: true, echo, drafts });
const no = (read: string, why: string, accepted: string): Entry => ({ ok: false, read, why, accepted });

const VERBS: Record<string, Verb> = {
  note: { form: "note TEXT", read: (rest, ctx) => (rest ? yes(`Note: ${rest}`, { type: "note", payload: { text: rest, station: ctx.station } }) : no("note", "the note is empty", "note TEXT")) },
  on: { form: "on [lamp | variable] [without V4,V5]", read: readOn },
  off: {
    form: "off, or off in (plug still in)",
    read: (rest) =>
      rest === "" ? yes("Switched off, plug out", { type: "power", payload: { state: "off", plug: "out" } })
      : rest === "in" ? yes("Switched off, plug still in", { type: "power", payload: { state: "off", plug: "in" } })
      : no(`off ${rest}`, `"${rest}" says nothing about the plug`, "off, or off in"),
  },
  mains: { form: "mains 231", read: readMains },
  meter: { form: "meter 9.02 [9.0 [SOURCE]]", read: readMeter },
  fit: { form: "fit C6 22n 630V film, was leaky", read: readFit },
  find: { form: "find PLACE: what was found", read: readFind },
  remove: { form: "remove WHAT, PLACE", read: readRemove },
  back: { form: "back WHAT", read: readBack },
  ask: { form: "ask QUESTION TO THE OWNER", read: (rest) => (rest ? yes(`Ask the owner: ${rest}`, { type: "approval", payload: { what: rest, answer: "asked" } }) : no("ask", "no question", "ask QUESTION")) },
  wait: { form: "wait owner | part | soak | collection | you [for what]", read: readWait },
  correct: { form: "correct POINT VALUE REASON", read: readCorrect },
  undo: { form: "undo [REASON]", read: readUndo },
};

/** Reads one line. Never throws; nothing is logged by reading. */
export function parseEntry(text: string, ctx: EntryContext): Entry {
  const line = text.trim().replace(/\s+/g, " ");
  if (line === "") return no("", "nothing was typed", "a point and its value (B1 318), or note, on, off, fit, find, undo …");
  const [word = "", ...others] = line.split(" ");
  const verb = Object.hasOwn(VERBS, word.toLowerCase()) ? VERBS[word.toLowerCase()] : undefined;
  if (verb) return verb.read(others.join(" "), ctx);
  return readMeasurement(word, others, line, ctx);
}

/** What could stand where the line ends, the likeliest first; each is the whole last word. */
export function completions(text: string, ctx: EntryContext): string[] {
  const words = text.split(/\s+/);
  const last = words.at(-1) ?? "";
  const wanted = last.toLowerCase();
  const parts = ctx.circuit?.elements.map((e) => e.name) ?? [];
  const points = ctx.circuit?.points.map((p) => p.name) ?? [];
  const reservoirs = ctx.reservoirs.map((r) => r.name);
  let pool: string[] = [];
  if (words.length === 1) pool = ctx.energy === "live" ? [...points, ...Object.keys(VERBS), ...parts] : [...reservoirs, ...Object.keys(VERBS), ...points, ...parts];
  else if (/^(fit|find)$/i.test(words[0]!) && words.length === 2) pool = parts;
  else if (/^correct$/i.test(words[0]!) && words.length === 2) pool = points;
  else if (/^wait$/i.test(words[0]!) && words.length === 2) pool = ["owner", "part", "soak", "collection", "you"];
  else if (words.length === 2 && !Object.hasOwn(VERBS, words[0]!.toLowerCase())) pool = ["ohm", "ac", "ma", "leak", "gm"];
  return [...new Set(pool)].filter((p) => wanted !== "" && p.toLowerCase().startsWith(wanted) && p.toLowerCase() !== wanted).slice(0, 8);
}

/** The forms that the line accepts, for its help. */
export const ENTRY_FORMS: string[] = ["B1 318", "V2.k 7.4", "R7 ohm 118k", "B1 ac 2.1", "C1 0.3 (power off)", ...Object.values(VERBS).map((v) => v.form)];

const KIND_WORD: Record<string, ReadingKind> = { ohm: "ohm", ohms: "ohm", "Ω": "ohm", ac: "acv", acv: "acv", dc: "dcv", dcv: "dcv", ma: "ma", leak: "leak", gm: "gm" };
const KIND_UNIT: Record<ReadingKind, Unit> = { dcv: "V", acv: "V", ma: "A", ohm: "Ω", leak: "V", gm: "%" };
const KIND_NAME: Record<ReadingKind, string> = { dcv: "DC", acv: "AC", ma: "current", ohm: "resistance", leak: "leakage, leg lifted", gm: "of new" };

function readMeasurement(name: string, others: string[], line: string, ctx: EntryContext): Entry {
  const kindWord = others.length > 1 ? others[0]!.toLowerCase() : "";
  const named = Object.hasOwn(KIND_WORD, kindWord) ? KIND_WORD[kindWord] : undefined;
  const typed = (named ? others.slice(1) : others).join("");
  if (typed === "") return unknownFirstWord(name, line, ctx) ?? no(line, `${name} has no value`, `${name} 318, ${name} ohm 4k7`);
  // A unit can say the kind: "R7 118kΩ".
  const kind: ReadingKind = named ?? (/(ohms?|[ΩΩ])$/i.test(typed) ? "ohm" : /\dm?a$/i.test(typed) ? "ma" : "dcv");

  const point = ctx.circuit?.points.find((p) => p.name.toLowerCase() === name.toLowerCase());
  const part = ctx.circuit && findElement(ctx.circuit, name);
  const pair = /^([\w.]+):([\w.]+)$/.exec(name);
  const reservoir = ctx.reservoirs.find((r) => r.name.toLowerCase() === name.toLowerCase() || (point && r.node === point.node && r.returnNode === "0"));
  const label = point?.name ?? reservoir?.name ?? part?.name ?? name;
  if (!point && !part && !reservoir && !(pair && kind === "ohm") && (ctx.circuit || !/\d/.test(name))) {
    return unknownFirstWord(name, line, ctx) ?? no(name, "no such point", "a point");
  }

  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kind], decimal: ctx.decimal });
  if (!parsed.ok) return no(parsed.read, parsed.why, parsed.accepted);
  // Milliamperes are the unit of the bench: a bare 38 behind "ma" is 38 mA.
  const bareMilliamps = kind === "ma" && /^[-−+\d.,]+$/.test(typed);
  const value = kind === "ma" ? (bareMilliamps ? parsed.quantity.value : parsed.quantity.value * 1000) : parsed.quantity.value;
  const problem = readingProblem(kind, value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));

  const shown = formatQuantity(kind === "ma" ? value / 1000 : value, KIND_UNIT[kind], Math.max(2, parsed.quantity.digits));
  if (reservoir && kind === "dcv" && ctx.energy !== "live") {
    return yes(`${reservoir.name} (${reservoir.label}) ${shown}, power off`, { type: "discharge-reading", payload: { reservoir: reservoir.name, volts: value } });
  }
  if (kind === "ohm" && ctx.energy === "live") return no(line, "resistance is read with the power off, and the amp is logged as live", "type off first");
  if ((kind === "dcv" || kind === "acv" || kind === "ma") && ctx.energy !== "live") return no(line, "the amp is not logged as on, so this cannot be a live reading", "type on first; reservoirs can be read with the power off");
  const where = point ? `${point.name} (${point.label})` : label;
  return yes(`${where} ${shown} ${KIND_NAME[kind]}`, {
    type: "reading", payload: { point: label, kind, value, digits: parsed.quantity.digits, conditions: ctx.conditions },
  });
}

function unknownFirstWord(name: string, line: string, ctx: EntryContext): Entry | undefined {
  const known = [...(ctx.circuit?.points.map((p) => p.name) ?? []), ...(ctx.circuit?.elements.map((e) => e.name) ?? []), ...ctx.reservoirs.map((r) => r.name)];
  if (known.some((k) => k.toLowerCase() === name.toLowerCase())) return undefined;
  const near = known.filter((k) => k.toLowerCase().startsWith(name.toLowerCase().slice(0, 2))).slice(0, 4);
  return no(line, `"${name}" is not a point, a part or a word that is known here`, near.length ? `${near.join(", ")}, or note, on, off, fit, find …` : `a point such as ${known.slice(0, 3).join(", ") || "B1"}, or note, on, off, fit, find …`);
}

function readOn(rest: string, ctx: EntryContext): Entry {
  const match = /^(lamp and variable|lamp|variable|straight)?\s*(?:(?:without|no) ([\w, ]+))?$/i.exec(rest);
  if (!match) return no(`on ${rest}`, `"${rest}" is not understood`, "on, on lamp, on variable, on without V4,V5");
  const without = match[2]?.split(/[, ]+/).filter(Boolean).map((t) => t.toUpperCase());
  const unknown = without?.find((t) => ctx.circuit && !ctx.circuit.elements.some((e) => e.name === t || e.name.replace(/[A-D]$/, "") === t) && !ctx.circuit.heaters.some((h) => h.tubes.includes(t)));
  if (unknown) return no(unknown, `there is no ${unknown} in this amp`, "a tube such as V1");
  const through = match[1]?.toLowerCase();
  return yes(`Power ON${through ? ` through ${through}` : ""}${without?.length ? `, without ${without.join(", ")}` : ""}: the amp is live`, {
    type: "power", payload: { state: "on", plug: "in", ...(through ? { through } : {}), ...(without?.length ? { without } : {}) },
  });
}

function readMains(rest: string, ctx: EntryContext): Entry {
  const parsed = parseQuantity(rest, { unit: "V", decimal: ctx.decimal });
  if (!parsed.ok) return no(rest, parsed.why, "mains 231");
  const volts = parsed.quantity.value;
  if (volts < 0 || volts > 500) return no(rest, `${parsed.quantity.echo} is not a mains voltage`, "0 to 500 V");
  return yes(`Mains ${parsed.quantity.echo}`, { type: "mains", payload: { volts } });
}

function readMeter(rest: string, ctx: EntryContext): Entry {
  const [first = "", second, ...source] = rest.split(" ");
  const read = parseQuantity(first, { unit: "V", decimal: ctx.decimal });
  if (!read.ok) return no(rest, read.why, "meter 9.02 9.0 battery (read, known, source)");
  const known = second ? parseQuantity(second, { unit: "V", decimal: ctx.decimal }) : undefined;
  if (known && !known.ok) return no(second!, known.why, "meter 9.02 9.0 battery");
  const expected = known?.ok ? known.quantity.value : 9;
  const name = source.join(" ") || (known ? "known source" : "9 V battery");
  return yes(`Meter on ${name}: read ${read.quantity.echo}, known ${formatQuantity(expected, "V", 3)}`, { type: "meter-check", payload: { source: name, expected, read: read.quantity.value } });
}

/** What the circuit says of a part, as a parts list would: "22 nF 400 V paper". */
export function describePart(part: Element | undefined): string | undefined {
  if (!part) return undefined;
  const unit: Unit | undefined = part.letter === "R" || part.type === "POT" ? "Ω" : part.letter === "C" ? "F" : part.letter === "L" ? "H" : undefined;
  const words = [
    part.value !== undefined && unit ? formatQuantity(part.value, unit, 2).replace(".0 ", " ") : part.type,
    part.notes.watts ? `${part.notes.watts} W` : undefined, part.notes.volts ? `${part.notes.volts} V` : undefined, part.notes.kind,
  ];
  return words.filter(Boolean).join(" ");
}

function readFit(rest: string, ctx: EntryContext): Entry {
  const [position = "", ...words] = rest.split(" ");
  const form = "fit C6 22n 630V film, was leaky";
  if (!position || words.length === 0) return no(`fit ${rest}`, position ? "the new part is not named" : "no position", form);
  const part = ctx.circuit && findElement(ctx.circuit, position);
  if (ctx.circuit && !part && !ctx.circuit.heaters.some((h) => h.tubes.includes(position.toUpperCase())) && /^[RCLVDX]\d/i.test(position)) return no(position, `there is no ${position.toUpperCase()} in this amp`, form);
  const [described = "", ...why] = words.join(" ").split(/,\s*/);
  const reasonText = why.join(", ");
  const was = /^was (.+)$/i.exec(reasonText)?.[1];
  const letter = position.charAt(0).toUpperCase();
  const unit: Unit | undefined = letter === "C" ? "F" : letter === "R" ? "Ω" : undefined;
  const pieces = described.split(" ");
  if (unit) {
    const value = parseQuantity(pieces[0]!, { unit, decimal: ctx.decimal });
    if (value.ok) pieces[0] = value.quantity.echo;
    else if (/^[\d.,]/.test(pieces[0]!)) return no(pieces[0]!, value.why, value.accepted);
  }
  const newPart = pieces.map((p) => p.replace(/^(\d+(?:\.\d+)?)(V|W)$/i, (_, n: string, u: string) => `${n} ${u.toUpperCase()}`)).join(" ");
  const oldPart = describePart(part);
  const name = part?.name ?? position.toUpperCase();
  return yes(`Fitted ${name}: ${newPart}${oldPart ? ` in place of ${oldPart}` : ""}${reasonText ? `, ${reasonText}` : ""}`, {
    type: "change",
    payload: { position: name, kind: "replacement", newPart, reversible: true, ...(oldPart ? { oldPart } : {}), ...(was ? { oldMeasured: was } : {}), ...(reasonText ? { reason: reasonText } : {}) },
  });
}

function readFind(rest: string, ctx: EntryContext): Entry {
  const match = /^(.*?)\s*:\s*(.+)$/.exec(rest) ?? /^(\S+) (.+)$/.exec(rest);
  if (!match) return no(`find ${rest}`, "place and finding are both wanted", "find V4 socket: loose pin 3");
  return yes(`Finding at ${match[1]}: ${match[2]}`, { type: "finding", payload: { station: ctx.station, place: match[1]!, text: match[2]!, severity: "watch", brief: "allowed" } });
}

function readRemove(rest: string): Entry {
  const [what = "", ...place] = rest.split(/,\s*/);
  if (!what) return no("remove", "nothing named", "remove two back-panel screws, left");
  return yes(`Taken off: ${what}${place.length ? `, ${place.join(", ")}` : ""}`, { type: "removed", payload: { what, ...(place.length ? { place: place.join(", ") } : {}) } });
}

function readBack(rest: string, ctx: EntryContext): Entry {
  const open = ctx.state.removed.filter((r) => r.back === undefined);
  const found = open.find((r) => r.what.toLowerCase().includes(rest.toLowerCase()) && rest !== "");
  if (!found) return no(`back ${rest}`, open.length ? "nothing of that name is off the amp" : "nothing is off the amp", open.map((r) => `back ${r.what}`).slice(0, 3).join(", ") || "remove … first");
  return yes(`Back in place: ${found.what}`, { type: "put-back", payload: { removed: found.seq } });
}

function readWait(rest: string): Entry {
  const match = /^(owner|part|soak|collection|you)\b\s*(?:for )?(.*)$/i.exec(rest);
  if (!match) return no(`wait ${rest}`, "it is not clear what for", "wait owner, wait part GZ34, wait soak, wait collection, wait you");
  const on = match[1]!.toLowerCase() as "owner";
  return yes(`Waiting for ${on === ("you" as string) ? "you" : `the ${on}`}${match[2] ? `: ${match[2]}` : ""}`, { type: "waiting", payload: { on, ...(match[2] ? { what: match[2] } : {}) } });
}

function readCorrect(rest: string, ctx: EntryContext): Entry {
  const [name = "", typed = "", ...why] = rest.split(" ");
  const kind = READING_KINDS.find((k) => latestReading(ctx.state, name, k));
  const old = kind && latestReading(ctx.state, name, kind);
  if (!old || !kind) return no(`correct ${rest}`, name ? `there is no reading of ${name} to correct` : "nothing named", "correct B1 305 misread the range");
  if (why.length === 0) return no(`correct ${rest}`, "a correction needs its reason: it stays on the tape", `correct ${name} ${typed || "305"} misread the range`);
  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kind], decimal: ctx.decimal });
  if (!parsed.ok) return no(typed, parsed.why, parsed.accepted);
  const problem = readingProblem(kind, parsed.quantity.value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));
  return yes(`${old.point} corrected from ${formatQuantity(old.value, KIND_UNIT[kind], Math.max(3, old.digits ?? 3))} to ${parsed.quantity.echo}: ${why.join(" ")}`, {
    type: "reading", supersedes: old.seq, reason: why.join(" "),
    payload: { point: old.point, kind, value: parsed.quantity.value, digits: parsed.quantity.digits, conditions: old.conditions },
  });
}

function readUndo(rest: string, ctx: EntryContext): Entry {
  const last = ctx.state.lines.findLast((l) => l.effective && l.event.type !== "undo" && l.event.type !== "job-opened");
  if (!last) return no("undo", "there is nothing to undo", "a line on the tape first");
  return yes(`Undo line ${last.event.seq}`, { type: "undo", supersedes: last.event.seq, reason: rest || "undone", payload: {} });
}
