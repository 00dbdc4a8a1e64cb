/** Changes to the text of a circuit file that keep everything else in it as it was typed. */

import type { Element, Provenance, TestPoint } from "./circuit";

/** Sets `@prov` on one line (1-based) of the text. */
export function setProvenance(text: string, line: number, prov: Provenance): string {
  const lines = text.split("\n");
  const at = lines[line - 1];
  if (at === undefined) return text;
  lines[line - 1] = withProvenance(at, prov);
  return lines.join("\n");
}

const withProvenance = (line: string, prov: Provenance): string => withNote(line, "prov", prov);

function withNote(line: string, key: string, value: string): string {
  const here = new RegExp(`@${key}\\s+\\S+`);
  if (here.test(line)) return line.replace(here, `@${key} ${value}`);
  const bare = line.replace(/\s+$/, "");
  return line.includes(";") ? `${bare} @${key} ${value}` : `${bare} ;@${key} ${value}`;
}

/** Sets a note such as `@strength 0.9` on one line (1-based) of the text. */
export function setNote(text: string, line: number, key: string, value: string): string {
  const lines = text.split("\n");
  const at = lines[line - 1];
  if (at === undefined) return text;
  lines[line - 1] = withNote(at, key, value);
  return lines.join("\n");
}

/** The parameter that is the value of a special part's line: what is printed beside its symbol; undefined where the value stands on its own. */
export function valueKey({ letter, type, params }: Pick<Element, "letter" | "type" | "params">): string | undefined {
  if (letter !== "X") return undefined;
  return ["value", "vac", "zpp", "zp", "ratio"].find((key) => params[key] !== undefined && type !== undefined);
}

/**
 * Writes a value into the line of a part, and that it was seen; every other byte stays. For a special part it is the parameter `key`.
 * @example setValue("t\nR1 a b 1k ;@tol 5%", r1, "2.2k", "seen") // "t\nR1 a b 2.2k ;@tol 5% @prov seen"
 */
export function setValue(text: string, element: Element, value: string, prov?: Provenance, key = valueKey(element)): string {
  const lines = text.split("\n");
  const at = lines[element.line - 1];
  if (at === undefined) return text;
  const [, body = "", comment = ""] = /^([^;]*)(;.*)?$/s.exec(at) ?? [];
  const changed =
    key === undefined
      ? body.replace(/^(\s*\S+\s+\S+\s+\S+\s+)(\S+)/, (_, head: string) => head + value)
      : new RegExp(`\\b${key}\\s*=`, "i").test(body)
        ? body.replace(new RegExp(`(\\b${key}\\s*=\\s*)(\\{[^}]*\\}|\\S+)`, "i"), (_, head: string) => head + value)
        : `${body.trimEnd()} ${key}=${value}${comment ? " " : ""}`;
  const line = changed + comment;
  lines[element.line - 1] = prov ? withProvenance(line, prov) : line;
  return lines.join("\n");
}

/** Marks every part of the file; title, comments and dot lines stay. */
export function markAll(text: string, prov: Provenance): string {
  return text
    .split("\n")
    .map((line, i) => (i > 0 && /^\s*[RCLVIDX]\w/i.test(line) ? withProvenance(line, prov) : line))
    .join("\n");
}

/** Puts a `*@` line after the last one of the file's head, in place of one for the same tube type. */
export function putTubeType(text: string, tubeLine: string): string {
  const name = tubeLine.split(/\s+/)[1]?.toUpperCase();
  const lines = text.split("\n").filter((l) => !(l.startsWith("*@tube") && l.split(/\s+/)[1]?.toUpperCase() === name));
  const last = lines.findLastIndex((l) => l.startsWith("*@"));
  lines.splice(last < 0 ? 1 : last + 1, 0, tubeLine);
  return lines.join("\n");
}

/** A fact as its line has it. @example quotedFact("maker", "Tarn & Wicke") // maker="Tarn & Wicke" */
export const quotedFact = (key: string, value: string): string => `${key}="${value.replace(/["\n]/g, "'")}"`;

/** Sets a `*@fact` where it stands, or on a line of its own. */
export function setFact(text: string, key: string, value: string): string {
  const pair = quotedFact(key, value);
  const lines = text.split("\n");
  const here = new RegExp(`(\\s)${key}=("[^"]*"|\\S+)`, "i");
  const at = lines.findIndex((l) => l.startsWith("*@fact") && here.test(l));
  if (at >= 0) lines[at] = lines[at]!.replace(here, (_, space: string) => space + pair);
  else lines.splice(Math.min(1, lines.length), 0, `*@fact ${pair}`);
  return lines.join("\n");
}

/** Writes a point's chart figure into its line, or takes it out. @param volts undefined takes it out. */
export function setChartFigure(text: string, line: number, volts: number | undefined): string {
  const lines = text.split("\n");
  const at = lines[line - 1];
  if (at === undefined) return text;
  const without = at.replace(/\s+chart=\S+/, "");
  lines[line - 1] =
    volts === undefined ? without : /\schart=\S+/.test(at) ? at.replace(/(\schart=)\S+/, `$1${volts}`) : `${at.trimEnd()} chart=${volts}`;
  return lines.join("\n");
}

/** Sets the chart's mains and its meter's ohms per volt, where they stand or on a line of their own. */
export function setChart(text: string, mains: number, perVolt: number | undefined): string {
  const lines = text.split("\n");
  const at = lines.findIndex((l) => /^\s*\*@chart\b/i.test(l));
  const note = /\snote="[^"]*"/.exec(lines[at] ?? "")?.[0] ?? "";
  const line = `*@chart mains=${mains}${perVolt === undefined ? "" : ` meter=${perVolt}`}${note}`;
  if (at >= 0) lines[at] = line;
  else lines.splice(Math.min(1, lines.length), 0, line);
  return lines.join("\n");
}

/** Puts `*@point` lines before `.end`, or at the end of a file without one; every other byte stays. */
export function addPoints(text: string, points: readonly Pick<TestPoint, "name" | "node" | "order" | "label" | "caution">[]): string {
  if (points.length === 0) return text;
  const quoted = (value: string) => `"${value.replace(/["\n]/g, "'")}"`;
  const lines = points.map(
    (p) => `*@point ${p.name} node=${p.node} order=${p.order} label=${quoted(p.label)}${p.caution ? ` caution=${quoted(p.caution)}` : ""}`,
  );
  const end = /^\s*\.end\b/im.exec(text)?.index ?? text.length;
  return `${text.slice(0, end).trimEnd()}\n${lines.join("\n")}\n${text.slice(end)}`;
}
