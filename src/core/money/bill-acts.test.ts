import { DEFAULT_SETTINGS } from "../shop/settings";
import { billDoubts, billIssued, quoteMade } from "./bill-acts";

const sum = { net: 90, taxes: [], included: true, rounding: 0, total: 90 };
const line = { text: "bench time", kind: "labour" as const, pieces: 1, price: 90, amount: 90, key: "line 2" };
const terms = (money: object = {}) => ({ timeZone: "UTC", money: { ...DEFAULT_SETTINGS.money, ...money } });
/** A Friday at noon. */
const NOON = Date.parse("2026-11-27T12:00:00.000Z");

test("a bill is numbered by its job, and to be paid within the shop's days", () => {
  const draft = { lines: [line], sum, differences: ["x".repeat(600)], paid: 20, due: 70 };
  const { payload } = billIssued("1007-1", draft as never, terms(), NOON);
  expect(payload).toMatchObject({ number: "1007-1", on: "2026-11-27", lines: [line], sum, paid: 20, payBy: "2026-12-11" });
  expect(payload.differences).toEqual(["x".repeat(500)]);
  expect(payload).not.toHaveProperty("warranty");
  expect(billIssued("1007-1", draft as never, terms({ warranty: "90 days" }), NOON).payload.warranty).toBe("90 days");
  // Half past noon in Kiritimati, fourteen hours ahead, it is Saturday.
  expect(billIssued("1007-1", draft as never, { ...terms(), timeZone: "Pacific/Kiritimati" }, NOON).payload).toMatchObject({
    on: "2026-11-28",
    payBy: "2026-12-12",
  });
});

test("a quote stands for the shop's days; no deposit and no note where there is none", () => {
  const options = [{ name: " make it last ", consequence: "", lines: [line], sum }];
  expect(quoteMade(options, terms(), NOON, { deposit: 0, note: " " }).payload).toEqual({
    options: [{ name: "make it last", lines: [line], sum }],
    on: "2026-11-27",
    validUntil: "2026-12-27",
  });
  expect(quoteMade(options, terms(), NOON, { deposit: 45, note: "half before" }).payload).toMatchObject({
    deposit: 45,
    note: "half before",
  });
});

test("a first bill without name, currency or tax is asked about, a later one is not; one of nothing always", () => {
  const draft = (total: number) => ({ sum: { ...sum, total } });
  expect(billDoubts(draft(90), DEFAULT_SETTINGS, 0)).toHaveLength(3);
  expect(billDoubts(draft(90), DEFAULT_SETTINGS, 1)).toEqual([]);
  const set = { shopName: "Saltmarsh Lane", currency: "kr", money: { ...DEFAULT_SETTINGS.money, taxes: [{ name: "VAT", percent: 25 }] } };
  expect(billDoubts(draft(90), set as never, 0)).toEqual([]);
  expect(billDoubts(draft(0), set as never, 3)).toEqual(["it is a bill of nothing"]);
  expect(billDoubts(draft(90), set as never, 3, true)).toEqual([expect.stringContaining("soak still runs")]);
});
