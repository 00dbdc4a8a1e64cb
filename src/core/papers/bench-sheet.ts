/** The bench sheet of a model: schematic with its volts, points, sockets, supply and bias, for the lid of the case. */

import { isOutputTube } from "../anatomy/cathode-current";
import { supplyChain, tubesOf } from "../anatomy/points";
import { socketOf, whereToProbe } from "../anatomy/sockets";
import { envelopeOf, type Circuit } from "../circuit/circuit";
import type { Drawing } from "../drawing/geometry";
import { lineworkOf } from "../drawing/linework";
import type { School } from "../drawing/strokes";
import { shownAt, type Solution } from "../expectation/solution";
import { formatQuantity, formatVolts } from "../quantity/format";
import * as texts from "../texts/bench-sheet";
import type { Block, Column } from "./block";

/**
 * @param mains volts at the wall for which `solution` was solved; undefined for a circuit that has no mains.
 * @returns blocks to be painted on A4 or A3, the long side level.
 */
export function benchSheet(circuit: Circuit, drawing: Drawing, solution: Solution, school: School, mains: number | undefined): Block[] {
  const notes = Object.fromEntries(
    circuit.points.map((p) => {
      const volts = solution.points[p.name];
      return [
        p.node,
        [...(volts === undefined ? [] : [formatVolts(volts)]), ...(p.chart === undefined ? [] : [`(${formatVolts(p.chart)})`])],
      ];
    }),
  );
  const { maker, model, revision } = circuit.facts;
  const name = [maker, model].filter(Boolean).join(" ") || circuit.title;
  return [
    { block: "heading", text: `${name}${revision ? `, ${texts.revision(revision)}` : ""}` },
    {
      block: "text",
      look: "small",
      text: texts.howToRead(mains === undefined ? "" : texts.atMains(formatVolts(mains)), chartWords(circuit)),
    },
    { block: "drawing", ...lineworkOf(drawing, circuit, school, notes) },
    ...points(circuit, solution),
    ...sockets(circuit, solution),
    ...supply(circuit, solution),
    ...bias(circuit, solution),
    { block: "text", look: "small", text: texts.caution() },
  ];
}

const chartWords = (circuit: Circuit) => (circuit.chart ? texts.chartAt(formatVolts(circuit.chart.mains)) : "");

/** A table under its heading; nothing where it has no rows. */
function table(heading: string, columns: [title: string, share: number, align?: "right"][], rows: string[][]): Block[] {
  if (rows.length === 0) return [];
  const cols = columns.map(([title, share, align]): Column => ({ title, share, ...(align ? { align } : {}) }));
  return [
    { block: "heading", text: heading },
    { block: "table", columns: cols, rows },
  ];
}

function points(circuit: Circuit, solution: Solution): Block[] {
  const rows = [...circuit.points]
    .sort((a, b) => a.order - b.order)
    .map((p) => [
      p.name,
      p.label,
      whereToProbe(circuit, p),
      solution.points[p.name] === undefined ? "" : formatVolts(solution.points[p.name]!),
      p.chart === undefined ? "" : formatVolts(p.chart),
      "",
      p.caution ?? "",
    ]);
  return table(
    texts.points(),
    [
      [texts.point(), 1],
      ["", 2],
      [texts.probeOn(), 1.5],
      [texts.expected(), 1, "right"],
      [texts.chart(), 1, "right"],
      [texts.read(), 1.2, "right"],
      [texts.mind(), 4],
    ],
    rows,
  );
}

/** By envelope, each pin that is used with what lies on it and its volts. */
function sockets(circuit: Circuit, solution: Solution): Block[] {
  const names = [...new Set(circuit.elements.filter((e) => e.tube ?? e.rectifierTube).map((e) => envelopeOf(e.name)))];
  const rows = names
    .sort((a, b) => a.localeCompare(b, "en", { numeric: true }))
    .flatMap((name) => {
      const socket = socketOf(circuit, name);
      if (!socket) return [];
      const volts = (node: string | undefined) => {
        if (node === undefined || node === "0") return node === "0" ? texts.chassis() : "";
        const shown = shownAt(solution, circuit.points, node);
        return shown === undefined ? "" : formatVolts(shown);
      };
      const pins = Array.from({ length: 9 }, (_, i) => {
        const pin = socket.pins[i];
        if (!pin?.electrode) return "";
        return [`${pin.half ? `${pin.half} ` : ""}${pin.electrode}`, pin.carries ?? volts(pin.node)].filter(Boolean).join("\n");
      });
      return [[`${name} ${socket.type}`, ...pins]];
    });
  return table(
    texts.sockets(),
    [[texts.tube(), 1.6], ...Array.from({ length: 9 }, (_, i): [string, number] => [String(i + 1), 1.2])],
    rows,
  );
}

function supply(circuit: Circuit, solution: Solution): Block[] {
  const chain = supplyChain(circuit);
  const rows = chain.map(({ point, droppers }, i) => {
    const volts = solution.points[point.name];
    const before = chain[i - 1] && solution.points[chain[i - 1]!.point.name];
    const ohms = droppers.reduce((sum, e) => sum + (e.letter === "R" ? (e.value ?? 0) : (e.notes.dcr ?? 0)), 0);
    const drop = volts === undefined || before === undefined ? undefined : before - volts;
    return [
      point.name,
      point.label,
      droppers.map((e) => e.name).join(", "),
      volts === undefined ? "" : formatVolts(volts),
      drop === undefined ? "" : formatVolts(drop),
      drop === undefined || ohms === 0 ? "" : formatQuantity(drop / ohms, "A", 3),
    ];
  });
  return table(
    texts.supply(),
    [
      [texts.rail(), 1],
      ["", 2],
      [texts.through(), 2],
      [texts.volts(), 1, "right"],
      [texts.drops(), 1, "right"],
      [texts.current(), 1, "right"],
    ],
    rows,
  );
}

function bias(circuit: Circuit, solution: Solution): Block[] {
  const rows = tubesOf(circuit)
    .filter(isOutputTube)
    .flatMap((tube) => {
      const work = solution.tubes[tube.name];
      if (!work) return [];
      const rated = tube.tube!.ratings?.plateWatts;
      return [
        [
          `${tube.name} ${tube.type}`,
          formatVolts(work.plateVolts),
          formatVolts(work.gridVolts),
          formatQuantity(work.plateMilliamps / 1e3, "A", 3),
          formatQuantity(work.plateWatts, "W", 3),
          rated === undefined ? "" : texts.ofRated(Math.round((work.plateWatts / rated) * 100), formatQuantity(rated, "W", 2)),
        ],
      ];
    });
  return table(
    texts.bias(),
    [
      [texts.tube(), 1.5],
      [texts.plateToCathode(), 1.5, "right"],
      [texts.gridToCathode(), 1.5, "right"],
      [texts.plateCurrent(), 1.3, "right"],
      [texts.plateWatts(), 1.3, "right"],
      [texts.ofRating(), 1.5, "right"],
    ],
    rows,
  );
}
