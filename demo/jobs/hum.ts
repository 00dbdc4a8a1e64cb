/** Osric Venn's Lantern: three changes are in since it stopped humming, and nobody knows which of them did it. With a plan and a quote. */

import type { EventDraft } from "@/core/tape/events/event";
import { quoteOf } from "../billing";
import type { Days } from "../days";
import { SimulatedAmp } from "../simulated";

// True fault: the third reservoir has dried out.
export const HUM = [{ set: "C3=0.6u" }];

const planned = (position: string, what: string, more: object = {}): EventDraft => ({
  type: "planned",
  payload: { position, what, phase: "power off", from: "technician", reversible: true, ...more },
});

export function humming(d: Days, photo: Record<string, string>): Days {
  d.day(4, "09:10")
    .log(0, { type: "job-opened", payload: { owner: "Osric Venn", amp: "Lantern 15", contact: "the studio, after noon" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Hums with everything turned down, and every take has it.",
        when: ["always"],
        use: "In the studio, four hours a day",
      },
    })
    .log(2, {
      type: "brief",
      payload: {
        order: ["tone", "originality", "reliability", "cost"],
        dueDate: d.promised(4),
        mustNotChange: "the output transformer and the speaker",
        spendingLimit: 220,
      },
    })
    .log(1, { type: "identity", payload: { maker: "Tarn & Wicke", model: "Lantern 15", revision: "2", serial: "TW-3514" } })
    .log(1, { type: "photo", payload: { hash: photo.green!, caption: "As it came in", station: "intake" } })
    .log(6, {
      type: "reproduction",
      payload: {
        reproduced: "yes",
        settings: "all controls at zero",
        instrument: "nothing plugged in",
        conditions: "at once",
        run: "intake",
      },
    });
  d.day(3, "10:00")
    .prove(0, [
      ["C1", 0.7, 0.8],
      ["C2", 0.6, 0.6],
      ["C3", 0.1, 0.1],
      ["C4", 0.2, 0.2],
    ])
    .log(4, { type: "removed", payload: { what: "six chassis screws", place: "cabinet sides", colour: "nickel" } })
    .log(3, {
      type: "finding",
      payload: {
        station: "look",
        place: "C1, C2 (can1)",
        text: "The vent of the can has opened",
        severity: "fault",
        action: "replace the can",
        brief: "ask",
        photos: [photo.can!],
      },
    });
  const can = d.last;
  d.log(2, {
    type: "finding",
    payload: {
      station: "look",
      place: "Input jack",
      text: "The spring has gone soft",
      severity: "watch",
      action: "re-tension and clean the jack",
      brief: "allowed",
    },
  });
  const jack = d.last;
  const amp = new SimulatedAmp("lantern-15", 109, ["C3=0.6u"]);
  const warm = { mains: 230, warmMinutes: 12, switches: "tremolo off" };
  d.day(3, "11:10").mains(230).on(1, "variable").walk(amp, ["B1", "B2", "B3", "B4"], warm).off(2);
  // Three things in one evening, and the hum was gone.
  d.day(2, "17:20")
    .prove(0, [
      ["C1", 0.8, 0.8],
      ["C2", 0.6, 0.7],
      ["C3", 0.2, 0.2],
      ["C4", 0.2, 0.2],
    ])
    .log(4, {
      type: "change",
      payload: {
        position: "C11",
        kind: "experiment",
        newPart: "47 µF 25 V across it",
        reversible: true,
        outcome: "open",
        hypothesis: "the first stage's cathode picks up hum",
        before: "hums, all controls at zero",
        set: ["C11=47uF"],
      },
    })
    .log(12, {
      type: "change",
      payload: {
        position: "C3",
        kind: "experiment",
        newPart: "22 µF 500 V in its place",
        reversible: true,
        outcome: "open",
        hypothesis: "the inverter's supply is not smooth",
        before: "hums, all controls at zero",
        set: ["C3=22uF"],
      },
    })
    .log(5, {
      type: "change",
      payload: {
        position: "V1",
        kind: "experiment",
        newPart: "another 12AX7, from the drawer",
        reversible: true,
        outcome: "open",
        hypothesis: "heater to cathode leak in V1",
      },
    })
    .note(20, "Hum gone with all three in. Which of them?");
  d.day(1, "09:00").log(
    1,
    planned("C1", "replace the can with 32 + 32 µF 500 V", {
      from: "finding",
      source: can,
      reach: ["chassis out", "turret board up"],
      parts: [{ text: "32 + 32 µF 500 V can", pieces: 1, cost: 24, state: "to order" }],
    }),
    planned("Input jack", "re-tension and clean the jack", { from: "finding", source: jack, reach: ["chassis out"], minutes: 15 }),
    planned("V4", "fit a matched pair of 6V6GT", {
      minutes: 15,
      parts: [{ text: "6V6GT, matched pair", pieces: 1, cost: 32, state: "to order" }],
      reason: "68 % of new",
    }),
  );
  const tubes = d.last;
  d.log(
    1,
    planned("output stage", "measure the idle and the balance", { phase: "adjustment", from: "bias", needs: [tubes] }),
    planned("whole amp", "electrical safety tests, and the complaint's own test again", { phase: "final tests", fixedPrice: 15 }),
  );
  const [first, ...rest] = [tubes - 2, tubes - 1, tubes, tubes + 1, tubes + 2];
  d.log(
    4,
    quoteOf(d, () => [
      {
        name: "Make it work",
        aim: "make it work",
        consequence: "Quiet again for now. The old can stays, and may fail on a session.",
        tasks: [tubes - 1, tubes + 2],
      },
      {
        name: "Make it last",
        aim: "make it last",
        consequence: "Quiet for years; the can is new, and so are the output tubes.",
        tasks: [first!, ...rest],
      },
      {
        name: "Keep it original",
        aim: "keep it original",
        consequence: "The case of the old can stays where it is, with new capacitors beneath it; your tubes stay.",
        tasks: [first!, tubes - 1, tubes + 2],
      },
    ]),
  );
  d.log(3, {
    type: "approval",
    payload: {
      what: "May the can be replaced? Its vent has opened, and it is past its years.",
      answer: "asked",
      cost: 68,
      consequence: "If it goes on a session it takes the rectifier tube with it, and perhaps the mains transformer.",
      evidence: [can],
      planned: [first!],
    },
  });
  return d;
}
