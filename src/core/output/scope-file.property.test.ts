/** An oscilloscope's file however it was written: separators, decimal commas, line ends, headers, an offset, other columns. */

import fc from "fast-check";
import { readScope } from "./scope-file";

const shape = fc.record({
  separator: fc.constantFrom(",", ";", "\t", "  "),
  comma: fc.boolean(),
  end: fc.constantFrom("\n", "\r\n"),
  head: fc.constantFrom("", "Time,Volts\n", "# export\n\nx-axis;1\nsecond;Volt\n"),
  exponent: fc.boolean(),
  extra: fc.boolean(),
  hertz: fc.double({ min: 40, max: 4000, noNaN: true }),
  periods: fc.integer({ min: 2, max: 12 }),
  volts: fc.double({ min: 0.5, max: 60, noNaN: true }),
  third: fc.double({ min: 0, max: 0.3, noNaN: true }),
  offset: fc.double({ min: -2, max: 2, noNaN: true }),
});

test("frequency, offset and the third harmonic are those that were put in", () => {
  fc.assert(
    fc.property(shape, ({ separator, comma, end, head, exponent, extra, hertz, periods, volts, third, offset }) => {
      // A decimal comma beside commas as separators is no file that anything writes.
      const decimal = comma && (separator === ";" || separator === "\t");
      const number = (x: number) => (exponent ? x.toExponential(7) : x.toFixed(9)).replace(".", decimal ? "," : ".");
      const n = 2000;
      const rows = Array.from({ length: n }, (_, i) => {
        const t = (i / n) * (periods / hertz) * 1.003;
        const angle = 2 * Math.PI * hertz * t;
        const v = offset + volts * (Math.sin(angle) + third * Math.sin(3 * angle));
        return [number(t), number(v), ...(extra ? [number(7 * v)] : [])].join(separator);
      });
      const read = readScope(head.replaceAll("\n", end) + rows.join(end) + end);
      expect(read).toMatchObject({ ok: true });
      if (!read.ok) return;
      expect(read.wave.hertz / hertz).toBeCloseTo(1, 2);
      expect(Math.abs(read.wave.offset - offset) / volts).toBeLessThan(0.02);
      const [first, , ninth] = read.wave.figures.harmonics;
      expect(first! / volts).toBeCloseTo(1, 1);
      expect(Math.abs(ninth! / first! - third)).toBeLessThan(0.02);
    }),
    { numRuns: 60, seed: 3 },
  );
});

test.each([
  ["nothing", ""],
  ["a picture's first bytes", "\u0089PNG\r\n\u001a\n"],
  ["a list without figures", "a,b\n".repeat(100)],
  ["figures that stand still", "0,1\n".repeat(100)],
  ["a flat line", Array.from({ length: 200 }, (_, i) => `${i},3.3`).join("\n")],
  ["time that runs back", Array.from({ length: 200 }, (_, i) => `${200 - i},${Math.sin(i)}`).join("\n")],
])("%s is refused with what is accepted", (_, text) => {
  const read = readScope(text);
  expect(read.ok).toBe(false);
  expect(!read.ok && read.why.length > 10 && read.accepted.length > 10).toBe(true);
});
