/** One sound payload of every type that can be logged, with every field that the type has. */

import type { LoggedType, Payloads } from "./events/registry";

/** The hash of a photo and of a recording that a test has stored. */
export interface StoredForTests {
  photo: string;
  recording: string;
}

/** Lines that a payload may name, by number. */
export interface LinesForTests {
  finding: number;
  removed: number;
  asked: number;
  soak: number;
}

export const samplePayloads = ({ photo, recording }: StoredForTests, lines: LinesForTests): { [T in LoggedType]: Payloads[T] } => ({
  "job-opened": { owner: "Osric Venn", amp: "Wren 5", contact: "osric at the mill" },
  complaint: { words: "hums when warm", when: ["when hot", "at volume"], use: "at home" },
  brief: { order: ["reliability", "cost"], mustNotChange: "the knobs", spendingLimit: 250, dueDate: "2026-12-24" },
  claim: { text: "all capacitors replaced", year: 1998 },
  accessory: { name: "footswitch", state: "left at home", bridge: "tip to sleeve" },
  photo: { hash: photo, caption: "underside", station: "look", place: "chassis" },
  reproduction: { reproduced: "sometimes", settings: "volume 6", instrument: "a guitar", conditions: "after 20 min", run: "intake" },
  identity: { maker: "Brackwater", model: "Wren 5", revision: "B", serial: "B1177" },
  "date-code": { place: "volume pot", code: "1376412" },
  mains: { volts: 231 },
  power: { state: "on", through: "lamp", without: ["V3"] },
  "live-check": { confirmed: ["one hand", "shoes dry"] },
  "meter-check": { source: "9 V battery", expected: 9, read: 9.1 },
  reservoir: { name: "C91", farads: 4.7e-5, volts: 450 },
  "discharge-reading": { reservoir: "C1", volts: 12 },
  "gate-passed": { station: "walk", reason: "measuring only", understood: true },
  reading: {
    point: "B1",
    kind: "dcv",
    value: 275.4,
    digits: 4,
    conditions: { mains: 231, without: ["V3"], switches: "standby on", controls: "volume 5", limiter: "lamp", warmMinutes: 12 },
    note: "after a minute",
  },
  point: { name: "V2.g2", node: "g2", label: "V2 grid" },
  finding: {
    station: "look",
    place: "V2 socket",
    text: "pin 3 loose",
    severity: "fault",
    action: "new socket",
    brief: "ask",
    photos: [photo],
  },
  "finding-closed": { finding: lines.finding, how: "socket replaced" },
  note: { text: "owner rang", station: "intake" },
  removed: { what: "back panel", place: "rear", colour: "grey", photo },
  "put-back": { removed: lines.removed },
  observation: { name: "V1 cold", conditions: { mains: 230 } },
  "control-check": { control: "tone", works: false, note: "scratches" },
  "tool-check": { marked: 2200, read: 2210 },
  "reservoir-unread": { reservoir: "C2", reason: "under the board" },
  "still-live": { away: 640 },
  inspection: { item: "cord", what: "the cord", result: "found" },
  "pot-sweep": {
    pot: "VR1",
    total: 1e6,
    points: [
      { turn: 0, ohms: 12 },
      { turn: 0.5, ohms: 2e5 },
      { turn: 1, ohms: 1e6 },
    ],
  },
  "tube-test": { tube: "V1", method: "transconductance", percent: 82, gm: 1.4, shorts: "", swap: "better", note: "warm" },
  temperature: { place: "V2", celsius: 140, touch: "too hot to touch", warmMinutes: 30 },
  stage: { stage: "no-tubes", result: "passed", note: "lamp dark" },
  "mains-current": { volts: 120, amps: 0.34, stage: "no-tubes", lamp: 60, glow: "glowing" },
  "isolation-step": { test: "power:no-tubes", what: "all tubes out", outcome: "lamp dark", ohms: 120, lamp: 60 },
  recording: {
    hash: recording,
    name: "before",
    when: "before",
    seconds: 5,
    sounds: [{ kind: "hum-double", confidence: 0.9 }],
    f1dB: -60,
    f2dB: -42,
    hissdB: -71,
    totaldB: -40,
    curve: [-60, -55, -70],
    fullScaleMillivolts: 1200,
    note: "speaker",
  },
  "noise-test": { test: "short:V2", what: "grid of V2 shorted", outcome: "stays" },
  conditions: { conditions: [{ name: "tone", settings: ["low", "high"] }] },
  "conditions-run": { settings: [{ name: "tone", setting: "low" }], bad: "some", note: "twice" },
  "ground-map": {
    wires: [{ from: "star", to: "V1 ground", area: 0.75, length: 0.2, ohms: 0.01 }],
    currents: [{ what: "heater return", from: "V1 ground", to: "star", amps: 0.3 }],
    inputGround: "star",
    stageGround: "V1 ground",
    bondOhms: 0.05,
    ownBolt: true,
  },
  provoked: { place: "V1", by: "tap", tool: "chopstick", response: "strong", ohmsFrom: 10, ohmsTo: 1e6, x: 0.2, y: 0.4, photo },
  occurrence: { what: "crackled", warmMinutes: 22, mains: 231, celsius: 24, activity: "playing" },
  "soak-begun": { fault: "crackle", failures: 3, hours: 2, onsetMinutes: 20, confidence: 0.9 },
  "soak-ended": { soak: lines.soak, outcome: "cured", done: "no crackle in two hours" },
  change: {
    position: "R4",
    kind: "experiment",
    oldPart: "1k5",
    oldMeasured: "1.7 k",
    newPart: "1k",
    reason: "bias",
    reversible: true,
    oldWent: "bag for the owner",
    fixing: "soldered",
    outcome: "open",
    result: "",
    hypothesis: "more current",
    set: ["R4=1k"],
    before: "1.2 V",
    after: "1.0 V",
  },
  approval: { what: "V2 socket: new socket", answer: "yes", cost: 40, asks: lines.asked },
  "safety-test": { test: "earth bond", value: 0.08, limit: 0.1, passed: true, note: "25 A" },
  waiting: { on: "part", what: "socket", until: "2026-12-01T12:00" },
  "bill-line": { text: "bench time", amount: 90, kind: "labour" },
  advice: { text: "keep it dry", nextService: "2028-02-29" },
  returned: { to: "Osric Venn", oldPartsHanded: true },
  undo: { what: "slip" },
});
