"use client";
/** A question to the owner: price, consequence, ways to choose from, the tasks that it is about, evidence from the tape. */

import { questionAsked } from "@/core/repair/owner-acts";
import { useState } from "react";
import { readAmount } from "@/core/money/amount";
import { is } from "@/core/tape/events/event";
import { OPTION_AIMS, type OptionAim } from "@/core/tape/events/words";
import type { ApprovalOption } from "@/core/tape/events/work-events";
import { tellEvent } from "@/core/tape/tell";
import { Field, Section } from "../../forms/section";
import { Refused, useTypedForm } from "../../forms/typed-form";
import { useJob } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";

/** Lines that can show an owner something. */
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

export function AskOwner() {
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
    say(questionAsked({ what, cost: cost?.ok ? cost.amount : undefined, consequence: v.consequence, options, evidence, planned: about }));
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
