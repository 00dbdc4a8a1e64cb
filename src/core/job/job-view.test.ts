import { readFileSync } from "node:fs";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { tape } from "../tape/tape-for-tests";
import { viewJob } from "./job-view";

const file = (name: string) => readFileSync(`demo/amps/${name}.cir`, "utf8");
const shown = (name: string, point: string, mainsVolts: number) => {
  const view = viewJob(
    tape([0, { type: "job-opened", payload: { owner: "Osric Venn", amp: name } }]),
    file(name),
    { ...DEFAULT_SETTINGS, mainsVolts },
    Date.now(),
  );
  return view.rows.find((r) => r.point.name === point)!.expected!.volts;
};

describe("before anybody has read the mains", () => {
  // Nothing is solved here: the chart stands in, scaled by the mains ratio.
  test("an amp is expected at the shop's usual volts", () => expect(shown("wren-5", "B1", 230)).toBeCloseTo((255 * 230) / 220, 0));
  test("a line-connected set at its own, whatever the wall of the shop has", () => {
    expect(shown("minor", "B1", 230)).toBeCloseTo((111 * 117) / 110, 0);
  });
});
