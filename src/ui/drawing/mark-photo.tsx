"use client";
/** Marks where a test point lies on a photo of the chassis, by a click or by arrow keys; kept for every amp of the model. */

import { useState, type KeyboardEvent, type MouseEvent } from "react";
import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import type { JobState } from "@/core/tape/fold";
import type { PointPlace } from "@/core/shop/point-places";
import { Refused } from "../forms/typed-form";
import { useJob } from "../job/job-context";
import { Ring } from "./photo-place";

/** How far an arrow key moves the mark, as a part of the photo; with Shift ten times as far. */
const STEP = 0.005;
const ARROWS: Record<string, [x: number, y: number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const within = (part: number) => Math.min(1, Math.max(0, part));

/** @param place where the point is, in words. */
export function MarkPhoto({ point, place, close }: { point: string; place: string; close(): void }) {
  const { view, places, mark } = useJob();
  const marked = places.find((p) => p.point === point);
  const photos = photosOf(view.state, places);
  const [hash, setHash] = useState(marked?.hash ?? photos.at(-1)?.hash);
  const [at, setAt] = useState<[x: number, y: number] | undefined>(marked && [marked.x, marked.y]);
  const [refused, setRefused] = useState("");

  const send = async (what: PointPlace | { point: string }) => {
    try {
      await mark(what);
      close();
    } catch (error) {
      setRefused((error as Error).message);
    }
  };
  function click(e: MouseEvent<HTMLElement>) {
    const { left, top, width, height } = e.currentTarget.getBoundingClientRect();
    setAt([within((e.clientX - left) / width), within((e.clientY - top) / height)]);
  }
  function press(e: KeyboardEvent) {
    const arrow = ARROWS[e.key];
    if (arrow) {
      e.preventDefault();
      const step = STEP * (e.shiftKey ? 10 : 1);
      const [x, y] = at ?? [0.5, 0.5];
      setAt([within(x + arrow[0] * step), within(y + arrow[1] * step)]);
    } else if (e.key === "Enter" && at && hash) {
      e.preventDefault();
      void send({ point, hash, x: at[0], y: at[1] });
    }
  }

  return (
    <Dialog open onClose={close} className="relative z-50">
      <div className="fixed inset-0 bg-black/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center overflow-y-auto p-4">
        <DialogPanel className="grid max-h-full w-full max-w-4xl gap-3 overflow-y-auto rounded border border-base-300 bg-base-100 p-5">
          <DialogTitle className="text-xl font-bold">Where is {place} on the photo?</DialogTitle>
          {photos.length === 0 ? (
            <p>This job has no photo yet. Take one of the open chassis at Look, then mark {place} on it.</p>
          ) : (
            <>
              <p className="soft text-sm">
                Click on it, or use the arrow keys on the photo. It is kept with the model: the next amp of the kind has it too.
              </p>
              {photos.length > 1 && (
                <ul aria-label="Photos" className="flex gap-2 overflow-x-auto">
                  {photos.map((p) => (
                    <li key={p.hash}>
                      <button
                        aria-pressed={p.hash === hash}
                        aria-label={p.caption}
                        title={p.caption}
                        className={`block rounded border-2 ${p.hash === hash ? "border-primary" : "border-base-300"}`}
                        onClick={() => {
                          setHash(p.hash);
                          setAt(p.hash === marked?.hash ? [marked.x, marked.y] : undefined);
                        }}
                      >
                        <img src={`/api/v1/photos/${p.hash}`} alt="" className="h-16" />
                      </button>
                    </li>
                  ))}
                </ul>
              )}
              <button
                aria-label={
                  at
                    ? `The photo, marked at ${Math.round(at[0] * 100)} % across and ${Math.round(at[1] * 100)} % down`
                    : "The photo, not marked yet"
                }
                className="relative mx-auto block w-fit cursor-crosshair"
                onClick={(e) => e.detail > 0 && click(e)}
                onKeyDown={press}
              >
                <img src={`/api/v1/photos/${hash}`} alt="" className="max-h-[55vh] max-w-full" />
                {at && <Ring className="absolute" style={{ left: `${at[0] * 100}%`, top: `${at[1] * 100}%` }} />}
              </button>
            </>
          )}
          <Refused>{refused}</Refused>
          <div className="flex flex-wrap gap-2">
            {photos.length > 0 && (
              <button
                className="btn btn-primary"
                disabled={!at || !hash}
                onClick={() => void send({ point, hash: hash!, x: at![0], y: at![1] })}
              >
                Keep it
              </button>
            )}
            {marked && (
              <button className="btn btn-outline" onClick={() => void send({ point })}>
                Remove the mark
              </button>
            )}
            <button className="btn btn-ghost" onClick={close}>
              Cancel
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

interface PhotoHere {
  hash: string;
  caption: string;
}

/** The photos of this job, and those of other amps of the model that have marks already. */
function photosOf(state: JobState, places: PointPlace[]): PhotoHere[] {
  const all: PhotoHere[] = [
    ...places.map((p) => ({ hash: p.hash, caption: "Photo with marks of this model" })),
    ...state.findings.flatMap((f) => (f.photos ?? []).map((hash) => ({ hash, caption: f.text }))),
    ...state.photos.map((p) => ({ hash: p.hash, caption: p.caption || "Photo" })),
  ];
  return [...new Map(all.map((p) => [p.hash, p])).values()];
}
