import { soakFrom, strongestOf, warmthOf } from "./occurrences";

const shown = (...minutes: (number | undefined)[]) => minutes.map((warmMinutes) => ({ what: "cuts out", warmMinutes }));

test("times that lie together have to do with warmth; at once, spread out or only once they do not", () => {
  expect(warmthOf(shown(42, 39))).toMatchObject({ low: 39, high: 42, together: true });
  expect(warmthOf(shown(42, 12, undefined))).toMatchObject({ minutes: [42, 12], together: false });
  expect(warmthOf(shown(1, 1.2)).together).toBe(false);
  expect(warmthOf(shown(40)).together).toBe(false);
});

test("the soak begins with what was seen: failures, hours run to them, the minutes where warmth brings it", () => {
  expect(soakFrom(shown(42, 39))).toEqual({ fault: "cuts out", failures: 2, hours: 1.4, onsetMinutes: 42 });
  expect(soakFrom(shown(90, 10))).toEqual({ fault: "cuts out", failures: 2, hours: 1.7 });
  expect(soakFrom([])).toEqual({ fault: "", failures: 1 });
});

test("the strongest answer of a tap map; none while nothing answered", () => {
  const at = (place: string, response: "nothing" | "a little" | "stops it") => ({ place, response });
  expect(strongestOf([at("V1", "a little"), at("C8", "stops it"), at("V2", "nothing")])!.place).toBe("C8");
  expect(strongestOf([at("V1", "nothing")])).toBeUndefined();
});
