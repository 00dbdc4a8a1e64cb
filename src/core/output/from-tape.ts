/** What a job's tape says of an output stage as the amp is now: currents by whatever way they were read, volts, how they drift. */

import { electrodePoint } from "../anatomy/points";
import type { Circuit } from "../circuit/circuit";
import { ampAsItIs } from "../tape/amp-as-it-is";
import type { Reading } from "../tape/events/measuring-events";
import type { JobState, Line } from "../tape/fold";
import { biasTable, driftOf, type BiasTable, type Drift } from "./bias-table";
import { SHUNT_OHMS, type OutputStage, type OutputTube } from "./output-stage";
import { WAYS, type CurrentReading, type Way } from "./read-current";

/** The point under which a way's reading of a tube is logged, and its kind. */
export function pointOfWay(
  circuit: Circuit,
  stage: OutputStage,
  tube: OutputTube,
  way: Way,
): { point: string; kind: "dcv" | "ma" } | undefined {
  if (way === "socket probe") return { point: tube.name, kind: "ma" };
  if (way === "cathode resistor") {
    if (tube.cathodeOhms === 0) return undefined;
    return { point: circuit.points.find((p) => p.node === tube.cathode)?.name ?? tube.cathode, kind: "dcv" };
  }
  return { point: `${stage.supply}:${tube.plate}`, kind: way === "shunt" ? "ma" : "dcv" };
}

export interface StageRead {
  readings: CurrentReading[];
  /** Plate and screen volts to the cathode: read, or those of the fallback. */
  volts: Record<string, { plate?: number; screen?: number }>;
  /** Tubes whose plate volts were read; those of the others are computed. */
  platesRead: string[];
  table: BiasTable;
  /** Plate amperes by tube, of the readings that could be taken. */
  read: Record<string, number>;
  /** Volts to chassis at output grids, by node. */
  grids: Record<string, number>;
  drift: Record<string, Drift>;
}

/**
 * The latest current of each tube since the amp was last changed, by any way.
 * @param fallback volts where none were read: those of the solved circuit.
 */
export function stageRead(
  circuit: Circuit,
  stage: OutputStage,
  state: Pick<JobState, "readings" | "changes" | "lines" | "adjusted" | "tubesFitted">,
  fallback: (tube: string) => { plate?: number; screen?: number } = () => ({}),
): StageRead {
  const { counts } = ampAsItIs(state);
  // Behind a lamp, or with tubes out, it is another amp.
  const fair = (r: Line<Reading>) =>
    counts(r.seq) && !r.conditions.limiter && !r.conditions.without?.some((t) => stage.tubes.some((s) => s.name === t));
  const at = (point: string, kind: Reading["kind"]) => state.readings.filter((r) => r.kind === kind && same(r.point, point) && fair(r));
  const ohmsAt = (...names: string[]) => state.readings.findLast((r) => r.kind === "ohm" && names.some((n) => same(r.point, n)))?.value;
  const readings: CurrentReading[] = [];
  const drift: StageRead["drift"] = {};
  const volts: StageRead["volts"] = {};
  const platesRead: string[] = [];
  for (const tube of stage.tubes) {
    const own = WAYS.flatMap((way) => {
      const where = pointOfWay(circuit, stage, tube, way);
      return where ? at(where.point, where.kind).map((r) => ({ way, r })) : [];
    });
    const last = own.sort((a, b) => a.r.seq - b.r.seq).at(-1);
    const element = circuit.elements.find((e) => e.name === tube.name)!;
    // Tubes in parallel share a node, and its point bears the name of one of them.
    const volt = (electrode: "plate" | "screen") => {
      const own = electrodePoint(element, electrode);
      const node = electrode === "plate" ? tube.plate : tube.screen;
      const names = [own, ...circuit.points.filter((p) => p.node === node).map((p) => p.name)];
      return state.readings.findLast((r) => r.kind === "dcv" && names.some((n) => same(r.point, n)) && fair(r))?.value;
    };
    const cathode =
      tube.cathodeOhms === 0
        ? 0
        : (at(circuit.points.find((p) => p.node === tube.cathode)?.name ?? tube.cathode, "dcv").at(-1)?.value ?? 0);
    const [plate, screen] = [volt("plate"), volt("screen")];
    volts[tube.name] = {
      ...fallback(tube.name),
      ...(plate === undefined ? {} : { plate: plate - cathode }),
      ...(screen === undefined ? {} : { screen: screen - cathode }),
    };
    if (plate !== undefined) platesRead.push(tube.name);
    if (!last) continue;
    const { way, r } = last;
    const across = `${stage.supply}:${tube.plate}`;
    const resistor = circuit.elements.find((e) => e.letter === "R" && e.nodes.includes(tube.cathode) && e.nodes.includes("0"));
    const ohms =
      way === "cathode resistor"
        ? ohmsAt(`${tube.cathode}:0`, resistor?.name ?? "")
        : way === "socket probe"
          ? undefined
          : ohmsAt(across, `${tube.plate}:${stage.supply}`);
    const screenVolts = tube.screenResistor && at(tube.screenResistor.name, "dcv").at(-1)?.value;
    const value = (x: number) => (r.kind === "ma" ? x / 1e3 : x);
    readings.push({
      tube: tube.name,
      way,
      value: value(r.value),
      ...(ohms === undefined ? {} : { ohms }),
      ...(screenVolts === undefined ? {} : { screenVolts }),
    });
    const course = own
      .filter((o) => o.way === way)
      .map((o) => ({ minutes: o.r.conditions.warmMinutes ?? Date.parse(o.r.at) / 60_000, amps: value(o.r.value) }));
    const found = driftOf(course);
    if (found) drift[tube.name] = found;
  }
  const grids = Object.fromEntries(
    stage.tubes.flatMap((t) => {
      const point = circuit.points.find((p) => p.node === t.grid)?.name;
      const volts = point === undefined ? undefined : at(point, "dcv").at(-1)?.value;
      return volts === undefined ? [] : [[t.grid, volts] as const];
    }),
  );
  const table = biasTable(stage, readings, (name) => volts[name.toUpperCase()] ?? {});
  return {
    readings,
    volts,
    platesRead,
    table,
    read: Object.fromEntries(table.rows.map((row) => [row.tube, row.plate])),
    grids,
    drift,
  };
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The way that a stage offers without opening anything: its cathode resistors where they are shunts, else the socket probe. */
export const usualWay = (stage: OutputStage): Way =>
  stage.tubes.every((t) => t.cathodeOhms > 0 && (t.cathodeOhms <= SHUNT_OHMS || t.sharedBy === 1)) ? "cathode resistor" : "socket probe";
