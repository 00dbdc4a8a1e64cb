/** Properties of the notes in a circuit file: whatever stands there is read or reported, and what is written is read back. */

import { readFileSync } from "node:fs";
import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { fields } from "./annotations";
import { readCircuit } from "./read";
import { writeCircuit } from "./write";

const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
const HEAD = "an amp\nR1 a 0 1k\nV1 a 0 10\n";
const keyword = fc.constantFrom("mains", "point", "stage", "heater", "near", "chart", "fact", "tube", "nonsense", "");
const value = fc.oneof(
  fc.constantFrom(
    "a",
    "b1",
    "230",
    "50",
    "1e999",
    "-3",
    "4k7",
    "µ",
    '"two words"',
    '"',
    "node=a",
    "order=x",
    "tol=10%",
    'label="x"',
    "kind=triode",
    "__proto__=1",
  ),
  fc.string({ maxLength: 12 }),
);

test("a note of any shape is read or reported by its line, never thrown at anybody", () => {
  fc.assert(
    fc.property(keyword, fc.array(value, { maxLength: 6 }), (word, rest) => {
      const text = `${HEAD}*@${word} ${rest.join(" ").replace(/[\r\n]/g, " ")}\n`;
      const { errors, warnings } = readCircuit(text);
      for (const e of [...errors, ...warnings]) {
        expect(e.line).toBeGreaterThan(0);
        expect(e.found.length).toBeGreaterThan(0);
        expect(e.expected.length).toBeGreaterThan(0);
      }
    }),
    { numRuns: 1500 },
  );
});

test("a file cut off anywhere is read as far as it goes", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: WREN.length }), (length) => {
      const { circuit } = readCircuit(WREN.slice(0, length));
      expect(circuit.elements.length).toBeLessThanOrEqual(readCircuit(WREN).circuit.elements.length);
    }),
    { numRuns: 60 },
  );
});

test("labels, pins and cautions of any text that a line can hold come back as they were written", () => {
  const text = fc.string({ minLength: 1, maxLength: 30 }).map((t) => t.replace(/["\r\n\0\u2028\u2029]/g, "").trim() || "x");
  const { circuit } = readCircuit(WREN);
  fc.assert(
    fc.property(text, text, text, (label, pin, caution) => {
      const points = circuit.points.map((p, i) => (i === 0 ? { ...p, label, pin, caution } : p));
      const back = readCircuit(writeCircuit({ ...circuit, points }));
      expect(back.errors).toEqual([]);
      expect(back.circuit.points[0]).toMatchObject({ label, pin, caution });
    }),
    { numRuns: 300 },
  );
});

test("words and pairs of a line: nothing of it is lost", () => {
  const name = fc.stringMatching(/^[a-z][a-z0-9-]{0,8}$/);
  const plain = fc.stringMatching(/^[A-Za-z0-9.+-]{1,8}$/);
  fc.assert(
    fc.property(
      fc.array(plain, { maxLength: 4 }),
      fc.uniqueArray(fc.tuple(name, plain), { maxLength: 4, selector: ([k]) => k }),
      (list, pairs) => {
        const read = fields([...list, ...pairs.map(([k, v]) => `${k}="${v}"`)].join(" "));
        expect(read.words).toEqual(list);
        expect([...read.pairs]).toEqual(pairs);
      },
    ),
  );
});
