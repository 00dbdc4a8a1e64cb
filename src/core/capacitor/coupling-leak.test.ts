import { eitherOf, gridShift, judgeLeak, leakOhms } from "./coupling-leak";

describe("leakage with a leg lifted", () => {
  test("hand-worked: 2 V of 200 V through a 10 MΩ meter is 990 MΩ", () => {
    expect(leakOhms(200, 2)).toBeCloseTo(990e6, 0);
    expect(leakOhms(200, 0)).toBe(Infinity);
    expect(() => leakOhms(200, 210)).toThrow(/between 0 and the 200 V/);
    expect(gridShift(200, 220e3, 14e6)).toBeCloseTo((200 * 220e3) / (220e3 + 14e6), 9);
  });
  test("the verdict is by what it does to the grid", () => {
    expect(judgeLeak(200, 0.5, 1e6)).toMatchObject({ verdict: "in" });
    expect(judgeLeak(200, 20, 220e3)).toMatchObject({ verdict: "watch" });
    expect(judgeLeak(200, 80, 470e3)).toMatchObject({ verdict: "out" });
  });
  test("in circuit the same volts follow from a leak or from grid current", () => {
    const { leakOhms: leak, gridMicroamps } = eitherOf(200, 220e3, 2);
    expect(leak).toBeCloseTo(21.78e6, -4);
    expect(gridMicroamps).toBeCloseTo(9.09, 2);
  });
});
