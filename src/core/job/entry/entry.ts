/**
 * The entry line: what a technician would say, typed. `B1 318`, `v2.k 7.4`, `r7 ohm 118k`, `off`, `c1 0.3`,
 * `note hum drops with V2 out`, `fit C6 22n 630V film, was leaky`. Understood before Enter, refused with the reason.
 */

import { readCorrect, readUndo } from "./amend";
import { type Entry, type EntryContext, no, yes } from "./context";
import { readMeasurement } from "./measurement";
import { OBSERVATIONS, observationNamed } from "../../suspects/observation-names";
import { readMains, readMeter, readOff, readOn } from "./power";
import { readBack, readFind, readFit, readRemove, readWait } from "./work";

export type { Entry, EntryContext } from "./context";

interface Verb {
  form: string;
  read(rest: string, ctx: EntryContext): Entry;
}

const VERBS: Record<string, Verb> = {
  note: {
    form: "note TEXT",
    read: (rest, ctx) =>
      rest
        ? yes(`Note: ${rest}`, { type: "note", payload: { text: rest, station: ctx.station } })
        : no("note", "the note is empty", "note TEXT"),
  },
  on: { form: "on [lamp | variable] [without V4,V5]", read: readOn },
  off: { form: "off, or off in (plug still in)", read: readOff },
  mains: { form: "mains 231", read: readMains },
  meter: { form: "meter 9.02 [9.0 [SOURCE]]", read: readMeter },
  fit: { form: "fit C6 22n 630V film, was leaky", read: readFit },
  saw: { form: "saw V4 cold (or plate glows, hum, fuse blows …)", read: readSaw },
  find: { form: "find PLACE: what was found", read: readFind },
  remove: { form: "remove WHAT, PLACE", read: readRemove },
  back: { form: "back WHAT", read: readBack },
  ask: {
    form: "ask QUESTION TO THE OWNER",
    read: (rest) =>
      rest
        ? yes(`Ask the owner: ${rest}`, { type: "approval", payload: { what: rest, answer: "asked" } })
        : no("ask", "no question", "ask QUESTION"),
  },
  wait: { form: "wait owner | part | soak | collection | you [for what]", read: readWait },
  correct: { form: "correct POINT VALUE REASON", read: readCorrect },
  undo: { form: "undo [REASON]", read: readUndo },
};

function readSaw(rest: string, ctx: EntryContext): Entry {
  const named = observationNamed(rest);
  if (!named)
    return no(
      `saw ${rest}`.trim(),
      `"${rest}" is no observation that the suspects know`,
      OBSERVATIONS.map((o) => (o.about === "tube" ? `V1 ${o.name}` : o.name)).join(", "),
    );
  const name = named.tube ? `${named.tube} ${named.type.name}` : named.type.name;
  return yes(`Seen: ${name} (${named.type.says})`, { type: "observation", payload: { name, conditions: ctx.conditions } });
}

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
  if (words.length === 1)
    pool =
      ctx.energy === "live" ? [...points, ...Object.keys(VERBS), ...parts] : [...reservoirs, ...Object.keys(VERBS), ...points, ...parts];
  else if (/^(fit|find)$/i.test(words[0]!) && words.length === 2) pool = parts;
  else if (/^correct$/i.test(words[0]!) && words.length === 2) pool = points;
  else if (/^wait$/i.test(words[0]!) && words.length === 2) pool = ["owner", "part", "soak", "collection", "you"];
  else if (words.length === 2 && !Object.hasOwn(VERBS, words[0]!.toLowerCase())) pool = ["ohm", "ac", "ma", "leak", "gm"];
  return [...new Set(pool)].filter((p) => wanted !== "" && p.toLowerCase().startsWith(wanted) && p.toLowerCase() !== wanted).slice(0, 8);
}

/** The forms that the line accepts, for its help. */
export const ENTRY_FORMS: string[] = [
  "B1 318",
  "V2.k 7.4",
  "R7 ohm 118k",
  "B1 ac 2.1",
  "C1 0.3 (power off)",
  ...Object.values(VERBS).map((v) => v.form),
];
