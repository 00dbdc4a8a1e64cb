"use client";
/** The blocks of a file in their order: what each is, what it solves to, whether it can be right. */

import { kindName } from "@/core/texts/block-names";
import type { Block } from "@/core/blocks/block-file";
import type { Judged } from "@/core/blocks/judge-block";

interface ChainStripProps {
  blocks: readonly Block[];
  judged: ReadonlyMap<string, Judged>;
  inHand?: string;
  pick(id: string): void;
}

export function ChainStrip({ blocks, judged, inHand, pick }: ChainStripProps) {
  function onKey(e: React.KeyboardEvent<HTMLOListElement>) {
    const by = e.key === "ArrowRight" ? 1 : e.key === "ArrowLeft" ? -1 : 0;
    if (by === 0) return;
    e.preventDefault();
    const at = blocks.findIndex((b) => b.id === inHand);
    const to = blocks[Math.min(blocks.length - 1, Math.max(0, at + by))];
    if (!to) return;
    pick(to.id);
    e.currentTarget.querySelector<HTMLElement>(`[data-block="${to.id}"]`)?.focus();
  }
  return (
    <ol aria-label="Blocks, from the supply to the output" className="flex flex-wrap gap-1" onKeyDown={onKey}>
      {blocks.map((b, i) => {
        const { wrong = [], figures = [] } = judged.get(b.id) ?? {};
        const here = b.id === inHand;
        return (
          <li key={b.id}>
            <button
              data-block={b.id}
              tabIndex={here || (inHand === undefined && i === 0) ? 0 : -1}
              aria-pressed={here}
              title={wrong.join("; ") || undefined}
              onClick={() => pick(b.id)}
              className={`min-h-11 rounded border px-2 py-0.5 text-left text-sm leading-tight ${here ? "border-primary bg-secondary" : wrong.length > 0 ? "border-error" : "border-base-300 bg-base-200"}`}
            >
              <span className="block">
                {wrong.length > 0 && <span className="verdict-out">■ </span>}
                <strong>
                  {Object.values(b.tubes)
                    .map((t) => t.name)
                    .join(" ") || b.id}
                </strong>{" "}
                {kindName(b.kind)}
              </span>
              <span className="soft block text-xs tabular-nums">{figures.slice(0, 2).join(" · ") || "\u00a0"}</span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}
