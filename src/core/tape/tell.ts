/** One tape line in words. */

import { formatDuration, formatQuantity, formatVolts } from "../quantity/format";
import type { Reading } from "./events/measuring-events";
import type { TubeTest } from "./events/cold-check-events";
import { CAPACITORS_TOLD } from "./tell-capacitors";
import { NOISE_TOLD } from "./tell-noise";
import { OUTPUT_TOLD } from "./tell-output";
import { WORK_TOLD } from "./tell-work";
import { is, type JobEvent } from "./events/event";
import type { EventType } from "./events/registry";
import type { Telling, Tellings } from "./telling";
import * as texts from "../texts/tape";

const KIND: Record<Reading["kind"], string> = { dcv: "", acv: " AC", ma: "", ohm: "", leak: " leakage", gm: " of new" };

/** "B1 318 V", with as many digits as were read. */
export function tellReading(r: Pick<Reading, "point" | "kind" | "value" | "digits">): string {
  const digits = Math.max(2, r.digits ?? 3);
  const value =
    r.kind === "ma"
      ? formatQuantity(r.value / 1000, "A", digits)
      : r.kind === "ohm"
        ? r.value >= 1e9
          ? "open"
          : formatQuantity(r.value, "Ω", digits)
        : r.kind === "gm"
          ? `${r.value} %`
          : formatQuantity(r.value, "V", digits);
  return `${r.point} ${value}${KIND[r.kind]}`;
}

function tellTubeTest(t: TubeTest): string {
  return [
    t.percent === undefined ? "" : texts.ofNew(t.percent),
    t.gm === undefined ? "" : `${t.gm} mA/V`,
    t.swap ? texts.knownGoodOne(t.swap) : "",
    t.shorts === undefined ? "" : t.shorts ? texts.short(t.shorts) : texts.noShort(),
  ]
    .filter(Boolean)
    .join(", ");
}

