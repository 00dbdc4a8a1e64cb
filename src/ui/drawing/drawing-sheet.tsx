"use client";
/** The drawing with its tools: zoom, search, arrow keys from part to part, what is known of the thing in hand, and the same as a table. */

import { useDeferredValue, useEffect, useId, useRef, useState, type ReactNode } from "react";
import { Maximize2, Minimize2, Minus, Plus, Scan } from "lucide-react";
import type { Circuit } from "@/core/circuit/circuit";
import type { Direction, Drawing } from "@/core/drawing/geometry";
import type { School } from "@/core/drawing/strokes";
import type { Solution } from "@/core/expectation/solution";
import type { InHand } from "../job/job-context";
import { Known } from "./known";
import type { Layer } from "./layer";
import { PartTable } from "./part-table";
import { findByName, nextPart, placeOfNode, placeOfPart } from "./places";
import { Schematic } from "./schematic";
import { useZoom } from "./use-zoom";

export interface DrawingSheetProps {
  drawing: Drawing;
  circuit: Circuit;
  school: School;
  layer: Layer;
  solution?: Solution;
  inHand?: InHand;
  setInHand(at: InHand | undefined): void;
  /** Large: it has the screen to itself. */
  large: boolean;
  setLarge?(large: boolean): void;
  /** What the job has seen of the thing in hand, and what can be done with it. */
  history?: ReactNode;
  action?: ReactNode;
  /** Told what was clicked, or taken by Enter. */
  picked?(at: InHand): void;
  /** Told what was found by its name; it is in hand by then, and brought into sight. */
  found?(at: InHand): void;
  /** More tools beside the zoom: downloads. */
  tools?: ReactNode;
  /** Lies on the drawing, in its own units: a value that is being typed. */
  over?: ReactNode;
  /** Whether what is known of the thing in hand stands beside the drawing; it does unless false. */
  known?: boolean;
}

const ARROWS: Record<string, Direction> = { ArrowUp: "up", ArrowDown: "down", ArrowLeft: "left", ArrowRight: "right" };

