/**
 * The entry line: what a technician would say, typed. `B1 318`, `v2.k 7.4`, `r7 ohm 118k`, `off`, `c1 0.3`,
 * `note hum drops with V2 out`, `fit C6 22n 630V film, was leaky`. Understood before Enter, refused with the reason.
 */

import { readCorrect, readUndo } from "./correction-lines";
import { type Entry, type EntryContext, no, yes } from "./context";
import { isName, readMeasurement } from "./measurement-lines";
import { OBSERVATIONS, observationNamed } from "../diagnosis/observation-names";
import { questionAsked } from "../repair/owner-acts";
import { knownTypes } from "../by-tube/places";
import { findTubeType } from "../tubes/library";
import { placeSaid } from "./places-said";
import { readMains, readMeter, readOff, readOn } from "./power-lines";
import { readBack, readFind, readFit, readRemove, readWait } from "./work-lines";
import * as texts from "../texts/entry";

export type { Entry, EntryContext } from "./context";

interface Verb {
  form: string;
  read(rest: string, ctx: EntryContext): Entry;
}

const VERBS: Record<string, Verb> = {
  note: {
    form: texts.noteText,
    read: (rest, ctx) =>
      rest
        ? yes(texts.note(rest), { type: "note", payload: { text: rest, station: ctx.station } })
        : no("note", texts.noteEmpty(), texts.noteText2()),
  },
  on: { form: texts.lampVariableWithout, read: readOn },
  off: { form: texts.offOffPlugStill, read: readOff },
  mains: { form: "mains 231", read: readMains },
  meter: { form: "meter 9.02 [9.0 [SOURCE]]", read: readMeter },
  fit: { form: texts.fitFilmWasLeaky, read: readFit },
  saw: { form: texts.sawColdPlateGlows, read: readSaw },
  find: { form: texts.findPlaceWhatWas, read: readFind },
  remove: { form: texts.removeWhatPlace, read: readRemove },
  back: { form: texts.backWhat, read: readBack },
  ask: {
    form: texts.askQuestionOwner,
    read: (rest) => (rest ? yes(texts.askOwner(rest), questionAsked({ what: rest })) : no("ask", texts.noQuestion(), texts.askQuestion())),
  },
  wait: { form: texts.waitOwnerPartSoak, read: readWait },
  correct: { form: texts.correctPointValueReason, read: readCorrect },
  undo: { form: "undo [REASON]", read: readUndo },
};

function readSaw(rest: string, ctx: EntryContext): Entry {
  const named = observationNamed(rest);
  if (!named)
    return no(
      texts.saw(rest).trim(),
      texts.noObservationSuspectsKnow(rest),
      OBSERVATIONS.map((o) => (o.about === "tube" ? `V1 ${o.name}` : o.name)).join(", "),
    );
  const name = named.tube ? `${named.tube} ${named.type.name}` : named.type.name;
  return yes(texts.seen(name, named.type.says), { type: "observation", payload: { name, conditions: ctx.conditions } });
}

/** Reads one line. Never throws; nothing is logged by reading. */
export function parseEntry(text: string, ctx: EntryContext): Entry {
  const line = text.trim().replace(/\s+/g, " ");
  if (line === "") return no("", texts.nothingWasTyped(), texts.pointValueNoteOff());
  const one = readOne(line, ctx);
  if (one.ok) return one;
  return readSeveral(line, ctx) ?? one;
}

/** Several readings on one line: `B1 318, B2 300`, `B1 318 B2 300 V2.k 7.4`. Undefined where it is no such line. */
function readSeveral(line: string, ctx: EntryContext): Entry | undefined {
  // A comma between readings has a blank behind it; that of a decimal number has none.
  const parts = line.split(/;\s*|,\s+/).filter(Boolean);
  const words = line.split(" ");
  const pieces =
    parts.length > 1
      ? parts
      : words.length >= 4 && words.length % 2 === 0 && words.every((w, i) => i % 2 === 1 || isName(w, ctx))
        ? Array.from({ length: words.length / 2 }, (_, i) => words.slice(2 * i, 2 * i + 2).join(" "))
        : [];
  if (pieces.length < 2) return undefined;
  const read = pieces.map((p) => readOne(p, ctx));
  const measured = (e: Entry) => e.ok && e.drafts.every((d) => d.type === "reading" || d.type === "discharge-reading");
  // A place and a value in each: readings are meant, though none can be taken now.
  const meant = pieces.every((p) => /^\p{L}\S*\s.*[\d.]/u.test(p) && /(^|\s)[-−+]?[\d.,]+\S*$/.test(p));
  if (!read.some(measured) && !meant) return undefined;
  const bad = read.findIndex((e) => !measured(e));
  if (bad >= 0) {
    const e = read[bad]!;
    return e.ok ? undefined : no(pieces[bad]!, texts.severalNotRead(pieces[bad]!, e.why), e.accepted);
  }
  const good = read.filter((e) => e.ok);
  return yes(good.map((e) => e.echo).join("; "), ...good.flatMap((e) => e.drafts));
}

function readOne(typed: string, ctx: EntryContext): Entry {
  // A reservoir may have been given a name of several words: "big can 0.3".
  const begins = (name: string) => name.includes(" ") && typed.toLowerCase().startsWith(`${name.toLowerCase()} `);
  const named = ctx.reservoirs.map((r) => r.name).find(begins);
  if (named !== undefined) return readMeasurement(named, typed.slice(named.length + 1).split(" "), typed, ctx);
  const place = placeSaid(typed, ctx.circuit, knownTypes(ctx.state));
  if (!place.ok) return no(typed, place.why, place.accepted);
  const { line } = place;
  const seen = /^(v\d+[a-d]?)\s+is\s+(?:an?\s+)?(\S.*)$/i.exec(line);
  if (seen) return readTubeSeen(seen[1]!.toUpperCase(), seen[2]!, ctx);
  const [word = "", ...others] = line.split(" ");
  const verb = Object.hasOwn(VERBS, word.toLowerCase()) ? VERBS[word.toLowerCase()] : undefined;
  if (!verb) return readMeasurement(word, others, line, ctx);
  // A point may be called as a verb is, MAINS or METER: with a value behind it the point is meant.
  if (others.length > 0 && isName(word, ctx)) {
    const measurement = readMeasurement(word, others, line, ctx);
    if (measurement.ok) return measurement;
    const said = verb.read(others.join(" "), ctx);
    if (!said.ok) return measurement;
    // It cannot be read now; whether the verb was meant nobody can tell.
    return no(line, texts.pointAmpAlsoWord(word.toUpperCase(), measurement.why), texts.logOwnField(measurement.accepted));
  }
  return verb.read(others.join(" "), ctx);
}

/** `V4 is an EL84`: where no circuit says it. */
function readTubeSeen(tube: string, type: string, ctx: EntryContext): Entry {
  if (ctx.circuit) return no(`${tube} is ${type}`, texts.circuitSaysTypes(), texts.fitAnotherTube(tube, type));
  const known = findTubeType(type);
  const name = known?.type ?? type.toUpperCase();
  return yes(texts.tubeIs(tube, name, known ? "" : texts.typeNotInLibrary()), { type: "tube-seen", payload: { tube, type: name } });
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
  texts.tubeIsForm,
  texts.powerOff,
  ...Object.values(VERBS).map((v) => v.form),
];
