"use client";
/** A value typed where it stands on the drawing: Enter or Tab goes on to the next, nothing typed leaves it as it is. */

import { useLayoutEffect, useRef, useState } from "react";
import { TEXT_HEIGHT, type Drawing } from "@/core/drawing/geometry";
import type { Slot } from "@/core/blocks/values";
import { formatQuantity } from "@/core/quantity/format";

interface ValueEntryProps {
  drawing: Drawing;
  slot: Slot;
  /** Reads what was typed; the reason when it cannot be read. */
  type(slot: Slot, typed: string): string | undefined;
  go(by: 1 | -1): void;
  leave(): void;
}

const [WIDTH, HEIGHT] = [10, 2.7];

/** Each slot has a field of its own: give it the part as its key. */
export function ValueEntry({ drawing, slot, type, go, leave }: ValueEntryProps) {
  const [typed, setTyped] = useState("");
  const [why, setWhy] = useState("");
  const input = useRef<HTMLInputElement>(null);
  // With the field itself, not after it is painted: a key pressed in between would be lost.
  useLayoutEffect(() => input.current?.focus({ preventScroll: true }), []);
  const label = drawing.labels.find((l) => l.part === slot.part);
  const symbol = drawing.symbols.find((s) => s.part === slot.part);
  const box = label?.box ?? symbol?.box;
  if (!box) return null;
  const x =
    label?.align === "end" ? box.x + box.width - WIDTH : label?.align === "middle" ? box.x + box.width / 2 - WIDTH / 2 : box.x - 0.3;

  const y = box.y + TEXT_HEIGHT - 0.4;
  const take = (by: 1 | -1) => {
    const problem = typed.trim() === "" ? undefined : type(slot, typed);
    setWhy(problem ?? "");
    if (problem === undefined) go(by);
  };
  return (
    <>
      {/* Its frame is drawn: a border would be a whole pixel of the page at least, and that is a unit here. */}
      <rect
        x={x}
        y={y}
        width={WIDTH}
        height={HEIGHT}
        rx={0.4}
        fill="var(--color-base-100)"
        className={why ? "stroke-error" : "stroke-primary"}
        strokeWidth={0.3}
      />
      <foreignObject x={x} y={y} width={WIDTH + 12} height={HEIGHT + (why ? 6 : 0)} style={{ overflow: "visible" }}>
        <input
          ref={input}
          aria-label={`${slot.element.name}, ${slot.says}`}
          aria-invalid={why !== ""}
          autoComplete="off"
          spellCheck={false}
          className={`tabular-nums ${slot.prov === "assumed" ? "placeholder:italic placeholder:opacity-60" : "placeholder:opacity-100"}`}
          // In the drawing's own units: it grows and moves with it.
          style={{
            display: "block",
            width: WIDTH,
            height: HEIGHT,
            fontSize: 1.7,
            lineHeight: 1.2,
            padding: "0 0.5px",
            border: 0,
            outline: "none",
            background: "transparent",
          }}
          placeholder={formatQuantity(slot.value, slot.unit)}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onClick={(e) => e.stopPropagation()}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === "Enter" || e.key === "Tab") {
              e.preventDefault();
              take(e.shiftKey ? -1 : 1);
            } else if (e.key === "Escape") {
              e.preventDefault();
              leave();
            }
          }}
        />
        {why && (
          <p
            role="alert"
            className="rounded bg-base-100 text-error"
            style={{ fontSize: 1.3, lineHeight: 1.5, padding: 0.3, width: 22, marginTop: 0.4 }}
          >
            {why}
          </p>
        )}
      </foreignObject>
    </>
  );
}
