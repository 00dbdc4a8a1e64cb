/** Lines that log a measurement: a name, perhaps a kind, a value. */

import { findElement } from "../../circuit/circuit";
import { formatQuantity } from "../../quantity/format";
import { isOverload, OPEN_OHMS } from "../../quantity/ohms";
import { parseQuantity } from "../../quantity/parse";
import type { ReadingKind } from "../events/words";
import { readingProblem } from "../reading-limits";
import { type Entry, type EntryContext, KIND_UNIT, no, yes } from "./context";

const KIND_WORD: Record<string, ReadingKind> = {
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
  leak: "leakage, leg lifted",
  gm: "of new",
};

/** Places that are no point or part of the netlist: heaters, windings, the grid pin of a socket. */
const OUTSIDE = /^(V\d+\.heater|V\d+[A-D]?\.[gk]|HT\d?(\.[12])?|H\d+(\.(string|ballast))?|BIAS\.ac)$/i;

export function readMeasurement(name: string, others: string[], line: string, ctx: EntryContext): Entry {
  const kindWord = others.length > 1 ? others[0]!.toLowerCase() : "";
  const named = Object.hasOwn(KIND_WORD, kindWord) ? KIND_WORD[kindWord] : undefined;
  const typed = (named ? others.slice(1) : others).join("");
  if (typed === "") return unknownFirstWord(name, line, ctx) ?? no(line, `${name} has no value`, `${name} 318, ${name} ohm 4k7`);
  // A unit can say the kind: "R7 118kΩ".
  const kind: ReadingKind = named ?? (/(ohms?|[ΩΩ])$/i.test(typed) ? "ohm" : /\dm?a$/i.test(typed) ? "ma" : "dcv");

  const point = ctx.circuit?.points.find((p) => p.name.toLowerCase() === name.toLowerCase());
  const part = ctx.circuit && findElement(ctx.circuit, name);
  const pair = /^([\w.]+):([\w.]+)$/.exec(name);
  const reservoir = ctx.reservoirs.find(
    (r) => r.name.toLowerCase() === name.toLowerCase() || (point && r.node === point.node && r.returnNode === "0"),
  );
  const label = point?.name ?? reservoir?.name ?? part?.name ?? name;
  if (!point && !part && !reservoir && !OUTSIDE.test(name) && !(pair && kind === "ohm") && (ctx.circuit || !/\d/.test(name))) {
    return unknownFirstWord(name, line, ctx) ?? no(name, "no such point", "a point");
  }

  if (kind === "ohm" && isOverload(typed) && ctx.energy !== "live")
    return yes(`${label} open`, {
      type: "reading",
      payload: { point: label, kind, value: OPEN_OHMS, digits: 1, conditions: ctx.conditions },
    });
  const parsed = parseQuantity(typed, { unit: KIND_UNIT[kind], decimal: ctx.decimal });
  if (!parsed.ok) return no(parsed.read, parsed.why, parsed.accepted);
  // Milliamperes are the unit of the bench: a bare 38 behind "ma" is 38 mA.
  const bareMilliamps = kind === "ma" && /^[-−+\d.,]+$/.test(typed);
  const value = kind === "ma" ? (bareMilliamps ? parsed.quantity.value : parsed.quantity.value * 1000) : parsed.quantity.value;
  const problem = readingProblem(kind, value);
  if (problem) return no(typed, problem.replace(/; accepted.*/, ""), problem.replace(/.*accepted: /, ""));

  const shown = formatQuantity(kind === "ma" ? value / 1000 : value, KIND_UNIT[kind], Math.max(2, parsed.quantity.digits));
  if (reservoir && kind === "dcv" && ctx.energy !== "live") {
    return yes(`${reservoir.name} (${reservoir.label}) ${shown}, power off`, {
      type: "discharge-reading",
      payload: { reservoir: reservoir.name, volts: value },
    });
  }
  if (kind === "ohm" && ctx.energy === "live")
    return no(line, "resistance is read with the power off, and the amp is logged as live", "type off first");
  if ((kind === "dcv" || kind === "acv" || kind === "ma" || kind === "leak") && ctx.energy !== "live")
    return no(
      line,
      "the amp is not logged as on, so this cannot be a live reading",
      "type on first; reservoirs can be read with the power off",
    );
  const where = point ? `${point.name} (${point.label})` : label;
  return yes(`${where} ${shown} ${KIND_NAME[kind]}`, {
    type: "reading",
    payload: { point: label, kind, value, digits: parsed.quantity.digits, conditions: ctx.conditions },
  });
}

function unknownFirstWord(name: string, line: string, ctx: EntryContext): Entry | undefined {
  const known = [
    ...(ctx.circuit?.points.map((p) => p.name) ?? []),
    ...(ctx.circuit?.elements.map((e) => e.name) ?? []),
    ...ctx.reservoirs.map((r) => r.name),
  ];
  if (known.some((k) => k.toLowerCase() === name.toLowerCase())) return undefined;
  const near = known.filter((k) => k.toLowerCase().startsWith(name.toLowerCase().slice(0, 2))).slice(0, 4);
  return no(
    line,
    `"${name}" is not a point, a part or a word that is known here`,
    near.length
      ? `${near.join(", ")}, or note, on, off, fit, find …`
      : `a point such as ${known.slice(0, 3).join(", ") || "B1"}, or note, on, off, fit, find …`,
  );
}
