import { findTubeType, screenShare, TUBE_TYPES } from "./library";

describe("the tube library", () => {
  test("names and aliases are used once, whatever their case", () => {
    const names = TUBE_TYPES.flatMap((t) => [t.type, ...t.aliases]).map((n) => n.toUpperCase());
    expect(new Set(names).size).toBe(names.length);
    expect(findTubeType("ecc83")?.type).toBe("12AX7");
    expect(findTubeType("5ar4")?.type).toBe("GZ34");
    expect(findTubeType("constructor")).toBeUndefined();
  });

  test.each(TUBE_TYPES.filter((t) => t.kind !== "rectifier").map((t) => [t.type, t] as const))(
    "%s: the typical point lies within the ratings",
    (_, t) => {
      const { va, ia, vg2 = 0, ig2 = 0 } = t.typical!;
      // Class A points of the sheets run up to the plate rating itself.
      expect(va * ia * 1e-3).toBeLessThanOrEqual(t.ratings!.plateWatts * 1.001);
      expect(vg2 * ig2 * 1e-3).toBeLessThanOrEqual(t.ratings!.screenWatts ?? Infinity);
      expect(va).toBeLessThanOrEqual(t.ratings!.plateVolts);
      expect(t.typical!.vg).toBeLessThan(0);
    },
  );

  test.each(TUBE_TYPES.map((t) => [t.type, t] as const))("%s: no two electrodes share a pin, and every pin is on the base", (_, t) => {
    const pins = t.pins.flatMap((section) => Object.values(section));
    expect(new Set(pins).size).toBe(pins.length);
    for (const pin of pins) expect(pin).toBeGreaterThanOrEqual(1);
    for (const pin of pins) expect(pin).toBeLessThanOrEqual(9);
    const wanted =
      t.kind === "triode" ? ["cathode", "grid", "plate"] : t.kind === "pentode" ? ["cathode", "grid", "plate", "screen"] : undefined;
    if (wanted) for (const section of t.pins) expect(Object.keys(section).sort()).toEqual(wanted);
  });

  test("the screen's share of the cathode current", () => {
    expect(screenShare(findTubeType("EL34")!)).toBeCloseTo(15 / 115, 12);
    expect(screenShare(findTubeType("12AX7")!)).toBe(0);
  });
});
