/** Two jobs about capacitors: an amplifier that was never powered for thirty years, and a Lantern whose board conducts. */

import type { Days } from "../days";
import { SimulatedAmp } from "../simulated";

/**
 * The museum's Picture House: a can with three sections, electrolytics of 1964.
 * Truth, by the simulated tester: C1 forms well, C3 takes its time, C4 never comes down.
 */
export function asleep(d: Days, photo: Record<string, string>): Days {
  d.day(3, "10:10")
    .log(0, {
      type: "job-opened",
      payload: { owner: "Port Ellery Radio Museum", amp: "Picture House", contact: "the keeper, mornings" },
    })
    .log(2, {
      type: "complaint",
      payload: {
        words:
          "From the closed cinema. Nobody has switched it on since 1994. We would like it to play at the opening, with its own parts where they can stay.",
        when: ["always"],
        use: "An hour on Sundays",
      },
    })
    .log(2, {
      type: "brief",
      payload: {
        order: ["originality", "reliability", "tone", "cost"],
        mustNotChange: "the badge and the front panel",
        spendingLimit: 600,
        dueDate: d.promised(20),
      },
    })
    .log(1, { type: "identity", payload: { maker: "Pell", model: "Picture House", revision: "2", serial: "PH-007" } })
    .log(1, { type: "photo", payload: { hash: photo.can!, caption: "The can with three sections", station: "look" } });
  d.day(2, "09:40")
    .prove(0, [
      ["C1", 0, 0],
      ["C3", 0, 0],
      ["C4", 0, 0],
    ])
    .log(4, { type: "inspection", payload: { item: "cord", what: "Cord, plug and strain relief", result: "sound" } })
    .log(
      3,
      { type: "capacitor", payload: { part: "C1", lug: "square", caseLead: "minus", marking: "100 MFD 450" } },
      { type: "capacitor", payload: { part: "C3", lug: "half-round", caseLead: "minus", marking: "50 MFD 450" } },
      { type: "capacitor", payload: { part: "C4", lug: "triangle", caseLead: "minus", marking: "50 MFD 450" } },
    )
    .log(
      2,
      { type: "capacitor-test", payload: { part: "C1", kind: "capacitance", value: 104e-6, hertz: 120 } },
      { type: "capacitor-test", payload: { part: "C3", kind: "capacitance", value: 47e-6, hertz: 120 } },
      { type: "capacitor-test", payload: { part: "C4", kind: "capacitance", value: 44e-6, hertz: 120 } },
    );
  return d.day(0, "09:10").note(0, "To be reformed on the bench supply, plus leads lifted, before it sees the mains");
}

/** What conducts between neighbours of the Lantern's board: as it is, and once it was cleaned and dried. */
export const WET_BOARD = [
  { set: "p3a~g4=14M", cleaned: "p3a~g4=90M" },
  { set: "b2~g5=25M", cleaned: "b2~g5=900M" },
];

/** The Netmakers' Lantern: two output grids above nothing, and new coupling capacitors of last year did not help. */
export function wetBoard(d: Days): Days {
  const amp = new SimulatedAmp(
    "lantern-15",
    107,
    WET_BOARD.map((f) => f.set),
  );
  d.day(2, "13:30")
    .log(0, { type: "job-opened", payload: { owner: "Netmakers' Hall committee", amp: "Lantern 15", contact: "the caretaker" } })
    .log(2, {
      type: "complaint",
      payload: {
        words:
          "Runs hot since the winter in the boathouse, and the fuse went twice. The capacitors were changed last year and it is the same.",
        when: ["when hot"],
        use: "Every second Saturday",
      },
    })
    .log(1, { type: "claim", payload: { text: "Coupling capacitors replaced", year: 2025 } })
    .log(2, {
      type: "brief",
      payload: { order: ["reliability", "cost", "originality", "tone"], spendingLimit: 200, dueDate: d.promised(9) },
    })
    .log(1, { type: "identity", payload: { maker: "Tarn & Wicke", model: "Lantern 15", revision: "2", serial: "TW-3120" } })
    .log(
      1,
      { type: "capacitor", payload: { part: "C6", farads: 47e-9, volts: 630, kind: "polypropylene", year: 2025 } },
      { type: "capacitor", payload: { part: "C7", farads: 47e-9, volts: 630, kind: "polypropylene", year: 2025 } },
    );
  const warm = { mains: 230, warmMinutes: 12, controls: "volume at zero" };
  return d
    .day(1, "10:00")
    .mains(230)
    .on(3, "variable")
    .walk(amp, ["B1", "B2", "B3", "B4", "V4.k", "V4.p", "V5.p", "V4.s", "V5.s", "V4.g", "V5.g"], warm)
    .note(1, "Both output grids stand above chassis, with new film before them")
    .off(2);
}
