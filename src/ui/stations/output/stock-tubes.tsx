"use client";
/** The shop's tubes: tests over time, where each is, matched groups, and which goes into this amp. */

import { figure, words } from "@/core/language/language";
import { useCallback, useContext, useEffect, useMemo, useState } from "react";
import { matchTubes } from "@/core/output/matching";
import { inStock, placeOf, sameVolts, type NewStockTest, type StockTube } from "@/core/shop/stock-tubes";
import { testStrength } from "@/core/output/test-strength";
import { findTubeType } from "@/core/tubes/library";
import { parseQuantity } from "@/core/quantity/parse";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { WideTable } from "../../forms/wide-table";
import { useJob } from "../../frame/job-context";
import { percent, StageContext } from "./use-stage";
import { BoxLabels } from "./box-labels";

export function StockTubes() {
  const { stock } = useJob();
  const stage = useContext(StageContext)?.stage;
  const [tubes, setTubes] = useState<StockTube[]>();
  const [failed, setFailed] = useState("");
  const [all, setAll] = useState(false);
  const own = stage?.tubes[0]?.type.type;
  /** Does something to the stock and shows what came of it. @returns why it could not be done. */
  const act = useCallback(async (work: () => Promise<StockTube[]>): Promise<string | undefined> => {
    try {
      setTubes(await work());
      setFailed("");
      return undefined;
    } catch (error) {
      return (error as Error).message;
    }
  }, []);
  useEffect(() => {
    if (stock) void act(() => stock.list()).then((why) => why && setFailed(why));
  }, [stock, act]);
  if (!stock) return null;
  const shown = (tubes ?? []).filter((t) => all || (inStock(t) && (!own || findTubeType(t.type)?.type === own)));
  return (
    <div className="space-y-4">
      {failed && (
        <p role="alert" className="text-error">
          The stock cannot be read: {failed}
        </p>
      )}
      <MixedTubes />
      {tubes && <Matched tubes={shown.filter(inStock)} act={act} />}
      <Section title={words("Tubes in stock")} hint={own && !all ? `${own} only` : undefined}>
        <label className="mb-2 flex min-h-11 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={all} onChange={(e) => setAll(e.target.checked)} />
          {words("Show all types and tubes that have gone")}
        </label>
        {tubes && shown.length === 0 && (
          <p>{words(`No ${own && !all ? `${own} ` : ""}tubes in stock yet. Enter one below, then its test.`)}</p>
        )}
        {shown.length > 0 && <StockTable tubes={shown} act={act} />}
        <NewTube type={own ?? ""} act={act} />
      </Section>
    </div>
  );
}

type Act = (work: () => Promise<StockTube[]>) => Promise<string | undefined>;

/** Tubes of another type, or unlike each other, in the amp itself. */
function MixedTubes() {
  const { view } = useJob();
  const stage = useContext(StageContext);
  if (!stage) return null;
  const fitted = stage.stage.tubes.flatMap((t) => view.state.tubesFitted.findLast((f) => f.tube === t.name) ?? []);
  const { mixed, spread } = stage.read.table;
  return (
    <p className="text-xl font-bold">
      {mixed
        ? words(`▲ Mixed types in this stage: ${mixed.join(" and ")}.`)
        : spread === undefined
          ? words("Read the currents at Bias: then it shows whether the tubes in this amp match.")
          : spread > 0.1
            ? words(`▲ The tubes in this amp differ by ${percent(spread)}: they are no matched set.`)
            : words(`The tubes in this amp match within ${percent(spread)}.`)}
      {fitted.length > 0 && (
        <span className="soft block text-base font-normal">
          From stock: {fitted.map((f) => `${f.tube} number ${f.number}`).join(", ")}.
        </span>
      )}
    </p>
  );
}

const lastTest = (t: StockTube) => t.tests.at(-1);

