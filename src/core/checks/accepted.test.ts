/** What fields of payloads, settings and bodies take, and how what they do not take is told. */

import { IsNumber } from "class-validator";
import { classErrors } from "./class-errors";
import { IsA, IsDay, IsDayOrTime, IsListOf, IsText, IsTextList, Optional } from "./accepted";

class Inner {
  @IsNumber() n!: number;
}
class Sample {
  @Optional() @IsText(10) text?: string;
  @Optional() @IsText(10, { empty: true }) maybe?: string;
  @Optional() @IsText(40, { least: 10 }) phrase?: string;
  @Optional() @IsTextList(3, 5) list?: string[];
  @Optional() @IsA(() => Inner) inner?: Inner;
  @Optional() @IsListOf(() => Inner, 2) inners?: Inner[];
  @Optional() @IsDay() day?: string;
  @Optional() @IsDayOrTime() until?: string;
}
const taken = (value: object) => classErrors(Sample, value).length === 0;

test.each<[string, unknown[], unknown[]]>([
  [
    "text",
    ["a", "Ω µ é 🎸", "two\nlines", "0123456789"],
    ["", " ", "\t", "01234567890", 5, null, {}, [], "a\u0000", "\u001b[1m", "\ud83c", "\udfb8a"],
  ],
  ["maybe", ["", " ", "a"], [null, 0, "01234567890", "\u0007"]],
  ["phrase", ["ten or more"], ["too short", "          ", "short    "]],
  ["list", [[], ["a"], ["a", "b", "c"]], [["a", "b", "c", "d"], [""], ["toolong"], [null], [[]], [5], "a", { 0: "a" }, null]],
  ["inner", [{ n: 1 }], [{}, { n: null }, { n: 1, m: 2 }, [], [{ n: 1 }], null, 5, "x"]],
  ["inners", [[], [{ n: 1 }, { n: 2 }]], [[null], [[{ n: 1 }]], [5], [{}], [{ n: 1 }, { n: 2 }, { n: 3 }], { n: 1 }, [{ n: 1e999 }]]],
  [
    "day",
    ["2026-11-26", "2028-02-29", "1900-01-01"],
    ["2026-02-29", "9999-99-99", "2026-1-1", "0000-00-00", "2026-11-26T10:00", 20261126, null, ""],
  ],
  [
    "until",
    ["2026-11-26", "2026-11-26T23:59"],
    ["2026-11-26T24:00", "2026-11-26T9:00", "2026-13-01T09:00", "2026-11-26 09:00", "2026-11-26T09:00:00Z"],
  ],
])("%s", (field, right, wrong) => {
  for (const value of right) expect([value, taken({ [field]: value })]).toEqual([value, true]);
  for (const value of wrong) expect([value, taken({ [field]: value })]).toEqual([value, false]);
});

test("an error says the field, what is wanted and what was read, of a long text its beginning", () => {
  expect(classErrors(Sample, { text: "x".repeat(100_000) })).toEqual([
    { field: "text", message: expect.stringMatching(/^text: text of 1 to 10 characters is wanted.*; read "x{59}…$/) },
  ]);
  expect(classErrors(Sample, { inners: [{ n: "a" }] })[0]).toMatchObject({ field: "inners.0.n" });
  expect(classErrors(Sample, { other: 1 })[0]!.message).toMatch(/other should not exist/);
});
