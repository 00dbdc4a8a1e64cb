/** The Ferry Dance Orchestra's Halberd: a PA head that has lost a quarter of its power. Looked at and brought up, not walked yet. */

import type { Days } from "../days";

// True fault: V5's screen resistor is open. Nothing is measured yet: the hunt is still to come.
export function halberdHead(d: Days, photo: Record<string, string>): Days {
  d.day(1, "14:20")
    .log(0, { type: "job-opened", payload: { owner: "Ferry Dance Orchestra", amp: "Halberd 120", contact: "the band's van, Thursdays" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "The singer used to be heard at the back of the hall. Now it gives up early and sounds strained.",
        when: ["at volume"],
        use: "Two dances a week, four column speakers on the line",
      },
    })
    .log(2, {
      type: "brief",
      payload: { order: ["reliability", "cost", "tone", "originality"], dueDate: d.promised(2), spendingLimit: 200 },
    })
    .log(1, { type: "identity", payload: { maker: "Ostler", model: "Halberd 120", serial: "OH-0217" } })
    .log(1, { type: "photo", payload: { hash: photo.grey!, caption: "As it came in", station: "intake" } });
  d.day(1, "15:05")
    .prove(0, [
      ["C1", 3.1, 3.6],
      ["C2", 3.0, 3.4],
      ["C3", 1.4, 1.6],
      ["C4", 0.6, 0.6],
      ["C5", 0.5, 0.5],
      ["C20", 0.2, 0.2],
      ["C21", 0.1, 0.1],
    ])
    .log(6, {
      type: "finding",
      payload: {
        station: "look",
        place: "screen resistors, V4 to V7",
        text: "All four have run hot: the paint has gone brown",
        severity: "watch",
        brief: "allowed",
      },
    });
  return d.day(0, "09:00").note(0, "To be walked this morning; dummy load of 83 Ω on the line output");
}

/** Captain Rusk's Halberd: after a loud chord the sound is gone for a moment. Nothing in it is broken: it blocks. */
export function chokes(d: Days, photo: Record<string, string>): Days {
  d.day(2, "15:40")
    .log(0, { type: "job-opened", payload: { owner: "Captain Isolde Rusk", amp: "Halberd 120", contact: "the ship, until the 20th" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "I play a big chord and then it swallows the next notes. A breath later it is back.",
        when: ["at volume"],
        use: "Accordion through the deck speakers",
      },
    })
    .log(2, {
      type: "brief",
      payload: { order: ["reliability", "tone", "cost", "originality"], spendingLimit: 150, dueDate: d.promised(6) },
    })
    .log(1, { type: "identity", payload: { maker: "Ostler", model: "Halberd 120", serial: "OH-0301" } })
    .log(1, { type: "photo", payload: { hash: photo.grey!, caption: "As it came in", station: "intake" } });
  return d.day(0, "08:50").note(0, "Walked last month: every voltage in band. Dummy load of 83 Ω on the line output");
}
