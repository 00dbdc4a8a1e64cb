/**
 * What readings say without a circuit: faults that show at a tube's own pins, whatever is around it. Usual figures are named as such and
 * are never a verdict.
 */

import type { Verdict } from "../expectation/expectation";
import { formatQuantity, formatVolts } from "../quantity/format";
import { screenShare, type TubeType } from "../tubes/library";
import { judgeHeaterVolts } from "../supply/heaters";
import { isOutputType } from "../anatomy/cathode-current";
import * as texts from "../texts/by-tube";
import type { ByTube, PlaceRow } from "./places";

export interface Says {
  verdict: Verdict;
  /** "V4", "V1A", "V4 and V5". */
  where: string;
  says: string;
}

/** A grid so many volts above its cathode draws current; contact potential and the meter's own error stay below it. */
const GRID_ABOVE = 0.5;
/** The grid of an output tube stands at chassis or below it; a capacitor that leaks puts more than this on it. */
const GRID_POSITIVE = 1;
/** Volts below which an electrode has none. */
const NONE = 5;
/** Parts by which two readings of one place differ at most. */
const SAME = 0.01;
/** Twins of an output stage: a sixth is what matched tubes show. */
const TWINS = 0.17;
/** Less negative than this no power tube is held back by its grid. */
const LEAST_BIAS = -3;
/** A cathode above this biases its own tube. */
const CATHODE_BIAS = 1;

type Section = { where: string; type?: TubeType; at(electrode: string, kind?: "dcv" | "acv" | "ohm"): number | undefined };

/** The sections of each tube: the halves of a twin are two. */
function sectionsOf({ tubes }: ByTube): Section[] {
  return tubes.flatMap(({ tube, type, rows }) => {
    const halves = [...new Set(rows.flatMap(({ place }) => (place.at === "tube" ? [place.half ?? ""] : [])))].sort();
    return halves.map((half): Section => {
      const own = rows.filter(({ place }) => place.at === "tube" && (place.half ?? "") === half);
      const find = (electrode: string) => own.filter(({ place }) => place.at === "tube" && place.electrode === electrode);
      return {
        where: `${tube}${half}`,
        type,
        at: (electrode, kind = "dcv") => newest(find(electrode), kind),
      };
    });
  });
}

/** One place may have been named two ways: what was read last counts. */
const newest = (rows: readonly PlaceRow[], kind: "dcv" | "acv" | "ohm"): number | undefined =>
  rows
    .flatMap((r) => r.latest[kind] ?? [])
    .sort((a, b) => a.seq - b.seq)
    .at(-1)?.value;

const near = (a: number, b: number, part = SAME) => Math.abs(a - b) <= part * Math.max(Math.abs(a), Math.abs(b));

/** Everything that the readings say, the worst first. */
export function saysOf(readings: ByTube): Says[] {
  const rails = readings.rails.flatMap((r) =>
    r.latest.dcv && r.latest.dcv.value > 0 ? [{ name: r.name, volts: r.latest.dcv.value }] : [],
  );
  const sections = sectionsOf(readings);
  const all = [...sections.flatMap((s) => saysOfSection(s, rails)), ...twins(sections)];
  const order: Verdict[] = ["out", "watch", "none", "in"];
  return all.sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict));
}

