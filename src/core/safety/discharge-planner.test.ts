import { readFileSync } from "node:fs";
import { readCircuit } from "../circuit/read";
import { planDischarge } from "./discharge-planner";
import { reservoirsOf } from "../supply/reservoirs";

const halberd = readCircuit(readFileSync("demo/amps/halberd-120.cir", "utf8")).circuit;
const reservoirs = reservoirsOf(halberd);
const volts: Record<string, number> = { C1: 242, C2: 241, C3: 480, C4: 390, C5: 320, C20: -83, C21: -57 };
const full = reservoirs.map((r) => volts[r.name]!);
const plan = (tool: { ohms: number; watts?: number }, seconds: number, now = full) =>
  planDischarge(halberd, reservoirs, now, full, tool, 10, seconds)!;

describe("the Halberd's plan", () => {
  test("hand-worked: both reservoirs in series, the screens' and the preamp's cans: 21.8 J at 483 V", () => {
    // ½·200 µ·(242² + 241²) + ½·50 µ·480² + ½·32 µ·(390² + 320²) + the bias cans' 0.2 J.
    const joules =
      0.5 * (200e-6 * (242 ** 2 + 241 ** 2) + 50e-6 * 480 ** 2 + 32e-6 * (390 ** 2 + 320 ** 2) + 50e-6 * 83 ** 2 + 25e-6 * 57 ** 2);
    const p = plan({ ohms: 2200, watts: 10 }, 10);
    expect(p.joules).toBeCloseTo(joules, 6);
    // From the top of the two in series to chassis, not from either alone.
    expect(p.highest).toBeCloseTo(483, 6);
    expect(p.doubts).toMatchObject([{ refuse: false, says: expect.stringContaining("Take 15 W") }]);
  });
  test("the tool is judged at full charge, however low the amp has fallen; the sequence is for now", () => {
    const low = plan(
      { ohms: 2200, watts: 10 },
      10,
      full.map((v) => v / 10),
    );
    expect(low.doubts).toEqual(plan({ ohms: 2200, watts: 10 }, 10).doubts);
    expect(low.sequence.joules).toBeLessThan(plan({ ohms: 2200, watts: 10 }, 10).sequence.joules / 50);
  });
  test("a tool that is through in the time asked, through the droppers, where that can be had", () => {
    const ten = plan({ ohms: 2200 }, 10);
    expect(ten.sizedSeconds).toBeLessThanOrEqual(10);
    expect(ten.sized!.plan.peakAmps).toBeLessThanOrEqual(0.4);
    expect(ten.sized!.why).toBe("the largest resistor that discharges everything within 10 s through the dropper resistors");
    // In one second the droppers let it through by no tool that does not spark.
    const one = plan({ ohms: 2200 }, 1);
    expect(one.sizedSeconds).toBeGreaterThan(1);
    expect(one.sized!.plan.peakAmps).toBeLessThanOrEqual(0.4);
    expect(one.sized!.why).not.toContain("within 1 s");
  });
  test("nothing above the safe voltage: no plan", () => {
    expect(
      planDischarge(
        halberd,
        reservoirs,
        full,
        full.map(() => 3),
        { ohms: 2200 },
        10,
        10,
      ),
    ).toBeUndefined();
  });
});
