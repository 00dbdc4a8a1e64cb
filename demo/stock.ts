/** The shop's stock of tubes: some new, some pulled, most tested once, a few again after a year. */

import type { Database } from "@/server/database";
import { addStockTube, testStockTube } from "@/server/stock-tubes";

/** Plate milliamperes and mA/V of each, tested at the type's own volts; two tests where it was tested again. */
const STOCK: Record<string, { at: { plateVolts: number; screenVolts: number; gridVolts: number }; tubes: [number, number][][] }> = {
  KT66: {
    at: { plateVolts: 250, screenVolts: 250, gridVolts: -15 },
    tubes: [
      [[84, 6.4]],
      [[71, 5.7]],
      [[85.5, 6.5]],
      [
        [79, 6.1],
        [77.5, 6],
      ],
      [[92, 6.9]],
      [[78, 6.1]],
      [[70, 5.6]],
      [[63, 5.1]],
    ],
  },
  EL34: {
    at: { plateVolts: 250, screenVolts: 265, gridVolts: -13.5 },
    tubes: [
      [[98, 10.8]],
      [[103, 11.2]],
      [[99.5, 10.9]],
      [[91, 10.2]],
      [[101, 11]],
      [[97, 10.7]],
      [[88, 9.9]],
      [[112, 11.9]],
      [[100.5, 11]],
      [[90, 10.1]],
    ],
  },
  "6V6GT": {
    at: { plateVolts: 250, screenVolts: 250, gridVolts: -12.5 },
    tubes: [
      [[44, 4]],
      [[46.5, 4.2]],
      [[39, 3.7]],
      [[45, 4.1]],
      [
        [38.5, 3.6],
        [36, 3.4],
      ],
    ],
  },
};

export async function stockTubesOf(database: Database): Promise<void> {
  for (const [type, { at, tubes }] of Object.entries(STOCK))
    for (const tests of tubes) {
      const number = await addStockTube(database, { type, place: `drawer ${type}` }, "J.M.");
      for (const [milliamps, gm] of tests) await testStockTube(database, number, { milliamps, gm, ...at }, "J.M.");
    }
}
