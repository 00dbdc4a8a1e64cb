"use client";
/** The shop's drawers: capacitors with ratings, price and pieces; taking in, and pieces that came or went. */

import { useEffect, useState } from "react";
import { formatMoney } from "@/core/money/amount";
import { partWords } from "@/core/quantity/stock-words";
import { parseQuantity } from "@/core/quantity/parse";
import { toOrder, type PartWanted, type StockPart } from "@/core/shop/stock-parts";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { useJob } from "../../job/job-context";
import { useCapacitors } from "./use-capacitors";

export function StockParts() {
  const { parts, settings } = useJob();
  const { stock, shopFailed } = useCapacitors();
  if (!parts) return null;
  return (
    <div className="print:hidden">
      <Section title="Parts in stock">
        {shopFailed && (
          <p role="alert" className="text-error">
            The stock cannot be read: {shopFailed}
          </p>
        )}
        {stock.length === 0 ? (
          <p className="soft mb-2">No parts in stock yet. What lies in the drawers is entered below; the kit takes from it what is good.</p>
        ) : (
          <WideTable label="Parts in stock" className="table table-sm">
            <thead>
              <tr>
                <th className="text-right">Number</th>
                <th>Part</th>
                <th>Where</th>
                <th className="text-right">Price</th>
                <th className="text-right">Pieces</th>
                <th className="text-right">At least</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {stock.map((p) => (
                <tr key={p.number}>
                  <td className="text-right">{p.number}</td>
                  <td>
                    {partWords(p)} {p.celsius && `${p.celsius} °C`} {p.safetyClass && `class ${p.safetyClass}2`}
                  </td>
                  <td>{p.place}</td>
                  <td className="text-right tabular-nums">{p.price === undefined ? "–" : formatMoney(p.price, settings)}</td>
                  <td className="text-right tabular-nums">{p.pieces}</td>
                  <td className="text-right">
                    <Minimum part={p} />
                  </td>
                  <td>
                    <Pieces part={p} />
                  </td>
                </tr>
              ))}
            </tbody>
          </WideTable>
        )}
        <ToOrder />
        <NewPart />
      </Section>
    </div>
  );
}

