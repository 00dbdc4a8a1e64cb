"use client";
/** The shop's tubes: tests over time, where each is, matched groups, and which goes into this amp. */

import { words } from "@/core/language/language";
import { useCallback, useContext, useEffect, useState } from "react";
import { inStock, type StockTube } from "@/core/shop/stock-tubes";
import { findTubeType } from "@/core/tubes/library";
import { Section } from "../../forms/section";
import { useJob } from "../../job/job-context";
import { MatchedGroups } from "./matched-groups";
import { NewTube, StockTable } from "./stock-table";
import { percent, StageContext } from "./use-stage";

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
      {tubes && <MatchedGroups tubes={shown.filter(inStock)} act={act} />}
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
