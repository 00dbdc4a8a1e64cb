/** The museum's Vantry Minor: no drawing to be had, so its reservoirs are named by hand. On the soak clock. */

import type { Days } from "../days";

export function museum(d: Days): Days {
  d.day(12, "10:15")
    .log(0, { type: "job-opened", payload: { owner: "Port Ellery Radio Museum", amp: "Vantry Minor", contact: "the keeper's office" } })
    .log(2, {
      type: "complaint",
      payload: { words: "Dead since the exhibition. Nothing lights.", when: ["always"], use: "Shown running, ten minutes a day" },
    })
    .log(2, {
      type: "brief",
      payload: {
        order: ["originality", "reliability", "cost", "tone"],
        dueDate: d.promised(16),
        mustNotChange: "Nothing may be replaced without a paper trail",
      },
    })
    .log(1, { type: "identity", payload: { maker: "Vantry", model: "Minor", serial: "M-0093" } })
    .log(
      4,
      { type: "reservoir", payload: { name: "upper can", farads: 40e-6, volts: 150 } },
      { type: "reservoir", payload: { name: "lower can", farads: 20e-6, volts: 150 } },
    )
    .prove(3, [
      ["upper can", 0.1, 0.1],
      ["lower can", 0.1, 0.1],
    ])
    .log(6, {
      type: "finding",
      payload: {
        station: "look",
        place: "chassis",
        text: "Connected to the line on one side: an isolation transformer before anything is clipped on",
        severity: "danger",
        brief: "allowed",
      },
    })
    .log(5, { type: "reading", payload: { point: "V1 heater 2:7", kind: "ohm", value: 9e9, digits: 1, conditions: {} } })
    .log(2, {
      type: "approval",
      payload: { what: "35Z5GT: a tested one from stock in place of the one with the open heater", answer: "asked", cost: 22 },
    })
    .note(1, "35Z5GT heater open between pins 2 and 7; the other two read 34 Ω and 190 Ω cold");
  const asked = d.last - 1;
  return d
    .day(10, "14:00")
    .log(0, {
      type: "approval",
      payload: {
        what: "35Z5GT: a tested one from stock in place of the one with the open heater",
        answer: "yes",
        asks: asked,
        on: d.promised(-10),
        by: "letter",
        said: "the keeper",
      },
    })
    .prove(1, [
      ["upper can", 0, 0],
      ["lower can", 0, 0],
    ])
    .log(3, {
      type: "change",
      payload: {
        position: "35Z5GT",
        kind: "replacement",
        oldPart: "35Z5GT, heater open",
        newPart: "35Z5GT from stock, tested at 88 %",
        reason: "open string",
        reversible: true,
        oldWent: "bag for the owner",
      },
    })
    .log(2, { type: "waiting", payload: { on: "soak", what: "ten minutes on, fifty off, four days" } });
}

/** Mrs. Marrowby's own Minor: dark since the news. With its circuit, and nothing measured yet. */
// True fault: the heater of V2 is open.
export function kitchenSet(d: Days): Days {
  return d
    .day(1, "16:10")
    .log(0, { type: "job-opened", payload: { owner: "Mrs. Tilda Marrowby", amp: "Vantry Minor", contact: "Harbour Row 7" } })
    .log(2, {
      type: "complaint",
      payload: { words: "It went out in the middle of the news. No light, no sound.", when: ["always"], use: "The kitchen, all day" },
    })
    .log(1, { type: "brief", payload: { order: ["originality", "reliability", "tone", "cost"], mustNotChange: "The case and the dial" } })
    .log(1, { type: "identity", payload: { maker: "Vantry", model: "Minor", serial: "M-0411" } })
    .mains(117)
    .day(0, "23:50")
    .off(0)
    .prove(1, [
      ["C1", 0.1, 0.1],
      ["C2", 0.1, 0.1],
    ]);
}
