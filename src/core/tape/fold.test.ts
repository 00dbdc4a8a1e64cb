import { conditionsNow, foldJob, latestReading, tapeLines } from "./fold";
import { payloadErrors } from "./events/validate";
import { viewJob } from "../job/job-view";
import { summarise } from "../job/summary";
import { DEFAULT_SETTINGS } from "../shop/settings";
import { at, tape } from "./tape-for-tests";
import type { EventDraft, JobEvent } from "./events/event";

const reading = (point: string, value: number, more: object = {}): EventDraft =>
  ({ type: "reading", payload: { point, kind: "dcv", value, conditions: {} }, ...more }) as EventDraft;

const summary = (events: JobEvent[]) => summarise(viewJob(events, undefined, DEFAULT_SETTINGS, 0), "unknown", DEFAULT_SETTINGS);

describe("the fold", () => {
  test("a correction replaces, an undo strikes, undoing the undo restores; nothing leaves the tape", () => {
    const events = tape(
      [0, reading("B1", 318)],
      [1, reading("B1", 381, { supersedes: 1, reason: "digits swapped" })],
      [2, { type: "undo", supersedes: 2, reason: "no", payload: {} }],
      [3, { type: "undo", supersedes: 3, reason: "yes after all", payload: {} }],
    );
    expect(latestReading(foldJob(events.slice(0, 2)), "b1")?.value).toBe(381);
    expect(latestReading(foldJob(events.slice(0, 3)), "b1")?.value).toBe(318);
    expect(latestReading(foldJob(events), "b1")?.value).toBe(381);
    expect(tapeLines(events).map((l) => l.effective)).toEqual([false, true, false, true]);
    expect(foldJob(events).lines).toHaveLength(4);
  });

  test("the conditions of a reading: mains, tubes out, limiter, warm minutes", () => {
    const state = foldJob(
      tape(
        [0, { type: "mains", payload: { volts: 231 } }],
        [60, { type: "power", payload: { state: "on", through: "lamp", without: ["V4"] } }],
      ),
    );
    expect(conditionsNow(state, at(60 + 20 * 60))).toEqual({ mains: 231, without: ["V4"], limiter: "lamp", warmMinutes: 20 });
  });

  test("the live check holds for one power-on", () => {
    const lines: [number, EventDraft][] = [
      [0, { type: "power", payload: { state: "on" } }],
      [1, { type: "live-check", payload: { confirmed: ["one hand"] } }],
    ];
    expect(foldJob(tape(...lines)).liveChecked).toBe(true);
    expect(
      foldJob(tape(...lines, [2, { type: "power", payload: { state: "off" } }], [3, { type: "power", payload: { state: "on" } }]))
        .liveChecked,
    ).toBe(false);
  });

  test("what waits for the owner is answered by the line that answers it", () => {
    const asked: [number, EventDraft] = [0, { type: "approval", payload: { what: "new output transformer", answer: "asked" } }];
    expect(summary(tape(asked))).toMatchObject({ waitingOn: "owner", waitingWhat: "new output transformer" });
    expect(
      summary(tape(asked, [9, { type: "approval", payload: { what: "new output transformer", answer: "no", asks: 1 } }])).waitingOn,
    ).toBe("you");
  });

  test("the summary's search holds owner, parts and notes", () => {
    const s = summary(
      tape(
        [0, { type: "job-opened", payload: { owner: "Ferry Dance Orchestra", amp: "Lantern 15" } }],
        [1, { type: "note", payload: { text: "hum drops with V2 out" } }],
        [2, { type: "change", payload: { position: "C6", kind: "replacement", newPart: "47 nF 630 V film", reversible: true } }],
      ),
    );
    for (const word of ["ferry dance", "lantern", "hum drops", "47 nf 630 v"]) expect(s.search).toContain(word);
  });
});

describe("payload checks", () => {
  test.each([
    ["reading", { point: "B1", kind: "dcv", value: 318, conditions: {} }],
    ["power", { state: "on" }],
    ["brief", { order: ["tone", "cost"] }],
    ["safety-test", { test: "earth bond", value: 0.05, limit: 0.1, passed: true }],
  ])("%s passes", (type, payload) => expect(payloadErrors(type, payload)).toEqual([]));

  test.each([
    ["reading", { point: "B1", kind: "dcv", value: 4000, conditions: {} }, /4000 V: no tube amplifier has that/],
    ["reading", { point: "R7", kind: "ohm", value: -5, conditions: {} }, /cannot be negative/],
    ["reading", { point: "R7", kind: "ohm", value: "5", conditions: {} }, /number/],
    ["reading", { point: "R7", kind: "ohm", value: 5, conditions: { mains: 900 } }, /500/],
    ["power", { state: "maybe" }, /maybe/],
    ["power", { state: "on", extra: 1 }, /extra/],
    ["nonsense", {}, /accepted: job-opened/],
    ["note", null, /object/],
    ["note", { text: "" }, /text/],
    ["photo", { hash: "../../etc", caption: "", station: "look" }, /photo/],
  ])("%s is refused with a reason", (type, payload, message) => {
    expect(
      payloadErrors(type, payload)
        .map((e) => e.message)
        .join(" "),
    ).toMatch(message);
  });
});
