/** The hand that holds the probe: it needs time from point to point, and the tip does not touch at once. */

import { uniformDraws } from "@/core/numeric/random";

/** Seconds until the tip arrives at another point, and for which it may still bounce. */
const TRAVEL = [0.7, 1.3] as const;
const BOUNCE = 0.3;

export class SimulatedHand {
  private point?: string;
  private arrives = 0;
  private readonly draw: () => number;

  constructor(seed: number) {
    this.draw = uniformDraws(seed);
  }

  /** Goes to a point; asked for the one that it is on, it lifts the probe and sets it down again. */
  go(point: string, at: number): void {
    this.point = point;
    this.arrives = at + 1000 * (TRAVEL[0] + (TRAVEL[1] - TRAVEL[0]) * this.draw());
  }

  /** What the tip touches now; undefined while it touches nothing. */
  touches(at: number): string | undefined {
    if (this.point === undefined || at < this.arrives) return undefined;
    // While it settles the tip loses contact now and then.
    if (at < this.arrives + 1000 * BOUNCE && this.draw() < 0.3) return undefined;
    return this.point;
  }
}
