/** The resistance list of a cold amp, generated from its circuit and solved with everything in parallel. */

import { isLineConnected } from "../circuit/mains-connection";
import type { Circuit, Element } from "../circuit/circuit";
import { isRectifier } from "../circuit/special-parts";
import { heaterOf } from "../supply/heaters";
import { reservoirsOf } from "../supply/reservoirs";
import { normalDraws } from "../numeric/random";
import { COLD_GROUPS, type ColdCheck } from "./cold-check";
import { ohmmeter } from "../solver/ohmmeter";
import { toleranceOf } from "../solver/tolerance";
import { figure } from "../language/language";
import * as texts from "../texts/cold";

/** Enough for a range of two sigmas; each draw solves every reading. */
const DRAWS = 24;
/** Windings are wound to about this, and copper warms. */
const WINDING = 0.15;
/** Of the winding's half, its path's resistance has about half: the rest is the primary's. Usual design of equal losses. */
const HALF_OF_PATH = 0.5;
const HEATER_LOW = 0.6;
const HEATER_HIGH = 1.6;
const STILL_CHARGING = 0.1;

/**
 * Supply rails to chassis, windings and their halves, every resistor in circuit, heaters; tubes in, junctions off (0.3 V at the probes).
 * @param progress told how far it is, 0 to 1.
 */
export function coldList(circuit: Circuit, progress?: (part: number) => void): ColdCheck[] {
  const reads: { check: Omit<ColdCheck, "expected" | "low" | "high" | "beside">; a: string; b: string; own?: Element }[] = [];
  for (const r of reservoirsOf(circuit))
    reads.push({
      check: {
        point: `${r.node}:${r.returnNode}`,
        group: "supply",
        label: `${r.label} (${r.parts.join(", ")})`,
        place: r.returnNode === "0" ? `${r.name} +` : r.name,
        where: r.returnNode === "0" ? texts.chassisRed(r.name) : texts.across(r.name),
      },
      a: r.node,
      b: r.returnNode,
    });
  for (const e of circuit.elements) {
    if (e.letter === "L" && e.notes.dcr)
      reads.push({
        check: {
          point: `${e.nodes[0]}:${e.nodes[1]}`,
          group: "windings",
          label: `${e.notes.label ?? "Choke"} ${e.name}`,
          where: texts.across(e.name),
          place: e.name,
          marked: e.notes.dcr,
        },
        a: e.nodes[0]!,
        b: e.nodes[1]!,
      });
    for (const [a, b, half, dcr] of primaryHalves(e))
      reads.push({
        check: {
          point: `${a}:${b}`,
          group: "windings",
          label: texts.outputTransformer(e.name, half),
          where: texts.centreTapSupplyPlate(a, b),
          place: `${e.name} ${b}`,
          ...(half.includes("first") ? { firstHalf: true } : {}),
          marked: dcr,
        },
        a,
        b,
      });
  }
  for (const e of circuit.elements)
    if (e.letter === "R" && e.notes.label !== "Speaker")
      reads.push({
        check: {
          point: e.name,
          group: "resistors",
          label: e.notes.label ?? "",
          where: texts.across2(e.name, e.nodes.join(" to ")),
          place: e.name,
          marked: e.value,
        },
        a: e.nodes[0]!,
        b: e.nodes[1]!,
        own: e,
      });
  const nominal = reads.map(({ a, b }) => ohmmeter(circuit, a, b, { seconds: 0 }).settled);
  const soon = reads.map(({ a, b, check }) => (check.group === "supply" ? ohmmeter(circuit, a, b, { seconds: 2 }).ohms : undefined));
  const samples = reads.map((): number[] => []);
  const normal = normalDraws(5);
  for (let draw = 0; draw < DRAWS; draw++) {
    const drawn: Circuit = { ...circuit, elements: circuit.elements.map((e) => spread(e, normal())) };
    reads.forEach(({ a, b }, i) => samples[i]!.push(ohmmeter(drawn, a, b, { seconds: 0 }).settled));
    progress?.((draw + 1) / DRAWS);
  }
  const solved = reads.map(({ check, own }, i): ColdCheck => {
    const expected = nominal[i]!;
    const sorted = samples[i]!.filter(Number.isFinite).sort((x, y) => x - y);
    const mean = sorted.reduce((s, x) => s + x, 0) / Math.max(1, sorted.length);
    const sigma = Math.sqrt(sorted.reduce((s, x) => s + (x - mean) ** 2, 0) / Math.max(1, sorted.length - 1));
    const slack = check.group === "windings" ? WINDING * (check.marked ?? expected) : 0;
    const ends = Number.isFinite(expected)
      ? { low: expected - 2 * sigma - slack, high: expected + 2 * sigma + slack }
      : { low: 1e7, high: Infinity };
    const early = soon[i];
    return {
      ...check,
      expected,
      ...ends,
      ...(early !== undefined && Number.isFinite(early) && Math.abs(early - expected) > STILL_CHARGING * expected ? { soon: early } : {}),
      beside: own && expected < 0.97 * own.value! ? partsBeside(circuit, own) : [],
    };
  });
  const all = [...solved, ...highTensionHalves(circuit), ...heaters(circuit)];
  // In the order in which they are shown: what is asked for next stands next.
  return COLD_GROUPS.flatMap((g) => all.filter((c) => c.group === g));
}

