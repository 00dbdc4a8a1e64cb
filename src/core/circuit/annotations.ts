/** Structure in comments: whole lines `*@point …`, and part notes after `;`. SPICE ignores both. */

import { parseQuantity } from "../quantity/parse";
import { readTubeType } from "../tubes/type-line";
import type { Circuit, PartNotes, Provenance } from "./circuit";

type Report = (found: string, expected: string) => void;

/** Splits `B1 node=b1 label="First reservoir"` into words and key=value pairs (keys lower-case). */
export function fields(text: string): { words: string[]; pairs: Map<string, string> } {
  const words: string[] = [];
  const pairs = new Map<string, string>();
  for (const match of text.matchAll(/([\w-]+)=(?:"([^"]*)"|(\S+))|"([^"]*)"|(\S+)/g)) {
    if (match[1]) pairs.set(match[1].toLowerCase(), match[2] ?? match[3] ?? "");
    else words.push(match[4] ?? match[5] ?? "");
  }
  return { words, pairs };
}

const LINES = ["mains", "point", "stage", "heater", "near", "chart", "fact", "tube", "block", "endblock"];
const POINT_KEYS = ["node", "order", "label", "pin", "chart", "tol", "caution"];

/** Reads one `*@` line into the circuit; everything it cannot read goes to `report`. */
export function readAnnotation(text: string, line: number, circuit: Circuit, report: Report): void {
  const [, keyword = "", rest = ""] = /^\*@(\S*)\s*(.*)$/.exec(text) ?? [];
  const { words, pairs } = fields(rest);
  const number = (key: string, scale = 1): number | undefined => {
    const typed = pairs.get(key);
    if (typed === undefined) return undefined;
    const parsed = parseQuantity(typed);
    if (parsed.ok) return parsed.quantity.value * scale;
    report(`${key}=${typed}`, `${key}= with ${parsed.accepted}`);
    return undefined;
  };
  const unknownKeys = (accepted: string[]) => {
    for (const key of pairs.keys()) if (!accepted.includes(key)) report(`${key}=`, `one of ${accepted.join(", ")}`);
  };

  switch (keyword.toLowerCase()) {
    case "mains": {
      const [volts, hertz] = [Number(words[0]), Number(words[1] ?? 50)];
      if (!(volts > 0 && volts < 1000)) return report(words[0] ?? "nothing", "*@mains VOLTS HERTZ, for example *@mains 230 50");
      if (hertz !== 50 && hertz !== 60) return report(words[1] ?? "nothing", "a mains frequency of 50 or 60");
      circuit.mains = { volts, hertz };
      return;
    }
    case "point": {
      unknownKeys(POINT_KEYS);
      const [name] = words;
      const node = pairs.get("node");
      if (!name || !node) return report(rest || "nothing", '*@point NAME node=NODE order=10 label="…" pin="…" chart=VOLTS');
      if (!/^[A-Za-z][\w.+-]*$/.test(name)) return report(name, "a point name of letters, digits and points, such as V2.k");
      if (circuit.points.some((p) => p.name.toLowerCase() === name.toLowerCase())) return report(name, "a point name that is used once");
      circuit.points.push({
        name,
        line,
        node: nodeName(node),
        order: number("order") ?? 1000 + circuit.points.length,
        label: pairs.get("label") ?? name,
        pin: pairs.get("pin"),
        chart: number("chart"),
        tol: number("tol", 0.01),
        caution: pairs.get("caution"),
      });
      return;
    }
    case "stage": {
      unknownKeys(["in", "out", "control", "label"]);
      const [name] = words;
      const [input, out] = [pairs.get("in"), pairs.get("out")];
      if (!name || !input || !out) return report(rest || "nothing", "*@stage NAME in=NODE out=NODE control=POT");
      circuit.stages.push({ name, in: nodeName(input), out: nodeName(out), control: pairs.get("control"), label: pairs.get("label") });
      return;
    }
    case "heater": {
      unknownKeys(["volts", "tubes", "string", "reference", "ballast"]);
      const [name] = words;
      const tubes = (pairs.get("string") ?? pairs.get("tubes"))?.split(",").filter(Boolean);
      if (!name || !tubes?.length) return report(rest || "nothing", "*@heater NAME volts=6.3 tubes=V1,V2 or *@heater NAME string=V1,V2,V3");
      circuit.heaters.push({
        name,
        volts: number("volts"),
        tubes: tubes.map((t) => t.toUpperCase()),
        string: pairs.has("string"),
        reference: pairs.get("reference"),
        ballast: pairs.get("ballast"),
      });
      return;
    }
    case "near": {
      if (words.length !== 2) return report(rest || "nothing", "*@near NODE NODE");
      circuit.near.push([nodeName(words[0]!), nodeName(words[1]!)]);
      return;
    }
    case "chart": {
      unknownKeys(["mains", "meter", "note"]);
      const mains = number("mains");
      if (mains === undefined) return report(rest || "nothing", "*@chart mains=220 (the mains voltage that the chart was drawn for)");
      circuit.chart = { mains, meterOhmsPerVolt: number("meter"), note: pairs.get("note") };
      return;
    }
    case "tube": {
      const type = readTubeType(words[0], pairs, report);
      if (type) circuit.tubeTypes[type.type.toUpperCase()] = type;
      return;
    }
    // Where a block begins and ends: read by core/blocks.
    case "block":
    case "endblock":
      return;
    case "fact":
      for (const [key, value] of pairs) circuit.facts[key] = value;
      return;
    default:
      report(`*@${keyword}`, `one of ${LINES.map((k) => `*@${k}`).join(", ")}`);
  }
}

const PROVENANCES: Provenance[] = ["seen", "assumed", "printed", "settled"];

/** Reads `@tol 10% @watts 2 @kind wirewound` after the semicolon of an element line. Plain comments pass. */
export function readPartNotes(comment: string, report: Report): PartNotes {
  const notes: PartNotes = {};
  for (const [, key = "", raw = ""] of comment.matchAll(/@(\w+)\s+("[^"]*"|[^\s@]+)/g)) {
    const value = raw.replace(/^"|"$/g, "");
    const number = (): number | undefined => {
      const parsed = parseQuantity(value);
      if (parsed.ok && parsed.quantity.value > 0) return parsed.quantity.value;
      report(`@${key} ${value}`, `@${key} with a positive number`);
      return undefined;
    };
    switch (key.toLowerCase()) {
      case "tol": {
        const percent = number();
        if (percent !== undefined) notes.tol = percent / 100;
        break;
      }
      case "volts":
        notes.volts = number();
        break;
      case "watts":
        notes.watts = number();
        break;
      case "year":
        notes.year = number();
        break;
      case "temp":
        notes.temp = number();
        break;
      case "dcr":
        notes.dcr = number();
        break;
      case "strength":
        notes.strength = number();
        break;
      case "kind":
        notes.kind = value;
        break;
      case "section":
        notes.section = value;
        break;
      case "label":
        notes.label = value;
        break;
      case "heater":
        notes.heater = value;
        break;
      // Read with the line itself: what an export wrote beside a part.
      case "block":
      case "to":
      case "as":
      case "skip":
        break;
      case "prov":
        if (PROVENANCES.includes(value as Provenance)) notes.prov = value as Provenance;
        else report(`@prov ${value}`, `@prov ${PROVENANCES.join(", ")}`);
        break;
      default:
        report(`@${key}`, "one of @tol, @volts, @watts, @kind, @prov, @section, @year, @temp, @label, @heater, @dcr, @strength");
    }
  }
  return notes;
}

/** Nodes are lower-case and `gnd` is node 0. */
export function nodeName(text: string): string {
  const lower = text.toLowerCase();
  return lower === "gnd" ? "0" : lower;
}
