/** A polyline through points as the `d` of an SVG path. */
export function pathThrough(points: readonly (readonly [x: number, y: number])[]): string {
  return points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x.toFixed(1)},${y.toFixed(1)}`).join("");
}
