"use client";
/** What the shop asks for its work, as it is typed in the settings. */

import type { FieldErrors, UseFormRegister } from "react-hook-form";
import { formatMoney, readAmount } from "@/core/money/amount";
import { BILL_KINDS, type BillKind } from "@/core/shop/bill-kinds";
import type { Settings } from "@/core/shop/settings";
import { figure, typedNumber } from "@/core/language/language";
import { Field, Section } from "@/ui/forms/section";

type Money = Settings["money"];

/** The settings as texts. Taxes and fixed prices are typed one a line. */
export const moneyFields = (m: Money) => ({
  places: String(m.places),
  symbolFirst: m.symbolFirst ? "first" : "after",
  thousands: m.thousands,
  cashStep: String(m.cashStep),
  hourly: figure(m.hourly),
  stepMinutes: String(m.stepMinutes),
  marginPercent: figure(m.marginPercent),
  fixedPrices: m.fixedPrices.map((f) => `${f.name} = ${figure(f.amount)}`).join("\n"),
  taxes: m.taxes
    .map((t) => `${t.name} = ${figure(t.percent)}${t.on.length === BILL_KINDS.length ? "" : ` on ${t.on.join(", ")}`}`)
    .join("\n"),
  pricesIncludeTax: m.pricesIncludeTax ? "included" : "on top",
  depositPercent: figure(m.depositPercent),
  billNumbers: m.billNumbers as string,
  quoteDays: String(m.quoteDays),
  payDays: String(m.payDays),
  benchHours: figure(m.benchHours),
  warranty: m.warranty,
});

export type MoneyTexts = ReturnType<typeof moneyFields>;
type Refuse = (field: keyof MoneyTexts, message: string) => void;

/** Reads the texts; what cannot be read is refused field by field. */
export function readMoney(v: MoneyTexts, refuse: Refuse): Money {
  const places = Number(v.places) as Money["places"];
  const number = (field: keyof MoneyTexts, least: number, most: number, whole = false): number => {
    const read = typedNumber(v[field]);
    if (Number.isFinite(read) && read >= least && read <= most && (!whole || Number.isInteger(read))) return read;
    refuse(field, `read “${v[field]}”; ${whole ? "a whole number" : "a number"} from ${figure(least)} to ${figure(most)} is accepted`);
    return least;
  };
  const amount = (field: keyof MoneyTexts, text: string): number => {
    const read = readAmount(text, places);
    if (read.ok) return read.amount;
    refuse(field, read.why);
    return 0;
  };
  const lines = (field: "fixedPrices" | "taxes", example: string) =>
    v[field].split("\n").flatMap((line): [string, string][] => {
      if (!line.trim()) return [];
      const match = /^\s*(.+?)\s*=\s*(.+?)\s*$/.exec(line);
      if (match) return [[match[1]!, match[2]!]];
      refuse(field, `read “${line.trim()}”; accepted: ${example}`);
      return [];
    });
  const taxes = lines("taxes", "VAT = 25 on labour, parts").map(([name, rest]) => {
    const [percentText = "", onText] = rest.replace("%", "").split(/\bon\b/i);
    const percent = typedNumber(percentText);
    if (!(percent >= 0 && percent <= 100)) refuse("taxes", `${name}: read “${percentText.trim()}”; a percentage from 0 to 100 is accepted`);
    const on = (onText ?? "")
      .split(",")
      .map((k) => k.trim().toLowerCase())
      .filter(Boolean);
    const wrong = on.find((k) => !BILL_KINDS.includes(k as BillKind));
    if (wrong) refuse("taxes", `${name}: read “${wrong}”; accepted: ${BILL_KINDS.join(", ")}`);
    return {
      name,
      percent: percent >= 0 && percent <= 100 ? percent : 0,
      on: on.length > 0 && !wrong ? (on as BillKind[]) : [...BILL_KINDS],
    };
  });
  return {
    places,
    symbolFirst: v.symbolFirst === "first",
    thousands: v.thousands as Money["thousands"],
    cashStep: number("cashStep", 1, 1000, true),
    hourly: amount("hourly", v.hourly),
    stepMinutes: Number(v.stepMinutes) as Money["stepMinutes"],
    marginPercent: number("marginPercent", 0, 1000),
    fixedPrices: lines("fixedPrices", "Safety tests = 45").map(([name, text]) => ({ name, amount: amount("fixedPrices", text) })),
    taxes,
    pricesIncludeTax: v.pricesIncludeTax === "included",
    depositPercent: number("depositPercent", 0, 100),
    billNumbers: v.billNumbers === "shop" ? "shop" : "job",
    quoteDays: number("quoteDays", 1, 365, true),
    payDays: number("payDays", 0, 365, true),
    benchHours: number("benchHours", 0.5, 24),
    warranty: v.warranty.trim(),
  };
}

