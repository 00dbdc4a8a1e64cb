"use client";
/** The inspection list of this amp, one item at a time, by keyboard: sound, found, not there. */

import { words } from "@/core/language/language";
import { useMemo, useRef, useState } from "react";
import { dateAmp } from "@/core/inspection/dating";
import { INSPECTION_GROUPS, type InspectionItem } from "@/core/inspection/inspected";
import { inspectionList } from "@/core/inspection/inspection";
import type { Verdict } from "@/core/expectation/expectation";
import { useJob } from "../../job/job-context";
import { FindingForm } from "../finding-form";
import { VerdictMark } from "../../forms/verdict-mark";
import { capital } from "../../job/words";

const MARK: Record<string, Verdict> = { sound: "in", found: "watch", "not there": "in" };

export function Inspection() {
  const { view, say } = useJob();
  const { state, circuit } = view;
  const year = new Date().getFullYear();
  const items = useMemo(() => {
    const made = dateAmp(state.dateCodes, {
      from: Number(circuit?.facts.from) || undefined,
      to: Number(circuit?.facts.to) || undefined,
    }).to;
    return inspectionList(circuit, year, made, state.claims);
  }, [circuit, year, state.dateCodes, state.claims]);
  const answerOf = (i: InspectionItem) => {
    const answer = state.inspected.get(i.id);
    return answer && answer.result !== "open again" ? answer.result : undefined;
  };
  const left = items.filter((i) => !answerOf(i));
  const [chosen, setChosen] = useState<string>();
  const [drafting, setDrafting] = useState(false);
  const item = items.find((i) => i.id === chosen) ?? left[0];
  const box = useRef<HTMLElement>(null);

  function onward(from: InspectionItem) {
    const at = items.indexOf(from);
    const next = [...items.slice(at + 1), ...items.slice(0, at)].find((i) => !answerOf(i));
    setChosen(next?.id);
    setDrafting(false);
    box.current?.focus();
  }
  function answer(result: "sound" | "not there" | "found") {
    if (!item) return;
    if (result === "found") return setDrafting(true);
    say({ type: "inspection", payload: { item: item.id, what: `${item.place}: ${short(item.look)}`, result } });
    onward(item);
  }
  function step(by: number) {
    if (!item) return;
    setChosen(items[(items.indexOf(item) + by + items.length) % items.length]!.id);
    setDrafting(false);
  }
  function keys(e: React.KeyboardEvent) {
    // While something is typed, the keys are its letters.
    if ((e.target as HTMLElement).closest("input, select, textarea")) {
      if (e.key === "Escape") setDrafting(false);
      return;
    }
    const act: Record<string, () => void> = {
      "1": () => answer("sound"),
      "2": () => answer("found"),
      "3": () => answer("not there"),
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
    };
    if (e.ctrlKey || e.metaKey || e.altKey || !act[e.key]) return;
    e.preventDefault();
    act[e.key]!();
  }

  return (
    <section
      ref={box}
      aria-label="Inspection"
      data-arrival
      tabIndex={-1}
      onKeyDown={keys}
      className="mb-4 rounded border border-base-300 bg-base-200 p-4 focus-visible:outline-2 focus-visible:outline-primary"
    >
      {item ? (
        <>
          <p className="soft text-sm" aria-live="polite">
            {items.length - left.length} of {items.length} looked at · {words(item.group)} · {item.why}
          </p>
          <p className="text-3xl font-bold">{capital(item.place)}</p>
          <p className="mt-1 text-lg">{item.look}.</p>
          {drafting ? (
            <Draft key={item.id} item={item} done={() => onward(item)} cancel={() => setDrafting(false)} />
          ) : (
            <div className="mt-3 flex flex-wrap items-center gap-2">
              <button className="btn btn-primary btn-lg" onClick={() => answer("sound")} aria-keyshortcuts="1">
                1 Sound
              </button>
              <button className="btn btn-outline btn-lg" onClick={() => answer("found")} aria-keyshortcuts="2">
                2 Found…
              </button>
              <button className="btn btn-outline btn-lg" onClick={() => answer("not there")} aria-keyshortcuts="3">
                3 Not there
              </button>
              {answerOf(item) && <span className="soft">now: {answerOf(item)}</span>}
              <span className="soft ml-auto text-sm">keys 1 2 3, ↑ ↓</span>
            </div>
          )}
        </>
      ) : (
        <p className="text-3xl font-bold">All {items.length} looked at.</p>
      )}
      <details className="mt-3" open={left.length === 0}>
        <summary className="cursor-pointer py-2 text-sm">The whole list</summary>
        <div className="grid gap-x-6 md:grid-cols-2">
          {INSPECTION_GROUPS.map((group) => {
            const own = items.filter((i) => i.group === group);
            return own.length === 0 ? null : (
              <div key={group} className="mb-2">
                <h3 className="soft text-sm">{words(group)}</h3>
                <ul>
                  {own.map((i) => (
                    <li key={i.id}>
                      <button
                        className={`flex min-h-9 w-full items-center gap-2 rounded px-2 text-left text-sm hover:bg-base-300 ${i === item ? "bg-base-300 font-bold" : ""}`}
                        onClick={() => {
                          setChosen(i.id);
                          setDrafting(false);
                        }}
                      >
                        <VerdictMark verdict={MARK[answerOf(i) ?? ""] ?? "none"} />
                        <span className="flex-1">{i.place.length > 60 ? `${i.place.slice(0, 58)}…` : i.place}</span>
                        <span className="soft text-xs">{answerOf(i) ?? ""}</span>
                      </button>
                    </li>
                  ))}
                </ul>
              </div>
            );
          })}
        </div>
      </details>
    </section>
  );
}

const short = (text: string) => (text.length > 120 ? `${text.slice(0, 118)}…` : text);

/** What was found, drafted from the item. */
function Draft({ item, done, cancel }: { item: InspectionItem; done(): void; cancel(): void }) {
  const what = `${item.place.slice(0, 100)}: ${short(item.look)}`;
  return (
    <FindingForm
      station="look"
      from={{ ...item.finding, place: item.place.length > 40 ? "" : item.place }}
      about={item.place.slice(0, 190)}
      before={[{ type: "inspection", payload: { item: item.id, what, result: "found" } }]}
      button="Log the finding"
      autoFocus
      onLogged={done}
    >
      <button type="button" className="btn btn-ghost" onClick={cancel}>
        Back
      </button>
    </FindingForm>
  );
}
