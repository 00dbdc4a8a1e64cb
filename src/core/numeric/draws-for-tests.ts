/** How much a test draws or tries: enough for every run of `npm test`, several times as much in `npm run long`. */

/** Set by `npm run long`. */
export const LONG = process.env.SCUTUM_LONG === "1";

/** @example for (let seed = 1; seed <= draws(80, 320); seed++) … */
export const draws = (usual: number, long: number): number => (LONG ? long : usual);