const TOLD: Tellings = {
  ...NOISE_TOLD,
  ...OUTPUT_TOLD,
  ...CAPACITORS_TOLD,
  ...WORK_TOLD,
  unreadable: (l) => texts.lineCannotBeUnderstood(l.type, l.why),
  "job-opened": (l) => texts.jobOpened(l.amp, l.owner),
  complaint: (l) => texts.complaint(l.words),
  brief: (l) =>
    texts.brief(l.order.join(", "), l.spendingLimit !== undefined ? texts.upTo(l.spendingLimit) : "", l.dueDate ? `; by ${l.dueDate}` : ""),
  claim: (l) => texts.saidHaveBeenDone(l.text),
  accessory: (l) => `${l.name}: ${l.state}`,
  photo: (l) => texts.photo(l.caption || texts.noCaption()),
  reproduction: (l) =>
    texts.complaint2(
      { yes: "reproduced", no: texts.notReproduced(), sometimes: texts.reproducedNowThen() }[l.reproduced],
      l.run === "prove" ? texts.afterWork() : "",
    ),
  identity: (l) =>
    `Amp: ${[l.maker, l.model, l.revision && texts.revision(l.revision), l.serial && texts.serial(l.serial)].filter(Boolean).join(", ")}`,
  "date-code": (l) => texts.dateCode(l.place, l.code),
  mains: (l) => texts.mains(formatQuantity(l.volts, "V", 4)),
  power: (l) => {
    if (l.state === "off") return l.plug === "in" ? texts.switchedOffPlugStill() : texts.switchedOffPlugOut();
    return texts.powerOn(
      `${l.isolated ? texts.isolated() : ""}${l.through && l.through !== "straight" ? texts.through(l.through) : ""}`,
      l.without?.length ? texts.without(l.without.join(", ")) : "",
    );
  },
  "live-check": (l) => texts.liveCheckPointsConfirmed(l.confirmed.length),
  "meter-check": (l) => texts.meterOnOf(l.source, formatVolts(l.read), formatVolts(l.expected)),
  reservoir: (l) => texts.reservoirUp(l.name, formatQuantity(l.farads, "F", 3), formatVolts(l.volts)),
  "discharge-reading": (l) => texts.powerOff(l.reservoir, formatVolts(l.volts)),
  "gate-passed": (l) => texts.gatePassed(l.station, l.reason),
  reading: (l) => tellReading(l),
  point: (l) => texts.pointMade(l.name, l.label),
  finding: (l) => texts.foundAt(l.place, l.text),
  "finding-closed": (l, _, before) =>
    texts.findingClosed(before && is(before, "finding") ? `${before.payload.place}, ${before.payload.text}` : texts.line(l.finding), l.how),
  note: (l) => l.text,
  removed: (l) => texts.takenOff(l.what, l.place ? `, ${l.place}` : "", l.colour ? ` (${l.colour})` : ""),
  "put-back": (l, _, before) => texts.backPlace(before && is(before, "removed") ? before.payload.what : texts.line(l.removed)),
  observation: (l) => texts.seen(l.name),
  "control-check": (l) => `${l.control}: ${l.works ? "works" : texts.doesNotWork()}${l.note ? `, ${l.note}` : ""}`,
  "tool-check": (l) => texts.dischargeToolReads(formatQuantity(l.read, "Ω", 3), formatQuantity(l.marked, "Ω", 3)),
  "reservoir-unread": (l) => texts.cannotRead(l.reservoir, l.reason),
  clip: (l) => (l.state === "on" ? texts.clippedOn(l.reservoir) : texts.clipOff(l.reservoir)),
  "taken-in": (l) => texts.takenIn(l.why),
  "brought-in": (l) => texts.broughtIn(l.from),
  "books-taken": (l) => texts.booksTaken(l.why),
  "circuit-given": (l) => (l.name ? texts.circuitGiven(l.name) : texts.circuitTakenAway()),
  "still-live": (l) => texts.stillSeenAfterWithout(formatDuration(l.away)),
  inspection: (l) => (l.result === "open again" ? texts.lookedAgain(l.what) : `${l.what}: ${texts.inspectionResult(l.result)}`),
  "pot-sweep": (l) => texts.sweptPlacesFromEnd(l.pot, l.points.length, formatQuantity(l.total, "Ω", 3)),
  "tube-test": (l) => texts.testedBy(l.tube, l.method, tellTubeTest(l)),
  temperature: (l) =>
    `${l.place} ${[l.celsius === undefined ? "" : `${Math.round(l.celsius)} °C`, l.touch ?? ""].filter(Boolean).join(", ")}`,
  stage: (l) => texts.bringUp(texts.stageSaid(l.stage), l.result === "open again" ? "opened again" : l.result, l.note ? `, ${l.note}` : ""),
  "mains-current": (l) =>
    [
      texts.atTheAmp(formatQuantity(l.volts, "V", 3)),
      l.amps === undefined ? "" : formatQuantity(l.amps, "A", 3),
      l.glow ? texts.wLamp(l.lamp ?? "", l.glow) : "",
    ]
      .filter(Boolean)
      .join(", "),
  "isolation-step": (l) => `${l.what}: ${l.ohms === undefined ? l.outcome : formatQuantity(l.ohms, "Ω", 3)}`,
  "safety-test": (l) => texts.safety(l.test, l.passed ? "passed" : "FAILED"),
  waiting: (l) =>
    texts.waitingFor(
      { you: texts.theBench(), owner: texts.theOwner(), part: "a part", soak: texts.soakClock(), collection: "collection" }[l.on],
      l.what ? `: ${l.what}` : "",
    ),
  advice: (l) => texts.advice(l.text),
  returned: (l) => texts.returnedTo(l.to),
  undo: (_, e, before) => {
    const why = e.reason ? `, ${e.reason}` : "";
    return before && before.type !== "undo" ? texts.undoneWords(tellEvent(before), why) : texts.undoneLine(e.supersedes, why);
  },
};

/** What the line says, without its time and its initials. @param before the line that it refers to, where that is known. */
export function tellEvent(e: JobEvent, before?: JobEvent): string {
  return (TOLD[e.type] as Telling<EventType>)(e.payload, e, before);
}
