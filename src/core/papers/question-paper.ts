/** A question to the owner as paper: what is asked, what it means and costs, and what shows it. */

import { formatMoney } from "../money/amount";
import type { Settings } from "../shop/settings";
import { is, type JobEvent } from "../tape/events/event";
import type { JobState } from "../tape/fold";
import { tellEvent, tellReading } from "../tape/tell";
import type { Question } from "../repair/questions";
import * as texts from "../texts/papers";
import type { Block, Column } from "./block";
import { paperTitle, type PaperOf } from "./paper-title";
import { answeredHow } from "./report-proof";

const OPTIONS: Column[] = [
  { title: texts.option, share: 3 },
  { title: texts.aimColumn, share: 2 },
  { title: texts.meansForYou, share: 5 },
  { title: texts.totalColumn, share: 2, align: "right" },
];

/** What a line of the tape shows to an owner. */
function evidenceOf(e: JobEvent, hertz: number): Block[] {
  if (is(e, "reading")) return [{ block: "text", text: texts.readAs(tellReading(e.payload)) }];
  if (is(e, "finding")) {
    const photos = (e.payload.photos ?? []).map((hash) => ({ hash, caption: `${e.payload.place}: ${e.payload.text}` }));
    return [
      { block: "text", text: texts.foundAs(e.payload.place, e.payload.text) },
      ...(photos.length > 0 ? [{ block: "photos" as const, photos }] : []),
    ];
  }
  if (is(e, "photo")) return [{ block: "photos", photos: [{ hash: e.payload.hash, caption: e.payload.caption }] }];
  const says: Block = { block: "text", text: texts.readAs(tellEvent(e)) };
  if (is(e, "waveform") && e.payload.wave) return [says, { block: "waves", before: e.payload.wave }];
  if (is(e, "recording")) return [says, { block: "spectrum", hertz, before: e.payload.curve }];
  return [says];
}

/** @param q a question, with the answer that stands. @param hertz of the mains. */
export function questionBlocks(of: PaperOf, q: Question, state: Pick<JobState, "effective">, settings: Settings, hertz = 50): Block[] {
  const asked = q.asked!;
  const money = (amount: number) => formatMoney(amount, settings);
  const evidence = (asked.evidence ?? [])
    .flatMap((line) => state.effective.filter((e) => e.seq === line))
    .flatMap((e) => evidenceOf(e, hertz));
  const how = answeredHow(q);
  const answer = {
    asked: texts.notAnswered(),
    yes: texts.answerYes(how),
    no: texts.answerNo(how),
    part: texts.answerPart(how),
    revoked: texts.saysRevoked(how),
  };
  return [
    paperTitle(of, texts.questionAbout(of.amp), settings, q.at),
    { block: "heading", text: texts.weAsk() },
    { block: "text", look: "quote", text: asked.what },
    ...(asked.cost === undefined ? [] : [{ block: "text" as const, look: "strong" as const, text: texts.whatItCosts(money(asked.cost)) }]),
    ...(asked.consequence
      ? [
          { block: "heading" as const, text: texts.whatItMeans() },
          { block: "text" as const, text: asked.consequence },
        ]
      : []),
    ...(asked.options && asked.options.length > 0
      ? [
          { block: "heading" as const, text: texts.atAGlance() },
          {
            block: "table" as const,
            columns: OPTIONS,
            rows: asked.options.map((o, i) => [
              texts.optionHeading(i + 1, o.name),
              o.aim ?? "",
              o.consequence ?? "",
              o.cost === undefined ? "" : money(o.cost),
            ]),
          },
        ]
      : []),
    ...(evidence.length > 0 ? [{ block: "heading" as const, text: texts.whatShowsIt() }, ...evidence] : []),
    { block: "heading", text: texts.yourAnswer() },
    { block: "text", look: "strong", text: answer[q.stands] },
    ...(q.stands === "asked" ? [{ block: "text" as const, text: texts.pleaseAnswer(settings.shopName, settings.shopAddress) }] : []),
  ];
}
