/** Two Lanterns: a half-dead reservoir that waits for a part, and a finished job with everything on it. */

import type { RecordingTaken } from "@/core/tape/events/noise-events";
import type { EventDraft } from "@/core/tape/events/event";
import { billOf } from "../billing";
import type { Days } from "../days";
import { SimulatedAmp } from "../simulated";

const WALKED = [
  ...["B1", "B2", "B3", "B4", "V4.k", "V4.p", "V5.p", "V4.s", "V5.s", "V4.g", "V5.g"],
  ...["V3A.p", "V3A.k", "V2A.p", "V2A.k", "V1A.p", "V1A.k"],
];

/** Captain Rusk's, played on a ship's inverter; its reservoir has lost most of itself. Waits for the can. */
export function rusk(d: Days, photo: Record<string, string>, growl: RecordingTaken): Days {
  d.day(9, "11:00")
    .log(0, { type: "job-opened", payload: { owner: "Captain Isolde Rusk", amp: "Lantern 15", contact: "harbour office will pass it on" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Growls under every note of the accordion, and sags when I lean in.",
        when: ["always", "at volume"],
        use: "On board, from the inverter",
      },
    })
    .log(2, { type: "brief", payload: { order: ["reliability", "tone", "cost", "originality"], spendingLimit: 300 } })
    .log(2, { type: "identity", payload: { maker: "Tarn & Wicke", model: "Lantern 15", revision: "2", serial: "TW-4411" } })
    .log(
      2,
      { type: "date-code", payload: { place: "chassis stamp", code: "1959" } },
      { type: "date-code", payload: { place: "tone pot", code: "137-932" } },
    )
    .log(2, {
      type: "accessory",
      payload: { name: "tremolo footswitch", state: "left at home", bridge: "short pins 1 and 2 of its socket" },
    });
  d.day(8, "09:30")
    .prove(0, [
      ["C1", 1.2, 1.4],
      ["C2", 0.9, 1.1],
      ["C3", 0.4, 0.5],
      ["C4", 0.4, 0.4],
    ])
    .log(5, {
      type: "finding",
      payload: {
        station: "look",
        place: "can 1",
        text: "Seal lifted, a brown run down one side",
        severity: "fault",
        action: "replace both sections",
        brief: "allowed",
        photos: [photo.can!],
      },
    })
    .ohms("R1", 466)
    .ohms("R2", 10.8e3)
    .ohms("R3", 16.1e3)
    .ohms("R9", 57.2e3)
    .ohms("R11", 56.4e3)
    .ohms("R13", 108e3);
  // True fault: the reservoir has a third of its capacitance left.
  const amp = new SimulatedAmp("lantern-15", 23, ["C1=9u"]);
  const warm = { mains: 229, warmMinutes: 10, switches: "tremolo off" };
  d.day(8, "10:40")
    .mains(229)
    .on(1, "variable")
    .note(4, "Mains current 0.52 A at 229 V, no smell")
    .walk(amp, ["B1", "B2", "B3", "B4", "V4.k", "V4.p", "V5.p"], warm)
    .log(0.8, { type: "reading", payload: { point: "B1", kind: "acv", value: 19.5, digits: 3, conditions: warm } })
    .log(
      1,
      { type: "recording", payload: growl },
      { type: "noise-test", payload: { test: "sound", what: "What does it sound like?", outcome: "hum-double" } },
      { type: "noise-test", payload: { test: "down:P1", what: "Turn P1 right down", outcome: "no change" } },
    )
    .note(1, "19.5 V of ripple on B1; bridging C1 with 33 µF takes it to 5 V and the growl with it")
    .off(1);
  return d
    .day(8, "11:30")
    .prove(0, [
      ["C1", 2.1, 2.3],
      ["C2", 1.9, 2.0],
      ["C3", 0.6, 0.6],
      ["C4", 0.5, 0.5],
    ])
    .log(4, { type: "waiting", payload: { on: "part", what: "dual can, 32 + 32 µF 500 V" } });
}

