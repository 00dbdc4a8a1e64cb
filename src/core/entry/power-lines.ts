/** Lines about power: on, off, the mains, the meter on a known source. */

import { unmetGates } from "../safety/power-gates";
import { powerOnLines } from "../safety/power-on-act";
import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import { readingProblem } from "../tape/reading-limits";
import { type Entry, type EntryContext, no, yes } from "./context";
import * as texts from "../texts/entry";

/** `on lamp without V4,V5 because dial stays low`: the reason only where a gate stands against it. */
export function readOn(line: string, ctx: EntryContext): Entry {
  const [, rest = "", reason = ""] = /^(.*?)(?:\s*\bbecause\s+(.+))?$/i.exec(line) ?? [];
  const match = /^(isolated\b)?\s*(lamp and variable|lamp|variable|straight)?\s*(?:(?:without|no) ([\w, ]+))?$/i.exec(rest);
  if (!match) return no(`on ${rest}`, texts.notUnderstood(rest), texts.lampVariableWithout2());
  const isolated = match[1] !== undefined;
  const without = match[3]
    ?.split(/[, ]+/)
    .filter(Boolean)
    .map((t) => t.toUpperCase());
  const unknown = without?.find(
    (t) =>
      ctx.circuit &&
      !ctx.circuit.elements.some((e) => e.name === t || e.name.replace(/[A-D]$/, "") === t) &&
      !ctx.circuit.heaters.some((h) => h.tubes.includes(t)),
  );
  if (unknown) return no(unknown, texts.thereNoAmp(unknown), texts.tubeSuch());
  const through = match[2]?.toLowerCase();
  const wall = ctx.wall ?? ctx.circuit?.mains?.volts ?? 230;
  const intended = { through: through ?? "", without: without ?? [], isolated };
  const gates = unmetGates(ctx.circuit, ctx.state, intended, wall);
  if (gates.length > 0 && reason.trim().length < 3)
    return no(`on ${rest}`.trim(), gates.map((g) => g.says).join(". "), texts.becauseReason(rest).replace("  ", " "));
  const passed = gates.map((g) => g.id).join(", ");
  return yes(
    texts.powerAmpLive(
      [isolated ? texts.isolated() : "", through ? texts.through(through) : ""].join(""),
      without?.length ? texts.without(without.join(", ")) : "",
      passed ? texts.past(passed) : "",
    ),
    ...powerOnLines({ ...intended, unmet: gates, reason }),
  );
}

export function readOff(rest: string): Entry {
  if (rest === "") return yes(texts.switchedOffPlugOut(), { type: "power", payload: { state: "off", plug: "out" } });
  if (rest === "in") return yes(texts.switchedOffPlugStill(), { type: "power", payload: { state: "off", plug: "in" } });
  return no(texts.off(rest), texts.saysNothingAboutPlug(rest), texts.offOff());
}

export function readMains(rest: string, ctx: EntryContext): Entry {
  const parsed = parseQuantity(rest, { unit: "V", decimal: ctx.decimal });
  if (!parsed.ok) return no(rest, parsed.why, "mains 231");
  const volts = parsed.quantity.value;
  if (volts < 0 || volts > 500) return no(rest, texts.notMainsVoltage(parsed.quantity.echo), "0 to 500 V");
  return yes(texts.mains(parsed.quantity.echo), { type: "mains", payload: { volts } });
}

export function readMeter(rest: string, ctx: EntryContext): Entry {
  const [read = "", known, ...source] = rest.split(" ");
  return meterCheckDraft({ read, known, source: source.join(" ") }, ctx.decimal);
}

/** The meter on a known source, as a form has it: volts as typed. 9 V unless known. */
export function meterCheckDraft(typed: { read: string; known?: string; source?: string }, decimal: "." | ","): Entry {
  const accepted = texts.meterBatteryReadKnown();
  const read = parseQuantity(typed.read, { unit: "V", decimal });
  if (!read.ok) return no(typed.read, read.why, accepted);
  const known = typed.known ? parseQuantity(typed.known, { unit: "V", decimal }) : undefined;
  if (known && !known.ok) return no(typed.known!, known.why, accepted);
  const expected = known?.ok ? known.quantity.value : 9;
  const problem = readingProblem("dcv", read.quantity.value) ?? readingProblem("dcv", expected);
  if (problem) return no(typed.read, problem, accepted);
  const source = typed.source || (known ? texts.knownSource() : "9 V battery");
  return yes(texts.meterReadKnown(source, read.quantity.echo, formatQuantity(expected, "V", 3)), {
    type: "meter-check",
    payload: { source, expected, read: read.quantity.value },
  });
}
