/** Volts on a grid that should have none: the capacitor before it, a board that conducts, or the tube's own grid current. */

import type { ProcedureTable } from "../diagnosis/isolate";
import { words } from "../language/language";
import * as texts from "../texts/capacitor";

export const BOARD_CAUSES = ["capacitor", "board", "tube"] as const;
export type BoardCause = (typeof BOARD_CAUSES)[number];

/**
 * Chance of the first outcome of a test under capacitor, board and tube; a second row gives that of the second outcome, the rest is the
 * third's. Scutum's own figures: a lifted leg parts capacitor from board unless both leak, moist breath moves a surface and no part inside
 * its sleeve, a pulled tube takes its grid current along.
 */
const CHANCES: Record<string, { outcomes: string[]; rows: number[][]; cost: number }> = {
  neighbours: { outcomes: ["one grid", "several grids"], rows: [[0.88, 0.2, 0.85]], cost: 1 },
  breath: { outcomes: ["rises", "no change"], rows: [[0.06, 0.75, 0.04]], cost: 1 },
  heat: {
    outcomes: ["rises", "falls", "no change"],
    rows: [
      [0.55, 0.06, 0.35],
      [0.1, 0.54, 0.05],
    ],
    cost: 2,
  },
  pull: { outcomes: ["gone", "stays"], rows: [[0.03, 0.03, 0.95]], cost: 2 },
  lift: { outcomes: ["gone", "stays"], rows: [[0.95, 0.1, 0.03]], cost: 4 },
  clean: { outcomes: ["falls", "no change"], rows: [[0.05, 0.88, 0.04]], cost: 6 },
};
/** Weight before any answer: paper and old film leak oftener than boards. */
const PRIORS: Record<BoardCause, number> = { capacitor: 5, board: 2, tube: 2 };

/** @param part the capacitor before the grid. @param tube whose grid it is. */
export function boardTable(part: string, tube: string): ProcedureTable {
  return {
    causes: BOARD_CAUSES.map((id) => ({
      id,
      says: texts.boardCause(id, part, tube),
      refs: id === "capacitor" ? [part] : id === "tube" ? [tube] : [],
      prior: PRIORS[id],
    })),
    tests: Object.entries(CHANCES).map(([id, { outcomes, cost }]) => ({
      id,
      what: words(texts.boardTest(id, part, tube)),
      outcomes,
      cost,
    })),
    chance(test, cause, outcome) {
      const { outcomes, rows } = CHANCES[test]!;
      const k = outcomes.indexOf(outcome);
      if (k < rows.length) return rows[k]![cause]!;
      return 1 - rows.reduce((s, r) => s + r[cause]!, 0);
    },
    soundOhms: () => undefined,
  };
}
