import { readFileSync } from "node:fs";
import { socketOf } from "../anatomy/sockets";
import { readCircuit } from "../circuit/read";
import { chartScaled } from "../expectation/expectation";
import { foldJob } from "../tape/fold";
import { tape } from "../tape/tape-for-tests";
import { socketWords } from "./socket-words";
import { walkRows } from "./walk";

const { circuit } = readCircuit(readFileSync("demo/amps/wren-5.cir", "utf8"));
const on = tape(
  [0, { type: "power", payload: { state: "on", plug: "in" } }],
  [60, { type: "reading", payload: { point: "V2.k", kind: "dcv", value: 7.9, conditions: { mains: 220 } } }],
);
const rows = walkRows(circuit, foldJob(on), chartScaled(circuit), { mains: 220 });
const words = (socket: string) => Object.fromEntries(socketWords(socketOf(circuit, socket)!, rows));

test("a pin has what was read on it, else what is expected, marked as such; the winding and the chassis in words", () => {
  // The chart of the file is drawn for 220 V: its figures stand as they are.
  expect(words("V2")).toEqual({
    2: { what: "grid", volts: "0.00 V", expected: true },
    3: { what: "cathode", volts: "7.90 V", expected: false },
    4: { what: "heater", volts: undefined, expected: false },
    5: { what: "heater", volts: undefined, expected: false },
    7: { what: "plate", volts: "245 V", expected: true },
    9: { what: "screen", volts: "240 V", expected: true },
  });
  expect(words("V3")).toMatchObject({ 1: { what: "plate 1", volts: "235 V ~" }, 3: { what: "cathode", volts: "255 V", expected: true } });
  expect(words("V1")[7]).toEqual({ what: "B grid", volts: undefined, expected: false });
});
