/** `settle`: a model fitted to a chart or to readings, as JSON. */

import type { Circuit } from "../circuit/circuit";
import { chartOf, readGiven } from "../settle/given";
import { settle, type SettledPoint } from "../settle/settle";
import type { Outcome } from "./outcome";

const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;
const figures = (v: number) => Number(v.toPrecision(5));

/** @param files the first is the chart, the rest are readings; without any the chart of the circuit is taken. */
export function settleOn(
  circuit: Circuit,
  files: readonly string[],
  { mains }: { mains: number | undefined },
  text: (file: string) => string,
): Outcome {
  const otherwise = mains ?? circuit.chart?.mains;
  const read = files.map((file, i) => readGiven(text(file), circuit, i === 0 ? "chart" : "reading", otherwise));
  const problems = read.flatMap((r, i) =>
    r.problems.map((p) => ({ error: `${files[i]}: line ${p.line} cannot be read`, line: p.line, found: p.found, expected: p.expected })),
  );
  if (problems.length > 0) return { code: 2, error: problems.map(json).join("") };
  const given = files.length > 0 ? read.flatMap((r) => r.given) : chartOf(circuit, otherwise);
  let answer;
  try {
    answer = settle(
      circuit,
      given,
      read.flatMap((r) => r.measured),
    );
  } catch (error) {
    return { code: 2, error: json({ error: (error as Error).message }) };
  }
  const point = (p: SettledPoint) => ({
    point: p.point,
    mains: p.mains,
    given: p.given,
    before: figures(p.before),
    after: figures(p.after),
    sigmas: Number(p.sigmas.toFixed(2)),
  });
  return {
    code: answer.refused === undefined ? 0 : 1,
    out: json({
      ...(answer.refused === undefined ? {} : { refused: answer.refused }),
      fitted: answer.fitted.map((f) => ({
        part: f.part,
        what: f.what,
        before: f.before,
        after: figures(f.after),
        sigma: Number(f.sigma.toFixed(3)),
      })),
      points: answer.points.map(point),
      misprints: answer.misprints.map(point),
      undetermined: answer.undetermined.map((u) => ({ part: u.part, what: u.what, before: u.before })),
    }),
  };
}