function spread(e: Element, normal: number): Element {
  if (e.letter !== "R" || e.value === undefined) return e;
  // No further than the tolerance: beyond it the part would be a finding.
  const tolerance = toleranceOf(e);
  return { ...e, value: e.value * (1 + Math.max(-tolerance, Math.min(tolerance, (tolerance / Math.sqrt(3)) * normal))) };
}

function primaryHalves(e: Element): [string, string, string, number][] {
  const dcr = typeof e.params.dcr === "number" ? e.params.dcr : undefined;
  if (e.type === "OPT_SE" && dcr) return [[e.nodes[0]!, e.nodes[1]!, ", primary", dcr]];
  if (e.type !== "OPT_PP" || !dcr) return [];
  const other = typeof e.params.dcr2 === "number" ? e.params.dcr2 : dcr;
  return [
    [e.nodes[1]!, e.nodes[0]!, texts.firstHalf(), dcr],
    [e.nodes[1]!, e.nodes[2]!, texts.secondHalf(), other],
  ];
}

/** Parts on either end of it that close a way round. */
function partsBeside(circuit: Circuit, own: Element): string[] {
  const ends = new Set(own.nodes.filter((n) => n !== "0"));
  return circuit.elements
    .filter(
      (e) =>
        e !== own &&
        (e.letter === "R" || e.letter === "L" || e.type === "POT" || e.type?.startsWith("OPT")) &&
        e.nodes.some((n) => ends.has(n)),
    )
    .map((e) => e.name)
    .slice(0, 6);
}

function highTensionHalves(circuit: Circuit): ColdCheck[] {
  if (isLineConnected(circuit)) return [];
  return circuit.elements
    .filter((e) => isRectifier(e.type) && e.nodes[0] !== "0" && typeof e.params.rs === "number")
    .flatMap((e, k, all) => {
      const name = all.length > 1 ? `HT${k + 1}` : "HT";
      const expected = HALF_OF_PATH * (e.params.rs as number);
      const winding = (point: string, label: string): ColdCheck => ({
        point,
        group: "windings",
        label,
        place: point,
        where: texts.rectifierOutOffPaths(),
        expected,
        low: 0.5 * expected,
        high: 2 * expected,
        beside: [],
      });
      return e.type === "RECT_FULL"
        ? [
            { ...winding(`${name}.1`, texts.highTensionWindingFirst()), firstHalf: true },
            winding(`${name}.2`, texts.highTensionWindingSecond()),
          ]
        : [winding(name, texts.highTensionWinding())];
    });
}

function heaters(circuit: Circuit): ColdCheck[] {
  return circuit.heaters.flatMap((h) =>
    h.tubes.flatMap((tube) => {
      const e = heaterOf(circuit, tube);
      return e
        ? [
            {
              point: `${tube}.heater`,
              group: "heaters" as const,
              label: `${tube} ${e.type}, ${figure(e.volts)} V ${figure(e.amps)} A`,
              place: texts.heater(tube),
              where: `${e.alone.where}; ${h.string ? texts.stringOpenSwitch() : texts.outSocket()}`,
              expected: e.alone.ohms,
              low: HEATER_LOW * e.alone.ohms,
              high: HEATER_HIGH * e.alone.ohms,
              beside: [],
            },
          ]
        : [];
    }),
  );
}
