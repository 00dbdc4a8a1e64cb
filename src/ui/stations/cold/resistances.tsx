"use client";
/** The resistance list, one reading at a time: typed or taken from the meter, against what the circuit makes of it. */

import { useState } from "react";
import { latestReading } from "@/core/job/fold";
import { parseEntry } from "@/core/job/entry/entry";
import { readingOf } from "@/core/instrument/held-reading";
import { OPEN_OHMS } from "@/core/quantity/ohms";
import { formatQuantity } from "@/core/quantity/format";
import { COLD_GROUPS, judgeCold, judgeHalves, type ColdCheck } from "@/core/walk/cold-check";
import { useJob } from "../../frame/job-context";
import { useMeterAt } from "../../frame/use-meter-at";
import { VerdictMark } from "../../frame/verdict-mark";

const GROUP: Record<ColdCheck["group"], string> = {
  supply: "Supply rails",
  windings: "Windings",
  resistors: "Resistors in circuit",
  heaters: "Heaters, cold",
};

export function Resistances({ checks }: { checks: ColdCheck[] }) {
  const { view, say, entryContext, conditions, energy } = useJob();
  const [at, setAt] = useState<string>();
  const [text, setText] = useState("");
  const [refused, setRefused] = useState("");
  const readingAt = (c: ColdCheck) => latestReading(view.state, c.point, "ohm");
  const check = checks.find((c) => c.point === at) ?? checks.find((c) => !readingAt(c)) ?? checks[0]!;
  const meter = useMeterAt(check.point, "ohm", undefined, undefined, energy.kind === "live");

  function onward() {
    setText("");
    setRefused("");
    const from = checks.indexOf(check);
    setAt(
      [...checks.slice(from + 1), ...checks.slice(0, from)].find((c) => !readingAt(c))?.point ?? checks[(from + 1) % checks.length]!.point,
    );
  }
  function take(e: React.FormEvent) {
    e.preventDefault();
    if (text.trim() === "") {
      const held = meter.over
        ? { point: check.point, kind: "ohm" as const, value: OPEN_OHMS, digits: 1, conditions }
        : meter.steady
          ? readingOf(meter.hold, check.point, conditions, "ohm")
          : undefined;
      if (!held) return setRefused(meter.shows ? "Not still yet" : "Type the ohms, or OL for overload");
      say({ type: "reading", payload: held });
      return onward();
    }
    const entry = parseEntry(`${check.point} ohm ${text}`, entryContext("cold-checks"));
    if (!entry.ok) return setRefused(`${entry.why}. Accepted: ${entry.accepted}, or OL`);
    say(...entry.drafts);
    onward();
  }
  const reading = readingAt(check);
  const taken = checks.filter((c) => readingAt(c)).length;
  return (
    <>
      <form
        onSubmit={take}
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
              ? `Marked ${ohms(check.marked)}; out of circuit it reads that, here ${check.beside.slice(0, 4).join(", ") || "the rest"} lies beside it.`
              : check.marked !== undefined
                ? "Nothing lies beside it: in circuit it reads its own value."
                : ""}
            {check.soon !== undefined && ` Climbs as the capacitors charge: about ${ohms(check.soon)} after two seconds.`}
          </p>
          {reading && (
            <p className="mt-1">
              Read {ohms(reading.value)} <Verdict check={check} value={reading.value} />
            </p>
          )}
        </div>
        <div>
          <label className="text-sm" htmlFor="ohms">
            Reading, Ω
          </label>
          <input
            id="ohms"
            className="input h-16 w-full text-right tabular-nums text-3xl"
            autoComplete="off"
            value={text}
            aria-invalid={refused !== ""}
            onChange={(e) => {
              setText(e.target.value);
              setRefused("");
            }}
          />
          {(meter.shows || meter.over) && (
            <p
              data-testid="meter-here"
              data-steady={meter.steady || meter.over}
              className={`text-sm ${meter.steady || meter.over ? "" : "soft"}`}
            >
              {meter.steady || meter.over ? "●" : "○"} meter {meter.over ? "overload" : meter.shows}
              {meter.steady || meter.over ? ": Enter takes it" : ", not still yet"}
            </p>
          )}
          <p role="alert" className="min-h-5 text-sm text-error">
            {refused}
          </p>
        </div>
      </form>
      <Halves checks={checks} />
      <table className="table table-sm mt-3" aria-label="Resistances">
        <thead>
          <tr>
            <th>Where</th>
            <th></th>
            <th className="text-right">Alone</th>
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
                      <button className="underline decoration-dotted underline-offset-4" onClick={() => setAt(c.point)}>
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
