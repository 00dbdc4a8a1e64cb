/** Lines about what is found, fitted, taken off, put back, asked and waited for. */

import { readTypedPart, typedSet } from "../capacitor/typed-part";
import { findElement } from "../circuit/circuit";
import { parseQuantity } from "../quantity/parse";
import { spiceNumber } from "../circuit/write";
import { describePart } from "../circuit/part-words";
import { partChanged } from "../repair/part-acts";
import { type Entry, type EntryContext, no, yes } from "./context";
import { notChecked, notSolved } from "../texts/capacitor";
import * as texts from "../texts/entry";

export function readFit(rest: string, ctx: EntryContext): Entry {
  const [position = "", ...words] = rest.split(" ");
  const form = texts.fitFilmWasLeaky2();
  if (!position || words.length === 0) return no(texts.fit(rest), position ? texts.newPartNotNamed() : texts.noPosition(), form);
  const part = ctx.circuit && findElement(ctx.circuit, position);
  if (ctx.circuit && !part && !ctx.circuit.heaters.some((h) => h.tubes.includes(position.toUpperCase())) && /^[RCLVDX]\d/i.test(position))
    return no(position, texts.thereNoAmp(position.toUpperCase()), form);
  const [described = "", ...why] = words.join(" ").split(/,\s*/);
  const reasonText = why.join(", ");
  const was = /^was (.+)$/i.exec(reasonText)?.[1];
  const letter = position.charAt(0).toUpperCase();
  const unit = letter === "C" ? "F" : letter === "R" ? "Ω" : undefined;
  const pieces = described.split(" ");
  const set: string[] = [];
  const checks: string[] = [];
  if (unit) {
    const value = parseQuantity(pieces[0]!, { unit, decimal: ctx.decimal });
    if (value.ok) {
      pieces[0] = value.quantity.echo;
      // What is judged from now on is judged by the new part.
      if (part) {
        // As the ledger and Substitute write it: with what it is made of and the year in which it is new.
        const typed = readTypedPart(letter as "C" | "R", described, ctx.decimal);
        const year = ctx.year ?? new Date().getFullYear();
        set.push(
          ...(typed.ok
            ? typedSet(part.name, typed.part, year)
            : [...fittedSet(part.name, value.quantity.value, unit, described), `${part.name}.year=${year}`]),
        );
        checks.push(notChecked(typed.ok ? notSolved() : typed.why));
      }
    } else if (/^[\d.,]/.test(pieces[0]!)) return no(pieces[0]!, value.why, value.accepted);
  }
  const newPart = pieces.map((p) => p.replace(/^(\d+(?:\.\d+)?)(V|W)$/i, (_, n: string, u: string) => `${n} ${u.toUpperCase()}`)).join(" ");
  const oldPart = describePart(part);
  const name = part?.name ?? position.toUpperCase();
  return yes(
    texts.fitted(name, newPart, oldPart ? texts.inPlaceOf(oldPart) : "", reasonText ? `, ${reasonText}` : ""),
    partChanged({
      position: name,
      kind: "replacement",
      newPart,
      reversible: true,
      oldPart,
      oldMeasured: was,
      reason: reasonText,
      set,
      checks,
    }),
  );
}

/** A new resistor or capacitor in the engine's words: its value, and the volts or watts that are named. */
function fittedSet(part: string, value: number, unit: "F" | "Ω", described: string): string[] {
  const rating = /(\d+(?:[.,]\d+)?)\s*(V|W)\b/i.exec(described);
  const rated = rating && (rating[2]!.toUpperCase() === "V" ? "volts" : "watts");
  const fits = rated === (unit === "F" ? "volts" : "watts");
  // With its unit: a bare number below one would be read as microfarads.
  return [
    `${part}=${spiceNumber(value)}${unit === "F" ? "F" : ""}`,
    ...(rating && fits ? [`${part}.${rated}=${rating[1]!.replace(",", ".")}`] : []),
  ];
}

export function readFind(rest: string, ctx: EntryContext): Entry {
  const match = /^([^\s:].*?)\s*:\s*(.+)$/.exec(rest) ?? /^([^\s:]\S*) (.+)$/.exec(rest);
  if (!match) return no(texts.find(rest), texts.placeFindingBothWanted(), texts.findSocketLoosePin());
  return yes(texts.findingAt(match[1], match[2]), {
    type: "finding",
    payload: { station: ctx.station, place: match[1]!, text: match[2]!, severity: "watch", brief: "allowed" },
  });
}

export function readRemove(rest: string): Entry {
  const [what = "", ...place] = rest.split(/,\s*/);
  if (!what) return no("remove", texts.nothingNamed(), texts.removeTwoBackPanel());
  return yes(texts.takenOff(what, place.length ? `, ${place.join(", ")}` : ""), {
    type: "removed",
    payload: { what, ...(place.length ? { place: place.join(", ") } : {}) },
  });
}

export function readBack(rest: string, ctx: EntryContext): Entry {
  const open = ctx.state.removed.filter((r) => r.back === undefined);
  const found = open.find((r) => r.what.toLowerCase().includes(rest.toLowerCase()) && rest !== "");
  if (!found)
    return no(
      texts.back(rest),
      open.length ? texts.nothingNameOffAmp() : texts.nothingOffAmp(),
      open
        .map((r) => texts.back(r.what))
        .slice(0, 3)
        .join(", ") || "remove … first",
    );
  return yes(texts.backPlace(found.what), { type: "put-back", payload: { removed: found.seq } });
}

export function readWait(rest: string): Entry {
  const match = /^(owner|part|soak|collection|you)\b\s*(?:for )?(.*)$/i.exec(rest);
  if (!match) return no(texts.wait(rest), texts.notClearWhat(), texts.waitOwnerWaitPart());
  const on = match[1]!.toLowerCase() as "owner";
  return yes(texts.waitingFor(on === ("you" as string) ? "you" : texts.the(on), match[2] ? `: ${match[2]}` : ""), {
    type: "waiting",
    payload: { on, ...(match[2] ? { what: match[2] } : {}) },
  });
}
