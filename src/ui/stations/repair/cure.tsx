"use client";
/** Several changes are in since it works: which one cured it. Put back in the order that tells soonest. */

import { useState } from "react";
import { changeEnded, fittedAgain } from "@/core/repair/part-acts";
import type { EventDraft } from "@/core/tape/events/event";
import { isIn, type JobState } from "@/core/tape/fold";
import { rootOf } from "@/core/tape/line-root";
import { formatDuration } from "@/core/quantity/format";
import { leftAfter, MOST_CHANGES, nextCureTest, type MayHaveCured } from "@/core/repair/cure";
import { Field, Section } from "../../forms/section";
import { useJob } from "../../job/job-context";

/** Why a change was put back for a test: by it those are known again before the first result. */
const FOR_TEST = "put back to see whether it was the cure";
const outForTest = (state: JobState, seq: number) => state.lines.some((l) => l.event.seq === seq && l.event.reason === FOR_TEST);

/** Minutes to put a change back, and to see whether the fault is there, unless they are said. */
const USUAL = { putBack: 10, trying: 10 };

export function Cure() {
  const { view, say, shopHistory } = useJob();
  const { state } = view;
  const roots = state.changes.map((c) => rootOf(state, c.seq));
  const last = state.cureTests.at(-1);
  const running = last?.among.map((l) => rootOf(state, l)).filter((r) => roots.includes(r));
  const [chosen, setChosen] = useState<number[]>();
  const [minutes, setMinutes] = useState<Record<number, string>>({});
  const [trying, setTrying] = useState(String(USUAL.trying));
  // Those of the tests so far; else everything that is in.
  const among = chosen ?? running ?? roots.filter((_, i) => isIn(state.changes[i]!) || outForTest(state, state.changes[i]!.seq));
  const changeOf = (root: number) => state.changes.find((c) => rootOf(state, c.seq) === root)!;
  const number = (text: string | undefined, usual: number) => (text !== undefined && Number(text) > 0 ? Number(text) : usual);
  const may = among.map((root): MayHaveCured => {
    const c = changeOf(root);
    // What cured like complaints here before is the likelier one.
    const before = shopHistory?.like?.cured[c.position.toUpperCase()] ?? 0;
    return { line: root, position: c.position, chance: 1 + before, minutes: number(minutes[root], c.minutes ?? USUAL.putBack) };
  });
  const tests = state.cureTests
    .filter(
      (t) =>
        [...t.among]
          .map((l) => rootOf(state, l))
          .sort()
          .join() === [...among].sort().join(),
    )
    .map((t) => ({ ...t, out: t.out.map((l) => rootOf(state, l)) }));
  const out = among.filter((root) => !isIn(changeOf(root)));
  if (state.changes.length === 0)
    return (
      <p className="soft">
        Nothing is changed yet. When several changes are in and the fault is gone, this finds out which of them cured it.
      </p>
    );
  const tooMany = leftAfter(among, tests).length > MOST_CHANGES;
  const step = among.length === 0 || tooMany ? undefined : nextCureTest(may, tests, out, number(trying, USUAL.trying));
  const ready = step?.putBack.length === 0 && step.fitAgain.length === 0 && step.out !== undefined;
  return (
    <div className="max-w-4xl">
      <section aria-label="Next test" className="mb-4 rounded border border-base-300 bg-base-200 p-4">
        <p className="text-2xl font-bold">
          {step === undefined
            ? tooMany
              ? `More than ${MOST_CHANGES} changes cannot be told apart at once: choose fewer below.`
              : "Choose the changes that came in before it worked."
            : ready
              ? "Try the complaint again now."
              : step.says}
        </p>
        {step?.out && (
          <p className="soft mt-1">
            {step.left.length} of {among.length} changes may still be the cure; about {formatDuration(Math.round(step.minutes) * 60)} until
            it is known. It is assumed that one change alone is the cure.
          </p>
        )}
        {step?.out && !ready && (
          <button className="btn btn-primary btn-lg mt-3" onClick={() => say(...moves(state, step.putBack, step.fitAgain))}>
            It is done: log it
          </button>
        )}
        {step?.out && ready && (
          <div className="mt-3 flex flex-wrap gap-3">
            {(["fault is back", "still cured"] as const).map((result) => (
              <button
                key={result}
                className="btn btn-primary btn-lg"
                onClick={() => say({ type: "cure-test", payload: { among, out: step.out!, result } })}
              >
                {result === "fault is back" ? "The fault is back" : "It is still cured"}
              </button>
            ))}
          </div>
        )}
        {step?.cure !== undefined && <Ended cure={step.cure} among={among} state={state} say={say} tested={tests.length > 0} />}
      </section>
      <Section title="Changes in question" hint="those that came in before it worked">
        <table className="table table-sm">
          <thead>
            <tr>
              <th />
              <th>Change</th>
              <th>Now</th>
              <th className="text-right">Minutes to put back</th>
            </tr>
          </thead>
          <tbody>
            {state.changes.map((c) => {
              const root = rootOf(state, c.seq);
              return (
                <tr key={c.seq}>
                  <td>
                    <input
                      type="checkbox"
                      className="checkbox"
                      aria-label={`${c.position} may have cured it`}
                      checked={among.includes(root)}
                      onChange={(e) => setChosen(e.target.checked ? [...among, root] : among.filter((r) => r !== root))}
                    />
                  </td>
                  <td>
                    <strong>{c.position}</strong> {c.newPart}
                    {step && among.includes(root) && !step.left.includes(root) && <span className="soft block text-xs">ruled out</span>}
                  </td>
                  <td>{isIn(c) ? "in the amp" : "put back"}</td>
                  <td className="text-right">
                    <input
                      className="input input-sm w-20 text-right tabular-nums"
                      inputMode="numeric"
                      aria-label={`Minutes to put back ${c.position}`}
                      placeholder={String(c.minutes ?? USUAL.putBack)}
                      value={minutes[root] ?? ""}
                      onChange={(e) => setMinutes({ ...minutes, [root]: e.target.value })}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <Field label="Minutes to see whether the fault is there" className="mt-2 max-w-72">
          <input
            className="input w-28 text-right tabular-nums"
            inputMode="numeric"
            value={trying}
            onChange={(e) => setTrying(e.target.value)}
          />
        </Field>
      </Section>
      {tests.length > 0 && (
        <Section title="Tests so far">
          <ul>
            {tests.map((t) => (
              <li key={t.seq}>
                Out: {t.out.map((r) => changeOf(r).position).join(", ") || "none"} – {t.result}
              </li>
            ))}
          </ul>
        </Section>
      )}
    </div>
  );
}

/** The lines that put changes back and fit others again. */
function moves(state: JobState, putBack: readonly number[], fitAgain: readonly number[]): EventDraft[] {
  const of = (root: number) => state.changes.find((c) => rootOf(state, c.seq) === root)!;
  return [
    ...putBack.map((root) => changeEnded(of(root), "reverted", { reason: FOR_TEST })),
    ...fitAgain.map((root) => fittedAgain(of(root), "fitted again to see whether it was the cure")),
  ];
}

/** The cure is known: it goes in again, and what was not it can stay out or go in. */
function Ended({
  cure,
  among,
  state,
  say,
  tested,
}: {
  cure: number;
  among: number[];
  state: JobState;
  say(...d: EventDraft[]): void;
  tested: boolean;
}) {
  const changeOf = (root: number) => state.changes.find((c) => rootOf(state, c.seq) === root)!;
  const out = !isIn(changeOf(cure));
  const others = among.filter((r) => r !== cure && isIn(changeOf(r)));
  if (!tested) return null;
  return (
    <div className="mt-3 flex flex-wrap gap-3">
      {out && (
        <button className="btn btn-primary" onClick={() => say(...moves(state, [], [cure]))}>
          Fit {changeOf(cure).position} again
        </button>
      )}
      {others.length > 0 && (
        <button className="btn btn-outline" onClick={() => say(...moves(state, others, []))}>
          Put back {others.map((r) => changeOf(r).position).join(", ")}: not the cure
        </button>
      )}
    </div>
  );
}
