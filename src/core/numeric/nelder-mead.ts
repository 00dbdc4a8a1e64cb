/** Nelder–Mead search for a few parameters within bounds. */

export interface Bound {
  low: number;
  high: number;
}

/**
 * Least `cost` over parameters between positive bounds, by the simplex method of Nelder and Mead on a logarithmic scale.
 * Source: J. A. Nelder and R. Mead, "A simplex method for function minimization", Computer Journal 7, 1965.
 * @param start one value a bound, inside it. @returns the best parameters and their cost.
 */
export function nelderMead(cost: (x: number[]) => number, start: number[], bounds: Bound[], restarts = 6): { x: number[]; cost: number } {
  // The logistic of an unbounded variable keeps every trial inside its bounds.
  const inside = (u: number[]) =>
    u.map((t, i) => {
      const { low, high } = bounds[i]!;
      return low * (high / low) ** (1 / (1 + Math.exp(-t)));
    });
  const outside = (x: number[]) =>
    x.map((v, i) => {
      const { low, high } = bounds[i]!;
      const share = Math.min(0.98, Math.max(0.02, Math.log(v / low) / Math.log(high / low)));
      return Math.log(share / (1 - share));
    });
  const f = (u: number[]) => cost(inside(u));
  let best = outside(start);
  // Restarts from the best point with a fresh simplex: the old one may have collapsed.
  for (let restart = 0; restart < restarts; restart++) best = simplex(f, best, restart % 2 ? 0.3 : 1);
  return { x: inside(best), cost: f(best) };
}

function simplex(f: (u: number[]) => number, start: number[], size: number): number[] {
  const n = start.length;
  const at = [start, ...start.map((_, i) => start.map((v, j) => (i === j ? v + size : v)))].map((u) => ({ u, f: f(u) }));
  const along = (from: number[], to: number[], t: number) => from.map((v, i) => v + t * (to[i]! - v));
  for (let step = 0; step < 300 * n; step++) {
    at.sort((a, b) => a.f - b.f);
    const worst = at[n]!;
    if (worst.f - at[0]!.f < 1e-10 * (1e-12 + Math.abs(at[0]!.f))) break;
    const centre = start.map((_, i) => at.slice(0, n).reduce((sum, p) => sum + p.u[i]!, 0) / n);
    const trial = (t: number) => {
      const u = along(centre, worst.u, t);
      return { u, f: f(u) };
    };
    const reflected = trial(-1);
    if (reflected.f < at[0]!.f) {
      const expanded = trial(-2);
      at[n] = expanded.f < reflected.f ? expanded : reflected;
    } else if (reflected.f < at[n - 1]!.f) at[n] = reflected;
    else {
      const contracted = trial(reflected.f < worst.f ? -0.5 : 0.5);
      if (contracted.f < Math.min(worst.f, reflected.f)) at[n] = contracted;
      else
        for (let i = 1; i <= n; i++) {
          const u = along(at[0]!.u, at[i]!.u, 0.5);
          at[i] = { u, f: f(u) };
        }
    }
  }
  return at[0]!.u;
}
