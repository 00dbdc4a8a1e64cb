import { addDays, shopDay } from "./day";

test.each([
  // By hand: Oslo is an hour ahead of UTC in winter and two in summer, New York five behind in winter, Auckland thirteen ahead in January.
  ["2026-03-01T23:30:00Z", "Europe/Oslo", "2026-03-02"],
  ["2026-07-01T21:59:00Z", "Europe/Oslo", "2026-07-01"],
  ["2026-07-01T22:00:00Z", "Europe/Oslo", "2026-07-02"],
  ["2026-01-01T04:59:00Z", "America/New_York", "2025-12-31"],
  ["2026-01-10T11:00:00Z", "Pacific/Auckland", "2026-01-11"],
])("%s in %s is %s", (at, zone, day) => {
  expect(shopDay(at, zone)).toBe(day);
  expect(shopDay(Date.parse(at), zone)).toBe(day);
});

test("days are counted by the calendar, leap years and ends of summer time too", () => {
  expect([addDays("2026-02-27", 2), addDays("2028-02-27", 2), addDays("2026-10-24", 2), addDays("2026-01-01", 0)]).toEqual([
    ...["2026-03-01", "2028-02-29", "2026-10-26", "2026-01-01"],
  ]);
});

test("there is no such zone", () => {
  expect(() => shopDay(0, "Oslo time")).toThrow(RangeError);
});
