/**
 * A ground map: points joined by wires, currents that return through them, and the hum that they put in series with the signal.
 * Each kind of current is solved by itself: they are of different frequencies and shapes and add as powers do.
 */

import { solve } from "../numeric/dense";
import type { GroundCurrent, GroundMapDrawn, GroundWire } from "../tape/events/noise-events";
import * as texts from "../texts/noise";

/** Ohm metres of copper at 20 °C. Source: IEC 60028. */
export const COPPER = 1.7241e-8;
/** A bolted or soldered joint where nothing was measured, and a piece of chassis metal, ohms. */
const JOINT_OHMS = 2e-3;
/** Bond of the safety earth, ohms, at most. Source: IEC 60065 and its like; the shop's own limit is a setting. */
export const BOND_OHMS = 0.1;

export interface WireHum {
  wire: GroundWire;
  ohms: number;
  /** Volts rms along it, of all currents together. */
  volts: number;
  amps: number;
  /** What flows in it, the largest first. */
  carries: { what: string; amps: number }[];
  /** It lies between the first stage and its input's ground, and something else returns through it. */
  shared: boolean;
}

export interface GroundAnswer {
  wires: WireHum[];
  /** Volts rms between the input's ground and the first stage's. */
  humVolts: number;
  /** Of each current by itself, the largest first. */
  by: { what: string; volts: number }[];
  /** Closed ways, each as its points in order. */
  loops: string[][];
  problems: string[];
}

/** American wire gauge to square millimetres: 0.127 mm · 92^((36 − n)/39) across. Source: ASTM B258. */
export function gaugeArea(awg: number): number {
  const across = 0.127 * 92 ** ((36 - awg) / 39);
  return (Math.PI / 4) * across * across;
}

/** Ohms of a wire by its copper, or as measured. @param w area in mm², length in m; area 0 is a joint or chassis metal. */
export function wireOhms(w: GroundWire): number {
  if (w.ohms !== undefined) return Math.max(w.ohms, 1e-6);
  if (w.area <= 0) return JOINT_OHMS;
  return Math.max((COPPER * w.length) / (w.area * 1e-6), 1e-6);
}

export function solveGrounds(map: Pick<GroundMapDrawn, "wires" | "currents" | "inputGround" | "stageGround">): GroundAnswer {
  const points = [...new Set(map.wires.flatMap((w) => [w.from, w.to]))];
  const problems: string[] = [];
  for (const p of [map.inputGround, map.stageGround, ...map.currents.flatMap((c) => [c.from, c.to])])
    if (!points.includes(p) && !problems.some((x) => x.includes(`"${p}"`))) problems.push(texts.noWireGoes(p));
  const ohms = map.wires.map(wireOhms);
  const parts = partsOf(points, map.wires);
  const currents = map.currents.filter((c) => {
    if (!points.includes(c.from) || !points.includes(c.to)) return false;
    if (parts.get(c.from) === parts.get(c.to)) return true;
    problems.push(texts.hasNoWayBack(c.what, c.from, c.to));
    return false;
  });
  const each = currents.map((c) => potentials(points, map.wires, ohms, c));
  const at = (v: Map<string, number>, p: string) => v.get(p) ?? 0;
  const joined = points.includes(map.inputGround) && parts.get(map.inputGround) === parts.get(map.stageGround);
  if (points.includes(map.inputGround) && points.includes(map.stageGround) && !joined) problems.push(texts.inputsGroundFirstStages());
  const by = currents
    .map((c, i) => ({ what: c.what, volts: joined ? Math.abs(at(each[i]!, map.inputGround) - at(each[i]!, map.stageGround)) : 0 }))
    .sort((a, b) => b.volts - a.volts);
  const onTheWay = new Set(wayBetween(map.wires, map.inputGround, map.stageGround));
  const wires = map.wires.map((wire, k): WireHum => {
    const carries = currents
      .map((c, i) => ({ what: c.what, amps: Math.abs(at(each[i]!, wire.from) - at(each[i]!, wire.to)) / ohms[k]! }))
      .filter((c) => c.amps > 1e-9)
      .sort((a, b) => b.amps - a.amps);
    const amps = Math.hypot(...carries.map((c) => c.amps), 0);
    return { wire, ohms: ohms[k]!, amps, volts: amps * ohms[k]!, carries, shared: onTheWay.has(wire) && amps > 1e-6 };
  });
  return { wires, humVolts: Math.hypot(...by.map((b) => b.volts), 0), by, loops: loopsOf(map.wires), problems };
}