/** Stored when the field is left or on Enter; what cannot be read stays in it with the reason. */
function Minimum({ part }: { part: StockPart }) {
  const { parts } = useJob();
  const { act } = useCapacitors();
  const [text, setText] = useState(String(part.minimum ?? ""));
  const [said, setSaid] = useState("");
  const store = () => {
    const minimum = Number(text.trim() || 0);
    if (minimum === (part.minimum ?? 0)) return;
    if (!Number.isInteger(minimum) || minimum < 0) return setSaid(`read “${text}”; a whole number is accepted`);
    void act(async () => ({ stock: await parts!.minimum(part.number, minimum) })).then((why) => setSaid(why ?? ""));
  };
  return (
    <>
      <input
        className="input input-sm min-h-9 w-16 text-right tabular-nums"
        inputMode="numeric"
        aria-label={`At least of number ${part.number}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={store}
        onKeyDown={(e) => e.key === "Enter" && store()}
      />
      <Refused>{said}</Refused>
    </>
  );
}

/** Parts below their minimum, and the jobs that wait for a part. */
function ToOrder() {
  const { parts } = useJob();
  const { stock } = useCapacitors();
  const [waiting, setWaiting] = useState<PartWanted[]>([]);
  const [failed, setFailed] = useState("");
  useEffect(() => {
    let gone = false;
    parts?.waiting().then(
      (w) => !gone && setWaiting(w),
      (e: Error) => !gone && setFailed(e.message),
    );
    return () => {
      gone = true;
    };
  }, [parts, stock]);
  const low = stock.filter((p) => toOrder(p) > 0);
  if (low.length + waiting.length === 0 && !failed) return null;
  return (
    <section aria-label="To order" className="mt-3">
      <h3 className="font-bold">To order</h3>
      <Refused>{failed && `Which jobs wait for parts cannot be read: ${failed}`}</Refused>
      <ul>
        {low.map((p) => (
          <li key={p.number}>
            ▲ {toOrder(p)} × {partWords(p)}{" "}
            <span className="soft">
              number {p.number}: {p.pieces} there, at least {p.minimum} wanted
            </span>
          </li>
        ))}
        {waiting.map((w) => (
          <li key={w.job}>
            ▲ {w.what || "a part"}{" "}
            <span className="soft">
              for{" "}
              <a className="underline" href={`/jobs/${w.job}/work`}>
                job {w.job}
              </a>
              , {w.amp}, since {w.since.slice(0, 10)}
              {w.stock !== null && `, number ${w.stock} of the stock`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Pieces({ part }: { part: StockPart }) {
  const { parts } = useJob();
  const { act } = useCapacitors();
  const [said, setSaid] = useState("");
  const move = (pieces: number) =>
    void act(async () => ({ stock: await parts!.pieces(part.number, pieces) })).then((why) => setSaid(why ?? ""));
  return (
    <span className="flex flex-wrap gap-1">
      <button className="btn btn-line btn-sm min-h-9" aria-label={`One more of number ${part.number}`} onClick={() => move(1)}>
        + 1
      </button>
      <button
        className="btn btn-line btn-sm min-h-9"
        aria-label={`One less of number ${part.number}`}
        disabled={part.pieces === 0}
        onClick={() => move(-1)}
      >
        − 1
      </button>
      <Refused>{said}</Refused>
    </span>
  );
}

function NewPart() {
  const { parts, settings } = useJob();
  const { act } = useCapacitors();
  const [said, setSaid] = useState("");
  const usual = { value: "", rating: "", kind: "electrolytic", celsius: "", hours: "", ripple: "", price: "", place: "", pieces: "1" };
  const { field, onSubmit, refused } = useTypedForm(usual, (v) => {
    const sections = v.value.split("+").map((text) => parseQuantity(text.trim(), { unit: "F", decimal: settings.decimal }));
    const bad = sections.find((s) => !s.ok);
    if (bad && !bad.ok) return `Capacitance: ${bad.why}; accepted: 47u, or 32u + 32u for a can`;
    const farads = sections.flatMap((s) => (s.ok ? [s.quantity.value] : []));
    const said2: string[] = [];
    const number = (text: string, label: string, unit?: "V" | "A"): number | undefined => {
      if (!text.trim()) return undefined;
      const parsed = parseQuantity(text, { ...(unit ? { unit } : {}), decimal: settings.decimal });
      if (parsed.ok && parsed.quantity.value >= 0) return parsed.quantity.value;
      said2.push(`${label}: ${parsed.ok ? "zero or more is accepted" : `${parsed.why}; accepted: ${parsed.accepted}`}`);
      return undefined;
    };
    const [rating, celsius, hours, ripple, price, pieces] = [
      number(v.rating, "Volts", "V"),
      number(v.celsius, "Temperature class"),
      number(v.hours, "Hours"),
      number(v.ripple, "Ripple current", "A"),
      number(v.price, "Price"),
      number(v.pieces, "Pieces"),
    ];
    if (said2.length > 0) return said2[0];
    if (!rating) return "Rated volts are wanted";
    if (farads.some((f) => !(f > 0))) return "Capacitance: above zero is wanted";
    void act(async () => ({
      stock: await parts!.add({
        letter: "C",
        value: farads[0]!,
        rating,
        kind: v.kind.trim() || "electrolytic",
        ...(farads.length > 1 ? { sections: farads } : {}),
        ...(celsius ? { celsius } : {}),
        ...(hours ? { hours } : {}),
        ...(ripple ? { ripple } : {}),
        ...(price === undefined ? {} : { price }),
        ...(v.place.trim() ? { place: v.place.trim() } : {}),
        pieces: Math.round(pieces ?? 0),
      }),
    })).then((why) => setSaid(why ?? ""));
  });
  const text = (name: keyof typeof usual, label: string, width: string, placeholder = "") => (
    <Field label={label}>
      <input className={`input ${width}`} placeholder={placeholder} {...field(name)} />
    </Field>
  );
  return (
    <form className="mt-3 flex flex-wrap items-end gap-2" onSubmit={onSubmit} aria-label="A part for the stock">
      {text("value", "Capacitance, sections", "w-36", "32u + 32u")}
      {text("rating", "Volts", "w-20", "500")}
      {text("kind", "Kind", "w-32")}
      {text("celsius", "°C", "w-16", "105")}
      {text("hours", "Hours", "w-20", "5000")}
      {text("ripple", "Ripple", "w-24", "400 mA")}
      {text("price", `Price, ${settings.currency}`, "w-20")}
      {text("place", "Where", "w-28", "drawer 4")}
      {text("pieces", "Pieces", "w-16")}
      <button className="btn btn-outline">Take in</button>
      <Refused className="basis-full">{refused || said}</Refused>
    </form>
  );
}
