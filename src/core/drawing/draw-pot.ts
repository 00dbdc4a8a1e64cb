/** A control that is no plain divider to ground: upright, its ends above and below, its wiper to the right. */

import type { Element } from "../circuit/circuit";
import type { Plan } from "./cells";
import { decorate } from "./draw-box";
import { hang, HANG } from "./draw-run";
import { boxOf, point, TEXT_HEIGHT } from "./geometry";
import { idOf, labelLines, labelWidth } from "./part-labels";
import { PART, type Sketch } from "./sketch";

export function drawPot(sketch: Sketch, plan: Plan, e: Element, home: (node: string) => boolean, rankOf: (node: string) => number): void {
  const { isMark, leadsOn, hasPoint, rails } = sketch.about;
  const [start, wiper, end] = e.nodes as [string, string, string];
  const plain = (node: string) => home(node) && !leadsOn(node) && !hasPoint(node) && !rails.has(node);
  // What only hangs from an end stands under it; else the end nearer to the input is above.
  const turned = isMark(start) || (!isMark(end) && (plain(start) ? !plain(end) : !plain(end) && rankOf(start) > rankOf(end)));
  const ends = turned ? [2, 0] : [0, 2];
  const [top, foot] = ends.map((t) => e.nodes[t]!) as [string, string];
  const twice = (node: string) => leadsOn(node) || e.nodes.filter((n) => n === node).length > 1;
  const up = point(0, HANG);
  const down = point(0, HANG + PART);
  const tap = point(2.4, HANG + PART / 2);
  sketch.symbols.push({
    part: idOf(e),
    shape: "pot",
    at: up,
    direction: "down",
    pins: [
      { terminal: ends[0]!, at: up },
      { terminal: 1, at: tap },
      { terminal: ends[1]!, at: down },
    ],
    box: boxOf(-0.9, up.y, tap.x, down.y),
  });
  const lines = labelLines(e);
  const half = (lines.length * TEXT_HEIGHT) / 2;
  sketch.label(e, lines, boxOf(-1.1 - labelWidth(lines), tap.y - half, -1.1, tap.y + half), "end");

  const drawn = new Set<string>();
  const owns = (node: string) => home(node) && !isMark(node) && !drawn.has(node) && drawn.add(node) !== undefined;
  if (isMark(top)) sketch.mark(top, up, "up");
  else {
    sketch.wire(top, up, point(0, 0));
    let x = -0.6;
    if (owns(top)) x = decorate(sketch, plan, top, x - 2 - labelWidth(lines), 0, -1);
    sketch.wire(top, point(0, 0), point(x, 0));
    if (twice(top)) sketch.port(top, "WEST", point(x, 0));
  }
  if (isMark(foot)) sketch.mark(foot, down, "down");
  else {
    // Clear of what hangs from the upper end's wire.
    const y = down.y + (drawn.has(top) && plan.hangs.has(top) ? 4.6 : 1);
    sketch.wire(foot, down, point(0, y));
    const hung = plan.hangs.get(foot) ?? [];
    const [only] = hung;
    if (plain(foot) && hung.length === 1 && foot !== top && foot !== wiper) hang(sketch, plan, foot, only!, 0, y);
    else {
      let x = -0.6;
      if (owns(foot)) x = decorate(sketch, plan, foot, x, y + (hasPoint(foot) || rails.has(foot) ? 4 : 0), -1);
      const line = hasPoint(foot) || rails.has(foot) ? y + 4 : y;
      sketch.wire(foot, point(0, y), point(0, line), point(x, line));
      if (twice(foot)) sketch.port(foot, "WEST", point(x, line));
    }
  }
  if (isMark(wiper)) {
    sketch.wire(wiper, tap, point(tap.x + 0.6, tap.y));
    sketch.mark(wiper, point(tap.x + 0.6, tap.y), "right");
    return;
  }
  let x = tap.x + 0.8;
  if (owns(wiper)) x = decorate(sketch, plan, wiper, x + 1.2, tap.y, 1);
  sketch.wire(wiper, tap, point(x, tap.y));
  if (twice(wiper)) sketch.port(wiper, "EAST", point(x, tap.y));
}
