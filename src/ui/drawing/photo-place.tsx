/** What is around a marked place of a photo, with a ring on the place. */

import type { PointPlace } from "@/core/shop/point-places";

/** So many times the width of the cut is the whole photo. */
const ENLARGED = 3;

/** @param alt what the ring is on. */
export function PhotoPlace({ place, alt, className = "" }: { place: PointPlace; alt: string; className?: string }) {
  const { hash, x, y } = place;
  return (
    <figure className={className}>
      <div className="relative aspect-[4/3] overflow-hidden rounded border border-base-300 bg-neutral">
        <img
          src={`/api/v1/photos/${hash}`}
          alt={alt}
          className="absolute top-1/2 left-1/2 max-w-none"
          // The place lies in the middle of the cut, however near it is to an edge of the photo.
          style={{ width: `${ENLARGED * 100}%`, transform: `translate(${-x * 100}%, ${-y * 100}%)` }}
        />
        <Ring className="absolute top-1/2 left-1/2" />
      </div>
    </figure>
  );
}

/** Two rings, light in dark, so that it is seen on any photo. Its middle lies where it is put. */
export function Ring({ className = "", style }: { className?: string; style?: React.CSSProperties }) {
  return (
    <svg
      aria-hidden
      viewBox="-24 -24 48 48"
      className={`pointer-events-none size-12 -translate-x-1/2 -translate-y-1/2 ${className}`}
      style={style}
    >
      <circle r={18} fill="none" stroke="#000" strokeWidth={7} />
      <circle r={18} fill="none" stroke="#ffd34d" strokeWidth={3.5} />
    </svg>
  );
}
