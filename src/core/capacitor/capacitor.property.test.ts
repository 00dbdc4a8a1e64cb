/** Properties that no code of this room has a hand in: nodal analysis by hand, a simple stop watch, a file written and read back. */

import fc from "fast-check";
import { alter } from "../circuit/alter";
import { findElement } from "../circuit/circuit";
import { readCircuit } from "../circuit/read";
import { writeCircuit } from "../circuit/write";
import { foldJob } from "../tape/fold";
import type { EventDraft } from "../tape/events/event";
import { at, tape } from "../tape/tape-for-tests";
import { circuitOf } from "../solver/circuits-for-tests";
import { leakFromGrid } from "./coupling-leak";
import { leakageLimit } from "./leakage-limit";
import { fittedSet } from "./kit";
import { secondsUnder } from "./reform-run";
import { metered } from "./reform-judge";

const volts = fc.double({ min: 50, max: 500, noNaN: true });
const ohms = (low: number, high: number) => fc.double({ min: Math.log(low), max: Math.log(high), noNaN: true }).map(Math.exp);

test("a leak comes back from the volts that it puts on a grid, whatever the meter and what the grid rests at", () => {
  fc.assert(
    fc.property(
      volts,
      ohms(1e4, 2e6),
      ohms(1e5, 1e9),
      ohms(1e6, 2e7),
      fc.double({ min: -60, max: 0, noNaN: true }),
      (v, rg, leak, rm, rest) => {
        // Three resistors meet at the grid: to the source, to what it rests at, and the meter to chassis.
        const grid = (v / leak + rest / rg) / (1 / leak + 1 / rg + 1 / rm);
        fc.pre(grid > rest + 1e-3);
        const found = leakFromGrid(v, rg, grid, rm, rest);
        expect(found.ohms / leak).toBeCloseTo(1, 3);
        expect(found.unloadedVolts).toBeCloseTo((v / leak + rest / rg) / (1 / leak + 1 / rg), 3);
      },
    ),
  );
});

test("more capacitance or more volts never allow less leakage", () => {
  const farads = fc.double({ min: 1e-7, max: 1e-3, noNaN: true });
  const year = fc.constantFrom(1950, 1990, 2020, undefined);
  fc.assert(
    fc.property(farads, volts, year, fc.double({ min: 1, max: 3, noNaN: true }), (c, v, y, more) => {
      const amps = (farads2: number, volts2: number) =>
        leakageLimit({ farads: farads2, volts: volts2, kind: "electrolytic", year: y }).amps;
      // The standard's two formulas meet at 1000 µC, in 50 µA.
      expect(amps(c * more, v)).toBeGreaterThanOrEqual(amps(c, v) - 1e-15);
      expect(amps(c, v * more)).toBeGreaterThanOrEqual(amps(c, v) - 1e-15);
    }),
  );
});

test("what the meter shows of a leak through the series resistor is Ohm's law", () => {
  fc.assert(
    fc.property(volts, ohms(1e3, 1e5), ohms(1e4, 1e8), (supply, series, leak) => {
      // The leak alone across the supply, and the same leak behind the resistor.
      expect(metered(supply / leak, series, supply)).toBeCloseTo(supply / (leak + series), 9);
    }),
  );
});

test("the time under voltage is that of a stop watch started and stopped by the turns, whatever their order", () => {
  const turn = fc.record({ wait: fc.integer({ min: 1, max: 40_000 }), what: fc.constantFrom("step", "paused", "resumed") });
  fc.assert(
    fc.property(fc.array(turn, { maxLength: 12 }), fc.integer({ min: 0, max: 40_000 }), (turns, after) => {
      let [clock, on, watch] = [0, true, 0];
      const drafts: [number, EventDraft][] = [
        [
          0,
          {
            type: "reform-begun",
            payload: {
              parts: [{ part: "C1", farads: 1e-5, rated: 450, target: 400, limit: 1e-3 }],
              ohms: 1e4,
              steps: [100],
              dwellMinutes: 10,
              lifted: true,
            },
          },
        ],
      ];
      for (const { wait, what } of turns) {
        clock += wait;
        if (on) watch += wait;
        on = what !== "paused";
        drafts.push([clock, { type: "reform-turn", payload: { reform: 1, what: what as "step", supply: 100 } }]);
      }
      if (on) watch += after;
      expect(secondsUnder(foldJob(tape(...drafts)).reforms[0]!, at(clock + after))).toBeCloseTo(watch, 6);
    }),
  );
});

test("a fitted part's value and ratings stand in the file that is written and read back", () => {
  const circuit = circuitOf("VB b 0 300", "C1 b 0 32u ;@volts 450 @kind electrolytic @section can1 @year 1959", "R1 b 0 100k");
  const offer = fc.record({
    farads: fc.double({ min: 1e-11, max: 1e-3, noNaN: true }),
    volts: fc.integer({ min: 10, max: 2000 }),
    kind: fc.constantFrom("electrolytic", "polypropylene", "metal-film"),
  });
  fc.assert(
    fc.property(offer, fc.integer({ min: 2000, max: 2060 }), (made, year) => {
      const { circuit: again, errors } = readCircuit(writeCircuit(alter(circuit, fittedSet("C1", made, year))));
      expect(errors).toEqual([]);
      const part = findElement(again, "C1")!;
      expect(part.value! / made.farads).toBeCloseTo(1, 9);
      expect(part.notes).toEqual({ volts: made.volts, kind: made.kind, year, section: "can1" });
    }),
  );
});
