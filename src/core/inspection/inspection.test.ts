import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { briefAllows } from "../repair/brief-allows";
import { checkClaims } from "./claims";
import { foldJob } from "../tape/fold";
import { inspectionList } from "./inspection";
import { outputSets } from "./inspection-inside";
import { tape } from "../tape/tape-for-tests";

const load = (name: string) => readCircuit(readFileSync(`demo/amps/${name}.cir`, "utf8")).circuit;

describe("the inspection list", () => {
  const ids = (name: string | undefined, made?: number) => inspectionList(name ? load(name) : undefined, 2026, made).map((i) => i.id);
  test("follows the features: selenium, paper, a line-connected chassis", () => {
    expect(ids("halberd-120")).toEqual(expect.arrayContaining(["selenium", "paper-caps", "earth", "line-capacitor", "tracking"]));
    expect(ids("lantern-15")).not.toContain("selenium");
    expect(ids("minor")).toEqual(expect.arrayContaining(["line-chassis", "interference-capacitor"]));
    expect(ids("minor")).not.toContain("earth");
  });
  test("without a circuit the general list is left, and every id is there once", () => {
    const general = ids(undefined);
    expect(general).toEqual(expect.arrayContaining(["cord", "fuse-order", "types", "joints", "seals"]));
    for (const name of ["wren-5", "lantern-15", "drover-40", "minor", "picture-house", "halberd-120"])
      expect(new Set(ids(name)).size).toBe(ids(name).length);
  });
  test("names the parts of this amp, and its age", () => {
    const list = inspectionList(load("lantern-15"), 2026, undefined, [{ text: "recapped", year: 2019 }]);
    expect(list.find((i) => i.id === "paper-caps")!.place).toBe("C6, C7, C8, C10, C13, C14, C15, C16");
    expect(list.find((i) => i.id === "cord")!.why).toBe("about 63 years old");
    expect(list.find((i) => i.id === "claim-0")!.look).toContain("recapped");
    expect(list.find((i) => i.id === "types")!.look).toContain("V6 GZ34");
    expect(outputSets(load("picture-house"))).toEqual([
      ["V4", "V5"],
      ["V6", "V7"],
    ]);
  });
});

describe("what the brief allows", () => {
  const brief = (order: string[], mustNotChange?: string) => ({ order: order as never, mustNotChange });
  test("dangers are dealt with, what is changed for good asks where originality comes first", () => {
    expect(briefAllows(brief(["reliability"]), "replace it", "C1", "fault").brief).toBe("allowed");
    expect(briefAllows(brief(["originality"]), "replace it", "C1", "fault").brief).toBe("ask");
    expect(briefAllows(brief(["originality"]), "clean and re-tension", "V1 socket", "watch").brief).toBe("allowed");
    expect(briefAllows(brief(["originality"]), "fit a new cord with strain relief", "mains cord", "danger").brief).toBe("allowed");
    expect(briefAllows(undefined, "replace it", "C1", "fault").brief).toBe("ask");
  });
  test("what must not be changed is asked for, by the brief's own words", () => {
    expect(briefAllows(brief(["reliability"], "The speakers and the knobs"), "replace the speaker", "cabinet", "fault")).toMatchObject({
      brief: "ask",
      why: expect.stringContaining("speakers"),
    });
    expect(briefAllows(brief(["reliability"], "The speakers and the knobs"), "replace it", "C1", "fault").brief).toBe("allowed");
    expect(
      briefAllows(brief(["originality"], "Nothing may be replaced without a paper trail"), "fit a new cord", "mains cord", "danger").brief,
    ).toBe("ask");
  });
});

describe("claims against dates", () => {
  const state = (...lines: Parameters<typeof tape>) => foldJob(tape(...lines));
  test("borne out, contradicted, nothing speaks for it", () => {
    const claim = { type: "claim", payload: { text: "All capacitors replaced", year: 2015 } } as const;
    const code = (place: string, code: string) => ({ type: "date-code", payload: { place, code } }) as const;
    expect(checkClaims(state([0, claim]))).toMatchObject([
      { says: "no evidence", look: expect.stringContaining("the capacitors against 2015") },
    ]);
    expect(checkClaims(state([0, claim], [1, code("filter capacitor", "1961")]))).toMatchObject([{ says: "contradicted" }]);
    expect(checkClaims(state([0, claim], [1, code("filter capacitor", "22/14")]))).toMatchObject([{ says: "confirmed" }]);
    // A speaker's date says nothing of the capacitors.
    expect(checkClaims(state([0, claim], [1, code("speaker", "1961")]))[0]!.says).toBe("no evidence");
    const found = {
      type: "finding",
      payload: { station: "look", place: "C6", text: "new solder, modern film type", severity: "note", brief: "allowed" },
    } as const;
    expect(checkClaims(state([0, claim], [1, found]))).toMatchObject([{ says: "confirmed" }]);
  });
});
