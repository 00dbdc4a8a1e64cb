"use client";
/** Matched pairs, quads and sextets out of the stock, into the amp or into labelled boxes. */

import { figure, words } from "@/core/language/language";
import { useContext, useMemo, useState } from "react";
import { matchTubes } from "@/core/output/matching";
import { testStrength } from "@/core/output/test-strength";
import { lastTest, sameVolts, type StockTube } from "@/core/shop/stock-tubes";
import { findTubeType } from "@/core/tubes/library";
import { Field, Section } from "../../forms/section";
import { Refused } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { BoxLabels } from "./box-labels";
import type { Act } from "./stock-table";
import { percent, StageContext } from "./use-stage";

export function MatchedGroups({ tubes, act }: { tubes: StockTube[]; act: Act }) {
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
      {live && <span className="soft text-sm">{words("power off before a tube is pulled")}</span>}
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
