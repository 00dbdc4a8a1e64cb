/** Three jobs about noise: a howl that needs two circumstances, a dry decoupler, an amp that loses half its level when warm. */

import type { Days } from "../days";

/** Osric Venn's other Drover: it howls, but not always. */
// True fault: with the long footswitch lead and the treble boost together the reverb's return howls.
export function howl(d: Days, photo: Record<string, string>): Days {
  return d
    .day(2, "15:20")
    .log(0, { type: "job-opened", payload: { owner: "Osric Venn", amp: "Drover 40", contact: "Kiln Yard studio" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Howls at me. Never when the tuner is here. Only on some evenings, on the big stage.",
        when: ["now and then", "at a certain venue"],
        use: "Studio, and the big stage on Saturdays",
      },
    })
    .log(1, { type: "brief", payload: { order: ["reliability", "tone", "cost", "originality"] } })
    .log(1, { type: "identity", payload: { maker: "Skellmere", model: "Drover 40", revision: "C", serial: "D2416" } })
    .log(1, { type: "accessory", payload: { name: "reverb footswitch, short and long lead", state: "here" } })
    .log(1, { type: "photo", payload: { hash: photo.underside2!, caption: "underside of the chassis", station: "look" } })
    .mains(231);
}

/** The committee's Lantern: hums at any volume. */
// True fault: C3, the inverter's decoupler, has dried out.
export function dryDecoupler(d: Days): Days {
  return d
    .day(1, "10:05")
    .log(0, { type: "job-opened", payload: { owner: "Netmakers' Hall committee", amp: "Lantern 15" } })
    .log(2, {
      type: "complaint",
      payload: { words: "It hums. It hums with nobody near it.", when: ["always"], use: "Speeches, on Thursdays" },
    })
    .log(1, { type: "brief", payload: { order: ["cost", "reliability", "tone", "originality"], spendingLimit: 120 } })
    .log(1, { type: "identity", payload: { maker: "Tarn & Wicke", model: "Lantern 15", revision: "2", serial: "TW-2950" } })
    .mains(230)
    .prove(3, [
      ["C1", 0.4, 0.5],
      ["C2", 0.3, 0.3],
      ["C3", 0.1, 0.1],
      ["C4", 0.1, 0.1],
    ]);
}

/** The museum's Wren: half the level after forty minutes. Repaired; the soak is to show it. */
// True fault: the bypass capacitor of the first stage opens when it is warm.
export function fortyMinutes(d: Days): Days {
  d.day(5, "09:40")
    .log(0, { type: "job-opened", payload: { owner: "Port Ellery Radio Museum", amp: "Wren 5" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Plays well for the first tour, then half as loud for the second.",
        when: ["when hot"],
        use: "Shown running all morning",
      },
    })
    .log(1, {
      type: "brief",
      payload: { order: ["originality", "reliability", "tone", "cost"], mustNotChange: "The cabinet and the cloth" },
    })
    .log(1, { type: "identity", payload: { maker: "Brackwynd", model: "Wren 5", serial: "B0412" } })
    .mains(230)
    .on(4, "straight");
  d.log(42, {
    type: "occurrence",
    payload: { what: "lost half its level", warmMinutes: 42, mains: 230, activity: "a tone of 400 Hz, untouched" },
  }).off(1);
  d.day(4, "10:10").mains(231).on(1, "straight");
  d.log(39, { type: "occurrence", payload: { what: "lost half its level", warmMinutes: 39, mains: 231, activity: "playing" } })
    .log(2, { type: "provoked", payload: { place: "C8", by: "cold", tool: "freezing spray", response: "stops it" } })
    .log(1, { type: "provoked", payload: { place: "V1 socket", by: "tap", tool: "a pencil's rubber end", response: "nothing" } })
    .off(1)
    .log(6, {
      type: "approval",
      payload: { what: "C8: a new bypass capacitor, since the old one opens when it is warm", answer: "asked", cost: 14 },
    });
  const asked = d.last;
  return d
    .day(3, "13:50")
    .log(0, {
      type: "approval",
      payload: {
        what: "C8: a new bypass capacitor, since the old one opens when it is warm",
        answer: "yes",
        asks: asked,
        on: d.promised(-3),
        by: "telephone",
        said: "the keeper",
      },
    })
    .prove(2, [
      ["C1", 0.2, 0.2],
      ["C2", 0.1, 0.2],
      ["C3", 0.1, 0.1],
    ])
    .log(5, {
      type: "change",
      payload: {
        position: "C8",
        kind: "replacement",
        oldPart: "25 µF 25 V electrolytic",
        oldMeasured: "24 µF cold, open after ten minutes at 55 °C",
        newPart: "22 µF 63 V electrolytic",
        reason: "opens when warm",
        reversible: true,
        oldWent: "bag for the owner",
      },
    });
}
