"use client";
/** Moving and zooming the drawing: by wheel, fingers, keys and buttons. What moves is one attribute; nothing is drawn anew. */

import { useCallback, useEffect, useRef } from "react";
import { select } from "d3-selection";
import "d3-transition";
import { zoom, zoomIdentity, zoomTransform, type ZoomBehavior } from "d3-zoom";
import type { Point } from "@/core/drawing/geometry";

/** Pixels a unit: text can be read without leaning over. */
const READABLE = 9;
/** Below that the letters are specks. */
const LEAST_READ = 4.5;
const [LEAST, MOST] = [0.2, 40];
const MOVE_MS = 250;

export interface Zoom {
  svg(element: SVGSVGElement | null): void;
  sheet(element: SVGGElement | null): void;
  fit(): void;
  by(factor: number): void;
  /** Brings a place into the middle, large enough to be read. */
  show(at: Point): void;
}

/** Where the sheet lies so that a place is in the middle, or as near to it as the edge of the sheet allows. */
function inSight(k: number, at: Point, view: { w: number; h: number }, sheet: { width: number; height: number }): [number, number] {
  const along = (room: number, size: number, place: number) =>
    k * size <= room ? (room - k * size) / 2 : Math.min(0, Math.max(room - k * size, room / 2 - k * place));
  return [along(view.w, sheet.width, at.x), along(view.h, sheet.height, at.y)];
}

/**
 * @param size of the drawing in units. @param whole the wheel alone zooms, as the drawing has the screen to itself; else with Ctrl,
 * so that the page can be scrolled past it. @param begin where it begins, `always` or only where the whole of it could not be read.
 */
export function useZoom(
  size: { width: number; height: number },
  whole: boolean,
  begin: () => { at: Point; always: boolean } | undefined,
): Zoom {
  const first = useRef(begin);
  first.current = begin;
  const svg = useRef<SVGSVGElement | null>(null);
  const sheet = useRef<SVGGElement | null>(null);
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown>>(undefined);
  /** Somebody has moved it, or something was brought into sight: it is not fitted anew by itself. */
  const chosen = useRef(false);
  const { width, height } = size;

  const moved = useCallback((k: number, x: number, y: number, at: boolean) => {
    if (!svg.current || !behaviour.current) return;
    const still = at || matchMedia("(prefers-reduced-motion: reduce)").matches;
    const to = zoomIdentity.translate(x, y).scale(k);
    const selected = select(svg.current);
    if (still) selected.call(behaviour.current.transform, to);
    else behaviour.current.transform(selected.transition().duration(MOVE_MS) as never, to);
  }, []);

  const fit = useCallback(() => {
    const { width: w = 0, height: h = 0 } = svg.current?.getBoundingClientRect() ?? {};
    if (w === 0 || h === 0) return;
    const k = Math.min(w / width, h / height);
    moved(k, (w - k * width) / 2, (h - k * height) / 2, true);
  }, [width, height, moved]);

  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const z = zoom<SVGSVGElement, unknown>()
      .extent(function () {
        const { width: w, height: h } = this.getBoundingClientRect();
        return [
          [0, 0],
          [w, h],
        ];
      })
      .scaleExtent([LEAST, MOST])
      .filter((event: WheelEvent & TouchEvent & MouseEvent) => {
        // What is typed on the drawing is not dragged.
        if ((event.target as Element | null)?.closest?.("foreignObject")) return false;
        if (event.type === "wheel") return whole || event.ctrlKey;
        if (event.type.startsWith("touch")) return whole || event.touches.length > 1;
        return event.button === 0;
      })
      .on("zoom", ({ transform, sourceEvent }: { transform: { toString(): string }; sourceEvent?: unknown }) => {
        if (sourceEvent) chosen.current = true;
        sheet.current?.setAttribute("transform", transform.toString());
      });
    behaviour.current = z;
    select(element).call(z).on("dblclick.zoom", null);
    // The first size is waited for: to ask for it here would have the page laid out in the middle of its own making.
    let [w, h] = [0, 0];
    const watch = new ResizeObserver(([entry]) => {
      const { width: nowW, height: nowH } = entry!.contentRect;
      // In a tab that is not looked at it has no size: it stays as it was.
      if (nowW === 0 || nowH === 0) return;
      const [dw, dh] = [nowW - w, nowH - h];
      if (Math.abs(dw) < 1 && Math.abs(dh) < 1) return;
      const begins = w === 0;
      [w, h] = [nowW, nowH];
      const { k, x, y } = zoomTransform(element);
      const begin = begins ? first.current() : undefined;
      const fitted = Math.min(w / width, h / height);
      if (begin && (begin.always || fitted < LEAST_READ))
        moved(READABLE, ...inSight(READABLE, begin.at, { w, h }, { width, height }), true);
      else if (chosen.current && !begins) moved(k, x + dw / 2, y + dh / 2, true);
      else moved(fitted, (w - fitted * width) / 2, (h - fitted * height) / 2, true);
      // What was chosen stays in the middle from now on; what nobody moved is fitted anew.
      if (begin) chosen.current = begin.always || fitted < LEAST_READ;
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
      select(element).on(".zoom", null);
    };
  }, [width, height, whole, moved]);

  return {
    svg: (element) => void (svg.current = element),
    sheet: (element) => void (sheet.current = element),
    fit: () => {
      chosen.current = false;
      fit();
    },
    by: (factor) => {
      chosen.current = true;
      if (svg.current && behaviour.current) behaviour.current.scaleBy(select(svg.current) as never, factor);
    },
    show: (at) => {
      if (!svg.current) return;
      chosen.current = true;
      const { width: w, height: h } = svg.current.getBoundingClientRect();
      if (w === 0 || h === 0) return;
      const k = Math.max(READABLE, zoomTransform(svg.current).k);
      moved(k, ...inSight(k, at, { w, h }, { width, height }), false);
    },
  };
}
