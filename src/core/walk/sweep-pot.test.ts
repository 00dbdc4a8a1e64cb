import { wiperShare } from "../circuit/taper";
import { judgeTubeTest } from "../tubes/judge-test";
import { findTubeType } from "../tubes/library";
import { judgeSweep } from "./sweep-pot";

const turns = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
const track = (law: string, total = 1e6, change: (turn: number, ohms: number) => number = (_, o) => o) =>
  turns.map((turn) => ({ turn, ohms: change(turn, wiperShare(law, turn) * total) }));

describe("a pot swept from end to end", () => {
  test.each(["linear", "audio", "reverse"])("%s is told from the others, sound", (law) => {
    expect(judgeSweep(track(law), 1e6, 1e6, law as "linear")).toMatchObject({ law, verdict: "in", says: [], dead: [], jumps: [] });
  });
  test("ten percent of the maker's own bend is still that law", () => {
    const bent = track("audio", 1e6, (t, o) => o * (1 + 0.1 * Math.sin(2 * Math.PI * t)));
    expect(judgeSweep(bent, 1e6)).toMatchObject({ law: "audio", verdict: "in" });
  });
  test("a dead zone, and the quiet end of an audio track is none", () => {
    const dead = track("linear", 1e6, (t, o) => (t >= 0.4 && t <= 0.6 ? 0.4e6 : o));
    expect(judgeSweep(dead, 1e6).dead).toEqual([[0.4, 0.6]]);
    expect(judgeSweep(dead, 1e6).verdict).toBe("out");
    expect(judgeSweep(track("audio"), 1e6).dead).toEqual([]);
  });
  test("a jump, an end that is not reached, the wrong law, a drifted track", () => {
    const jump = track("linear", 1e6, (t, o) => (t > 0.5 ? Math.min(1e6, o + 0.3e6) : o));
    expect(judgeSweep(jump, 1e6)).toMatchObject({ verdict: "out", jumps: [{ from: 0.5, to: 0.6 }] });
    expect(
      judgeSweep(
        track("linear", 1e6, (_, o) => Math.max(o, 50e3)),
        1e6,
      ).says.join(),
    ).toContain("does not reach its end");
    expect(judgeSweep(track("linear"), 1e6, 1e6, "audio").says.join()).toContain("linear where the circuit has audio");
    expect(judgeSweep(track("linear", 1.5e6), 1.5e6, 1e6).says.join()).toContain("150 %");
  });
  test("what cannot be judged is refused with what was read", () => {
    expect(() => judgeSweep([{ turn: 0, ohms: 0 }], 1e6)).toThrow(/three points/);
    expect(() => judgeSweep([...track("linear"), { turn: 3, ohms: 5 }], 1e6)).toThrow(/300 %/);
    expect(() => judgeSweep(track("linear"), 0)).toThrow(/end to end/);
  });
});

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
  });
  test("a short ends it, whatever else was read; a swap decides by the amp", () => {
    expect(judgeTubeTest({ method: "transconductance", percent: 100, shorts: "heater–cathode" }, el34).verdict).toBe("out");
    expect(judgeTubeTest({ method: "substitution", swap: "better" })).toMatchObject({ verdict: "out" });
    expect(judgeTubeTest({ method: "substitution", swap: "the same" })).toMatchObject({ verdict: "in" });
    expect(judgeTubeTest({ method: "shorts only", shorts: "" })).toMatchObject({ verdict: "watch" });
  });
});
