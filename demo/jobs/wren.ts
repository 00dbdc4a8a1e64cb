/** Two Wrens: one with a leaky coupling capacitor, one whose primary sits on the wrong tap. */

import type { Days } from "../days";
import { SimulatedAmp } from "../simulated";

/** Mrs. Marrowby's, inherited; she wants it original. At the walk, with the leak found and the owner not asked yet. */
export function marrowby(d: Days, photo: Record<string, string>): Days {
  d.day(6, "09:20")
    .log(0, { type: "job-opened", payload: { owner: "Mrs. Tilda Marrowby", amp: "Wren 5", contact: "by letter, Chapel Row" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "It was my brother's. It plays for ten minutes, then goes hoarse and quiet.",
        when: ["when hot"],
        use: "An hour on Sundays, with a gramophone pickup",
      },
    })
    .log(3, {
      type: "brief",
      payload: {
        order: ["originality", "reliability", "tone", "cost"],
        dueDate: d.promised(1),
        mustNotChange: "The look of it; the knobs and the cloth",
        spendingLimit: 180,
      },
    })
    .log(2, { type: "identity", payload: { maker: "Brackwynd", model: "Wren 5", revision: "B", serial: "B1177" } })
    .log(
      2,
      { type: "date-code", payload: { place: "volume pot", code: "137-6118" } },
      { type: "date-code", payload: { place: "mains transformer", code: "23/61" } },
      { type: "date-code", payload: { place: "speaker", code: "220-7814" } },
    )
    .log(1, { type: "claim", payload: { text: "the big capacitor was changed in the eighties" } })
    .log(2, { type: "accessory", payload: { name: "pickup lead with a home-made plug", state: "here" } })
    .log(1, { type: "photo", payload: { hash: photo.cabinet!, caption: "As it came in, lower corner knocked", station: "intake" } });
  d.day(5, "10:05")
    .prove(0, [
      ["C1", 0.3, 0.4],
      ["C2", 0.2, 0.3],
      ["C3", 0.1, 0.1],
    ])
    .log(4, { type: "removed", payload: { what: "four back-panel screws", place: "back panel", colour: "brass" } })
    .log(6, {
      type: "finding",
      payload: {
        station: "look",
        place: "C6",
        text: "Wax has run from one end; the part is as old as the amp",
        severity: "fault",
        action: "measure with a leg lifted",
        brief: "allowed",
        photos: [photo.underside!],
      },
    })
    .log(
      3,
      {
        type: "finding",
        payload: {
          station: "look",
          place: "mains cord",
          text: "Two-wire, rubber gone hard at the grommet",
          severity: "danger",
          action: "three-core cord, earth to its own bolt",
          brief: "ask",
        },
      },
      { type: "approval", payload: { what: "three-core cord, earth to its own bolt", answer: "asked" } },
    );
  const asked = d.last;
  d.log(5, { type: "photo", payload: { hash: photo.underside!, caption: "Underside before anything was touched", station: "look" } })
    .ohms("R4", 178)
    .ohms("R6", 104e3)
    .ohms("R8", 113e3)
    .ohms("R9", 1510)
    .ohms("R1", 2190);
  d.day(3, "14:10")
    .log(0, { type: "approval", payload: { what: "three-core cord, earth to its own bolt", answer: "yes", asks: asked } })
    .log(30, {
      type: "change",
      payload: {
        position: "mains cord",
        kind: "replacement",
        oldPart: "two-wire rubber cord",
        newPart: "three-core cord, 0.75 mm², moulded plug with 3 A fuse",
        reason: "no earth, insulation hard",
        reversible: true,
        oldWent: "bag for the owner",
        fixing: "earth on its own M4 bolt, star washer, bare metal",
      },
    })
    .log(2, { type: "finding-closed", payload: { finding: asked - 1, how: "three-core cord fitted, earth on its own bolt" } });
  d.day(0, "08:40")
    .mains(231)
    .on(1, "variable")
    .log(9, {
      type: "reproduction",
      payload: {
        reproduced: "yes",
        settings: "volume half",
        instrument: "pickup and its own speaker",
        conditions: "after 12 minutes",
        run: "intake",
      },
    });
  const warm = { mains: 231, warmMinutes: 14 };
  // True fault: C6 leaks, more as it warms.
  const amp = new SimulatedAmp("wren-5", 11, ["C6=leak:14M"]);
  const b2 = amp.volts("B2", warm);
  d.walk(amp, ["B1"], warm).read("B2", b2 / 10, warm);
  const slip = d.last;
  d.log(0.5, {
    type: "reading",
    supersedes: slip,
    reason: "meter had changed its range",
    payload: { point: "B2", kind: "dcv", value: b2, digits: 3, conditions: warm },
  })
    .walk(amp, ["B3", "V2.k", "V2.p", "V2.s", "V2.g"], warm)
    .note(
      1,
      `V2.g climbs from ${amp.with("C6=leak:60M").volts("V2.g", warm)} V cold to ${amp.volts("V2.g", warm)} V in a quarter of an hour`,
    )
    .walk(amp, ["V1B.p"], warm)
    .off(2);
  return d;
}

/** The Netmakers' Hall committee's: a second Wren, just in, set for another mains. */
export function netmakers(d: Days, photo: Record<string, string>): Days {
  return d
    .day(0, "08:05")
    .log(0, { type: "job-opened", payload: { owner: "Netmakers' Hall committee", amp: "Wren 5", contact: "the caretaker, mornings" } })
    .log(2, {
      type: "complaint",
      payload: {
        words: "Runs very hot, smells after the first song, and the fuse has gone twice.",
        when: ["always"],
        use: "Announcements and whist evenings",
      },
    })
    .log(2, { type: "brief", payload: { order: ["cost", "reliability"], spendingLimit: 60 } })
    .log(1, { type: "claim", payload: { text: "the electrician fitted a bigger fuse so that it would stop blowing" } })
    .log(1, { type: "photo", payload: { hash: photo.green!, caption: "As it came in", station: "intake" } });
}
