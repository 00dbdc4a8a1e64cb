import { huntNext, type Hunted, type HuntRanking } from "./hunt";

const hunted: Hunted = { order: ["B1", "V2.g", "V2.k"], taken: [], skipped: [], unreachable: [] };
const next = (point: string, gainBits = 0.5, kind: "dcv" | "ohm" = "dcv") => ({ point, kind, gainBits, why: `because of ${point}` });
const ranking = (more: Partial<HuntRanking> = {}): HuntRanking => ({
  suspects: [{ refs: ["C6"], group: ["C6 leaky"], groupProbability: 0.5 }],
  next: [next("R7", 0.9, "ohm"), next("V2.g"), next("B1")],
  recheck: [],
  ...more,
});
const found = (group: string[]): HuntRanking["suspects"] => [{ refs: ["C6"], group, groupProbability: 0.95 }];

test("the first point for the probe, with its reason; what wants the power off is passed over", () => {
  expect(huntNext(ranking(), hunted, 2)).toEqual({ point: "V2.g", why: "because of V2.g" });
  expect(huntNext(ranking({ next: [next("R7", 0.9, "ohm")] }), hunted, 2)).toBeUndefined();
});

test("points that were skipped, cannot be reached or gave nothing are not asked for again", () => {
  expect(huntNext(ranking(), { ...hunted, skipped: ["V2.g"] }, 2)!.point).toBe("B1");
  expect(huntNext(ranking(), { ...hunted, unreachable: ["V2.g"], taken: ["B1"] }, 2)).toBeUndefined();
});

test("a reading that fits nothing comes first, though it was taken; not when it cannot be reached", () => {
  expect(huntNext(ranking({ recheck: ["B1"] }), { ...hunted, taken: ["B1"] }, 3)!.point).toBe("B1");
  expect(huntNext(ranking({ recheck: ["B1"] }), { ...hunted, taken: ["B1"], unreachable: ["B1"] }, 3)!.point).toBe("V2.g");
});

test("one fault that holds enough ends it; a group does not while a point would split it", () => {
  expect(huntNext(ranking({ suspects: found(["C6 leaky"]) }), hunted, 3)).toBeUndefined();
  expect(huntNext(ranking({ suspects: found(["C6 leaky", "V2 gassy"]) }), hunted, 3)!.point).toBe("V2.g");
  expect(huntNext(ranking({ suspects: found(["C6 leaky", "V2 gassy"]), next: [next("V2.g", 0.1)] }), hunted, 3)).toBeUndefined();
});

test("the priors alone end nothing, nor does a sound amp before every telling point is read", () => {
  expect(huntNext(ranking({ suspects: found(["C6 leaky"]) }), hunted, 0)!.point).toBe("V2.g");
  const sound = [{ refs: [], group: ["nothing wrong"], groupProbability: 0.97 }];
  expect(huntNext(ranking({ suspects: sound }), hunted, 5)!.point).toBe("V2.g");
});
