/** Ratings that parts are sold in: what is asked for is rounded up to what exists. */

/** Resistors, watts. */
export const STANDARD_WATTS = [0.125, 0.25, 0.5, 1, 2, 3, 5, 7, 10, 15, 20, 25, 50, 100] as const;

/** Electrolytic capacitors, volts. */
export const ELECTROLYTIC_VOLTS = [6.3, 10, 16, 25, 35, 50, 63, 80, 100, 160, 200, 250, 315, 350, 400, 450, 500, 550, 600] as const;

/** Film capacitors, volts. */
export const FILM_VOLTS = [63, 100, 160, 250, 400, 630, 1000, 1250, 1600, 2000] as const;

/** The least rating of the list that is at least `wanted`; undefined when none is. */
export function ratingFor(wanted: number, list: readonly number[]): number | undefined {
  return list.find((r) => r >= wanted * (1 - 1e-9));
}
