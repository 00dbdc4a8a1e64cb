/** The Picture House's foyer Lantern: two fuses gone at switch-on. On the bench, proven dead, nothing powered yet. */

import type { Days } from "../days";

// True fault: shorted turns in one half of the high-tension winding.
export function foyerLantern(d: Days, photo: Record<string, string>): Days {
  d.day(2, "10:40")
    .log(0, {
      type: "job-opened",
      payload: { owner: "Lamplight Picture House", amp: "Lantern 15", contact: "the projection box, after six" },
    })
    .log(2, {
      type: "complaint",
      payload: { words: "Bang, and dark. A new fuse went the same way.", when: ["always"], use: "Foyer music, every evening" },
    })
    .log(1, {
      type: "brief",
      payload: { order: ["reliability", "cost", "originality", "tone"], dueDate: d.promised(5), spendingLimit: 180 },
    })
    .log(1, { type: "claim", payload: { text: "New filter capacitors by the projectionist", year: 2019 } })
    .log(1, { type: "identity", payload: { maker: "Tarn & Wicke", model: "Lantern 15", serial: "TW-2218" } })
    .log(1, { type: "date-code", payload: { place: "filter capacitor can1", code: "38/18" } })
    .log(1, { type: "photo", payload: { hash: photo.green!, caption: "As it came in", station: "intake" } });
  return (
    d
      // As late as today allows, so that the proof still holds when the shop is opened.
      .day(0, "23:50")
      .off(0)
      .prove(1, [
        ["C1", 0.3, 0.4],
        ["C2", 0.3, 0.3],
        ["C3", 0.2, 0.2],
        ["C4", 0.1, 0.1],
      ])
      .log(2, { type: "inspection", payload: { item: "cord", what: "mains cord: cracks, bare copper, strain relief", result: "sound" } })
      .log(1, { type: "inspection", payload: { item: "fuse-rating", what: "fuse: rating and type", result: "found" } })
      .log(0.1, {
        type: "finding",
        payload: {
          station: "look",
          place: "fuse",
          text: "5 A fast fitted where 0.63 A slow belongs; the glass is black",
          severity: "fault",
          action: "fit the right fuse",
          brief: "allowed",
        },
      })
      .log(1, { type: "observation", payload: { name: "fuse blows", conditions: {} } })
  );
}