function Matched({ tubes, act }: { tubes: StockTube[]; act: Act }) {
  const stage = useContext(StageContext)?.stage;
  const [size, setSize] = useState(stage ? Math.max(2, Math.min(6, 2 * Math.ceil(stage.tubes.length / 2))) : 2);
  const [most, setMost] = useState(0.1);
  const [labels, setLabels] = useState(false);
  // Only tests at the same volts compare: the commonest volts of each type.
  const sets = useMemo(() => {
    const byType = new Map<string, StockTube[]>();
    for (const t of tubes) {
      const test = lastTest(t);
      if (!test) continue;
      const key =
        [...byType.keys()].find((k) => k.startsWith(`${t.type} `) && sameVolts(lastTest(byType.get(k)![0]!)!, test)) ??
        `${t.type} ${byType.size}`;
      byType.set(key, [...(byType.get(key) ?? []), t]);
    }
    return [...byType.values()].map((of) => ({
      type: of[0]!.type,
      test: lastTest(of[0]!)!,
      ...matchTubes(
        of.map((t) => ({
          id: t.number,
          milliamps: lastTest(t)!.milliamps,
          ...(lastTest(t)!.gm === undefined ? {} : { gm: lastTest(t)!.gm }),
        })),
        size,
        most,
      ),
    }));
  }, [tubes, size, most]);
  const groups = sets.flatMap((s) => s.groups.map((g) => ({ ...g, type: s.type, test: s.test })));
  return (
    <Section title="Matched groups" hint="the closest disjoint ones, by current and transconductance at the same volts">
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Group">
          <select className="select w-32" value={size} onChange={(e) => setSize(Number(e.target.value))}>
            <option value={2}>pairs</option>
            <option value={4}>quads</option>
            <option value={6}>sextets</option>
          </select>
        </Field>
        <Field label="Spread at most">
          <select className="select w-28" value={most} onChange={(e) => setMost(Number(e.target.value))}>
            {[0.03, 0.05, 0.1, 0.2].map((m) => (
              <option key={m} value={m}>
                {percent(m)}
              </option>
            ))}
          </select>
        </Field>
        {groups.length > 0 && (
          <button className="btn" onClick={() => setLabels(true)}>
            Labels for the boxes
          </button>
        )}
      </div>
      {groups.length === 0 ? (
        <p className="mt-2">{words("No group within this spread: it takes tested tubes of one type at the same volts.")}</p>
      ) : (
        <ul className="mt-2 space-y-2" aria-label="Matched groups">
          {groups.map((g) => (
            <li key={g.tubes.map((t) => t.id).join(" ")} className="flex flex-wrap items-center gap-3">
              <strong>
                {g.type}: {g.tubes.map((t) => `no. ${t.id}`).join(", ")}
              </strong>
              <span className="soft">
                {g.tubes.map((t) => `${figure(t.milliamps)} mA`).join(", ")}; {percent(g.spread)} apart
              </span>
              {stage && g.tubes.length === stage.tubes.length && <FitGroup numbers={g.tubes.map((t) => t.id)} tubes={tubes} act={act} />}
            </li>
          ))}
        </ul>
      )}
      {labels && <BoxLabels groups={groups} close={() => setLabels(false)} />}
    </Section>
  );
}

/** Puts a whole group into the sockets of the stage, each with its test. */
function FitGroup({ numbers, tubes, act }: { numbers: number[]; tubes: StockTube[]; act: Act }) {
  const { say, stock, jobId, energyKind } = useJob();
  const { stage } = useContext(StageContext)!;
  const [why, setWhy] = useState("");
  const live = energyKind === "live";
  async function fit() {
    const drafts = stage.tubes.map((socket, i) =>
      fittedDraft(
        tubes.find((t) => t.number === numbers[i])!,
        socket.name,
      ),
    );
    for (const [i, n] of numbers.entries()) {
      const failed = await act(() => stock!.move(n, `in job ${jobId}, ${stage.tubes[i]!.name}`));
      if (failed) return setWhy(failed);
    }
    say(...drafts);
  }
  return (
    <>
      <button className="btn btn-sm min-h-11" disabled={live} title={live ? "Power off first" : undefined} onClick={() => void fit()}>
        Fit into {stage.tubes.map((t) => t.name).join(", ")}
      </button>
      {live && <span className="soft text-sm">power off before a tube is pulled</span>}
      <Refused>{why}</Refused>
    </>
  );
}

function fittedDraft(tube: StockTube, socket: string) {
  const test = lastTest(tube);
  const type = findTubeType(tube.type);
  const strength = test && type ? testStrength(type, test) : undefined;
  return {
    type: "tube-fitted" as const,
    payload: {
      tube: socket,
      type: tube.type,
      number: tube.number,
      ...(strength === undefined ? {} : { strength: Number(strength.toPrecision(3)) }),
      ...(test
        ? { test: `${test.milliamps} mA${test.gm === undefined ? "" : `, ${test.gm} mA/V`} at ${test.plateVolts} V, ${test.gridVolts} V` }
        : {}),
    },
  };
}

function StockTable({ tubes, act }: { tubes: StockTube[]; act: Act }) {
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

function NewTube({ type, act }: { type: string; act: Act }) {
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
