"use client";
/** What the owner is asked, with price, consequence and evidence, and what they answer: yes, no, in part, taken back. */

import { useState } from "react";
import { format } from "date-fns";
import { readAmount } from "@/core/money/amount";
import { is, type EventDraft } from "@/core/tape/events/event";
import { ANSWERED_BY, OPTION_AIMS, type AnsweredBy, type OptionAim } from "@/core/tape/events/words";
import { tellEvent } from "@/core/tape/tell";
import type { ApprovalOption } from "@/core/tape/events/work-events";
import { questionsOf, type Question } from "@/core/work/questions";
import { rootOf } from "@/core/tape/fold";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../frame/job-context";
import { useTasks } from "../../frame/use-tasks";

const STANDS: Record<Question["stands"], string> = {
  asked: "▲ not answered",
  yes: "● yes",
  part: "● in part",
  no: "■ no",
  revoked: "■ yes, then taken back",
};

export function Approvals() {
  const { view, jobId } = useJob();
  const { money } = useTasks();
  const questions = questionsOf(view.state);
  const open = questions.filter((q) => q.stands === "asked");
  const settled = questions.filter((q) => q.stands !== "asked");
  return (
    <div className="max-w-5xl">
      <Section title="Owner's approval" hint="needed before work that the agreement does not cover">
        {questions.length === 0 && (
          <p className="soft">Nothing was asked yet. What the brief covers needs no question; a quote is made at Quote.</p>
        )}
        <ul className="space-y-3">
          {open.map((q) => (
            <li key={q.line} className="rounded border border-base-300 bg-base-200 p-3">
              <Asked q={q} money={money} jobId={jobId} />
              <Answer q={q} />
            </li>
          ))}
          {settled.map((q) => (
            <li key={q.line} className="border-l-4 border-base-300 pl-3">
              <Asked q={q} money={money} jobId={jobId} />
              <Again q={q} />
            </li>
          ))}
        </ul>
      </Section>
      <Ask />
    </div>
  );
}

function Asked({ q, money, jobId }: { q: Question; money(amount: number): string; jobId: number }) {
  const { answer } = q;
  return (
    <div className="flex flex-wrap items-start gap-x-3">
      <p className="min-w-48 flex-1">
        <strong>{q.kind === "quote" ? `Quote: ${q.option?.name ?? q.what}` : q.what}</strong>
        {q.cost !== undefined && <span className="ml-2 tabular-nums">{money(q.cost)}</span>}
        {q.asked?.consequence && <span className="soft block text-sm">{q.asked.consequence}</span>}
        {(q.asked?.options ?? []).map((o, i) => (
          <span key={o.name} className="soft block text-sm">
            {i + 1}. {o.name}
            {o.aim && ` (${o.aim})`}
            {o.cost !== undefined && `, ${money(o.cost)}`}
            {o.consequence && `: ${o.consequence}`}
          </span>
        ))}
        <span className="block text-sm">
          <span className={q.stands === "asked" ? "text-warning" : ""}>{STANDS[q.stands]}</span>
          {answer && (
            <span className="soft">
              {" "}
              {[answer.on ?? answer.at.slice(0, 10), answer.by, answer.said, `noted by ${answer.who}`].filter(Boolean).join(", ")}
            </span>
          )}
        </span>
      </p>
      <a className="btn btn-sm btn-outline min-h-9" href={`/jobs/${jobId}/paper/${q.kind}-${q.line}`}>
        As a page
      </a>
    </div>
  );
}

