/** The Drover whose bias supply sags as it warms: the same points at five and at forty minutes. Waits for the owner. */

import type { Days } from "../days";
import { SimulatedAmp } from "../simulated";

export function venn(d: Days, photo: Record<string, string>): Days {
  d.day(4, "13:30")
    .log(0, { type: "job-opened", payload: { owner: "Osric Venn", amp: "Drover 40", contact: "the studio, after noon" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Perfect for the first takes. After half an hour it goes soft and the transformer hums. I hear everything.",
        when: ["when hot"],
        use: "Studio, on all day",
      },
    })
    .log(2, {
      type: "brief",
      payload: {
        order: ["tone", "reliability", "originality", "cost"],
        dueDate: d.promised(-2),
        mustNotChange: "The output transformer and the speaker",
        spendingLimit: 600,
      },
    })
    .log(1, { type: "identity", payload: { maker: "Skellmere", model: "Drover 40", revision: "C", serial: "D2208" } })
    .log(
      2,
      { type: "date-code", payload: { place: "output transformer", code: "549-6812" } },
      { type: "date-code", payload: { place: "volume pot", code: "137-6740" } },
    )
    .log(3, { type: "photo", payload: { hash: photo.grey!, caption: "As it came in", station: "intake" } });
  const early = { mains: 230, warmMinutes: 5, controls: "volume at zero" };
  d.day(4, "15:00")
    .log(0, {
      type: "gate-passed",
      payload: { station: "look", reason: "chassis closed, looking at the tubes through the grille only", understood: true },
    })
    .log(3, {
      type: "finding",
      payload: {
        station: "look",
        place: "V5, V6",
        text: "Getters thinner on V5 than on V6; not a pair",
        severity: "watch",
        brief: "allowed",
      },
    });
  // True fault: C20 leaks more and more as it warms.
  const cold = new SimulatedAmp("drover-40", 41, ["C20=leak:220k"]);
  const hot = cold.with("C20=leak:22k");
  const bench = (amp: SimulatedAmp) => Math.round(amp.volts("BIAS", early)).toString().replace("-", "−");
  d.day(3, "09:40")
    .mains(230)
    .on(2, "lamp and variable", ["V5", "V6"])
    .walk(cold, ["BIAS"], { mains: 230, warmMinutes: 1, without: ["V5", "V6"] })
    .off(3)
    .mains(230)
    .on(4, "variable")
    .walk(cold, ["BIAS", "B1", "B2", "B3", "B4", "V5.g", "V6.g", "V5.k", "V6.k", "V5.p", "V6.p"], early)
    .note(24, "Left it on, volume at zero; transformer begins to hum at about 25 minutes");
  const late = { mains: 230, warmMinutes: 40, controls: "volume at zero" };
  d.walk(hot, ["BIAS", "V5.g", "V6.g", "V5.k", "V6.k", "B1", "V5.p", "V6.p"], late)
    .off(1)
    .log(2, {
      type: "finding",
      payload: {
        station: "walk",
        place: "bias supply, C20",
        text: `Falls from ${bench(cold)} V to ${bench(hot)} V in forty minutes while the mains stays: leaks as it warms`,
        severity: "fault",
        action: "replace C20 and C21, and see whether it holds",
        brief: "allowed",
      },
    });
  return d
    .day(2, "09:10")
    .prove(0, [
      ["C20", 0.2, 0.2],
      ["C21", 0.1, 0.1],
      ["C1", 1.9, 2.2],
      ["C2", 1.8, 2.0],
      ["C3", 0.7, 0.7],
      ["C4", 0.6, 0.6],
    ])
    .log(14, {
      type: "change",
      payload: {
        position: "C20",
        kind: "experiment",
        oldPart: "50 µF 100 V electrolytic",
        newPart: "47 µF 160 V across the lifted old one",
        reason: "does the bias hold?",
        reversible: true,
        outcome: "open",
      },
    })
    .log(2, {
      type: "approval",
      payload: {
        what: "a matched pair of KT66: V6 ran a third above its rating while hot and may not recover, about 110",
        answer: "asked",
        cost: 110,
      },
    });
}

/** The hall's Drover, set far too cold by somebody: thin and rough when it is quiet. Proven, looked at, not biased yet. */
// True fault: the bias control stands at 12 % of its turn.
export function coldBias(d: Days, photo: Record<string, string>): Days {
  d.day(1, "10:10")
    .log(0, { type: "job-opened", payload: { owner: "Netmakers' Hall committee", amp: "Drover 40", contact: "the caretaker, mornings" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Since the tubes were changed it sounds thin and rough when the speaker is quiet. Loud it is all right.",
        when: ["always"],
        use: "Speech and piano, two evenings a week",
      },
    })
    .log(2, {
      type: "brief",
      payload: { order: ["cost", "reliability", "tone", "originality"], dueDate: d.promised(4), spendingLimit: 80 },
    })
    .log(1, { type: "identity", payload: { maker: "Skellmere", model: "Drover 40", revision: "C", serial: "D2302" } })
    .log(1, { type: "photo", payload: { hash: photo.grey!, caption: "As it came in", station: "intake" } })
    .log(3, { type: "claim", payload: { text: "New pair of KT66 fitted elsewhere; the bias was not touched, they say" } });
  return d
    .day(0, "09:30")
    .note(0, "Dummy load of 16 Ω on, volume at zero. Label inside the cover: 38 mA plate current a tube; the manual says 45")
    .log(1, {
      type: "bias-figures",
      payload: {
        stage: "T1",
        labelMilliamps: 38,
        manualMilliamps: 45,
        chosen: "label",
        reason: "the label is of this revision, the manual of the earlier transformer; the hall wants it to last",
      },
    });
}
