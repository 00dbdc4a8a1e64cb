/** A quote as paper: the ways to go on side by side, then each of them line by line. */

import { format } from "date-fns";
import { formatMoney } from "../money/amount";
import type { Settings } from "../shop/settings";
import type { Question } from "../repair/questions";
import * as texts from "../texts/papers";
import type { Block, Column } from "./block";
import { moneyTable } from "./money-blocks";
import { answeredHow } from "./report-proof";
import { paperTitle, type PaperOf } from "./paper-title";

const WAYS: Column[] = [
  { title: texts.option, share: 3 },
  { title: texts.aimColumn, share: 2 },
  { title: texts.meansForYou, share: 5 },
  { title: texts.totalColumn, share: 2, align: "right" },
];

const day = (iso: string) => format(new Date(`${iso}T12:00:00`), "d MMMM yyyy");

/** @param q a quote with the answer that stands. */
export function quoteBlocks(of: PaperOf, q: Question, settings: Settings): Block[] {
  const quote = q.quote!;
  const money = (amount: number) => formatMoney(amount, settings);
  const declined = q.stands === "part" ? (q.answer?.declined ?? []).flatMap((i) => q.option?.lines[i]?.text ?? []) : [];
  const answer =
    q.stands === "yes" || q.stands === "part"
      ? [texts.chosen(q.option?.name ?? "", answeredHow(q)), ...(declined.length > 0 ? [texts.declinedParts(declined.join("; "))] : [])]
      : q.stands === "no"
        ? [texts.saysNo(answeredHow(q))]
        : q.stands === "revoked"
          ? [texts.saysRevoked(answeredHow(q))]
          : [texts.howToAnswer(texts.shopAddress(settings.shopAddress))];
  return [
    paperTitle(of, texts.quoteFor(of.amp), settings, q.at),
    ...(quote.options.length > 1
      ? [
          { block: "heading" as const, text: texts.atAGlance() },
          {
            block: "table" as const,
            columns: WAYS,
            rows: quote.options.map((o, i) => [texts.optionHeading(i + 1, o.name), o.aim ?? "", o.consequence ?? "", money(o.sum.total)]),
          },
        ]
      : []),
    ...quote.options.flatMap((o, i): Block[] => [
      { block: "heading", text: quote.options.length > 1 ? texts.optionHeading(i + 1, o.name) : o.name },
      ...(o.consequence && quote.options.length === 1 ? [{ block: "text" as const, text: o.consequence }] : []),
      moneyTable(o.lines, o.sum, settings),
    ]),
    { block: "heading", text: texts.yourAnswer() },
    ...answer.map((text): Block => ({ block: "text", look: "strong", text })),
    ...(quote.deposit ? [{ block: "text" as const, text: texts.depositAsked(money(quote.deposit)) }] : []),
    ...(quote.validUntil ? [{ block: "text" as const, text: texts.validUntil(day(quote.validUntil)) }] : []),
    ...(quote.note ? [{ block: "text" as const, text: quote.note }] : []),
    ...(settings.money.warranty ? [{ block: "text" as const, look: "small" as const, text: settings.money.warranty }] : []),
  ];
}
