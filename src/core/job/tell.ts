/** One tape line in words. */

import { formatDuration, formatQuantity, formatVolts } from "../quantity/format";
import type { Reading } from "./events/bench";
import type { TubeTest } from "./events/cold";
import { tellNoise } from "./tell-noise";
import { is, type JobEvent } from "./events/event";

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
    t.percent === undefined ? "" : `${t.percent} % of new`,
    t.gm === undefined ? "" : `${t.gm} mA/V`,
    t.swap ? `${t.swap} with a known good one` : "",
    t.shorts === undefined ? "" : t.shorts ? `short ${t.shorts}` : "no short",
  ]
    .filter(Boolean)
    .join(", ");
}

/** What the line says, without its time and its initials. */
export function tellEvent(e: JobEvent, before?: JobEvent): string {
  if (is(e, "job-opened")) return `Job opened: ${e.payload.amp}, ${e.payload.owner}`;
  if (is(e, "complaint")) return `Complaint: “${e.payload.words}”`;
  if (is(e, "brief"))
    return `Brief: ${e.payload.order.join(", ")}${e.payload.spendingLimit !== undefined ? `; up to ${e.payload.spendingLimit}` : ""}${e.payload.dueDate ? `; by ${e.payload.dueDate}` : ""}`;
  if (is(e, "claim")) return `Said to have been done: ${e.payload.text}`;
  if (is(e, "accessory")) return `${e.payload.name}: ${e.payload.state}`;
  if (is(e, "photo")) return `Photo: ${e.payload.caption || "no caption"}`;
  if (is(e, "reproduction"))
    return `Complaint ${{ yes: "reproduced", no: "not reproduced", sometimes: "reproduced now and then" }[e.payload.reproduced]}${e.payload.run === "prove" ? ", after the work" : ""}`;
  if (is(e, "identity"))
    return `Amp: ${[e.payload.maker, e.payload.model, e.payload.revision && `revision ${e.payload.revision}`, e.payload.serial && `serial ${e.payload.serial}`].filter(Boolean).join(", ")}`;
  if (is(e, "date-code")) return `Date code on the ${e.payload.place}: ${e.payload.code}`;
  if (is(e, "mains")) return `Mains ${formatQuantity(e.payload.volts, "V", 4)}`;
  if (is(e, "power")) {
    if (e.payload.state === "off") return e.payload.plug === "in" ? "Switched off, plug still in" : "Switched off, plug out";
    return `POWER ON${e.payload.through && e.payload.through !== "straight" ? ` through ${e.payload.through}` : ""}${e.payload.without?.length ? `, without ${e.payload.without.join(", ")}` : ""}`;
  }
  if (is(e, "live-check")) return `Live check: ${e.payload.confirmed.length} points confirmed`;
  if (is(e, "meter-check")) return `Meter on ${e.payload.source}: ${formatVolts(e.payload.read)} of ${formatVolts(e.payload.expected)}`;
  if (is(e, "reservoir"))
    return `Reservoir ${e.payload.name}: ${formatQuantity(e.payload.farads, "F", 3)}, up to ${formatVolts(e.payload.volts)}`;
  if (is(e, "discharge-reading")) return `${e.payload.reservoir} ${formatVolts(e.payload.volts)}, power off`;
  if (is(e, "gate-passed")) return `Gate passed at ${e.payload.station}: ${e.payload.reason}`;
  if (is(e, "reading")) return tellReading(e.payload);
  if (is(e, "finding")) return `Found at ${e.payload.place}: ${e.payload.text}`;
  if (is(e, "finding-closed")) return `Finding of line ${e.payload.finding} closed: ${e.payload.how}`;
  if (is(e, "note")) return e.payload.text;
  if (is(e, "removed"))
    return `Taken off: ${e.payload.what}${e.payload.place ? `, ${e.payload.place}` : ""}${e.payload.colour ? ` (${e.payload.colour})` : ""}`;
  if (is(e, "put-back")) return `Back in place: ${before && is(before, "removed") ? before.payload.what : `line ${e.payload.removed}`}`;
  if (is(e, "observation")) return `Seen: ${e.payload.name}`;
  if (is(e, "control-check"))
    return `${e.payload.control}: ${e.payload.works ? "works" : "does not work"}${e.payload.note ? `, ${e.payload.note}` : ""}`;
  if (is(e, "change"))
    return `${e.payload.kind === "experiment" ? "Tried" : "Fitted"} ${e.payload.position}: ${e.payload.newPart}${e.payload.reason ? `, ${e.payload.reason}` : ""}${e.payload.outcome ? ` (${e.payload.outcome})` : ""}`;
  if (is(e, "approval"))
    return `${{ asked: "Asked the owner", yes: "Owner says yes", no: "Owner says no" }[e.payload.answer]}: ${e.payload.what}`;
  if (is(e, "tool-check"))
    return `Discharge tool reads ${formatQuantity(e.payload.read, "Ω", 3)} of ${formatQuantity(e.payload.marked, "Ω", 3)}`;
  if (is(e, "reservoir-unread")) return `${e.payload.reservoir} CANNOT BE READ: ${e.payload.reason}`;
  if (is(e, "still-live")) return `Still on, seen after ${formatDuration(e.payload.away)} without anybody watching`;
  if (is(e, "inspection"))
    return e.payload.result === "open again" ? `Looked at again: ${e.payload.what}` : `${e.payload.what}: ${e.payload.result}`;
  if (is(e, "pot-sweep"))
    return `${e.payload.pot} swept at ${e.payload.points.length} places, ${formatQuantity(e.payload.total, "Ω", 3)} from end to end`;
  if (is(e, "tube-test")) return `${e.payload.tube} tested by ${e.payload.method}: ${tellTubeTest(e.payload)}`;
  if (is(e, "temperature"))
    return `${e.payload.place} ${[e.payload.celsius === undefined ? "" : `${Math.round(e.payload.celsius)} °C`, e.payload.touch ?? ""].filter(Boolean).join(", ")}`;
  if (is(e, "stage")) return `Bring-up, ${e.payload.stage}: ${e.payload.result}${e.payload.note ? `, ${e.payload.note}` : ""}`;
  if (is(e, "mains-current"))
    return [
      `${formatQuantity(e.payload.volts, "V", 3)} at the amp`,
      e.payload.amps === undefined ? "" : formatQuantity(e.payload.amps, "A", 3),
      e.payload.glow ? `${e.payload.lamp ?? ""} W lamp ${e.payload.glow}` : "",
    ]
      .filter(Boolean)
      .join(", ");
  if (is(e, "isolation-step"))
    return `${e.payload.what}: ${e.payload.ohms === undefined ? e.payload.outcome : formatQuantity(e.payload.ohms, "Ω", 3)}`;
  const noise = tellNoise(e);
  if (noise !== undefined) return noise;
  if (is(e, "safety-test")) return `Safety, ${e.payload.test}: ${e.payload.passed ? "passed" : "FAILED"}`;
  if (is(e, "waiting"))
    return `Waiting for ${{ you: "the bench", owner: "the owner", part: "a part", soak: "the soak clock", collection: "collection" }[e.payload.on]}${e.payload.what ? `: ${e.payload.what}` : ""}`;
  if (is(e, "bill-line")) return `Bill: ${e.payload.text} ${e.payload.amount.toFixed(2)}`;
  if (is(e, "advice")) return `Advice: ${e.payload.text}`;
  if (is(e, "returned")) return `Returned to ${e.payload.to}`;
  return `Undone: line ${e.supersedes}${e.reason ? `, ${e.reason}` : ""}`;
}
