import { wiperShare } from "../circuit/taper";
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
