import { circuitOf, demoAmp } from "../solver/circuits-for-tests";
import { operatingPoint } from "../solver/operating-point";
import { figuresIn, hasSpice, runSpice } from "../solver/spice-for-tests";
import { capacitorStresses, rippleCurrents } from "./stress";

const onlyWithSpice = hasSpice() ? test : test.skip;

/** A bridge into 47 µF, 1 kΩ, 47 µF and a load, once for the engine and once by hand for a general SPICE. */
const CIRCUIT = [
  "*@mains 230 50",
  "XPS b1 0 RECT_BRIDGE vac=250 rs=60 tube=silicon",
  "C1 b1 0 47u",
  "R1 b1 b2 1k",
  "C2 b2 0 47u",
  "R2 b2 0 5k",
];
const DECK = `bridge
VA a 0 SIN(0 353.5534 50)
RA a a1 60
D1 a1 b1 DX
VB c 0 SIN(0 -353.5534 50)
RB c c1 60
D2 c1 b1 DX
V1 b1 x1 0
C1 x1 0 47u IC=300
R1 b1 b2 1k
V2 b2 x2 0
C2 x2 0 47u IC=250
R2 b2 0 5k
.model DX D(IS=1e-9 N=1.8 RS=0.01)
.tran 20u 1.2 1.0 20u UIC
.end
`;

onlyWithSpice("ripple currents of both filter capacitors as a general SPICE steps them, within 6 %", () => {
  const spice = figuresIn(runSpice(DECK, ["run", "meas tran c1 RMS i(v1) from=1.0 to=1.2", "meas tran c2 RMS i(v2) from=1.0 to=1.2"]));
  const ours = rippleCurrents(operatingPoint(circuitOf(...CIRCUIT), { mains: 230 }));
  expect(ours.get("C1")! / spice.get("c1")!).toBeGreaterThan(0.94);
  expect(ours.get("C1")! / spice.get("c1")!).toBeLessThan(1.06);
  expect(ours.get("C2")! / spice.get("c2")!).toBeGreaterThan(0.94);
  expect(ours.get("C2")! / spice.get("c2")!).toBeLessThan(1.06);
});

test("unloaded a rail stands at its winding's peak, and a coupling capacitor sees its whole rail while the tubes are cold", () => {
  const drover = capacitorStresses(demoAmp("drover-40"), 230);
  // √2·325 = 460 V, a tenth more 506 V.
  expect(drover.get("C1")!.unloaded).toBeCloseTo(460, 0);
  expect(drover.get("C1")!.highUnloaded).toBeCloseTo(506, 0);
  expect(drover.get("C1")!.loaded).toBeLessThan(440);
  // 500 V rated: over at high mains.
  expect(drover.get("C1")!.worst).toBeGreaterThan(500);
  const coupling = drover.get("C9")!;
  expect(coupling.unloaded).toBeGreaterThan(1.5 * coupling.loaded);
});

test("an electrolytic in backwards is seen; the bias supply's, plus at chassis, is not taken for one", () => {
  const amp = demoAmp("drover-40");
  expect([...capacitorStresses(amp, 230).values()].filter((s) => s.backwards)).toEqual([]);
  const turned = { ...amp, elements: amp.elements.map((e) => (e.name === "C21" ? { ...e, nodes: [...e.nodes].reverse() } : e)) };
  expect([...capacitorStresses(turned, 230).values()].filter((s) => s.backwards).map((s) => s.part)).toEqual(["C21"]);
});
