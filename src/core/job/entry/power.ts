/** Lines about power: on, off, the mains, the meter on a known source. */

import { unmetGates } from "../../bring-up/power-gates";
import { formatQuantity } from "../../quantity/format";
import { parseQuantity } from "../../quantity/parse";
import { type Entry, type EntryContext, no, yes } from "./context";

/** `on lamp without V4,V5 because dial stays low`: the reason only where a gate stands against it. */
export function readOn(line: string, ctx: EntryContext): Entry {
  const [, rest = "", reason = ""] = /^(.*?)(?:\s*\bbecause\s+(.+))?$/i.exec(line) ?? [];
  const match = /^(lamp and variable|lamp|variable|straight)?\s*(?:(?:without|no) ([\w, ]+))?$/i.exec(rest);
  if (!match) return no(`on ${rest}`, `"${rest}" is not understood`, "on, on lamp, on variable, on without V4,V5");
  const without = match[2]
    ?.split(/[, ]+/)
    .filter(Boolean)
    .map((t) => t.toUpperCase());
  const unknown = without?.find(
    (t) =>
      ctx.circuit &&
      !ctx.circuit.elements.some((e) => e.name === t || e.name.replace(/[A-D]$/, "") === t) &&
      !ctx.circuit.heaters.some((h) => h.tubes.includes(t)),
  );
  if (unknown) return no(unknown, `there is no ${unknown} in this amp`, "a tube such as V1");
  const through = match[1]?.toLowerCase();
  const wall = ctx.wall ?? ctx.circuit?.mains?.volts ?? 230;
  const gates = unmetGates(ctx.circuit, ctx.state, { through: through ?? "", without: without ?? [] }, wall);
  if (gates.length > 0 && reason.trim().length < 3)
    return no(`on ${rest}`.trim(), gates.map((g) => g.says).join(". "), `on ${rest} because REASON`.replace("  ", " "));
  const passed = gates.map((g) => g.id).join(", ");
  return yes(
    `Power ON${through ? ` through ${through}` : ""}${without?.length ? `, without ${without.join(", ")}` : ""}${passed ? `, past ${passed}` : ""}: the amp is live`,
    ...(passed
      ? [{ type: "gate-passed", payload: { station: "bring-up", reason: `${passed}: ${reason.trim()}`, understood: true } } as const]
      : []),
    {
      type: "power",
      payload: { state: "on", plug: "in", ...(through ? { through } : {}), ...(without?.length ? { without } : {}) },
    },
  );
}

export function readOff(rest: string): Entry {
  if (rest === "") return yes("Switched off, plug out", { type: "power", payload: { state: "off", plug: "out" } });
  if (rest === "in") return yes("Switched off, plug still in", { type: "power", payload: { state: "off", plug: "in" } });
  return no(`off ${rest}`, `"${rest}" says nothing about the plug`, "off, or off in");
}

export function readMains(rest: string, ctx: EntryContext): Entry {
  const parsed = parseQuantity(rest, { unit: "V", decimal: ctx.decimal });
  if (!parsed.ok) return no(rest, parsed.why, "mains 231");
  const volts = parsed.quantity.value;
  if (volts < 0 || volts > 500) return no(rest, `${parsed.quantity.echo} is not a mains voltage`, "0 to 500 V");
  return yes(`Mains ${parsed.quantity.echo}`, { type: "mains", payload: { volts } });
}

export function readMeter(rest: string, ctx: EntryContext): Entry {
  const [first = "", second, ...source] = rest.split(" ");
  const read = parseQuantity(first, { unit: "V", decimal: ctx.decimal });
  if (!read.ok) return no(rest, read.why, "meter 9.02 9.0 battery (read, known, source)");
  const known = second ? parseQuantity(second, { unit: "V", decimal: ctx.decimal }) : undefined;
  if (known && !known.ok) return no(second!, known.why, "meter 9.02 9.0 battery");
  const expected = known?.ok ? known.quantity.value : 9;
  const name = source.join(" ") || (known ? "known source" : "9 V battery");
  return yes(`Meter on ${name}: read ${read.quantity.echo}, known ${formatQuantity(expected, "V", 3)}`, {
    type: "meter-check",
    payload: { source: name, expected, read: read.quantity.value },
  });
}
