"use client";
/** Parts of a station that are worked at one at a time. Arrow keys go from one to the next. */

import { useId, useRef, useState, type ReactNode } from "react";

export interface Tab {
  id: string;
  name: string;
  /** What is open in it: "3", "▲". */
  mark?: string;
  body: ReactNode;
  /** What is typed in it stays while another is looked at. Not for what asks an instrument. */
  keep?: boolean;
}

export function Tabs({ tabs, label, first }: { tabs: Tab[]; label: string; first?: string }) {
  const [chosen, setChosen] = useState(first ?? tabs[0]!.id);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const own = useId();
  const list = useRef<HTMLDivElement>(null);
  const at = Math.max(
    0,
    tabs.findIndex((t) => t.id === chosen),
  );
  const choose = (id: string) => {
    setOpened((o) => new Set([...o, tabs[at]!.id, id]));
    setChosen(id);
  };
  const go = (step: number) => {
    const next = tabs[(at + step + tabs.length) % tabs.length]!;
    choose(next.id);
    list.current?.querySelector<HTMLButtonElement>(`[data-tab="${next.id}"]`)?.focus();
  };
  return (
    <>
      <div
        ref={list}
        role="tablist"
        aria-label={label}
        className="mb-4 flex flex-wrap gap-1 border-b border-base-300"
        onKeyDown={(e) => {
          if (e.key === "ArrowRight") go(1);
          else if (e.key === "ArrowLeft") go(-1);
          else return;
          e.preventDefault();
        }}
      >
        {tabs.map((t, i) => (
          <button
            key={t.id}
            type="button"
            role="tab"
            id={`${own}-${t.id}`}
            data-tab={t.id}
            aria-selected={i === at}
            aria-controls={i === at ? `${own}-${t.id}-panel` : undefined}
            tabIndex={i === at ? 0 : -1}
            className={`min-h-11 rounded-t px-3 ${i === at ? "border border-b-0 border-base-300 bg-base-200 font-bold" : "soft hover:text-base-content"}`}
            onClick={() => choose(t.id)}
          >
            {t.name} {t.mark && <span className="tabular-nums">{t.mark}</span>}
          </button>
        ))}
      </div>
      {tabs.map((t, i) =>
        i === at || (t.keep && opened.has(t.id)) ? (
          <div key={t.id} role="tabpanel" id={`${own}-${t.id}-panel`} aria-labelledby={`${own}-${t.id}`} hidden={i !== at}>
            {t.body}
          </div>
        ) : null,
      )}
    </>
  );
}
