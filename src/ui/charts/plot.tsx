"use client";
/** What every chart is drawn with: axes with their grid, a line through points, a band between two lines. */

import { useLayoutEffect, useRef, type SVGProps } from "react";
import { axisBottom, axisLeft, type Axis, type AxisScale } from "d3-axis";
import { select } from "d3-selection";
import { area, line } from "d3-shape";
import { figure } from "@/core/language/language";

export type Point = readonly [x: number, y: number];

export interface AxisProps {
  scale: AxisScale<number>;
  /** How many ticks about, or which. */
  ticks: number | readonly number[];
  /** Text of a tick; the figure alone unless given. */
  format?(value: number): string;
}

/** Drawn by d3-axis after each render; the page before it has run shows the curves without their figures. */
function useAxis(axis: Axis<number>) {
  const group = useRef<SVGGElement>(null);
  useLayoutEffect(() => {
    if (group.current) select(group.current).call(axis);
  });
  return group;
}

function told<T extends Axis<number>>(axis: T, { ticks, format = (v) => figure(v) }: Pick<AxisProps, "ticks" | "format">): T {
  if (typeof ticks === "number") axis.ticks(ticks);
  else axis.tickValues([...ticks]);
  axis.tickFormat((v) => format(Number(v))).tickPadding(6);
  return axis;
}

/** Figures under the plot. @param y of its lower edge. */
export function XAxis({ y, scale, ...look }: AxisProps & { y: number }) {
  const group = useAxis(told(axisBottom(scale).tickSize(0), look));
  return <g ref={group} className="axis" transform={`translate(0,${y})`} aria-hidden />;
}

/** Figures at the left with a line across the plot at each. @param x of its left edge. @param width of the plot. */
export function YAxis({ x, width, scale, ...look }: AxisProps & { x: number; width: number }) {
  const group = useAxis(told(axisLeft(scale).tickSize(-width), look));
  return <g ref={group} className="axis" transform={`translate(${x},0)`} aria-hidden />;
}

const path = line<Point>()
  .x((p) => p[0])
  .y((p) => p[1])
  .digits(1);

const between = area<{ x: number; low: number; high: number }>()
  .x((p) => p.x)
  .y0((p) => p.low)
  .y1((p) => p.high)
  .digits(1);

type Look = Omit<SVGProps<SVGPathElement>, "points" | "d" | "ref">;

/** A line through points, in pixels of the drawing. */
export function Line({ points, ...look }: { points: readonly Point[] } & Look) {
  return <path d={path(points as Point[]) ?? ""} fill="none" {...look} />;
}

/** The area between two lines over the same x, in pixels of the drawing. */
export function Band({ points, ...look }: { points: readonly { x: number; low: number; high: number }[] } & Look) {
  return <path d={between(points as { x: number; low: number; high: number }[]) ?? ""} fill="var(--color-base-300)" {...look} />;
}
