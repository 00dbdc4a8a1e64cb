import { judgeTubeTest } from "./judge-test";
import { findTubeType } from "./library";

describe("a tube test", () => {
  const el34 = findTubeType("EL34");
  test("transconductance against new and reject: 11 mA/V new, 7.15 reject", () => {
    expect(judgeTubeTest({ method: "transconductance", gm: 10.5 }, el34)).toMatchObject({
      verdict: "in",
      percent: expect.closeTo(95.45, 1),
    });
    expect(judgeTubeTest({ method: "transconductance", gm: 8 }, el34)).toMatchObject({ verdict: "watch" });
    expect(judgeTubeTest({ method: "transconductance", gm: 7 }, el34)).toMatchObject({
      verdict: "out",
      why: expect.stringContaining("reject 7.2"),
    });
    expect(judgeTubeTest({ method: "transconductance", percent: 64 })).toMatchObject({ verdict: "out" });
  });
  test("emission condemns, it never clears", () => {
    expect(judgeTubeTest({ method: "emission", percent: 110 }, el34).verdict).toBe("watch");
    expect(judgeTubeTest({ method: "emission", percent: 30 }, el34).verdict).toBe("out");
    // Of a rectifier nothing else is asked.
    expect(judgeTubeTest({ method: "emission", percent: 92 }, findTubeType("GZ34")).verdict).toBe("in");
    expect(judgeTubeTest({ method: "emission", percent: 70 }, findTubeType("GZ34")).verdict).toBe("watch");
  });
  test("a short ends it, whatever else was read; a swap decides by the amp", () => {
    expect(judgeTubeTest({ method: "transconductance", percent: 100, shorts: "heater–cathode" }, el34).verdict).toBe("out");
    expect(judgeTubeTest({ method: "substitution", swap: "better" })).toMatchObject({ verdict: "out" });
    expect(judgeTubeTest({ method: "substitution", swap: "the same" })).toMatchObject({ verdict: "in" });
    expect(judgeTubeTest({ method: "shorts only", shorts: "" })).toMatchObject({ verdict: "watch" });
  });
});