// The form has more fields than these: it hands in what it registers them with.
export function MoneyFields<T extends MoneyTexts>({
  register: given,
  errors: found,
  currency,
}: {
  register: UseFormRegister<T>;
  errors: FieldErrors<T>;
  currency: string;
}) {
  const register = given as unknown as UseFormRegister<MoneyTexts>;
  const errors = found as FieldErrors<MoneyTexts>;
  const number = (name: keyof MoneyTexts, label: string) => (
    <Field label={label} error={errors[name]?.message}>
      <input className="input w-full text-right tabular-nums" inputMode="decimal" {...register(name)} />
    </Field>
  );
  return (
    <Section title="Money" hint="what quotes and bills are made with">
      <div className="grid gap-3 sm:grid-cols-3">
        {number("hourly", `Labour, an hour, ${currency}`)}
        <Field label="Labour is billed in steps of">
          <select className="select w-full" {...register("stepMinutes")}>
            {[1, 5, 6, 10, 15, 30, 60].map((m) => (
              <option key={m} value={m}>
                {m} min
              </option>
            ))}
          </select>
        </Field>
        {number("marginPercent", "Margin on parts, %")}
        <Field label="Taxes, one a line: name = % on kinds" error={errors.taxes?.message} className="sm:col-span-2">
          <textarea className="textarea w-full font-mono text-sm" rows={2} placeholder="VAT = 25" {...register("taxes")} />
        </Field>
        <Field label="Prices and rates hold the taxes">
          <select className="select w-full" {...register("pricesIncludeTax")}>
            <option value="included">yes, included</option>
            <option value="on top">no, they come on top</option>
          </select>
        </Field>
        <Field label="Fixed prices, one a line: name = amount" error={errors.fixedPrices?.message} className="sm:col-span-2">
          <textarea className="textarea w-full font-mono text-sm" rows={2} placeholder="Safety tests = 45" {...register("fixedPrices")} />
        </Field>
        {number("depositPercent", "Deposit before the work, %")}
        <Field label="Bills are numbered">
          <select className="select w-full" {...register("billNumbers")}>
            <option value="job">by their job: 1004-1, 1004-2</option>
            <option value="shop">one after the other in the shop: 1, 2, 3</option>
          </select>
        </Field>
        {number("quoteDays", "A quote is valid for, days")}
        {number("payDays", "A bill is to be paid within, days")}
        {number("benchHours", "Bench hours a working day")}
        <Field label="Decimals of an amount">
          <select className="select w-full" {...register("places")}>
            <option value="0">none, {formatMoney(1235, form(currency, 0))}</option>
            <option value="2">two, {formatMoney(1234.5, form(currency, 2))}</option>
            <option value="3">three</option>
          </select>
        </Field>
        <Field label="The currency stands">
          <select className="select w-full" {...register("symbolFirst")}>
            <option value="after">after the amount</option>
            <option value="first">before the amount</option>
          </select>
        </Field>
        <Field label="Thousands are parted by">
          <select className="select w-full" {...register("thousands")}>
            <option value=" ">a blank</option>
            <option value="">nothing</option>
            <option value=",">a comma</option>
            <option value=".">a point</option>
            <option value="'">an apostrophe</option>
          </select>
        </Field>
        {number("cashStep", "Rounded to, smallest coins")}
        <Field label="Warranty, as it stands on quotes and bills" error={errors.warranty?.message} className="sm:col-span-3">
          <textarea className="textarea w-full" rows={2} {...register("warranty")} />
        </Field>
      </div>
    </Section>
  );
}

const form = (currency: string, places: 0 | 2) => ({
  currency,
  decimal: "." as const,
  money: { places, symbolFirst: false, thousands: " " as const },
});