/** The Ferry Dance Orchestra's: an inverter resistor gone high. Done, returned, with report, bill and old parts. */
export function ferry(d: Days, photo: Record<string, string>): Days {
  d.day(24, "09:00")
    .log(0, { type: "job-opened", payload: { owner: "Ferry Dance Orchestra", amp: "Lantern 15", contact: "the band's van, Thursdays" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "One half of every note is missing. Thin and nasty when the hall is full.",
        when: ["always", "at volume"],
        use: "Two dances a week",
      },
    })
    .log(2, { type: "brief", payload: { order: ["reliability", "cost", "tone", "originality"], spendingLimit: 250 } })
    .log(1, { type: "identity", payload: { maker: "Tarn & Wicke", model: "Lantern 15", revision: "2", serial: "TW-3907" } })
    .log(
      2,
      { type: "date-code", payload: { place: "mains transformer", code: "41/58" } },
      { type: "date-code", payload: { place: "volume pot", code: "137-5840" } },
    )
    .log(
      1,
      { type: "accessory", payload: { name: "footswitch", state: "here" } },
      { type: "accessory", payload: { name: "speaker lead", state: "here" } },
    )
    .log(1, { type: "photo", payload: { hash: photo.red!, caption: "As it came in", station: "intake" } })
    .log(9, {
      type: "reproduction",
      payload: {
        reproduced: "yes",
        settings: "volume 6, tone 5, tremolo off",
        instrument: "test tone and the band's cabinet",
        conditions: "at once",
        run: "intake",
      },
    });
  d.day(23, "09:15")
    .prove(0, [
      ["C1", 0.8, 0.9],
      ["C2", 0.7, 0.7],
      ["C3", 0.3, 0.3],
      ["C4", 0.3, 0.3],
    ])
    .log(4, { type: "removed", payload: { what: "six chassis screws", place: "cabinet sides", colour: "nickel" } });
  const screws = d.last;
  d.log(5, {
    type: "finding",
    payload: {
      station: "look",
      place: "R9",
      text: "Body darkened against the board",
      severity: "watch",
      action: "measure it",
      brief: "allowed",
      photos: [photo.underside2!],
    },
  });
  const r9 = d.last;
  // True fault: the inverter's plate resistor has gone high.
  const amp = new SimulatedAmp("lantern-15", 37, ["R9=148k"]);
  const warm = { mains: 231, warmMinutes: 12, switches: "tremolo off" };
  d.day(23, "10:00").mains(231).on(1, "variable").walk(amp, WALKED, warm).off(2);
  d.day(23, "11:10")
    .prove(0, [
      ["C1", 1.1, 1.2],
      ["C2", 1.0, 1.0],
      ["C3", 0.4, 0.4],
      ["C4", 0.3, 0.4],
    ])
    .ohms("R9", 148e3)
    .ohms("R11", 56.8e3)
    .log(3, {
      type: "note",
      payload: { text: "R9 reads 148 kΩ across a marked 56 kΩ: with one leg lifted the same", station: "cold-checks" },
    })
    .log(4, {
      type: "approval",
      payload: { what: "C6 and C7: fresh coupling capacitors to the output grids while it is open", answer: "asked", cost: 18 },
    });
  const asked = d.last;
  d.day(21, "16:30")
    .log(0, {
      type: "approval",
      payload: {
        what: "C6 and C7: fresh coupling capacitors to the output grids while it is open",
        answer: "yes",
        asks: asked,
        on: d.promised(-21),
        by: "telephone",
        said: "the band's leader",
      },
    })
    .log(1, { type: "approval", payload: { what: "new output tubes, matched pair, about 45", answer: "no" } });
  d.day(20, "09:00").log(
    0,
    {
      type: "planned",
      payload: {
        position: "R9",
        what: "renew the inverter's plate resistor",
        phase: "power off",
        from: "finding",
        source: r9,
        minutes: 20,
        reversible: true,
      },
    },
    ...(["C6", "C7"] as const).map((position): EventDraft => ({
      type: "planned",
      payload: { position, what: "renew the coupling capacitor", phase: "power off", from: "capacitor", minutes: 15, reversible: true },
    })),
  );
  const plan = d.last - 2;
  d.day(20, "09:10")
    .prove(0, [
      ["C1", 0.5, 0.5],
      ["C2", 0.4, 0.5],
      ["C3", 0.2, 0.2],
      ["C4", 0.2, 0.2],
    ])
    .log(10, {
      type: "change",
      payload: {
        position: "R9",
        kind: "replacement",
        oldPart: "56 kΩ 1 W carbon",
        planned: plan,
        minutes: 22,
        cost: 0.6,
        source: "stock",
        fixings: ["off the board", "hooked before solder"],
        oldMeasured: "148 kΩ, leg lifted",
        newPart: "56 kΩ 2 W metal-oxide",
        reason: "gone high: the inverter was lopsided",
        reversible: true,
        oldWent: "bag for the owner",
        fixing: "stood off the board",
      },
    })
    .log(
      8,
      {
        type: "change",
        payload: {
          position: "C6",
          kind: "replacement",
          oldPart: "47 nF 600 V paper",
          planned: plan + 1,
          minutes: 18,
          cost: 1.5,
          source: "stock",
          fixings: ["hooked before solder"],
          oldMeasured: "2 µA at 300 V",
          newPart: "47 nF 630 V polypropylene",
          reason: "aged paper, agreed with the owner",
          reversible: true,
          oldWent: "bag for the owner",
        },
      },
      {
        type: "change",
        payload: {
          position: "C7",
          kind: "replacement",
          oldPart: "47 nF 600 V paper",
          planned: plan + 2,
          minutes: 14,
          cost: 1.5,
          source: "stock",
          fixings: ["hooked before solder"],
          oldMeasured: "3 µA at 300 V",
          newPart: "47 nF 630 V polypropylene",
          reason: "aged paper, agreed with the owner",
          reversible: true,
          oldWent: "bag for the owner",
        },
      },
    )
    .log(3, { type: "finding-closed", payload: { finding: r9, how: "R9 replaced" } });
  const after = { mains: 232, warmMinutes: 15, switches: "tremolo off" };
  d.day(20, "11:00").mains(232).on(1, "variable").walk(amp.with(), WALKED, after).off(40);
  d.day(19, "10:00")
    .prove(0, [
      ["C1", 0.6, 0.6],
      ["C2", 0.4, 0.4],
      ["C3", 0.2, 0.2],
      ["C4", 0.2, 0.2],
    ])
    .log(20, { type: "put-back", payload: { removed: screws } })
    .log(
      5,
      { type: "safety-test", payload: { test: "earth bond", value: 0.06, limit: 0.1, passed: true } },
      { type: "safety-test", payload: { test: "insulation", value: 48e6, limit: 2e6, passed: true } },
      { type: "safety-test", payload: { test: "leakage", value: 0.21e-3, limit: 0.5e-3, passed: true } },
    )
    .log(
      2,
      { type: "safety-test", payload: { test: "fuse", passed: true, note: "T1A, 20 mm, as the plate says" } },
      { type: "safety-test", payload: { test: "polarity", passed: true } },
      { type: "safety-test", payload: { test: "cord", passed: true, note: "grip tightened" } },
    )
    .log(
      1,
      ...["P1", "P2", "P3", "S1", "Input jack", "Output jack", "Pilot lamp"].map(
        (control) => ({ type: "control-check", payload: { control, works: true } }) as const,
      ),
    )
    .log(3, {
      type: "reproduction",
      payload: {
        reproduced: "no",
        settings: "volume 6, tone 5, tremolo off",
        instrument: "test tone and the band's cabinet",
        conditions: "at once, and after two hours",
        run: "prove",
      },
    })
    .log(
      2,
      { type: "time", payload: { minutes: 75, what: "finding the fault, and the tests before and after" } },
      { type: "bill-line", payload: { text: "Safety tests", amount: 15, kind: "fixed price" } },
    )
    .log(2, {
      type: "advice",
      payload: {
        text: "The output tubes are at 78 % of new: good for about another year of dances. Let it stand two minutes before you play.",
        nextService: nextYear(),
      },
    })
    .log(1, { type: "waiting", payload: { on: "collection" } });
  const bill = billOf(d, 1001);
  d.log(2, bill);
  return d
    .day(17, "17:35")
    .log(0, {
      type: "payment",
      payload: { amount: bill.payload.sum.total, on: d.promised(-17), means: "cash", what: "payment" },
    })
    .day(17, "17:40")
    .log(0, { type: "returned", payload: { to: "Ferry Dance Orchestra", oldPartsHanded: true } });
}

function nextYear(): string {
  const date = new Date();
  date.setFullYear(date.getFullYear() + 1);
  return date.toISOString().slice(0, 10);
}
