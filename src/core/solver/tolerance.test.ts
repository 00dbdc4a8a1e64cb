import { circuitOf, demoAmp } from "./circuits-for-tests";
import { compile } from "./compile";
import { operatingPoint, solveOperatingPoint } from "./operating-point";
import { knobsOf, monteCarlo, sensitivities, toleranceOf } from "./tolerance";

test("a divider's spread is that of its resistors", () => {
  const circuit = circuitOf("V1 in 0 100", "R1 in a 10k ;@tol 10%", "R2 a 0 10k ;@tol 10%", "*@point A node=a");
  const { bands, failed } = monteCarlo(circuit, { draws: 4000, meterOhms: Infinity });
  // dV/V = (dR2 − dR1)/2 with one sigma of 10 %/√3 each.
  const sigma = 50 * Math.SQRT1_2 * (0.1 / Math.sqrt(3));
  expect(failed).toBe(0);
  expect(bands.get("A")!.nominal).toBeCloseTo(50, 9);
  expect(Math.abs(bands.get("A")!.sigma / sigma - 1)).toBeLessThan(0.05);
  expect(Math.abs((bands.get("A")!.high - bands.get("A")!.low) / (2 * 1.96 * sigma) - 1)).toBeLessThan(0.06);
});
test("sensitivities are those of small differences", () => {
  const network = compile(demoAmp("wren-5"));
  const op = solveOperatingPoint(network);
  const knobs = knobsOf(network);
  const nodes = ["b1", "k2", "p1b"];
  const rows = sensitivities(op, nodes, knobs);
  knobs.forEach((knob, column) => {
    knob.turn(1.001);
    const moved = solveOperatingPoint(network, op.x);
    knob.turn(1);
    nodes.forEach((node, row) => {
      const difference = (moved.x[network.index.get(node)!]! - op.x[network.index.get(node)!]!) / 0.001;
      expect(Math.abs(difference - rows[row]![column]!)).toBeLessThan(0.01 * Math.abs(difference) + 0.02);
    });
  });
});
test("the spread by sensitivities and by draws agree", () => {
  const circuit = demoAmp("wren-5");
  const { bands } = monteCarlo(circuit, { draws: 1500 });
  const op = operatingPoint(circuit);
  const knobs = knobsOf(op.network);
  const points = circuit.points.filter((p) => p.name !== "V2.g");
  sensitivities(
    op,
    points.map((p) => p.node),
    knobs,
  ).forEach((row, i) => {
    const sigma = Math.sqrt(row.reduce((sum, s, k) => sum + (s * knobs[k]!.sigma) ** 2, 0));
    expect(Math.abs(bands.get(points[i]!.name)!.sigma / sigma - 1)).toBeLessThan(0.15);
  });
});
test("an assumed part widens the band; the same seed gives the same band", () => {
  const lines = ["V1 in 0 100", "R1 in a 10k ;@tol 5%", "*@point A node=a"];
  const seen = circuitOf(...lines, "R2 a 0 10k ;@tol 5%");
  const assumed = circuitOf(...lines, "R2 a 0 10k ;@tol 5% @prov assumed");
  expect(toleranceOf(assumed.elements[2]!)).toBeGreaterThan(toleranceOf(seen.elements[2]!));
  const width = (c: typeof seen) => monteCarlo(c, { draws: 300 }).bands.get("A")!.sigma;
  expect(width(assumed)).toBeGreaterThan(2 * width(seen));
  expect(width(seen)).toBe(width(seen));
});
test("a run of draws can be stopped", () => {
  expect(monteCarlo(demoAmp("wren-5"), { draws: 1000, progress: (part) => part < 0.1 }).draws).toBeLessThan(150);
});