export function DrawingSheet(props: DrawingSheetProps) {
  const { drawing, circuit, school, layer, solution, inHand, setInHand, large, setLarge } = props;
  // It is a thousand elements: they are made between other work, and nothing waits for them.
  const painted = useDeferredValue<Drawing | undefined>(drawing, undefined);
  const besides = (inHand !== undefined && props.known !== false) || (large && props.action !== undefined);
  const part = inHand && "part" in inHand ? inHand.part : undefined;
  const node = inHand && "node" in inHand ? inHand.node : undefined;
  const placeOf = (at: InHand) => ("part" in at ? placeOfPart(drawing, at.part) : placeOfNode(drawing, at.node));
  // It begins at what is in hand; where the whole of it would be too small to be read, at what is next or what the station is about.
  const zoom = useZoom(drawing, large, () => {
    const held = inHand && placeOf(inHand);
    if (held) return { at: held, always: true };
    const { next, about } = layer;
    const at = next !== undefined ? placeOf({ node: next }) : about?.[0] !== undefined ? placeOf({ part: about[0] }) : undefined;
    return at && { at, always: false };
  });
  // What was picked on the drawing itself is in sight; what is picked elsewhere is brought there.
  const own = useRef(inHand);
  useEffect(() => {
    if (inHand === own.current) return;
    own.current = inHand;
    const place = inHand && placeOf(inHand);
    if (place) zoom.show(place);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when something else is taken in hand
  }, [inHand]);
  const pick = (at: InHand | undefined) => {
    own.current = at;
    setInHand(at);
    if (at) props.picked?.(at);
  };

  function onKey(e: React.KeyboardEvent) {
    const direction = ARROWS[e.key];
    if (direction) {
      const to = nextPart(drawing, part, direction);
      if (to !== undefined) setInHand({ part: to });
    } else if (e.key === "+" || e.key === "=") zoom.by(1.4);
    else if (e.key === "-") zoom.by(1 / 1.4);
    else if (e.key === "0") zoom.fit();
    else if (e.key === "Enter" && inHand) props.picked?.(inHand);
    else if (e.key === "Escape" && inHand) pick(undefined);
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
  function onClick(e: React.MouseEvent) {
    const found = (e.target as Element).closest("[data-part],[data-node]");
    const { part: onPart, node: onNode } = (found as SVGElement | null)?.dataset ?? {};
    pick(onPart !== undefined ? { part: onPart } : onNode !== undefined ? { node: onNode } : undefined);
  }

  return (
    <div className={`flex min-h-0 flex-col gap-2 ${large ? "h-full" : ""}`}>
      <div className="flex flex-wrap items-center gap-2">
        <Search
          circuit={circuit}
          found={(at) => {
            setInHand(at);
            props.found?.(at);
          }}
        />
        <span className="ml-auto flex flex-wrap items-center gap-1">
          <Tool name="Smaller" press={() => zoom.by(1 / 1.4)} icon={<Minus aria-hidden className="size-5" />} />
          <Tool name="Larger" press={() => zoom.by(1.4)} icon={<Plus aria-hidden className="size-5" />} />
          <Tool name="The whole drawing" press={zoom.fit} icon={<Scan aria-hidden className="size-5" />} />
          {props.tools}
          {setLarge && (
            <button className="btn btn-outline" aria-pressed={large} onClick={() => setLarge(!large)}>
              {large ? <Minimize2 aria-hidden className="size-5" /> : <Maximize2 aria-hidden className="size-5" />}
              {large ? "Back" : "Large"} <kbd className="soft font-mono text-sm">d</kbd>
            </button>
          )}
        </span>
      </div>
      <div
        className={`grid min-h-0 flex-1 gap-3 ${besides ? "lg:grid-cols-[minmax(0,1fr)_15rem]" : ""} ${large ? "grid-rows-[minmax(0,1fr)_auto] lg:grid-rows-1" : ""}`}
      >
        <div
          role="application"
          aria-label="Schematic: arrow keys go from part to part, plus and minus zoom, 0 shows all of it"
          tabIndex={0}
          onKeyDown={onKey}
          onClick={onClick}
          className={`relative overflow-hidden rounded border border-base-300 bg-base-100 ${large ? "h-full min-h-64" : "h-[max(26rem,calc(100dvh-26rem))]"}`}
        >
          <svg ref={zoom.svg} className={`size-full ${large ? "touch-none" : "touch-pan-y"}`} role="presentation" data-testid="schematic">
            <g ref={zoom.sheet}>
              <g aria-hidden>
                {painted && <Schematic drawing={painted} circuit={circuit} school={school} layer={layer} part={part} node={node} />}
              </g>
              {props.over}
            </g>
          </svg>
        </div>
        {besides && (
          <aside aria-label="What is known of it" className="min-h-0 overflow-y-auto">
            {inHand && props.known !== false ? (
              <Known circuit={circuit} at={inHand} solution={solution} pick={setInHand} history={props.history} action={props.action} />
            ) : (
              props.action
            )}
          </aside>
        )}
      </div>
      <p className="soft text-xs">
        {layer.says}{" "}
        {!inHand && "Click a part or a wire, or go from part to part with the arrow keys: what is known of it is shown beside the drawing."}
      </p>
      {!large && <PartTable circuit={circuit} layer={layer} solution={solution} inHand={inHand} pick={setInHand} />}
    </div>
  );
}

function Tool({ name, press, icon }: { name: string; press(): void; icon: ReactNode }) {
  return (
    <button className="btn btn-ghost px-3" aria-label={name} title={name} onClick={press}>
      {icon}
    </button>
  );
}

function Search({ circuit, found }: { circuit: Circuit; found(at: InHand): void }) {
  const [typed, setTyped] = useState("");
  const [unknown, setUnknown] = useState("");
  const names = useId();
  return (
    <form
      role="search"
      className="flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const at = findByName(circuit, typed);
        setUnknown(at || typed.trim() === "" ? "" : typed.trim());
        if (at) found(at);
      }}
    >
      <input
        className="input w-44"
        aria-label="Find a part or point"
        placeholder="Find R7, V2, B1…"
        list={names}
        value={typed}
        aria-invalid={unknown !== ""}
        onChange={(e) => setTyped(e.target.value)}
      />
      <datalist id={names}>
        {[...circuit.points.map((p) => p.name), ...circuit.elements.map((e) => e.name)].map((name, i) => (
          <option key={i} value={name} />
        ))}
      </datalist>
      {unknown && (
        <span role="alert" className="text-sm text-error">
          No part or point is called “{unknown}”.
        </span>
      )}
    </form>
  );
}
