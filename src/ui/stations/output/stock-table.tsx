"use client";
/** The tubes in stock with their tests and places, and the forms for a test, a move and a new tube. */

import { figure, words } from "@/core/language/language";
import { useState } from "react";
import { lastTest, placeOf, type NewStockTest, type StockTube } from "@/core/shop/stock-tubes";
import { findTubeType } from "@/core/tubes/library";
import { parseQuantity } from "@/core/quantity/parse";
import { Field } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { useJob } from "../../job/job-context";

/** Does something to the stock and shows what came of it; gives why it could not be done. */
export type Act = (work: () => Promise<StockTube[]>) => Promise<string | undefined>;

export function StockTable({ tubes, act }: { tubes: StockTube[]; act: Act }) {
  const [open, setOpen] = useState<number>();
  return (
    <WideTable label={words("Tubes in stock")} className="table table-sm">
      <thead>
        <tr>
          <th>No.</th>
          <th>Type</th>
          <th className="text-right">Last test</th>
          <th>At</th>
          <th>Where</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {tubes.map((t) => {
          const test = lastTest(t);
          return (
            <tr key={t.number} className="align-top">
              <td className="font-bold tabular-nums">{t.number}</td>
              <td>
                {t.type}
                {t.note && <span className="soft block text-xs">{t.note}</span>}
              </td>
              <td className="text-right tabular-nums">
                {test ? `${figure(test.milliamps)} mA${test.gm === undefined ? "" : `, ${figure(test.gm)} mA/V`}` : "not tested"}
                {t.tests.length > 1 && (
                  <span className="soft block text-xs">
                    before:{" "}
                    {t.tests
                      .slice(0, -1)
                      .map((x) => `${figure(x.milliamps)} mA on ${x.at.slice(0, 10)}`)
                      .join(", ")}
                  </span>
                )}
              </td>
              <td>
                {test &&
                  `${figure(test.plateVolts)} V, ${test.screenVolts === undefined ? "" : `${figure(test.screenVolts)} V, `}${figure(test.gridVolts)} V`}
              </td>
              <td>{placeOf(t)}</td>
              <td>
                <button
                  className="btn btn-sm min-h-11"
                  aria-expanded={open === t.number}
                  onClick={() => setOpen(open === t.number ? undefined : t.number)}
                >
                  Test or move no. {t.number}
                </button>
                {open === t.number && <TestForm tube={t} act={act} done={() => setOpen(undefined)} />}
              </td>
            </tr>
          );
        })}
      </tbody>
    </WideTable>
  );
}

function TestForm({ tube, act, done }: { tube: StockTube; act: Act; done(): void }) {
  const { stock, settings } = useJob();
  const usual = lastTest(tube) ?? testPoint(tube.type);
  const [why, setWhy] = useState("");
  const { field, onSubmit, refused } = useTypedForm(
    {
      milliamps: "",
      gm: "",
      plateVolts: String(usual?.plateVolts ?? ""),
      screenVolts: String(usual?.screenVolts ?? ""),
      gridVolts: String(usual?.gridVolts ?? ""),
      place: placeOf(tube),
    },
    (typed) => {
      const numbers: Partial<Record<keyof NewStockTest, number>> = {};
      const labels = { milliamps: "Plate mA", gm: "mA/V", plateVolts: "Plate V", screenVolts: "Screen V", gridVolts: "Grid V" } as const;
      const testing = typed.milliamps.trim() !== "";
      for (const name of ["milliamps", "gm", "plateVolts", "screenVolts", "gridVolts"] as const) {
        if (!testing || (typed[name].trim() === "" && (name === "gm" || name === "screenVolts"))) continue;
        const parsed = parseQuantity(typed[name], { decimal: settings.decimal });
        if (!parsed.ok) return `${labels[name]}: ${parsed.why}; accepted: a number`;
        numbers[name] = parsed.quantity.value;
      }
      void (async () => {
        let failed: string | undefined;
        if (testing) failed = await act(() => stock!.test(tube.number, numbers as unknown as NewStockTest));
        if (!failed && typed.place.trim() && typed.place.trim() !== placeOf(tube))
          failed = await act(() => stock!.move(tube.number, typed.place.trim()));
        if (failed) setWhy(failed);
        else done();
      })();
      return typed;
    },
  );
  const input = (name: "milliamps" | "gm" | "plateVolts" | "screenVolts" | "gridVolts", label: string) => (
    <Field label={label}>
      <input className="input input-sm min-h-10 w-20 text-right" inputMode="decimal" {...field(name)} />
    </Field>
  );
  return (
    <form className="mt-2 flex max-w-lg flex-wrap items-end gap-2" onSubmit={onSubmit}>
      {input("milliamps", "Plate, mA")}
      {input("gm", "gm, mA/V")}
      {input("plateVolts", "Plate, V")}
      {input("screenVolts", "Screen, V")}
      {input("gridVolts", "Grid, V")}
      <Field label="Where it is">
        <input className="input input-sm min-h-10 w-40" {...field("place")} />
      </Field>
      <button className="btn btn-sm btn-primary min-h-10">Keep</button>
      <Refused>{refused || why}</Refused>
    </form>
  );
}

/** The type's typical point of its data sheet, to test at where nothing was tested before. */
function testPoint(type: string): Partial<NewStockTest> | undefined {
  const typical = findTubeType(type)?.typical;
  return typical && { plateVolts: typical.va, ...(typical.vg2 === undefined ? {} : { screenVolts: typical.vg2 }), gridVolts: typical.vg };
}

export function NewTube({ type, act }: { type: string; act: Act }) {
  const { stock } = useJob();
  const [why, setWhy] = useState("");
  const { field, onSubmit, refused } = useTypedForm({ type, place: "drawer", note: "", count: "1" }, (typed) => {
    const count = Number(typed.count);
    if (!typed.type.trim()) return words("Which type is the tube?");
    if (!(Number.isInteger(count) && count >= 1 && count <= 50)) return `How many: read ${typed.count}; accepted: 1 to 50`;
    if (!typed.place.trim()) return words("Where is the tube kept?");
    void act(async () => {
      let tubes: StockTube[] = [];
      for (let i = 0; i < count; i++)
        tubes = (
          await stock!.add({
            type: typed.type.trim(),
            place: typed.place.trim(),
            ...(typed.note.trim() ? { note: typed.note.trim() } : {}),
          })
        ).tubes;
      return tubes;
    }).then((failed) => setWhy(failed ?? ""));
    return { type: typed.type, place: typed.place };
  });
  return (
    <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={onSubmit} aria-label={words("A tube for the stock")}>
      <Field label={words("Tube type")}>
        <input className="input w-32" {...field("type")} />
      </Field>
      <Field label="How many">
        <input className="input w-20 text-right" inputMode="numeric" {...field("count")} />
      </Field>
      <Field label="Where it is kept">
        <input className="input w-40" {...field("place")} />
      </Field>
      <Field label="Note">
        <input className="input w-48" {...field("note")} />
      </Field>
      <button className="btn">Take into stock</button>
      <Refused>{refused || why}</Refused>
    </form>
  );
}
