"use client";
/** Labels for the boxes of matched groups, to be printed and cut. */

import { figure } from "@/core/language/language";
import type { Group } from "@/core/output/matching";
import type { StockTest } from "@/core/shop/stock-tubes";
import { PrintButton } from "../../forms/print-button";
import { useJob } from "../../job/job-context";
import { percent } from "./use-stage";

export function BoxLabels({ groups, close }: { groups: (Group & { type: string; test: StockTest })[]; close(): void }) {
  const { settings } = useJob();
  return (
    <section aria-label="Labels" className="mt-3">
      <p className="mb-2 flex gap-3 print:hidden">
        <PrintButton />
        <button className="btn" onClick={close}>
          Close
        </button>
      </p>
      <ul className="grid gap-3 sm:grid-cols-2">
        {groups.map((g) => (
          <li key={g.tubes.map((t) => t.id).join(" ")} className="break-inside-avoid rounded border-2 border-base-content p-3">
            <p className="text-xl font-bold">
              {g.type} · {g.tubes.length === 2 ? "pair" : g.tubes.length === 4 ? "quad" : `${g.tubes.length}`} · {percent(g.spread)}
            </p>
            {g.tubes.map((t) => (
              <p key={t.id} className="tabular-nums">
                no. {t.id}: {figure(t.milliamps)} mA{t.gm === undefined ? "" : `, ${figure(t.gm)} mA/V`}
              </p>
            ))}
            <p className="soft text-sm">
              at {figure(g.test.plateVolts)} V{g.test.screenVolts === undefined ? "" : `, screen ${figure(g.test.screenVolts)} V`}, grid{" "}
              {figure(g.test.gridVolts)} V · {settings.shopName}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
