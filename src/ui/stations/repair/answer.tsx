"use client";
/** The owner's answer: yes, no or in part, on which day, by which way and from whom; and a yes that is taken back. */

import { answered, takenBack } from "@/core/repair/owner-acts";
import { useState } from "react";
import { answerRefusedTo } from "@/core/shop/people";
import { ANSWERED_BY, type AnsweredBy } from "@/core/tape/events/words";
import { rootOf } from "@/core/tape/line-root";
import type { Question } from "@/core/repair/questions";
import { Field } from "../../forms/section";
import { useJob, useToday } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";

/** Why who is signed in may not answer a question; undefined when they may. */
function useNotTheirs(q: Question): string | undefined {
  const { role } = useJob();
  return answerRefusedTo(role, q.quote ? [{ type: "quote", payload: q.quote }] : [{ type: "approval", payload: q.asked }]);
}

/** What is asked of somebody who takes the answer down. */
export function Answer({ q }: { q: Question }) {
  const notTheirs = useNotTheirs(q);
  return notTheirs ? <p className="mt-2 text-sm">{notTheirs}.</p> : <TakenDown q={q} />;
}

function TakenDown({ q }: { q: Question }) {
  const { say, tape, view } = useJob();
  const today = useToday();
  const [on, setOn] = useState(today);
  const [by, setBy] = useState<AnsweredBy>("telephone");
  const [said, setSaid] = useState(view.state.opened?.owner ?? "");
  const [option, setOption] = useState(0);
  const [declined, setDeclined] = useState<number[]>([]);
  const { tasks } = useTasks();
  const options = q.quote?.options ?? q.asked?.options ?? [];
  const lines = q.quote?.options[option]?.lines ?? [];
  const about = (q.asked?.planned ?? []).map((l) => rootOf(view.state, l));
  // Of a quote the lines of a task are declined together; of a question its tasks.
  const choices =
    q.kind === "quote"
      ? [
          ...grouped(lines.map((l, i) => [l.planned === undefined ? `line ${i}` : `task ${rootOf(view.state, l.planned)}`, i] as const)),
        ].map(([key, places]) => ({
          key,
          name: lines[places[0]!]!.text,
          values: places,
        }))
      : about.map((root) => ({ key: String(root), name: tasks.find((t) => t.root === root)?.name ?? `line ${root}`, values: [root] }));
  const answer = (how: "yes" | "no" | "part") =>
    say(answered(q, how, { on, by, said }, { option: options.length > 0 ? option : undefined, declined }));
  const waiting = q.line >= tape.pendingFrom;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3">
      {options.length > 1 && (
        <Field label="Which way">
          <select
            className="select w-56"
            value={option}
            onChange={(e) => {
              setOption(Number(e.target.value));
              setDeclined([]);
            }}
          >
            {options.map((o, i) => (
              <option key={o.name} value={i}>
                {i + 1}. {o.name}
              </option>
            ))}
          </select>
        </Field>
      )}
      <Field label="On">
        <input type="date" className="input w-40" value={on} max={today} onChange={(e) => setOn(e.target.value)} />
      </Field>
      <Field label="By">
        <select className="select w-36" value={by} onChange={(e) => setBy(e.target.value as AnsweredBy)}>
          {ANSWERED_BY.map((b) => (
            <option key={b}>{b}</option>
          ))}
        </select>
      </Field>
      <Field label="From whom">
        <input className="input w-44" value={said} onChange={(e) => setSaid(e.target.value)} />
      </Field>
      {choices.length > 1 && (
        <fieldset className="basis-full">
          <legend className="text-sm">Leave out, for an answer in part</legend>
          {choices.map((c) => (
            <label key={c.key} className="flex min-h-8 items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={declined.includes(c.values[0]!)}
                onChange={(e) => setDeclined(e.target.checked ? [...declined, ...c.values] : declined.filter((d) => !c.values.includes(d)))}
              />
              {c.name}
            </label>
          ))}
        </fieldset>
      )}
      {(["yes", "part", "no"] as const).map((how) =>
        how === "part" && choices.length < 2 ? null : (
          <button
            key={how}
            className={`btn ${how === "yes" ? "btn-primary" : ""}`}
            disabled={
              waiting ||
              !on ||
              (how === "part"
                ? declined.length === 0 || declined.length >= choices.flatMap((c) => c.values).length
                : declined.length > 0 && how === "yes")
            }
            onClick={() => answer(how)}
          >
            {how === "part" ? "Owner agrees in part" : `Owner says ${how}`}
          </button>
        ),
      )}
    </div>
  );
}

/** Groups values by a key, in the order in which the keys come. */
function grouped<K, V>(pairs: readonly (readonly [K, V])[]): Map<K, V[]> {
  const out = new Map<K, V[]>();
  for (const [key, value] of pairs) out.set(key, [...(out.get(key) ?? []), value]);
  return out;
}

/** An answer can be taken back, also after the work: what was done stays done, and says so. */
export function Again({ q }: { q: Question }) {
  const { say, tape, view } = useJob();
  const today = useToday();
  const notTheirs = useNotTheirs(q);
  if (notTheirs) return null;
  const waiting = (q.answer?.seq ?? q.line) >= tape.pendingFrom;
  const agreed = q.stands === "yes" || q.stands === "part";
  const done = agreed && view.state.changes.some((c) => c.planned !== undefined && q.agreed.includes(rootOf(view.state, c.planned)));
  return (
    <div className="mt-1 flex flex-wrap items-center gap-3">
      {agreed && q.answer && (
        <button className="btn btn-line btn-sm min-h-9" disabled={waiting} onClick={() => say(takenBack(q, today))}>
          Owner takes it back
        </button>
      )}
      {done && <span className="soft text-sm">some of it is done already: it stays done, and is billed as it was agreed</span>}
      {q.answer?.asks !== undefined && (
        <button
          className="btn btn-line btn-sm min-h-9"
          disabled={waiting}
          onClick={() => say({ type: "undo", supersedes: q.answer!.seq, reason: "asked again", payload: {} })}
        >
          Undo the answer
        </button>
      )}
    </div>
  );
}
