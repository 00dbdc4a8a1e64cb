"use client";
/** The resistance list, one reading at a time: typed or taken from the meter, against what the circuit makes of it. */

import { useEffect, useMemo, useState } from "react";
import { latestReading } from "@/core/tape/fold";
import { OPEN_OHMS } from "@/core/quantity/ohms";
import { formatQuantity } from "@/core/quantity/format";
import { COLD_GROUPS, judgeCold, judgeHalves, markNameOf, type ColdCheck } from "@/core/cold/cold-check";
import { coldLayer, placeOfCheck } from "../../drawing/layers";
import { PointPhoto } from "../../drawing/point-photo";
import { ReadingField } from "../../forms/reading-field";
import { useStays } from "../../forms/stays";
import { useJob } from "../../job/job-context";
import { lateInBrowser } from "../../forms/late";
import { useTakeReading } from "../../forms/use-take-reading";
import { useMeterAt } from "../../job/use-meter-at";
import { VerdictMark } from "../../forms/verdict-mark";

const StationDrawing = lateInBrowser(() => import("../../drawing/station-drawing").then((m) => m.StationDrawing), "min-h-[31rem]");

const GROUP: Record<ColdCheck["group"], string> = {
  supply: "Supply rails",
  windings: "Windings",
  resistors: "Resistors in circuit",
  heaters: "Heaters, cold",
};

