/** Money settings as they are typed: read back as they were, and refused field by field. */

import { classErrors } from "@/core/checks/class-errors";
import { setLanguage } from "@/core/language/language";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import { Settings } from "@/core/shop/settings-class";
import { moneyFields, readMoney, type MoneyTexts } from "./money-fields";

const money = {
  ...DEFAULT_SETTINGS.money,
  hourly: 612.5,
  fixedPrices: [{ name: "Safety tests", amount: 45 }],
  taxes: [
    { name: "VAT", percent: 25, on: ["labour" as const, "parts" as const, "fixed price" as const, "other" as const] },
    { name: "Levy", percent: 2.5, on: ["parts" as const] },
  ],
  warranty: "a year",
};
const read = (change: Partial<MoneyTexts> = {}) => {
  const refused: Record<string, string> = {};
  return { money: readMoney({ ...moneyFields(money), ...change }, (field, why) => (refused[field] = why)), refused };
};
afterEach(() => setLanguage());

test.each([".", ","] as const)("what is shown is read back as it was, with %s", (decimal) => {
  setLanguage({ tube: "tube", mains: "mains", decimal });
  expect(moneyFields(money).taxes).toBe(`VAT = 25\nLevy = 2${decimal}5 on parts`);
  expect(read()).toEqual({ money, refused: {} });
});

test("what cannot be is said field by field", () => {
  expect(read({ taxes: "VAT = 125" }).refused.taxes).toMatch(/VAT: read “125”; a percentage from 0 to 100/);
  expect(read({ taxes: "VAT" }).refused.taxes).toMatch(/read “VAT”; accepted: VAT = 25/);
  expect(read({ taxes: "VAT = 5 on tubes" }).refused.taxes).toMatch(/read “tubes”; accepted: labour, parts/);
  expect(read({ hourly: "-3" }).refused.hourly).toMatch(/cannot be negative/);
  expect(read({ fixedPrices: "Tests = free" }).refused.fixedPrices).toMatch(/read “free”/);
  expect(read({ quoteDays: "1.5" }).refused.quoteDays).toMatch(/a whole number from 1 to 365/);
  expect(read({ depositPercent: "120" }).refused.depositPercent).toMatch(/from 0 to 100/);
});

test("the server holds the same limits", () => {
  const errors = (more: object) => classErrors(Settings, { ...DEFAULT_SETTINGS, money: { ...money, ...more } }).map((e) => e.field);
  expect(errors({})).toEqual([]);
  expect(errors({ taxes: [{ name: "VAT", percent: 101, on: ["labour"] }] })).toEqual(["money.taxes.0.percent"]);
  expect(errors({ hourly: -1, places: 1 })).toEqual(["money.places", "money.hourly"]);
});