function saysOfSection({ where, type, at }: Section, rails: readonly { name: string; volts: number }[]): Says[] {
  const out: Says[] = [];
  const say = (verdict: Verdict, says: string) => out.push({ verdict, where, says });
  const [plate, screen, grid, cathode] = ["plate", "screen", "grid", "cathode"].map((e) => at(e));
  const output = type ? isOutputType(type) : undefined;
  const highest = Math.max(0, ...rails.map((r) => r.volts));

  if (grid !== undefined && cathode !== undefined && grid - cathode > GRID_ABOVE) say("out", texts.gridAbove(formatVolts(grid - cathode)));
  else if (output && grid !== undefined && grid > GRID_POSITIVE) say("watch", texts.gridPositive(formatVolts(grid)));
  if (output && grid !== undefined && grid > LEAST_BIAS && (cathode ?? 0) < CATHODE_BIAS && (plate ?? 0) > NONE)
    say("out", texts.biasMissing(formatVolts(grid), cathode === undefined ? "" : formatVolts(cathode)));
  if (screen !== undefined && screen < NONE && plate !== undefined && plate > 10 * NONE)
    say("out", texts.screenWithoutVolts(formatVolts(screen)));
  if (plate !== undefined && cathode !== undefined && plate > 2 * NONE && cathode > 2 * NONE && near(plate, cathode, 2 * SAME))
    say("out", texts.plateIsCathode(formatVolts(plate)));
  else if (plate !== undefined && plate < NONE && highest > 10 * NONE) say("out", texts.plateWithoutVolts(formatVolts(plate)));
  else if (plate !== undefined && type?.kind !== "rectifier" && !output) {
    const rail = rails.find((r) => near(r.volts, plate));
    if (rail) say(type ? "out" : "watch", texts.plateIsRail(formatVolts(plate), rail.name, type === undefined));
  }
  if (type?.kind === "pentode" || type?.kind === "triode") sayCurrent(out, where, type, at);
  const heater = at("heater", "acv") ?? at("heater");
  if (heater !== undefined && type) {
    if (judgeHeaterVolts(type.heater.volts, Math.abs(heater)).verdict === "out")
      say("out", texts.heaterVolts(formatVolts(Math.abs(heater)), type.heater.volts));
  }
  return out;
}

/** Current by the cathode's own resistor, and what the plate has to bear of it: Ia = Ik − Ig2, P = (Va − Vk)·Ia. */
function sayCurrent(out: Says[], where: string, type: TubeType, at: Section["at"]): void {
  const [plate, cathode, ohms] = [at("plate"), at("cathode"), at("cathode", "ohm")];
  if (cathode === undefined || ohms === undefined || ohms <= 0 || cathode <= 0) return;
  const amps = cathode / ohms;
  const rated = type.ratings?.plateWatts;
  if (plate === undefined || rated === undefined) {
    out.push({ verdict: "none", where, says: texts.cathodeCurrent(formatQuantity(amps, "A", 3)) });
    return;
  }
  const watts = (plate - cathode) * amps * (1 - screenShare(type));
  const part = watts / rated;
  out.push({
    verdict: part > 1 ? "out" : "in",
    where,
    says: texts.dissipation(formatQuantity(amps, "A", 3), formatQuantity(watts, "W", 3), Math.round(100 * part), rated),
  });
}

/** Output tubes of one type that differ where they should be alike. */
function twins(sections: readonly Section[]): Says[] {
  const output = sections.filter((s) => s.type && isOutputType(s.type));
  return output.flatMap((a, i) =>
    output.slice(i + 1).flatMap((b): Says[] => {
      if (a.type !== b.type) return [];
      return ["plate", "screen", "grid", "cathode"].flatMap((electrode): Says[] => {
        const [x, y] = [a.at(electrode), b.at(electrode)];
        if (x === undefined || y === undefined || Math.abs(x - y) < 1 || near(x, y, TWINS)) return [];
        return [{ verdict: "watch", where: `${a.where}, ${b.where}`, says: texts.twinsDiffer(electrode, formatVolts(x), formatVolts(y)) }];
      });
    }),
  );
}

/**
 * What is usual at a place, in words; undefined where nothing is. Of a resistance-coupled triode the published tables of resistance-coupled
 * amplifiers idle the plate between 45 and 80 % of its supply.
 */
export function usualAt(electrode: string | undefined, type: TubeType | undefined, highestRail: number | undefined): string | undefined {
  if (!type) return undefined;
  if (electrode === "heater") return texts.usualHeater(type.heater.volts);
  const output = isOutputType(type);
  if (electrode === "plate" && highestRail !== undefined && type.kind !== "rectifier")
    return output
      ? texts.usualOutputPlate(formatVolts(0.9 * highestRail), formatVolts(highestRail))
      : texts.usualPlate(formatVolts(0.45 * highestRail), formatVolts(0.8 * highestRail));
  if (electrode === "cathode" && type.kind === "triode") return texts.usualCathode();
  if (electrode === "grid" && !output && type.kind !== "rectifier") return texts.usualGrid();
  return undefined;
}