/** Yes, no or part, on which day, by which way and from whom. */
function Answer({ q }: { q: Question }) {
  const { say, tape, view } = useJob();
  const [on, setOn] = useState(format(new Date(), "yyyy-MM-dd"));
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
    say({
      type: "approval",
      payload: {
        what: q.what.slice(0, 4000),
        answer: how,
        asks: q.line,
        on,
        by,
        ...(said.trim() ? { said: said.trim() } : {}),
        ...(how !== "no" && options.length > 0 ? { option } : {}),
        ...(how === "part" ? { declined } : {}),
      },
    });
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
        <input
          type="date"
          className="input w-40"
          value={on}
          max={format(new Date(), "yyyy-MM-dd")}
          onChange={(e) => setOn(e.target.value)}
        />
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
function Again({ q }: { q: Question }) {
  const { say, tape, view } = useJob();
  const waiting = (q.answer?.seq ?? q.line) >= tape.pendingFrom;
  const agreed = q.stands === "yes" || q.stands === "part";
  const done = agreed && view.state.changes.some((c) => c.planned !== undefined && q.agreed.includes(rootOf(view.state, c.planned)));
  return (
    <div className="mt-1 flex flex-wrap items-center gap-3">
      {agreed && q.answer && (
        <button
          className="btn btn-line btn-sm min-h-9"
          disabled={waiting}
          onClick={() =>
            say({
              type: "approval",
              payload: {
                what: q.what.slice(0, 4000),
                answer: "revoked",
                asks: q.line,
                on: format(new Date(), "yyyy-MM-dd"),
                by: "telephone",
              },
            })
          }
        >
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

const TYPES = new Set(["reading", "finding", "photo", "waveform", "recording", "capacitor-test", "tube-test", "safety-test"]);
const OPTION_LINE = /^\s*(.+?)\s*=\s*([^:]*?)\s*(?::\s*(.*))?$/;

/** Options as they are typed, one a line: "make it last: new electrolytics = 240: quiet for years". */
export function readOptions(text: string, places: number): ApprovalOption[] | string {
  const out: ApprovalOption[] = [];
  for (const line of text.split("\n")) {
    if (!line.trim()) continue;
    const aim = OPTION_AIMS.find((a) => line.trim().toLowerCase().startsWith(a));
    const rest = aim
      ? line
          .trim()
          .slice(aim.length)
          .replace(/^\s*:\s*/, "")
      : line;
    const match = OPTION_LINE.exec(rest);
    const name = (match?.[1] ?? rest).trim() || aim;
    if (!name) return `Options: read “${line.trim()}”; accepted: new electrolytics = 240: quiet for years`;
    const cost = match?.[2]?.trim() ? readAmount(match[2], places) : undefined;
    if (cost && !cost.ok) return `Options, ${name}: ${cost.why}`;
    out.push({
      name,
      ...(aim ? { aim: aim as OptionAim } : {}),
      ...(cost?.ok ? { cost: cost.amount } : {}),
      ...(match?.[3] ? { consequence: match[3].trim() } : {}),
    });
  }
  return out.length > 5 ? "Options: five at most" : out;
}

function Ask() {
  const { view, say, settings } = useJob();
  const { tasks } = useTasks();
  const [evidence, setEvidence] = useState<number[]>([]);
  const [about, setAbout] = useState<number[]>([]);
  const shows = view.state.effective.filter((e) => TYPES.has(e.type)).slice(-40);
  const open = tasks.filter((t) => t.state === "open");
  const { field, onSubmit, refused } = useTypedForm({ what: "", cost: "", consequence: "", options: "" }, (v) => {
    const what =
      v.what.trim() ||
      open
        .filter((t) => about.includes(t.root))
        .map((t) => t.name)
        .join("; ");
    if (!what) return "What is asked?";
    const cost = v.cost.trim() ? readAmount(v.cost, settings.money.places) : undefined;
    if (cost && !cost.ok) return `Cost: ${cost.why}`;
    const options = readOptions(v.options, settings.money.places);
    if (typeof options === "string") return options;
    const draft: EventDraft = {
      type: "approval",
      payload: {
        what,
        answer: "asked",
        ...(cost?.ok ? { cost: cost.amount } : {}),
        ...(v.consequence.trim() ? { consequence: v.consequence.trim() } : {}),
        ...(options.length > 0 ? { options } : {}),
        ...(evidence.length > 0 ? { evidence } : {}),
        ...(about.length > 0 ? { planned: about } : {}),
      },
    };
    say(draft);
    setEvidence([]);
    setAbout([]);
  });
  const toggle = (list: number[], set: (l: number[]) => void, n: number, there: boolean) =>
    set(there ? [...list, n] : list.filter((x) => x !== n));
  return (
    <Section title="Ask the owner">
      <form className="grid grid-cols-2 gap-3 lg:grid-cols-6" onSubmit={onSubmit} aria-label="A question">
        <Field label="Ask the owner" className="col-span-full lg:col-span-4">
          <input className="input w-full" placeholder="a new output transformer" {...field("what")} />
        </Field>
        <Field label={`It costs, ${settings.currency}`} className="lg:col-span-2">
          <input className="input w-full text-right tabular-nums" inputMode="decimal" {...field("cost")} />
        </Field>
        <Field label="What it means for the owner, in their words" className="col-span-full">
          <input
            className="input w-full"
            placeholder="without it the sound stays thin, and it may burn out on a loud evening"
            {...field("consequence")}
          />
        </Field>
        <Field label="Ways to choose from, where the brief is torn: one a line, name = cost: what it means" className="col-span-full">
          <textarea
            className="textarea w-full text-sm"
            rows={3}
            placeholder={
              "make it work: used transformer = 60: may last years or months\nmake it last: new transformer = 140: as when it was made"
            }
            {...field("options")}
          />
        </Field>
        {open.length > 0 && (
          <fieldset className="col-span-full lg:col-span-3">
            <legend className="mb-1 text-sm">About these tasks</legend>
            {open.map((t) => (
              <label key={t.root} className="flex min-h-8 items-center gap-2 text-sm">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={about.includes(t.root)}
                  onChange={(e) => toggle(about, setAbout, t.root, e.target.checked)}
                />
                {t.name}
              </label>
            ))}
          </fieldset>
        )}
        {shows.length > 0 && (
          <details className="col-span-full lg:col-span-3">
            <summary className="min-h-8 cursor-pointer text-sm">Evidence from the tape ({evidence.length} chosen)</summary>
            <div className="max-h-56 overflow-y-auto">
              {shows.map((e) => (
                <label key={e.seq} className="flex min-h-8 items-center gap-2 text-sm">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    checked={evidence.includes(e.seq)}
                    onChange={(x) => toggle(evidence, setEvidence, e.seq, x.target.checked)}
                  />
                  {e.seq}: {tellEvent(e)}
                  {is(e, "photo") && <img src={`/api/v1/photos/${e.payload.hash}`} alt="" className="max-h-10" />}
                </label>
              ))}
            </div>
          </details>
        )}
        <div className="col-span-full">
          <button className="btn btn-primary">Note it as asked</button>
          <Refused className="mt-1">{refused}</Refused>
        </div>
      </form>
    </Section>
  );
}
