"use client";
/** A test point on the photo of a chassis: the cut around it, and the way to mark it. */

import { useState } from "react";
import type { TestPoint } from "@/core/circuit/circuit";
import { useJob } from "../job/job-context";
import { lateInBrowser } from "../forms/late";
import { PhotoPlace } from "./photo-place";

const MarkPhoto = lateInBrowser(() => import("./mark-photo").then((m) => m.MarkPhoto));

interface PointPhotoProps {
  point: Pick<TestPoint, "name">;
  /** Where it is, in words. */
  place: string;
  /** With the way to mark it, or to move or remove its mark. */
  marking?: boolean;
  className?: string;
}

export function PointPhoto({ point, place, marking = false, className }: PointPhotoProps) {
  const { places, modelId } = useJob();
  const [open, setOpen] = useState(false);
  const marked = places.find((p) => p.point === point.name);
  if (modelId === undefined || (!marked && !marking)) return null;
  return (
    <div className={className}>
      {marked && <PhotoPlace place={marked} alt={`${place} on a photo of the chassis`} />}
      {marking && (
        <button className="btn btn-line btn-sm mt-1" onClick={() => setOpen(true)}>
          {marked ? "Mark it elsewhere…" : "Mark it on a photo…"}
        </button>
      )}
      {open && <MarkPhoto point={point.name} place={place} close={() => setOpen(false)} />}
    </div>
  );
}
