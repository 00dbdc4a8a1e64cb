"use client";
/** A circuit as blocks and drawing: values typed on the drawing, blocks put in and taken out, solved as it grows. */

import { useEffect, useMemo, useState, type ReactNode } from "react";
import { FileText, Redo2, Undo2 } from "lucide-react";
import { fileName, type Circuit } from "@/core/circuit/circuit";
import type { ReadResult } from "@/core/circuit/read";
import { blocksOf, readBlockFile, type BlockFile } from "@/core/blocks/block-file";
import { judgeBlock } from "@/core/blocks/judge-block";
import { slotsOf, typeValue } from "@/core/blocks/values";
import { writeBlockFile } from "@/core/blocks/write-blocks";
import type { Drawing } from "@/core/drawing/geometry";
import type { School } from "@/core/drawing/strokes";
import type { Solution } from "@/core/expectation/solution";
import { language } from "@/core/language/language";
import type { DrawingPort } from "@/core/ports/drawing-port";
import { formatQuantity } from "@/core/quantity/format";
import { kindName } from "@/core/texts/block-names";
import type { InHand } from "../../job/job-context";
import { lateInBrowser } from "../../forms/late";
import { ModelDrawing } from "../model-drawing";
import type { Draft } from "../use-draft";
import { BlockPanel } from "./block-panel";
import { ChainStrip } from "./chain-strip";
import { ValueEntry } from "./value-entry";

// The editor comes when it is asked for: most look at the drawing alone.
const TextBeside = lateInBrowser(() => import("./text-beside").then((m) => m.TextBeside), "min-h-96");

interface BuildViewProps {
  draft: Draft;
  /** What was read of the text as it stands; the last text that could be read, and its circuit. */
  read: ReadResult;
  sound: { text: string; circuit: Circuit };
  /** The text that the drawing is made of, once typing has paused. */
  netlist: string | undefined;
  solution?: Solution;
  school: School;
  drawings: DrawingPort;
  /** Begin with the first value; told once it has begun, so that it does not begin again when the tab is opened anew. */
  begin: boolean;
  begun(): void;
  /** A click on a part types its value; else it shows what is known of it, and the value can be typed from there. */
  typeAtOnce: boolean;
  more?: ReactNode;
}

