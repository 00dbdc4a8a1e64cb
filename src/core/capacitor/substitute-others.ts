/** Controls, transformers and tubes in place of others: what has to agree, and what a difference does. */

import { figure } from "../language/language";
import { formatQuantity } from "../quantity/format";
import { wiperShare } from "../circuit/taper";
import type { TubeType } from "../tubes/library";
import type { PartCheck } from "./check";
import * as texts from "../texts/capacitor";

const near = (a: number, b: number, within: number) => Math.abs(a / b - 1) <= within;

export interface PotOffer {
  ohms: number;
  taper: string;
  watts?: number;
  /** Shaft and bush, in words. */
  shaft?: string;
}

/** Decibels at the wiper against the rotation, into a load: what a hand hears of a control. */
export function potCurve(ohms: number, taper: string, loadOhms = Infinity, steps = 21): { turn: number; decibels: number }[] {
  return Array.from({ length: steps }, (_, i) => {
    const turn = i / (steps - 1);
    const lower = Math.max(1e-9, ohms * wiperShare(taper, turn));
    const loaded = Number.isFinite(loadOhms) ? (lower * loadOhms) / (lower + loadOhms) : lower;
    const upper = Math.max(0, ohms - lower);
    return { turn, decibels: Math.max(-80, 20 * Math.log10(loaded / (upper + loaded))) };
  });
}

/** @param was of the circuit. @param watts in it at the worst. */
export function checkPot(was: { ohms: number; taper: string }, watts: number, offer: PotOffer): PartCheck[] {
  const shown = (x: number) => formatQuantity(x, "Ω", 3);
  const half = (taper: string, ohms: number) => potCurve(ohms, taper)[10]!.decibels;
  const moved = half(offer.taper, offer.ohms) - half(was.taper, was.ohms);
  return [
    {
      what: "ohms",
      needs: `${shown(was.ohms)} ± 20 %`,
      has: shown(offer.ohms),
      verdict: near(offer.ohms, was.ohms, 0.2) ? "in" : near(offer.ohms, was.ohms, 0.5) ? "watch" : "out",
      why: texts.potLoads(),
    },
    {
      what: "taper",
      needs: was.taper,
      has: offer.taper,
      verdict: offer.taper === was.taper ? "in" : Math.abs(moved) > 6 ? "out" : "watch",
      why: offer.taper === was.taper ? "" : texts.atHalf(`${moved > 0 ? "+" : ""}${figure(moved.toFixed(1))} dB`),
    },
    {
      what: "watts",
      needs: texts.atLeast(formatQuantity(Math.max(0.05, 2 * watts), "W", 2)),
      has: offer.watts === undefined ? "" : `${figure(offer.watts)} W`,
      verdict: offer.watts === undefined ? "none" : offer.watts < watts ? "out" : offer.watts < 2 * watts ? "watch" : "in",
      why: "",
    },
  ];
}

export interface OutputTransformerOffer {
  primaryOhms: number;
  loadOhms: number;
  watts?: number;
  /** Milliamperes of direct current that a single-ended core bears. */
  milliamps?: number;
  henries?: number;
}

/** @param needs watts at clip and direct milliamperes through a half, as computed. */
export function checkOutputTransformer(
  was: { primaryOhms: number; loadOhms: number; single: boolean },
  needs: { watts: number; milliamps: number },
  offer: OutputTransformerOffer,
): PartCheck[] {
  // What the plates see is the ratio: a primary of twice the ohms for twice the load is the same transformer.
  const seen = (offer.primaryOhms / offer.loadOhms) * was.loadOhms;
  const shown = (x: number) => formatQuantity(x, "Ω", 3);
  const out: PartCheck[] = [
    {
      what: "impedance",
      needs: texts.intoLoad(shown(was.primaryOhms), shown(was.loadOhms)),
      has: shown(seen),
      verdict: near(seen, was.primaryOhms, 0.1) ? "in" : near(seen, was.primaryOhms, 0.3) ? "watch" : "out",
      why: "",
    },
    {
      what: "watts",
      needs: texts.atLeast(formatQuantity(needs.watts, "W", 2)),
      has: offer.watts === undefined ? "" : `${figure(offer.watts)} W`,
      verdict: offer.watts === undefined ? "none" : offer.watts < needs.watts * 0.95 ? "out" : "in",
      why: "",
    },
  ];
  if (was.single)
    out.push({
      what: "direct current",
      needs: texts.atLeast(formatQuantity(needs.milliamps / 1e3, "A", 2)),
      has: offer.milliamps === undefined ? "" : formatQuantity(offer.milliamps / 1e3, "A", 2),
      verdict: offer.milliamps === undefined ? "none" : offer.milliamps < needs.milliamps ? "out" : "in",
      why: texts.gapped(),
    });
  return out;
}

