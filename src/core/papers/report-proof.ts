/** What the report proves beside the voltages: how a blown fuse was explained, the tube tests, what was agreed. */

import { format } from "date-fns";
import { formatMoney, type MoneyForm } from "../money/amount";
import { formatQuantity } from "../quantity/format";
import type { JobState } from "../tape/fold";
import { questionsOf, type Question } from "../repair/questions";
import * as texts from "../texts/papers";
import type { Block, Column } from "./block";

export interface ReportProof {
  isolation: { what: string; outcome: string }[];
  tubes: { tube: string; method: string; result: string }[];
  agreed: { what: string; answer: string; cost: string }[];
}

/** " on 2 March 2026, by telephone, Osric Venn". */
export function answeredHow({ answer }: Pick<Question, "answer">): string {
  if (!answer) return "";
  const day = format(new Date(answer.on ? `${answer.on}T12:00:00` : answer.at), "d MMMM yyyy");
  return texts.onDay(day, answer.by, answer.said);
}

export function reportProof(state: JobState, form: MoneyForm): ReportProof {
  return {
    isolation: state.isolation.map((s) => ({ what: s.what, outcome: s.ohms === undefined ? s.outcome : formatQuantity(s.ohms, "Ω", 3) })),
    tubes: state.tubeTests.map((t) => ({
      tube: t.tube,
      method: t.method,
      result: [
        t.percent === undefined ? "" : texts.ofNew(t.percent),
        t.gm === undefined ? "" : `${t.gm} mA/V`,
        t.swap ?? "",
        t.shorts ?? "",
      ]
        .filter(Boolean)
        .join(", "),
    })),
    agreed: questionsOf(state)
      .filter((q) => q.stands !== "asked" && q.stands !== "no")
      .map((q) => ({
        what: q.kind === "quote" ? (q.option?.name ?? q.what) : q.what,
        answer: `${texts.answerWords[q.stands]}${answeredHow(q)}`,
        cost: q.cost === undefined ? "" : formatMoney(q.cost, form),
      })),
  };
}

const ISOLATION: Column[] = [
  { title: texts.isolationStep, share: 6 },
  { title: texts.isolationOutcome, share: 3 },
];
const AGREED: Column[] = [
  { title: texts.questionColumn, share: 5 },
  { title: texts.answerColumn, share: 5 },
  { title: texts.costColumn, share: 2, align: "right" },
];

export function proofBlocks(p: ReportProof): Block[] {
  const table = (heading: string, columns: Column[], rows: string[][]): Block[] =>
    rows.length === 0
      ? []
      : [
          { block: "heading", text: heading },
          { block: "table", columns, rows },
        ];
  return [
    ...table(
      texts.isolation(),
      ISOLATION,
      p.isolation.map((s) => [s.what, s.outcome]),
    ),
    ...table(
      texts.tubeTests(),
      [
        { title: texts.tubeColumn(), share: 1.5 },
        { title: texts.methodColumn, share: 2 },
        { title: texts.resultColumn, share: 5 },
      ],
      p.tubes.map((t) => [t.tube, t.method, t.result]),
    ),
    ...table(
      texts.approvals(),
      AGREED,
      p.agreed.map((a) => [a.what, a.answer, a.cost]),
    ),
  ];
}