/** Which piece of the map each point is in. */
function partsOf(points: readonly string[], wires: readonly GroundWire[]): Map<string, number> {
  const out = new Map<string, number>();
  points.forEach((start, n) => {
    if (out.has(start)) return;
    const reached = new Set([start]);
    for (const p of reached) for (const w of wires) if (w.from === p || w.to === p) reached.add(w.from === p ? w.to : w.from);
    for (const p of reached) out.set(p, n);
  });
  return out;
}

/** Volts of every point while one current flows in at its `from` and out at its `to`, the latter held at zero. */
function potentials(
  points: readonly string[],
  wires: readonly GroundWire[],
  ohms: readonly number[],
  current: GroundCurrent,
): Map<string, number> {
  const reached = new Set([current.to]);
  for (const p of reached) for (const w of wires) if (w.from === p || w.to === p) reached.add(w.from === p ? w.to : w.from);
  const free = [...reached].filter((p) => p !== current.to);
  const n = free.length;
  const index = new Map(free.map((p, i) => [p, i]));
  const g = new Float64Array(n * n);
  const b = new Float64Array(n);
  wires.forEach((w, k) => {
    if (w.from === w.to || !reached.has(w.from)) return;
    const [from, to] = [index.get(w.from), index.get(w.to)];
    const s = 1 / ohms[k]!;
    if (from !== undefined) g[from * n + from]! += s;
    if (to !== undefined) g[to * n + to]! += s;
    if (from === undefined || to === undefined) return;
    g[from * n + to]! -= s;
    g[to * n + from]! -= s;
  });
  const into = index.get(current.from);
  if (into !== undefined) b[into] = current.amps;
  const v = solve(g, b);
  return new Map([[current.to, 0], ...free.map((p, i): [string, number] => [p, v[i]!])]);
}

/** The wires of the shortest way between two points. */
function wayBetween(wires: readonly GroundWire[], from: string, to: string): GroundWire[] {
  const by = new Map<string, GroundWire>();
  const reached = new Set([from]);
  for (const p of reached)
    for (const w of wires) {
      const other = w.from === p ? w.to : w.to === p ? w.from : undefined;
      if (other !== undefined && !reached.has(other)) {
        reached.add(other);
        by.set(other, w);
      }
    }
  const way: GroundWire[] = [];
  for (let p = to; p !== from;) {
    const w = by.get(p);
    if (!w) return [];
    way.push(w);
    p = w.from === p ? w.to : w.from;
  }
  return way;
}

/** A closed way for each wire beyond those that join all points once. */
function loopsOf(wires: readonly GroundWire[]): string[][] {
  const tree: GroundWire[] = [];
  const loops: string[][] = [];
  for (const w of wires) {
    if (w.from === w.to) continue;
    const way = wayBetween(tree, w.from, w.to);
    if (way.length === 0) tree.push(w);
    else {
      let at = w.to;
      loops.push([w.from, w.to, ...way.map((x) => (at = x.from === at ? x.to : x.from)).slice(0, -1)]);
    }
  }
  return loops;
}

/** Volts below which there is nothing to hear. */
export const NO_HUM = 1e-9;

/** The map as found, as a star and as a bus; decibels against as found, undefined where that hums nothing. */
export function compareSchemes(map: GroundMapDrawn): { scheme: Scheme; volts: number; decibels?: number }[] {
  const found = solveGrounds(map).humVolts;
  return SCHEMES.map((scheme) => {
    const volts = scheme === "as found" ? found : solveGrounds(rewired(map, scheme)).humVolts;
    return { scheme, volts, ...(found < NO_HUM ? {} : { decibels: volts < NO_HUM ? -Infinity : 20 * Math.log10(volts / found) }) };
  });
}

export const SCHEMES = ["as found", "star", "bus"] as const;
export type Scheme = (typeof SCHEMES)[number];

/**
 * The same points and currents wired otherwise: every point by a wire of its own to the first reservoir's minus, or along one bus
 * in the order of the signal, the input's end at the chassis. Wires are of the mean area and length of those found.
 */
