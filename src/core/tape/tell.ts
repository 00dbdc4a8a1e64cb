/** One tape line in words. */

import { formatDuration, formatQuantity, formatVolts } from "../quantity/format";
import type { Reading } from "./events/measuring-events";
import type { TubeTest } from "./events/cold-check-events";
import { tellCapacitors } from "./tell-capacitors";
import { tellNoise } from "./tell-noise";
import { tellOutput } from "./tell-output";
import { tellWork } from "./tell-work";
import { is, type JobEvent } from "./events/event";
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

/** What the line says, without its time and its initials. */
export function tellEvent(e: JobEvent, before?: JobEvent): string {
  if (is(e, "unreadable")) return texts.lineCannotBeUnderstood(e.payload.type, e.payload.why);
  if (is(e, "job-opened")) return texts.jobOpened(e.payload.amp, e.payload.owner);
  if (is(e, "complaint")) return texts.complaint(e.payload.words);
  if (is(e, "brief"))
    return texts.brief(
      e.payload.order.join(", "),
      e.payload.spendingLimit !== undefined ? texts.upTo(e.payload.spendingLimit) : "",
      e.payload.dueDate ? `; by ${e.payload.dueDate}` : "",
    );
  if (is(e, "claim")) return texts.saidHaveBeenDone(e.payload.text);
  if (is(e, "accessory")) return `${e.payload.name}: ${e.payload.state}`;
  if (is(e, "photo")) return texts.photo(e.payload.caption || texts.noCaption());
  if (is(e, "reproduction"))
    return texts.complaint2(
      { yes: "reproduced", no: texts.notReproduced(), sometimes: texts.reproducedNowThen() }[e.payload.reproduced],
      e.payload.run === "prove" ? texts.afterWork() : "",
    );
  if (is(e, "identity"))
    return `Amp: ${[e.payload.maker, e.payload.model, e.payload.revision && texts.revision(e.payload.revision), e.payload.serial && texts.serial(e.payload.serial)].filter(Boolean).join(", ")}`;
  if (is(e, "date-code")) return texts.dateCode(e.payload.place, e.payload.code);
  if (is(e, "mains")) return texts.mains(formatQuantity(e.payload.volts, "V", 4));
  if (is(e, "power")) {
    if (e.payload.state === "off") return e.payload.plug === "in" ? texts.switchedOffPlugStill() : texts.switchedOffPlugOut();
    return texts.powerOn(
      `${e.payload.isolated ? texts.isolated() : ""}${e.payload.through && e.payload.through !== "straight" ? texts.through(e.payload.through) : ""}`,
      e.payload.without?.length ? texts.without(e.payload.without.join(", ")) : "",
    );
  }
  if (is(e, "live-check")) return texts.liveCheckPointsConfirmed(e.payload.confirmed.length);
  if (is(e, "meter-check")) return texts.meterOnOf(e.payload.source, formatVolts(e.payload.read), formatVolts(e.payload.expected));
  if (is(e, "reservoir")) return texts.reservoirUp(e.payload.name, formatQuantity(e.payload.farads, "F", 3), formatVolts(e.payload.volts));
  if (is(e, "discharge-reading")) return texts.powerOff(e.payload.reservoir, formatVolts(e.payload.volts));
  if (is(e, "gate-passed")) return texts.gatePassed(e.payload.station, e.payload.reason);
  if (is(e, "reading")) return tellReading(e.payload);
  if (is(e, "point")) return texts.pointMade(e.payload.name, e.payload.label);
  if (is(e, "finding")) return texts.foundAt(e.payload.place, e.payload.text);
  if (is(e, "finding-closed")) return texts.findingLineClosed(e.payload.finding, e.payload.how);
  if (is(e, "note")) return e.payload.text;
  if (is(e, "removed"))
    return texts.takenOff(e.payload.what, e.payload.place ? `, ${e.payload.place}` : "", e.payload.colour ? ` (${e.payload.colour})` : "");
  if (is(e, "put-back")) return texts.backPlace(before && is(before, "removed") ? before.payload.what : texts.line(e.payload.removed));
  if (is(e, "observation")) return texts.seen(e.payload.name);
  if (is(e, "control-check"))
    return `${e.payload.control}: ${e.payload.works ? "works" : texts.doesNotWork()}${e.payload.note ? `, ${e.payload.note}` : ""}`;
  if (is(e, "tool-check"))
    return texts.dischargeToolReads(formatQuantity(e.payload.read, "Ω", 3), formatQuantity(e.payload.marked, "Ω", 3));
  if (is(e, "reservoir-unread")) return texts.cannotRead(e.payload.reservoir, e.payload.reason);
  if (is(e, "clip")) return e.payload.state === "on" ? texts.clippedOn(e.payload.reservoir) : texts.clipOff(e.payload.reservoir);
  if (is(e, "taken-in")) return texts.takenIn(e.payload.why);
  if (is(e, "brought-in")) return texts.broughtIn(e.payload.from);
  if (is(e, "books-taken")) return texts.booksTaken(e.payload.why);
  if (is(e, "circuit-given")) return e.payload.name ? texts.circuitGiven(e.payload.name) : texts.circuitTakenAway();
  if (is(e, "still-live")) return texts.stillSeenAfterWithout(formatDuration(e.payload.away));
  if (is(e, "inspection"))
    return e.payload.result === "open again"
      ? texts.lookedAgain(e.payload.what)
      : `${e.payload.what}: ${texts.inspectionResult(e.payload.result)}`;
  if (is(e, "pot-sweep")) return texts.sweptPlacesFromEnd(e.payload.pot, e.payload.points.length, formatQuantity(e.payload.total, "Ω", 3));
  if (is(e, "tube-test")) return texts.testedBy(e.payload.tube, e.payload.method, tellTubeTest(e.payload));
  if (is(e, "temperature"))
    return `${e.payload.place} ${[e.payload.celsius === undefined ? "" : `${Math.round(e.payload.celsius)} °C`, e.payload.touch ?? ""].filter(Boolean).join(", ")}`;
  if (is(e, "stage"))
    return texts.bringUp(
      texts.stageSaid(e.payload.stage),
      e.payload.result === "open again" ? "opened again" : e.payload.result,
      e.payload.note ? `, ${e.payload.note}` : "",
    );
  if (is(e, "mains-current"))
    return [
      texts.atTheAmp(formatQuantity(e.payload.volts, "V", 3)),
      e.payload.amps === undefined ? "" : formatQuantity(e.payload.amps, "A", 3),
      e.payload.glow ? texts.wLamp(e.payload.lamp ?? "", e.payload.glow) : "",
    ]
      .filter(Boolean)
      .join(", ");
  if (is(e, "isolation-step"))
    return `${e.payload.what}: ${e.payload.ohms === undefined ? e.payload.outcome : formatQuantity(e.payload.ohms, "Ω", 3)}`;
  const noise = tellNoise(e);
  if (noise !== undefined) return noise;
  const output = tellOutput(e) ?? tellCapacitors(e) ?? tellWork(e);
  if (output !== undefined) return output;
  if (is(e, "safety-test")) return texts.safety(e.payload.test, e.payload.passed ? "passed" : "FAILED");
  if (is(e, "waiting"))
    return texts.waitingFor(
      { you: texts.theBench(), owner: texts.theOwner(), part: "a part", soak: texts.soakClock(), collection: "collection" }[e.payload.on],
      e.payload.what ? `: ${e.payload.what}` : "",
    );
  if (is(e, "advice")) return texts.advice(e.payload.text);
  if (is(e, "returned")) return texts.returnedTo(e.payload.to);
  return texts.undoneLine(e.supersedes, e.reason ? `, ${e.reason}` : "");
}
