import { circuitOf, demoAmp, AMPS } from "./circuits-for-tests";
import { alter } from "../circuit/alter";
import { compile } from "./compile";
import { operatingPoint } from "./operating-point";
import { growingModes } from "./stability";
import { sine, transient } from "./transient";
import { parasiticDoubt, limitCycleOf } from "./limit-cycle";

describe("natural modes decide whether an operating point holds", () => {
  test("hand-worked: one RC falls, a gain of two round it grows with (A − 1)/RC", () => {
    // An amplifier of gain 2 drives its own input through 1 kΩ into 1 µF: s = (2 − 1)/(1 kΩ·1 µF) = 1000 per second, without turning.
    const loop = circuitOf(
      "V1 v 0 0.001",
      "R0 v in 1MEG",
      "XU1 in fb out OPAMP gain=100k vmax=13",
      "R1 out fb 1k",
      "R2 fb 0 1k",
      "R3 out in 1k",
      "C1 in 0 1u",
    );
    const modes = growingModes(operatingPoint(loop));
    expect(modes).toHaveLength(1);
    expect(modes[0]!.growth).toBeGreaterThan(950);
    expect(modes[0]!.growth).toBeLessThan(1050);
    expect(modes[0]!.hertz).toBeLessThan(1);
    expect(growingModes(operatingPoint(circuitOf("V1 v 0 1", "R1 v a 1k", "C1 a 0 1u")))).toEqual([]);
  });
  test.each(AMPS)("%s as shipped comes to rest", (amp) => {
    expect(limitCycleOf(operatingPoint(demoAmp(amp)))).toBeUndefined();
  });
  test("a tremolo that runs turns a few times a second", () => {
    const modes = growingModes(operatingPoint(alter(demoAmp("lantern-15"), ["S1=open"])));
    expect(modes.some((m) => m.hertz > 2 && m.hertz < 12)).toBe(true);
  });
});

describe("an ultralinear amp with a direct-coupled long-tailed pair and feedback", () => {
  const amp = (feedback: string) =>
    circuitOf(
      ...[
        "*@mains 230 50",
        "XPS b1 0 RECT_BRIDGE vac=330 rs=35",
        "C1 b1 0 100u",
        "R1 b1 b2 10k",
        "C2 b2 0 47u",
        "R2 b2 b3 22k",
        "C3 b3 0 47u",
      ],
      ...["V9 0 bias 48", "XT1 p2 b1 p1 u2 u1 out 0 OPT_PP zpp=5000 load=8 dcr=60 ul=0.43 lp=80", "R50 out 0 8", "XV3 p1 s1 g3 k3 KT88"],
      ...[
        "XV4 p2 s2 g4 k4 KT88",
        "R3 k3 0 10",
        "R4 k4 0 10",
        "R5 u1 s1 220",
        "R6 u2 s2 220",
        "R7 bias gb 1k",
        "R8 gb g3 100k",
        "R9 gb g4 100k",
      ],
      ...[
        "C4 pa g3 220n",
        "C5 pb g4 220n",
        "XV2A pa g2 kt 12AU7",
        "XV2B pb g2b kt 12AU7",
        "R10 b2 pa 33k",
        "R11 b2 pb 36k",
        "R12 kt 0 15k",
      ],
      ...["R13 p0 g2b 1MEG", "C6 g2b 0 220n", "R14 p0 g2 100", "XV1A p0 g1 k1 12AX7", "R15 b3 p0 220k", "R16 k1 fb 1.2k", "R17 fb 0 100"],
      ...[`R18 out fb ${feedback}`, "R19 g1 0 1MEG"],
    );
  test.each(["10meg", "4.7k", "2.2k", "1k"])(
    "feedback through %s: it is not called unstable, and ten milliseconds of a tone take few steps",
    (feedback) => {
      const circuit = amp(feedback);
      const op = operatingPoint(circuit);
      expect(limitCycleOf(op)).toBeUndefined();
      const network = compile(circuit);
      const run = transient(network, {
        start: op.x,
        stop: 0.01,
        drive: sine(network.index.get("g1")!, 0.1, 1000),
        keep: [network.index.get("out")!],
      });
      expect(run.finished).toBe(true);
      expect(run.steps).toBeLessThan(5000);
      expect(Math.max(...run.v[0]!)).toBeGreaterThan(0.5);
    },
  );
  test("the speaker's leads the wrong way round: it does not hold", () => {
    const wrong = circuitOf(
      "V1 v 0 0.001",
      "R0 v in 1MEG",
      "XU1 in fb out OPAMP gain=100k vmax=13",
      "R1 out fb 1k",
      "R2 fb 0 1k",
      "R3 out in 1k",
      "C1 in 0 1u",
    );
    expect(limitCycleOf(operatingPoint(wrong))).toBeDefined();
  });
  test("what would only sing far above the drawing's reach is said, not taken for the amp", () => {
    const said = parasiticDoubt(operatingPoint(amp("330")));
    expect(said === undefined || /oscillate at about \d+ kHz/.test(said)).toBe(true);
  });
});