export function rewired(map: GroundMapDrawn, scheme: Scheme): GroundMapDrawn {
  if (scheme === "as found") return map;
  const points = [...new Set(map.wires.flatMap((w) => [w.from, w.to]))];
  const copper = map.wires.filter((w) => w.area > 0);
  const area = copper.reduce((sum, w) => sum + w.area, 0) / Math.max(1, copper.length) || 0.75;
  const length = copper.reduce((sum, w) => sum + w.length, 0) / Math.max(1, copper.length) || 0.1;
  const wire = (from: string, to: string): GroundWire => ({ from, to, area, length });
  // Where most current comes back: the charging pulses end there.
  const centre = [...map.currents].sort((a, b) => b.amps - a.amps)[0]?.to ?? points[0]!;
  if (scheme === "star") return { ...map, wires: points.filter((p) => p !== centre).map((p) => wire(p, centre)) };
  const order = [
    map.inputGround,
    map.stageGround,
    ...points.filter((p) => p !== map.inputGround && p !== map.stageGround && p !== centre),
    centre,
  ];
  const bus = [...new Set(order)];
  return { ...map, wires: bus.slice(1).map((p, i) => wire(bus[i]!, p)) };
}

/** Ohms of a loop through two leads and their chassis, for want of a better figure. */
export const LOOP_OHMS = 0.05;

/** What stands between a lifted ground and the chassis, and what the loop's hum becomes: its volts divide over the loop's own ohms. */
export function liftLeaves(
  network: { ohms?: number; farads?: number; diodes?: boolean },
  loopVolts: number,
  loopOhms: number,
  hertz: number,
) {
  // Two diodes across the lift conduct above about half a volt: below it they are not there.
  const shorted = network.diodes === true && loopVolts > 0.5;
  const g = 1 / (network.ohms ?? Infinity);
  const b = 2 * Math.PI * hertz * (network.farads ?? 0);
  const size = Math.hypot(g, b);
  const ohms = shorted ? 0 : size > 0 ? 1 / size : Infinity;
  const [re, im] = size > 0 ? [g / size ** 2, -b / size ** 2] : [Infinity, 0];
  const left = shorted ? 1 : size > 0 ? loopOhms / Math.hypot(loopOhms + re, im) : 0;
  return { ohms, partLeft: left, decibels: left > 0 ? 20 * Math.log10(left) : -Infinity, lifts: left < 0.1 };
}

/** The safety earth: its own bolt on bare metal, its measured bond. It is never part of the signal's ground. */
export function judgeBond(map: Pick<GroundMapDrawn, "bondOhms" | "ownBolt">, limit = BOND_OHMS): { sound: boolean; says: string }[] {
  return [
    map.ownBolt === undefined
      ? { sound: false, says: texts.whetherSafetyEarthHas() }
      : map.ownBolt
        ? { sound: true, says: texts.safetyEarthStandsBolt() }
        : {
            sound: false,
            says: texts.safetyEarthSharesBolt(),
          },
    map.bondOhms === undefined
      ? { sound: false, says: texts.bondWasNotMeasured(limit) }
      : { sound: map.bondOhms <= limit, says: texts.bondReadsMost(map.bondOhms, limit) },
  ];
}

/** The heater wiring as a checklist, each with the reason. */
export const HEATER_CHECKS: { id: string; what: string; why: string }[] = [
  {
    id: "reference",
    what: texts.windingReferredGroundCentre,
    why: texts.withoutWholeWindingFloats,
  },
  {
    id: "twisted",
    what: texts.pairTwistedTightlyFar,
    why: texts.twoFieldsCancelOnly,
  },
  {
    id: "corner",
    what: texts.runsChassisCornerHigh,
    why: texts.picofaradsGridMegohmEnough,
  },
  { id: "crosses", what: texts.crossesSignalLeadsRight, why: texts.sideSideCouplesAlong },
  {
    id: "phase",
    what: texts.pushPullSocketsWired,
    why: texts.whatBothHalvesPick,
  },
  {
    id: "single",
    what: texts.noSocketUsesChassis,
    why: texts.amperesChassisSeriesEvery,
  },
  {
    id: "lifted",
    what: texts.cathodeFollowersCascodesWinding,
    why: texts.heaterCathodeInsulationLeaks,
  },
];