export interface PowerTransformerOffer {
  /** Volts rms of a half of the high-tension winding, and amperes direct that it is made for. */
  vac: number;
  amps?: number;
  heaters: { volts: number; amps: number }[];
}

/** @param needs amperes direct out of the rectifier, and what the heaters draw by their volts. */
export function checkPowerTransformer(
  was: { vac: number },
  needs: { amps: number; heaters: { volts: number; amps: number }[] },
  offer: PowerTransformerOffer,
): PartCheck[] {
  const out: PartCheck[] = [
    {
      what: "high-tension volts",
      needs: `${Math.round(was.vac)} V ± 5 %`,
      has: `${Math.round(offer.vac)} V`,
      verdict: near(offer.vac, was.vac, 0.05) ? "in" : near(offer.vac, was.vac, 0.1) ? "watch" : "out",
      why: "",
    },
    {
      what: "high-tension current",
      needs: texts.atLeast(formatQuantity(needs.amps, "A", 2)),
      has: offer.amps === undefined ? "" : formatQuantity(offer.amps, "A", 2),
      verdict: offer.amps === undefined ? "none" : offer.amps < needs.amps ? "out" : "in",
      why: "",
    },
  ];
  for (const h of needs.heaters) {
    const own = offer.heaters.find((o) => near(o.volts, h.volts, 0.05));
    out.push({
      what: `${figure(h.volts)} V`,
      needs: texts.atLeast(formatQuantity(h.amps, "A", 2)),
      has: own ? formatQuantity(own.amps, "A", 2) : "",
      verdict: !own ? "out" : own.amps < h.amps ? "out" : "in",
      why: own ? "" : texts.noSuchWinding(),
    });
  }
  return out;
}

/** @param stress plate volts and watts, screen watts at the worst, of the tube in its place. @param bias how the idle is set. */
export function checkTube(
  was: TubeType,
  by: TubeType,
  stress: { plateVolts: number; plateWatts: number; screenWatts?: number },
  bias: "fixed" | "cathode" | "none",
): PartCheck[] {
  const pins = (t: TubeType) => JSON.stringify(t.pins.map((p) => Object.entries(p).sort()));
  const same = was.kind === by.kind && was.base === by.base && pins(was) === pins(by);
  const out: PartCheck[] = [
    { what: "basing", needs: was.base ?? "?", has: by.base ?? "?", verdict: same ? "in" : "out", why: same ? "" : texts.otherPins() },
    {
      what: "heater volts",
      needs: `${figure(was.heater.volts)} V`,
      has: `${figure(by.heater.volts)} V`,
      verdict: near(by.heater.volts, was.heater.volts, 0.05) ? "in" : "out",
      why: "",
    },
    {
      what: "heater current",
      needs: texts.atMost(`${figure(was.heater.amps)} A`),
      has: `${figure(by.heater.amps)} A`,
      verdict: by.heater.amps <= was.heater.amps * 1.02 ? "in" : "watch",
      why: by.heater.amps <= was.heater.amps * 1.02 ? "" : texts.windingBears(),
    },
  ];
  const rating = (what: string, needs: number, has: number | undefined, unit: "V" | "W") =>
    out.push({
      what,
      needs: texts.atLeast(formatQuantity(needs, unit, 3)),
      has: has === undefined ? "" : formatQuantity(has, unit, 3),
      verdict: has === undefined ? "none" : has < needs ? "out" : has < 1.1 * needs ? "watch" : "in",
      why: "",
    });
  rating("plate volts", stress.plateVolts, by.ratings?.plateVolts, "V");
  rating("plate watts", stress.plateWatts, by.ratings?.plateWatts, "W");
  if (stress.screenWatts !== undefined && by.kind === "pentode") rating("screen watts", stress.screenWatts, by.ratings?.screenWatts, "W");
  const [vg, own] = [was.typical?.vg, by.typical?.vg];
  if (bias !== "none" && vg !== undefined && own !== undefined)
    out.push({
      what: "bias",
      needs: `${figure(vg)} V`,
      has: `${figure(own)} V`,
      verdict: near(own, vg, 0.15) ? "in" : "watch",
      why: bias === "fixed" ? texts.biasAgain() : texts.cathodeAgain(),
    });
  return out;
}
