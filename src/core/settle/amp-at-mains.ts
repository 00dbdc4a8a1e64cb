/** An amp at one mains as the meters read it, solved again and again with its unknowns turned. */

import type { Circuit } from "../circuit/circuit";
import { compile } from "../solver/compile";
import { newton, solveNewton } from "../solver/newton";
import { workspaceOf, type Workspace } from "../solver/workspace";
import { readings, solveOperatingPoint, type OperatingPoint } from "../solver/operating-point";
import type { Given } from "./given";
import type { Unknown } from "./unknowns";

/** The amp at one mains, kept compiled from solve to solve. */
export class Amp {
  readonly op: OperatingPoint;
  readonly work: Workspace;
  private readonly points;

  constructor(
    circuit: Circuit,
    readonly mains: number,
    given: readonly Given[],
  ) {
    const network = compile(circuit, circuit.mains ? { mains } : {});
    this.work = workspaceOf(network);
    this.op = solveOperatingPoint(network, undefined, this.work);
    this.points = given.flatMap((g, at) => {
      const point = circuit.points.find((p) => p.name === g.point);
      return g.mains === mains && point ? [{ point, at, meterOhms: g.meterOhms }] : [];
    });
  }

  /** What each meter reads, into `out` at the place of its figure; false where it does not converge. @param whole also anew for the rectifiers' pulses. */
  read(out: number[], whole: boolean): boolean {
    let x: Float64Array = this.op.x;
    if (whole) {
      const solved = solveOperatingPoint(this.op.network, x, this.work);
      if (!solved.converged) return false;
      this.op.x.set(solved.x);
      x = this.op.x;
    } else {
      x = x.slice();
      if (!newton(this.work, x).converged && !solveNewton(this.work, x).converged) return false;
    }
    const op = { ...this.op, x };
    for (const ohms of new Set(this.points.map((p) => p.meterOhms))) {
      const here = this.points.filter((p) => p.meterOhms === ohms);
      const read = readings(
        op,
        here.map((p) => p.point),
        ohms,
        this.work,
      );
      for (const { point, at } of here) out[at] = read.get(point.name)!;
    }
    return true;
  }
}

/** What the meters read at factors exp(θ); undefined where an amp does not converge. */
export function computed(
  amps: readonly Amp[],
  given: readonly Given[],
  unknowns: readonly Unknown[],
  theta: readonly number[],
  whole = true,
): number[] | undefined {
  const out = new Array<number>(given.length).fill(NaN);
  for (const amp of amps) {
    unknowns.forEach((u, k) => u.turn(amp.op.network, Math.exp(theta[k]!)));
    if (!amp.read(out, whole)) return undefined;
  }
  return out;
}
