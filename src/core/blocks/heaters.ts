/** The heaters of all tubes of the file: windings by their volts, or one string across the line. */

import type { BlockKind } from "./kind";

export const HEATERS: BlockKind = {
  kind: "heaters",
  group: "heaters",
  ports: [],
  options: [{ key: "wiring", values: ["parallel", "string"] }],
  write(pen) {
    const tubes = pen.envelopes.filter((t) => t.type);
    if (tubes.length === 0) return;
    if (pen.is("wiring", "string")) {
      // The rectifier is nearest to the line, the first stage, most sensitive to hum, nearest to the chassis.
      const volts = tubes.reduce((sum, t) => sum + t.type!.heater.volts, 0);
      const amps = tubes[0]!.type!.heater.amps;
      const left = Math.max(0, pen.usual.mains - volts) / amps;
      pen.heater("H1", tubes.map((t) => t.name).reverse(), { string: true, ballast: left > 1 ? String(Math.round(left)) : undefined });
      return;
    }
    // A rectifier's heater stands at the supply's volts and has a winding of its own.
    const groups = new Map<string, { volts: number; names: string[] }>();
    for (const { name, type } of tubes) {
      const key = `${type!.kind === "rectifier" ? "rectifier" : "tubes"} ${type!.heater.volts}`;
      const group = groups.get(key) ?? { volts: type!.heater.volts, names: [] };
      group.names.push(name);
      groups.set(key, group);
    }
    [...groups.values()].forEach(({ volts, names }, i) => pen.heater(`H${i + 1}`, names, { volts }));
  },
};