export function Resistances({ checks }: { checks: ColdCheck[] }) {
  const { view, energyKind, inHand, setInHand } = useJob();
  const reading = useTakeReading("cold-checks");
  const [at, setAt] = useState<string>();
  const [turn, setTurn] = useState(0);
  const readingAt = (c: ColdCheck) => latestReading(view.state, c.point, "ohm");
  const wanted = checks.find((c) => c.point === at) ?? checks.find((c) => !readingAt(c)) ?? checks[0]!;
  const [check, box] = useStays(wanted, wanted.point, turn);
  const meter = useMeterAt(check.point, "ohm", undefined, undefined, energyKind === "live");

  const circuit = view.circuit!;
  function to(point: string) {
    setAt(point);
    setTurn((n) => n + 1);
    setInHand(placeOfCheck(circuit, point));
  }
  // What is taken in hand on the drawing is the check, where there is one of it.
  useEffect(() => {
    const there = inHand && checks.find((c) => JSON.stringify(placeOfCheck(circuit, c.point)) === JSON.stringify(inHand));
    if (!there) return;
    setAt(there.point);
    setTurn((n) => n + 1);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- when something else is taken in hand
  }, [inHand]);
  const layer = useMemo(
    () =>
      coldLayer(
        circuit,
        checks.map((c) => {
          const read = latestReading(view.state, c.point, "ohm")?.value;
          return {
            point: c.point,
            expected: ohms(c.expected),
            read: read === undefined ? undefined : ohms(read),
            verdict: read === undefined ? undefined : judgeCold(c, read).verdict,
          };
        }),
        check.point,
      ),
    [circuit, checks, view.state, check.point],
  );

  function onward() {
    const from = checks.indexOf(check);
    to(
      [...checks.slice(from + 1), ...checks.slice(0, from)].find((c) => !readingAt(c))?.point ?? checks[(from + 1) % checks.length]!.point,
    );
  }
  function take(text: string) {
    const { point } = check;
    // An overload is a reading too: the part is open, or the meter's range ends below it.
    const typed = text === "" && meter.over ? "OL" : text;
    if (typed === "" && !meter.shows) return { refused: "Type the resistance in ohms, or OL for overload" };
    const refused = typed === "" ? reading.held(meter.toTake(), point, "ohm") : reading.typed({ point, kind: "ohm", text: typed });
    if (!refused) onward();
    return refused;
  }
  const last = readingAt(check);
  const taken = checks.filter((c) => readingAt(c)).length;
  return (
    <>
      <section
        {...box}
        aria-label="What to measure now"
        className="grid items-center gap-4 rounded border border-base-300 bg-base-200 p-4 md:grid-cols-[minmax(0,1fr)_15rem]"
      >
        <div>
          <p className="soft text-sm">
            {taken} of {checks.length} read · {GROUP[check.group]}
          </p>
          <p className="text-4xl font-bold">
            {check.group === "supply" || check.group === "windings" ? check.label : check.point}{" "}
            <span className="soft text-lg font-normal">
              {check.group === "resistors" || check.group === "heaters" ? check.label : check.point}
            </span>
          </p>
          <p className="mt-1 text-lg">
            {sentence(check.where)}. Should read <strong className="text-2xl">{ohms(check.expected)}</strong>{" "}
            {Number.isFinite(check.expected) && (
              <span className="soft">
                ({ohms(check.low)} to {ohms(check.high)})
              </span>
            )}
          </p>
          <p className="soft text-sm">
            {check.marked !== undefined && Math.abs(check.marked - check.expected) > 0.02 * check.marked
              ? `Marked ${ohms(check.marked)}; in circuit ${check.beside.slice(0, 4).join(", ") || "the rest"} is in parallel with it.`
              : check.marked !== undefined
                ? "Nothing in parallel: in circuit it reads its own value."
                : ""}
            {check.soon !== undefined && ` Climbs as the capacitors charge: about ${ohms(check.soon)} after two seconds.`}
          </p>
          {last && (
            <p className="mt-1">
              Read {ohms(last.value)} <Verdict check={check} value={last.value} />
            </p>
          )}
          <PointPhoto
            key={check.point}
            point={{ name: markNameOf(view.circuit!, check.point) }}
            place={check.place}
            marking
            className="mt-3 max-w-56"
          />
        </div>
        <ReadingField
          key={check.point}
          autoFocus={at !== undefined}
          label="Reading, Ω (OL for overload)"
          empty
          meter={
            meter.shows || meter.over
              ? {
                  steady: meter.steady || meter.over,
                  says: `${meter.steady || meter.over ? "●" : "○"} Meter ${meter.over ? "overload" : meter.shows}${meter.steady || meter.over ? ": Enter logs it" : ", not steady yet"}`,
                }
              : undefined
          }
          take={take}
        />
      </section>
      <Halves checks={checks} />
      <div className="mt-3">
        <StationDrawing layer={layer} />
      </div>
      <table className="table table-sm mt-3" aria-label="Resistances">
        <thead>
          <tr>
            <th>Where</th>
            <th></th>
            <th className="text-right">Out of circuit</th>
            <th className="text-right">In circuit</th>
            <th className="text-right">Read</th>
            <th>Verdict</th>
          </tr>
        </thead>
        {COLD_GROUPS.filter((g) => checks.some((c) => c.group === g)).map((g) => (
          <tbody key={g}>
            <tr>
              <th colSpan={6} className="soft pt-3 font-normal">
                {GROUP[g]}
              </th>
            </tr>
            {checks
              .filter((c) => c.group === g)
              .map((c) => {
                const r = readingAt(c);
                return (
                  <tr key={c.point} className={c === check ? "bg-base-200" : ""}>
                    <td>
                      <button className="underline decoration-dotted underline-offset-4" onClick={() => to(c.point)}>
                        {c.point}
                      </button>
                    </td>
                    <td className="text-xs">{c.label}</td>
                    <td className="text-right tabular-nums">{c.marked === undefined ? "" : ohms(c.marked)}</td>
                    <td className="text-right tabular-nums">{ohms(c.expected)}</td>
                    <td className="text-right font-bold whitespace-nowrap tabular-nums">{r ? ohms(r.value) : ""}</td>
                    <td>{r ? <Verdict check={c} value={r.value} /> : <VerdictMark verdict="none" word />}</td>
                  </tr>
                );
              })}
          </tbody>
        ))}
      </table>
    </>
  );
}

function Verdict({ check, value }: { check: ColdCheck; value: number }) {
  const { verdict, why } = judgeCold(check, value);
  return (
    <span>
      <VerdictMark verdict={verdict} word /> <span className="text-xs">{why}</span>
    </span>
  );
}

/** Halves of one winding against each other, once both are read. */
function Halves({ checks }: { checks: ColdCheck[] }) {
  const { view } = useJob();
  const pairs = checks.flatMap((first, i) => {
    const second = checks[i + 1];
    return first.firstHalf && second ? [{ first, second }] : [];
  });
  return pairs.map(({ first, second }) => {
    const [a, b] = [first, second].map((c) => latestReading(view.state, c.point, "ohm")?.value);
    if (a === undefined || b === undefined) return null;
    const { verdict, why } = judgeHalves(a, b, (first.marked ?? 1) / (second.marked ?? 1));
    return (
      <p key={first.point} className="mt-2" data-testid="halves">
        <VerdictMark verdict={verdict} word /> {first.label.replace(", first half", "")}, its halves: {ohms(a)} and {ohms(b)}
        {why ? `: ${why}` : ", alike"}
      </p>
    );
  });
}

const ohms = (value: number) => (value >= OPEN_OHMS ? "open" : formatQuantity(value, "Ω", 3));
const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
