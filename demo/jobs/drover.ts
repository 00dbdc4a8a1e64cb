/** The Drover whose bias supply sags as it warms: the same points at five and at forty minutes. Waits for the owner. */

import type { Days } from "../days";

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
  d.day(3, "09:40")
    .mains(230)
    .on(2, "lamp and variable", ["V5", "V6"])
    .read("BIAS", -57.2, { mains: 230, warmMinutes: 1 })
    .off(3)
    .mains(230)
    .on(4, "variable")
    .read("BIAS", -56.1, early)
    .read("B1", 433, early)
    .read("B2", 427, early)
    .read("B3", 366, early)
    .read("B4", 309, early)
    .read("V5.g", -41.6, early)
    .read("V6.g", -41.7, early)
    .read("V5.k", 0.44, early)
    .read("V6.k", 0.39, early)
    .read("V5.p", 429, early)
    .read("V6.p", 430, early)
    .note(24, "Left it on, volume at zero; transformer begins to hum at about 25 minutes");
  const late = { mains: 230, warmMinutes: 40, controls: "volume at zero" };
  d.read("BIAS", -44.8, late)
    .read("V5.g", -33.1, late)
    .read("V6.g", -33.3, late)
    .read("V5.k", 0.83, late)
    .read("V6.k", 0.76, late)
    .read("B1", 408, late)
    .read("V5.p", 401, late)
    .read("V6.p", 402, late)
    .off(1)
    .log(2, {
      type: "finding",
      payload: {
        station: "walk",
        place: "bias supply, C20",
        text: "Falls from −56 V to −45 V in forty minutes while the mains stays: leaks as it warms",
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
        what: "a matched pair of KT66: V5 ran a quarter above its rating while hot and may not recover, about 110",
        answer: "asked",
        cost: 110,
      },
    });
}
