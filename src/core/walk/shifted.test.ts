import type { WalkRow } from "./walk";
import { movedReadings, shiftedSeries } from "./shifted";

/** Points a tenth wide about their volts, each read as given. */
const rows = (read: (number | undefined)[], should = [320, 300, 250, 180, 12, 1.5]): WalkRow[] =>
  should.map((volts, i) => {
    const [low, high] = [volts * 0.95, volts * 1.05];
    const value = read[i];
    const out = value !== undefined && (value < low - 0.025 * volts || value > high + 0.025 * volts);
    return {
      point: { name: `P${i}`, node: `n${i}`, label: "", order: i },
      expected: { volts, low, high, basis: "chart", note: "" },
      ...(value === undefined
        ? { verdict: "none" }
        : {
            reading: { point: `P${i}`, kind: "dcv", value, conditions: {}, seq: 10 + i, at: "", who: "J.M." },
            verdict: out ? "out" : value >= low && value <= high ? "in" : "watch",
          }),
    } as unknown as WalkRow;
  });
const moved = (read: (number | undefined)[], fresh: string[]) =>
  shiftedSeries(rows(read), fresh)?.moves.map((m) => `${m.from.point.name} ${m.from.reading!.value} → ${m.to.point.name}`);

test("a row that was skipped: the second reading that fits the next point is asked about", () => {
  expect(moved([301, 249], ["P0"])).toBeUndefined();
  expect(moved([301, 249], ["P0", "P1"])).toEqual(["P0 301 → P1", "P1 249 → P2"]);
  expect(moved([301, 249, 181, 12], ["P0", "P1", "P2", "P3"])).toHaveLength(4);
});

test("those before the slip stay", () => {
  expect(moved([320, 249, 181], ["P0", "P1", "P2"])).toEqual(["P1 249 → P2", "P2 181 → P3"]);
});

test("one row too late", () => {
  expect(moved([undefined, 320, 300], ["P1", "P2"])).toEqual(["P1 320 → P0", "P2 300 → P1"]);
});

test("readings that are off and fit nowhere, or jump about, are not asked about", () => {
  expect(moved([111, 222, 33], ["P0", "P1", "P2"])).toBeUndefined();
  expect(moved([301, undefined, undefined, 12], ["P0", "P3"])).toBeUndefined();
  expect(moved([320, 300, 250], ["P0", "P1", "P2"])).toBeUndefined();
});

test("each is corrected to the point where it belongs, with the reason", () => {
  const lines = movedReadings(shiftedSeries(rows([301, 249]), ["P0", "P1"])!);
  expect(lines).toEqual([
    expect.objectContaining({
      supersedes: 10,
      reason: "belongs to the point after P0",
      payload: expect.objectContaining({ point: "P1", value: 301 }) as object,
    }),
    expect.objectContaining({ supersedes: 11, payload: expect.objectContaining({ point: "P2", value: 249 }) as object }),
  ]);
  expect(lines[0]!.payload).not.toHaveProperty("seq");
});
