import { said } from "../tape/said";
import { answered, questionAsked, takenBack } from "./owner-acts";

const QUOTE = { what: "make it last, make it work", line: 12 };

test("a question holds what was said and nothing that was left empty; longer than the tape takes it is cut", () => {
  expect(
    questionAsked({ what: " a new choke ", cost: undefined, consequence: " ", options: [], evidence: [4], planned: [] }).payload,
  ).toEqual({ what: "a new choke", answer: "asked", evidence: [4] });
  expect(questionAsked({ what: "x".repeat(5000), cost: 0 }).payload).toEqual({ what: "x".repeat(4000), answer: "asked", cost: 0 });
});

test("yes names the way that was chosen, no names none, part names what is declined", () => {
  const by = { on: "2026-11-27", by: "telephone" as const, said: " " };
  expect(answered(QUOTE, "yes", by, { option: 1, declined: [2] }).payload).toEqual({
    what: QUOTE.what,
    answer: "yes",
    asks: 12,
    on: "2026-11-27",
    by: "telephone",
    option: 1,
  });
  expect(answered(QUOTE, "no", by, { option: 1 }).payload).not.toHaveProperty("option");
  expect(answered(QUOTE, "part", by, { option: 0, declined: [0, 2] }).payload).toMatchObject({ option: 0, declined: [0, 2] });
  expect(answered(QUOTE, "part", by).payload).toMatchObject({ declined: [] });
});

test("a yes is taken back on a day", () => {
  expect(takenBack(QUOTE, "2026-11-28").payload).toMatchObject({ answer: "revoked", asks: 12, on: "2026-11-28" });
});

test("said keeps zero, false and lists that hold something", () => {
  expect(said({ a: 0, b: false, c: " x ", d: "", e: undefined, f: [], g: [""] })).toEqual({ a: 0, b: false, c: "x", g: [""] });
});
