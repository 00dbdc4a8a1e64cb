"use client";
/** Open tasks, to be ordered by hand: with the pointer, or space and the arrow keys on the handle. */

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from "@dnd-kit/core";
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { GripVertical } from "lucide-react";
import { formatDuration } from "@/core/quantity/format";
import { useState } from "react";
import type { PlanStep } from "@/core/repair/order";
import { partsNotLogged, type Task } from "@/core/repair/tasks";
import { useJob } from "../../job/job-context";
import { useTasks } from "../../job/use-tasks";
import { useTaskToLog } from "./task-to-log";
import { PartButton } from "../../drawing/part-button";

const AGREED: Record<Task["agreed"], string> = {
  agreed: "agreed",
  "to be asked": "ask the owner",
  asked: "asked, no answer yet",
  declined: "declined",
};

export function TaskList({
  tasks,
  between,
  reorder,
  edit,
}: {
  tasks: Task[];
  between: PlanStep<Task>[];
  reorder(roots: number[]): void;
  edit(task: Task): void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const roots = tasks.map((t) => t.root);
  const name = (root: unknown) => tasks.find((t) => t.root === root)?.name ?? "";
  const moved = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    reorder(arrayMove(roots, roots.indexOf(active.id as number), roots.indexOf(over.id as number)));
  };
  const place = (root: unknown) => `place ${roots.indexOf(root as number) + 1} of ${roots.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name(active.id)} is taken up, ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)} goes to ${place(over.id)}.` : ""),
    onDragEnd: ({ active, over }) => (over ? `${name(active.id)} is put down, ${place(over.id)}.` : ""),
    onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
  };
  /** What has to be done before each task: covers, the proof. */
  const before = new Map<number, string[]>();
  let says: string[] = [];
  for (const step of between) {
    if ("says" in step) says.push(step.says);
    else {
      before.set(step.task.root, says);
      says = [];
    }
  }
  return (
    <DndContext
      id="tasks"
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={moved}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: "Space takes the task up; the arrow keys move it; space puts it down; escape leaves it where it was.",
        },
      }}
    >
      <SortableContext items={roots} strategy={verticalListSortingStrategy}>
        <ol aria-label="Tasks" className="space-y-1">
          {tasks.map((t) => (
            <Row key={t.root} task={t} before={before.get(t.root) ?? []} edit={edit} />
          ))}
        </ol>
      </SortableContext>
      {says.map((s) => (
        <p key={s} className="soft mt-1 pl-11 text-sm">
          ↳ {s}
        </p>
      ))}
    </DndContext>
  );
}

function Row({ task: t, before, edit }: { task: Task; before: string[]; edit(task: Task): void }) {
  const { say, tape, view } = useJob();
  const { running, money } = useTasks();
  const [asking, setAsking] = useState(false);
  const { logChangeOf } = useTaskToLog();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: t.root });
  const runs = running?.task === t.root;
  const end = (nothingChanged?: true) =>
    say(...(runs ? [{ type: "timer", payload: { turn: "stopped", planned: t.root } } as const] : []), {
      type: "planned-ended",
      payload: { planned: t.root, how: "done", ...(nothingChanged ? { nothingChanged } : {}) },
    });
  const waiting = t.seq >= tape.pendingFrom;
  const parts = (t.parts ?? []).reduce((sum, p) => sum + (p.cost ?? 0) * p.pieces, 0);
  const missing = (t.parts ?? []).filter((p) => p.state === "to order" || p.state === "ordered");
  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition }}
      className={isDragging ? "relative z-10 opacity-80" : ""}
    >
      {before.map((s) => (
        <p key={s} className="soft pl-11 text-sm">
          ↳ {s}
        </p>
      ))}
      <div className={`flex flex-wrap items-center gap-2 rounded border bg-base-200 p-2 ${runs ? "border-primary" : "border-base-300"}`}>
        <button className="btn btn-ghost btn-sm min-h-9 cursor-grab px-1" aria-label={`Move ${t.name}`} {...attributes} {...listeners}>
          <GripVertical aria-hidden className="size-5" />
        </button>
        <span className="min-w-48 flex-1">
          <PartButton name={t.position}>
            <strong>{t.position}</strong>
          </PartButton>
          : {t.what}
          <span className="soft block text-sm">
            {t.phase}, {t.said ? "" : "usually "}
            {formatDuration(t.estimate * 60)}
            {t.worked > 0 && `, ${formatDuration(t.worked * 60)} worked`}
            {t.fixedPrice !== undefined && `, fixed price ${money(t.fixedPrice)}`}
            {parts > 0 && `, parts ${money(parts)}`}
            {t.reason && `, ${t.reason}`}
          </span>
          {(t.agreed === "to be asked" || t.agreed === "asked") && (
            <span className="block text-sm text-warning">
              ▲ {AGREED[t.agreed]}
              {t.agreed === "to be asked" && `: ${t.why}`}
            </span>
          )}
          {missing.length > 0 && (
            <span className="block text-sm text-warning">▲ {missing.map((p) => `${p.text}: ${p.state}`).join("; ")}</span>
          )}
        </span>
        <button
          className={`btn btn-sm min-h-9 ${runs ? "btn-primary" : "btn-outline"}`}
          disabled={waiting}
          aria-label={`${runs ? "Stop" : "Start"} the timer of ${t.name}`}
          onClick={() =>
            say({
              type: "timer",
              payload: runs ? { turn: "stopped", planned: t.root } : { turn: "started", planned: t.root, what: t.name.slice(0, 200) },
            })
          }
        >
          {runs ? "Stop" : "Start"}
        </button>
        <button
          className="btn btn-line btn-sm min-h-9"
          disabled={waiting}
          aria-label={`${t.name} is done`}
          onClick={() => (partsNotLogged(view.state, t.root) ? setAsking(true) : end())}
        >
          Done
        </button>
        <button
          className="btn btn-line btn-sm min-h-9"
          disabled={waiting}
          aria-label={`Leave out ${t.name}`}
          onClick={() => say({ type: "planned-ended", payload: { planned: t.root, how: "left out" } })}
        >
          Leave out
        </button>
        <button className="btn btn-line btn-sm min-h-9" disabled={waiting} aria-label={`Change ${t.name}`} onClick={() => edit(t)}>
          Change
        </button>
        {asking && (
          <div role="group" aria-label={`What was fitted at ${t.position}`} className="flex w-full flex-wrap items-center gap-2 pl-11">
            <strong className="flex-1">What was fitted at {t.position}? It was planned with parts, and no change is logged.</strong>
            <button className="btn btn-primary btn-sm min-h-9" autoFocus onClick={() => logChangeOf(t.root)}>
              Log the change
            </button>
            <button className="btn btn-outline btn-sm min-h-9" onClick={() => end(true)}>
              Nothing was fitted
            </button>
            <button className="btn btn-ghost btn-sm min-h-9" onClick={() => setAsking(false)}>
              Not done yet
            </button>
          </div>
        )}
      </div>
    </li>
  );
}
