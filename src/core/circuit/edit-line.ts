/** Changes to the text of a circuit file that keep everything else in it as it was typed. */

import type { Provenance, TestPoint } from "./circuit";

/** Sets `@prov` on one line (1-based) of the text. */
export function setProvenance(text: string, line: number, prov: Provenance): string {
  const lines = text.split("\n");
  const at = lines[line - 1];
  if (at === undefined) return text;
  lines[line - 1] = withProvenance(at, prov);
  return lines.join("\n");
}

function withProvenance(line: string, prov: Provenance): string {
  if (/@prov\s+\S+/.test(line)) return line.replace(/@prov\s+\S+/, `@prov ${prov}`);
  const bare = line.replace(/\s+$/, "");
  return line.includes(";") ? `${bare} @prov ${prov}` : `${bare} ;@prov ${prov}`;
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

/** Sets a `*@fact` where it stands, or on a line of its own. */
export function setFact(text: string, key: string, value: string): string {
  const pair = `${key}="${value.replace(/["\n]/g, "'")}"`;
  const lines = text.split("\n");
  const here = new RegExp(`(\\s)${key}=("[^"]*"|\\S+)`, "i");
  const at = lines.findIndex((l) => l.startsWith("*@fact") && here.test(l));
  if (at >= 0) lines[at] = lines[at]!.replace(here, (_, space: string) => space + pair);
  else lines.splice(Math.min(1, lines.length), 0, `*@fact ${pair}`);
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
