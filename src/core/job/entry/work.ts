/** Lines about what is found, fitted, taken off, put back, asked and waited for. */

import { findElement } from "../../circuit/circuit";
import { parseQuantity } from "../../quantity/parse";
import type { Unit } from "../../quantity/unit";
import { describePart } from "../part-words";
import { type Entry, type EntryContext, no, yes } from "./context";

export function readFit(rest: string, ctx: EntryContext): Entry {
  const [position = "", ...words] = rest.split(" ");
  const form = "fit C6 22n 630V film, was leaky";
  if (!position || words.length === 0) return no(`fit ${rest}`, position ? "the new part is not named" : "no position", form);
  const part = ctx.circuit && findElement(ctx.circuit, position);
  if (ctx.circuit && !part && !ctx.circuit.heaters.some((h) => h.tubes.includes(position.toUpperCase())) && /^[RCLVDX]\d/i.test(position))
    return no(position, `there is no ${position.toUpperCase()} in this amp`, form);
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
    payload: {
      position: name,
      kind: "replacement",
      newPart,
      reversible: true,
      ...(oldPart ? { oldPart } : {}),
      ...(was ? { oldMeasured: was } : {}),
      ...(reasonText ? { reason: reasonText } : {}),
    },
  });
}

export function readFind(rest: string, ctx: EntryContext): Entry {
  const match = /^(.*?)\s*:\s*(.+)$/.exec(rest) ?? /^(\S+) (.+)$/.exec(rest);
  if (!match) return no(`find ${rest}`, "place and finding are both wanted", "find V4 socket: loose pin 3");
  return yes(`Finding at ${match[1]}: ${match[2]}`, {
    type: "finding",
    payload: { station: ctx.station, place: match[1]!, text: match[2]!, severity: "watch", brief: "allowed" },
  });
}

export function readRemove(rest: string): Entry {
  const [what = "", ...place] = rest.split(/,\s*/);
  if (!what) return no("remove", "nothing named", "remove two back-panel screws, left");
  return yes(`Taken off: ${what}${place.length ? `, ${place.join(", ")}` : ""}`, {
    type: "removed",
    payload: { what, ...(place.length ? { place: place.join(", ") } : {}) },
  });
}

export function readBack(rest: string, ctx: EntryContext): Entry {
  const open = ctx.state.removed.filter((r) => r.back === undefined);
  const found = open.find((r) => r.what.toLowerCase().includes(rest.toLowerCase()) && rest !== "");
  if (!found)
    return no(
      `back ${rest}`,
      open.length ? "nothing of that name is off the amp" : "nothing is off the amp",
      open
        .map((r) => `back ${r.what}`)
        .slice(0, 3)
        .join(", ") || "remove … first",
    );
  return yes(`Back in place: ${found.what}`, { type: "put-back", payload: { removed: found.seq } });
}

export function readWait(rest: string): Entry {
  const match = /^(owner|part|soak|collection|you)\b\s*(?:for )?(.*)$/i.exec(rest);
  if (!match) return no(`wait ${rest}`, "it is not clear what for", "wait owner, wait part GZ34, wait soak, wait collection, wait you");
  const on = match[1]!.toLowerCase() as "owner";
  return yes(`Waiting for ${on === ("you" as string) ? "you" : `the ${on}`}${match[2] ? `: ${match[2]}` : ""}`, {
    type: "waiting",
    payload: { on, ...(match[2] ? { what: match[2] } : {}) },
  });
}