export function BuildView({ draft, read, sound, netlist, solution, school, drawings, begin, begun, typeAtOnce, more }: BuildViewProps) {
  const { text, setText } = draft;
  const { circuit } = sound;
  const file = useMemo(() => readBlockFile(sound.text, sound.circuit), [sound]);
  // While a line cannot be read, nothing else writes into the text.
  const open = read.errors.length === 0;
  const [beside, setBeside] = useState(false);
  const blocks = blocksOf(file);
  const slots = useMemo(() => slotsOf(file), [file]);
  const judged = useMemo(() => new Map(blocksOf(file).map((b) => [b.id, judgeBlock(b, solution, slots)])), [file, solution, slots]);
  const [part, setPart] = useState<string | undefined>(begin ? slots[0]?.part : undefined);
  const [node, setNode] = useState<string>();
  const [typing, setTyping] = useState(begin);
  const [chosen, setChosen] = useState<string>();
  const [doubt, setDoubt] = useState("");
  useEffect(() => {
    if (begin) begun();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when it is put on the page
  }, []);
  const slot = slots.find((s) => s.part === part);
  const blockId = chosen ?? slot?.block ?? blocks.find((b) => Object.values(b.parts).some((e) => fileName(e) === part))?.id;
  const block = blocks.find((b) => b.id === blockId);
  const assumed = slots.filter((s) => s.prov === "assumed").length;

  const inHand: InHand | undefined = part !== undefined ? { part } : node !== undefined ? { node } : undefined;
  const take = (at: InHand | undefined, toType: boolean) => {
    setPart(at && "part" in at ? at.part : undefined);
    setNode(at && "node" in at ? at.node : undefined);
    setChosen(undefined);
    setTyping(toType && open);
    setDoubt("");
  };
  const go = (by: 1 | -1) => {
    const at = slots.findIndex((s) => s.part === part);
    const to = slots[at + by];
    setChosen(undefined);
    if (to) setPart(to.part);
    else setTyping(false);
  };
  const change = (next: BlockFile, id: string | undefined) => {
    setText(writeBlockFile(next));
    setChosen(id);
    setTyping(false);
    setPart(undefined);
  };
  const wrong = blocks.filter((b) => (judged.get(b.id)?.wrong.length ?? 0) > 0);

  return (
    <div
      className="space-y-2"
      onKeyDown={(e) => {
        if (
          !(e.ctrlKey || e.metaKey) ||
          e.key.toLowerCase() !== "z" ||
          (e.target as HTMLElement).closest("input,textarea,[contenteditable=true]")
        )
          return;
        e.preventDefault();
        if (e.shiftKey) draft.redo();
        else draft.undo();
      }}
    >
      {file.broken.map((b) => (
        <p key={b.line} role="status" className="text-warning">
          ▲ Line {b.line}: {kindName(b.kind)} {b.id} is no longer a block: {b.says}. Its lines are kept as free lines.
        </p>
      ))}
      <div className="flex flex-wrap items-center gap-2">
        <p className="min-w-0 flex-1" role="status">
          {typing && slot ? (
            <>
              <strong>{slot.element.name}</strong> {slot.says}
              {slot.block && <span className="soft"> of {slot.block}</span>}: {formatQuantity(slot.value, slot.unit)}
              <span className="soft">
                {slot.prov && `, ${slot.prov}`}
                {slot.usual !== undefined && `; usual here ${formatQuantity(slot.usual, slot.unit)}`}
              </span>
              {doubt && <span className="text-warning"> ▲ {doubt}</span>}
            </>
          ) : wrong.length > 0 ? (
            <span className="verdict-out">■ {judged.get(wrong[0]!.id)!.wrong[0]}</span>
          ) : (
            <span className="soft">
              {blocks.length > 0 ? "Choose a block to change it. " : ""}
              {assumed > 0 && `${assumed} of ${slots.length} values are assumed.`}
            </span>
          )}
        </p>
        {typing && (
          <span className="soft text-sm tabular-nums">
            {assumed} of {slots.length} assumed
          </span>
        )}
      </div>
      {blocks.length > 0 && (
        <ChainStrip
          blocks={blocks}
          judged={judged}
          inHand={blockId}
          pick={(id) => {
            setChosen(id);
            setTyping(false);
            setNode(undefined);
            setPart(slots.find((s) => s.block === id)?.part);
          }}
        />
      )}
      {block && !typing && open && !beside && (
        <BlockPanel key={block.id} file={file} block={block} judged={judged.get(block.id)} change={change} />
      )}
      <div className={beside ? "grid gap-3 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.25fr)]" : ""}>
        {beside && (
          <TextBeside
            text={text}
            setText={setText}
            read={read}
            at={circuit.elements.find((e) => fileName(e) === part)?.line}
            onLine={(line) => {
              const e = circuit.elements.find((x) => x.line === line);
              if (e) setPart(fileName(e));
              setChosen(undefined);
              setTyping(false);
            }}
          />
        )}
        <ModelDrawing
          circuit={circuit}
          netlist={netlist}
          solution={solution}
          school={school}
          drawings={drawings}
          more={
            <>
              <button className="btn btn-ghost px-3" aria-label="Undo" title="Undo, Ctrl+Z" disabled={!draft.canUndo} onClick={draft.undo}>
                <Undo2 aria-hidden className="size-5" />
              </button>
              <button
                className="btn btn-ghost px-3"
                aria-label="Redo"
                title="Redo, Ctrl+Shift+Z"
                disabled={!draft.canRedo}
                onClick={draft.redo}
              >
                <Redo2 aria-hidden className="size-5" />
              </button>
              <button
                className="btn btn-outline"
                onClick={() => take(slots[0] && { part: (slots.find((s) => s.prov === "assumed") ?? slots[0]).part }, true)}
                disabled={slots.length === 0}
              >
                Type the values
              </button>

              <button className="btn btn-outline" aria-pressed={beside} onClick={() => setBeside(!beside)}>
                <FileText aria-hidden className="size-5" /> Text beside it
              </button>
              {more}
            </>
          }
          inHand={inHand}
          setInHand={(at) => take(at, false)}
          picked={(at) => take(at, typeAtOnce && "part" in at)}
          found={(at) => take(at, typeAtOnce && "part" in at)}
          action={
            open &&
            slot && (
              <button className="btn btn-outline mt-2" onClick={() => setTyping(true)}>
                Type its value
              </button>
            )
          }
          known={!typing && !beside}
          over={(drawing: Drawing) =>
            typing &&
            slot && (
              <ValueEntry
                key={slot.part}
                drawing={drawing}
                slot={slot}
                go={go}
                leave={() => setTyping(false)}
                type={(at, typed) => {
                  const read = typeValue(text, at, typed, language().decimal);
                  if (!read.ok) return read.why;
                  setText(read.text);
                  setDoubt(read.doubt ? `${at.element.name}: ${read.doubt}` : "");
                  return undefined;
                }}
              />
            )
          }
        />
      </div>
    </div>
  );
}
