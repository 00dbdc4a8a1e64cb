import { cannotReach, goTo, pointAfter, pointsLeft, skipHere, startProbeWalk, stepBack, takeHere, type ProbeWalk } from "./probe-walk";
import { uniformDraws } from "../numeric/random";

const ORDER = ["A", "B", "C", "D"];
const run = (walk: ProbeWalk, ...steps: ((w: ProbeWalk) => ProbeWalk)[]) => steps.reduce((w, step) => step(w), walk);

test("readings lead from the first point to the end", () => {
  let walk = startProbeWalk(ORDER);
  const seen: string[] = [];
  while (walk.here !== undefined) {
    seen.push(walk.here);
    walk = takeHere(walk);
  }
  expect(seen).toEqual(ORDER);
  expect(walk.taken).toEqual(ORDER);
});

test("what was taken before an interruption is not asked for again", () => {
  const walk = startProbeWalk(ORDER, ["A", "C", "Z"]);
  expect(walk.here).toBe("B");
  expect(takeHere(walk).here).toBe("D");
  expect(startProbeWalk(ORDER, ORDER).here).toBeUndefined();
});

test("a skipped point comes again at the end, and skipped again it is left", () => {
  const walk = run(startProbeWalk(ORDER), takeHere, skipHere, takeHere, takeHere);
  expect(walk.here).toBe("B");
  expect(pointAfter(walk)).toBeUndefined();
  expect(run(walk, takeHere).here).toBeUndefined();
  const left = run(walk, skipHere);
  expect(left.here).toBeUndefined();
  expect(left.unreachable).toEqual(["B"]);
});

test("a point that cannot be reached is not offered again; back brings it back", () => {
  const walk = run(startProbeWalk(ORDER), takeHere, cannotReach);
  expect(walk.here).toBe("C");
  expect(pointsLeft(walk)).toEqual(["C", "D"]);
  const back = stepBack(walk);
  expect(back.here).toBe("B");
  expect(back.unreachable).toEqual([]);
  expect(run(back, takeHere).here).toBe("C");
});

test("back to a reading and taken again: the walk goes on where it was", () => {
  const walk = run(startProbeWalk(ORDER), takeHere, takeHere, stepBack);
  expect(walk.here).toBe("B");
  expect(run(walk, takeHere).here).toBe("C");
  expect(stepBack(startProbeWalk(ORDER)).here).toBe("A");
});

test("another order of things may send the probe anywhere", () => {
  const walk = goTo(startProbeWalk(ORDER), "D");
  expect(takeHere(walk).here).toBe("A");
  expect(goTo(walk, undefined).here).toBeUndefined();
});

test("whatever keys are pressed, every point ends up taken, left, or still offered", () => {
  for (let seed = 1; seed <= 200; seed++) {
    const draw = uniformDraws(seed);
    let walk = startProbeWalk(ORDER);
    for (let k = 0; k < 30 && walk.here !== undefined; k++) {
      const step = [takeHere, takeHere, skipHere, cannotReach, stepBack][Math.floor(draw() * 5)]!;
      walk = step(walk);
      const places = [...walk.taken, ...walk.unreachable, ...pointsLeft(walk)];
      expect(new Set(places)).toEqual(new Set(ORDER));
      if (walk.here !== undefined) expect(ORDER).toContain(walk.here);
      else expect(pointsLeft(walk)).toEqual([]);
    }
  }
});
