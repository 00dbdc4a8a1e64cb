/** The walk: every test point in the order of the work, with its expectation, last reading, verdict and first reason. */

import type { Circuit, TestPoint } from "../circuit/circuit";
import type { Conditions, Reading } from "../tape/events/measuring-events";
import { latestReading, type JobState, type Line } from "../tape/fold";
import { roleOf, type Electrode, electrodeNode, supplyChain, tubesOf, type Role } from "../anatomy/points";
import { whereToProbe } from "../anatomy/sockets";
import { idleFrom, type Idle } from "../anatomy/cathode-current";
import { type Expectation, type ExpectationSource, meterRange, verdictOf, type Verdict } from "../expectation/expectation";
import { firstReason } from "./reason";

export interface WalkRow {
  point: TestPoint;
  /** Where the probe goes, in words: "V2 pin 8". */
  probeOn: string;
  role: Role;
  /** Under the conditions of the reading when there is one, else of now. */
  expected?: Expectation;
  /** Why nothing is expected. */
  noExpectation?: string;
  range: string;
  reading?: Line<Reading>;
  verdict: Verdict;
  reason?: string;
  idle: Idle[];
}

export function walkRows(circuit: Circuit, state: JobState, source: ExpectationSource, now: Conditions): WalkRow[] {
  return [...circuit.points].sort((a, b) => a.order - b.order).map((point) => walkRow(circuit, state, source, now, point));
}

export function walkRow(circuit: Circuit, state: JobState, source: ExpectationSource, now: Conditions, point: TestPoint): WalkRow {
  const reading = latestReading(state, point.name);
  const today = source.expect(point, reading?.conditions ?? now);
  const expected = "none" in today ? undefined : today;
  const role = roleOf(circuit, point);
  const row: WalkRow = {
    point,
    probeOn: whereToProbe(circuit, point),
    role,
    expected,
    noExpectation: "none" in today ? today.none : undefined,
    range: meterRange(expected?.volts ?? point.chart ?? 1000),
    reading,
    verdict: "none",
    idle: [],
  };
  if (!reading) return row;
  if (expected) {
    row.verdict = verdictOf(reading.value, expected);
    row.reason = firstReason(circuit, point, reading.value, expected, (name) => latestReading(state, name)?.value);
  }
  if (role === "cathode") {
    row.idle = idleFrom(circuit, point.node, reading.value, (tube) => {
      const plate = circuit.points.find((p) => p.node === electrodeNode(tube, "plate"));
      return plate && latestReading(state, plate.name)?.value;
    });
  }
  return row;
}

export interface StaircaseStep {
  name: string;
  label: string;
  droppers: string;
  expected?: Expectation;
  measured?: number;
  verdict: Verdict;
}

/** The supply chain as descending steps. */
export function staircase(circuit: Circuit, rows: WalkRow[]): StaircaseStep[] {
  return supplyChain(circuit).flatMap(({ point, droppers }) => {
    const row = rows.find((r) => r.point.name === point.name);
    return row
      ? [
          {
            name: point.name,
            label: point.label,
            droppers: droppers.map((d) => d.name).join(" + "),
            expected: row.expected,
            measured: row.reading?.value,
            verdict: row.verdict,
          },
        ]
      : [];
  });
}

export interface StageColumn {
  tube: string;
  type: string;
  cells: { electrode: Electrode; point?: string; expected?: Expectation; measured?: number; verdict: Verdict }[];
}

/** Each tube as a column of its electrodes, output stage first as the walk goes. */
export function stageColumns(circuit: Circuit, rows: WalkRow[]): StageColumn[] {
  const first = (tube: string) =>
    Math.min(
      ...rows
        .filter(
          (r) =>
            tubesOf(circuit)
              .find((t) => t.name === tube)
              ?.nodes.includes(r.point.node) && r.role !== "rail",
        )
        .map((r) => r.point.order),
      1e9,
    );
  return tubesOf(circuit)
    .map((tube) => ({
      tube: tube.name,
      type: tube.type!,
      cells: (["plate", "screen", "cathode", "grid"] as Electrode[]).flatMap((electrode) => {
        const node = electrodeNode(tube, electrode);
        if (node === undefined) return [];
        const row = rows.find((r) => r.point.node === node && r.role === electrode) ?? rows.find((r) => r.point.node === node);
        return [
          {
            electrode,
            point: row?.point.name,
            expected: row?.expected,
            measured: row?.reading?.value,
            verdict: row?.verdict ?? ("none" as Verdict),
          },
        ];
      }),
    }))
    .filter((c) => c.cells.some((cell) => cell.point))
    .sort((a, b) => first(a.tube) - first(b.tube));
}
