import fc from "fast-check";
import "@/fixed-draws-for-tests";
import { aType, figure, fixed, say, setLanguage, words } from "./language";

afterEach(() => setLanguage());
const british = () => setLanguage({ tube: "valve", mains: "mains", decimal: "." });
const american = () => setLanguage({ tube: "tube", mains: "line", decimal: "." });

test("as it is written unless a shop says otherwise", () => {
  expect(say`Tubes out; mains ${230.5} V`).toBe("Tubes out; mains 230.5 V");
});

test("valve and line in any case and number, whole words only", () => {
  british();
  expect(words("Tubes removed, each tube warm. TUBES")).toBe("Valves removed, each valve warm. VALVES");
  american();
  expect(words("Mains now; mains-side fuse; the mains transformer; remains")).toBe(
    "Line now; line-side fuse; the power transformer; remains",
  );
});

test("what somebody typed is left alone", () => {
  setLanguage({ tube: "valve", mains: "line", decimal: "," });
  expect(say`Note on the tube: ${"mains cord and tube chart from the owner"}`).toBe(
    "Note on the valve: mains cord and tube chart from the owner",
  );
});

test("decimal comma, true minus", () => {
  setLanguage({ tube: "tube", mains: "mains", decimal: "," });
  expect([figure("-12.5 V"), fixed(0.0349, 3), say`${-1.5} mA`]).toEqual(["−12,5 V", "0,035", "−1,5 mA"]);
});

test("a text holds no word of the other language, whatever it says", () => {
  setLanguage({ tube: "valve", mains: "line", decimal: "." });
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom("tube", "Tubes", "mains", "Mains", "the", "of", "transformer", "side,"), { maxLength: 12 }),
      (list) => {
        expect(words(list.join(" "))).not.toMatch(/\btubes?\b|\bmains\b/i);
      },
    ),
  );
});

test("a type with the article that is said before it", () => {
  expect(["EL84", "12AX7", "807", "6V6", "UL84", "11X5", "18FX6", "KT66"].map(aType)).toEqual([
    ...["an EL84", "a 12AX7", "an 807", "a 6V6", "a UL84", "an 11X5", "an 18FX6", "a KT66"],
  ]);
});
