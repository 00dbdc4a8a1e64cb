/** The tubes as they are read off the sockets: "12AX7 12AX7 2x6V6 5Y3". */

import { nearestNames } from "../circuit/nearest-name";
import { isOutputType } from "../anatomy/cathode-current";
import { TUBE_TYPES, findTubeType, type TubeType } from "../tubes/library";
import * as texts from "../texts/line-up";

export interface LineUp {
  /** In the order of the sockets: V1, V2, … */
  tubes: { name: string; type: TubeType }[];
  /** What cannot be read or cannot be an amp, a sentence each. */
  problems: string[];
}

const MOST = 30;

/** Reads a line-up. Separators are spaces, commas, plus signs and new lines; "2x6V6" and "2 6V6" stand for two. */
export function readLineUp(text: string): LineUp {
  const words = text
    .toUpperCase()
    .replace(/\bV\d+\s*[=:]/g, " ")
    .replace(/(\d+)\s*[X×*]\s*(?=[A-Z0-9])/g, " $1× ")
    .split(/[\s,;+/]+/)
    .filter(Boolean);
  const tubes: LineUp["tubes"] = [];
  const problems: string[] = [];
  let count = 1;
  for (const word of words) {
    const times = /^(\d{1,4})×$|^(\d{1,2})$/.exec(word);
    if (times) {
      count = Number(times[1] ?? times[2]);
      continue;
    }
    const type = findTubeType(word);
    if (!type)
      problems.push(
        texts.unknownTube(
          word,
          nearestNames(
            word,
            TUBE_TYPES.flatMap((t) => [t.type, ...t.aliases]),
          ).slice(0, 3),
        ),
      );
    else if (count > MOST) problems.push(texts.tooManyTubes(count, MOST));
    else for (let i = 0; i < count; i++) tubes.push({ name: `V${tubes.length + 1}`, type });
    count = 1;
  }
  if (tubes.length > MOST) problems.push(texts.tooManyTubes(tubes.length, MOST));
  else if (problems.length === 0 && tubes.length > 0) problems.push(...impossible(tubes));
  return { tubes, problems };
}

/** What no usual amp can be made of. */
function impossible(tubes: LineUp["tubes"]): string[] {
  const output = tubes.filter((t) => isOutputType(t.type));
  const small = tubes.filter((t) => t.type.kind !== "rectifier" && !isOutputType(t.type));
  const rectifiers = tubes.filter((t) => t.type.kind === "rectifier");
  const out: string[] = [];
  const kinds = [...new Set(output.map((t) => t.type.type))];
  if (output.length === 0 && small.length === 0) out.push(texts.onlyRectifiers());
  else if (output.length > 0 && small.length === 0) out.push(texts.outputAlone(output.length));
  if (kinds.length > 1) out.push(texts.mixedOutput(kinds));
  if (output.length > 1 && output.length % 2 === 1) out.push(texts.oddOutput(output.length));
  if (output.length > 8) out.push(texts.manyOutput(output.length));
  if (output.length > 2 && !small.some((t) => t.type.kind === "triode")) out.push(texts.noInverter(output.length));
  if (rectifiers.length > 1) out.push(texts.manyRectifiers(rectifiers.length));
  return out;
}

/** A triode section or a whole tube of the line-up: V1A, V1B, V3. */
export interface TubeSection {
  name: string;
  type: TubeType;
}

/** Sections in the order of the sockets: both halves of a twin triode. */
export function sectionsOf(tubes: LineUp["tubes"]): TubeSection[] {
  return tubes.flatMap(({ name, type }) =>
    type.kind === "triode" && type.pins.length > 1 ? type.pins.map((_, i) => ({ name: `${name}${"ABCD"[i]}`, type })) : [{ name, type }],
  );
}
