/** Which capacitors stay, are tested, formed or replaced: what was measured first, then what it bears, then the shop's school for its age. */

import { formatQuantity } from "../quantity/format";
import type { CapacitorSchool } from "../shop/capacitor-school";
import type { Verdict } from "../expectation/expectation";
import { judgeLeak } from "./coupling-leak";
import type { KnownCapacitor } from "./known";
import { leakageLimit, limitAt } from "./leakage-limit";
import { judgeCapacitance, judgeDissipation, judgeSeriesOhms, type Judged } from "./measured";
import type { CapacitorStress } from "./stress";
import * as texts from "../texts/capacitor";

export type CapacitorVerdict = "keep" | "look" | "test" | "reform" | "replace";

export interface CapacitorJudged {
  verdict: CapacitorVerdict;
  why: string;
  /** A person is at risk if nothing is done. */
  danger: boolean;
}

/** Years after which an electrolytic is worn by its age, and paper has taken up water. Scutum's own, of what shops go by. */
const ELECTROLYTIC_AGED = 25;
const ELECTROLYTIC_YOUNG = 12;
const PAPER_AGED = 30;

/** Volts that stood at a lifted leg, with what is on its other side and the resistor of the grid behind it. */
export interface LiftedLeg {
  read: number;
  source: number;
  gridLeakOhms?: number;
}

/** Each measurement of a capacitor with its verdict, the latest of each kind. */
export function judgeTests(
  c: Pick<KnownCapacitor, "tests" | "farads" | "volts" | "kind" | "year">,
  lifted?: LiftedLeg,
): (Judged & { what: string })[] {
  const last = (kind: string) => c.tests.findLast((t) => t.kind === kind);
  const out: (Judged & { what: string })[] = [];
  const { farads, volts, kind, year } = c;
  const leak = last("leakage");
  if (leak && farads && volts) {
    const limit = leakageLimit({ farads, volts, kind, year });
    const allowed = limitAt(limit, volts, leak.volts ?? volts);
    const verdict: Verdict = leak.value <= allowed ? "in" : leak.value <= 2 * allowed ? "watch" : "out";
    const at = leak.volts === undefined ? "" : texts.atVolts(Math.round(leak.volts));
    out.push({ what: texts.leaks(formatQuantity(leak.value, "A", 3), at), verdict, why: texts.allowed(formatQuantity(allowed, "A", 3)) });
  }
  const read = last("capacitance");
  if (read && farads) out.push({ what: formatQuantity(read.value, "F", 3), ...judgeCapacitance(farads, read.value, kind) });
  const series = last("series ohms");
  if (series && farads)
    out.push({
      what: texts.seriesShown(formatQuantity(series.value, "Ω", 3)),
      ...judgeSeriesOhms(farads, series.value, kind, series.hertz),
    });
  const loss = last("dissipation");
  if (loss && farads) out.push({ what: `D ${loss.value}`, ...judgeDissipation(farads, loss.value, kind) });
  if (lifted && lifted.source > 0 && lifted.read <= lifted.source) {
    const judged = judgeLeak(lifted.source, Math.max(0, lifted.read), lifted.gridLeakOhms);
    out.push({
      what: Number.isFinite(judged.ohms) ? texts.leaksThrough(formatQuantity(judged.ohms, "Ω", 2)) : texts.noLeak(),
      verdict: judged.verdict,
      why: judged.why,
    });
  }
  return out;
}

/** @param today the year. @param seen what the eye has found at it, in words. */
export function judgeCapacitor(
  c: KnownCapacitor,
  stress: CapacitorStress | undefined,
  { school, today, lifted, seen }: { school: CapacitorSchool; today: number; lifted?: LiftedLeg; seen?: string },
): CapacitorJudged {
  // Above its rating only with the tubes out and the mains up: said, but no reason by itself.
  const rare = c.volts !== undefined && stress !== undefined && stress.worst > c.volts && c.replaced === undefined;
  const more = rare ? texts.noMarginLeft(Math.round(stress.worst), c.volts!) : "";
  const say = (verdict: CapacitorVerdict, why: string, danger = false): CapacitorJudged => ({
    verdict,
    why: more && !why.includes(more) ? `${why}; ${more}` : why,
    danger,
  });
  const { safety } = c.role;
  // A new part alone is not enough where a person is at risk: its class has to be read off it.
  if (safety && c.safetyClass !== safety && !(safety === "X" && c.safetyClass === "Y"))
    return c.replaced !== undefined && c.safetyClass === undefined
      ? say("look", texts.readClass(safety), true)
      : say("replace", texts.safetyType(safety), true);
  if (c.replaced !== undefined) return say("keep", texts.replacedHere(c.replaced));
  if (c.role.danger && !safety && c.electrolytic === false && /paper|wax|black/i.test(c.kind ?? ""))
    return say("replace", texts.jackPaper(), true);
  const tests = judgeTests(c, lifted);
  const bad = tests.find((t) => t.verdict === "out");
  if (bad) return say("replace", `${bad.what}: ${bad.why}`, c.role.danger === true);
  if (seen) return say("replace", texts.eyeFound(seen));
  // The file's first terminal is the plus; whether the part or the drawing is the wrong way round, only a look tells.
  if (stress?.backwards) return say("look", texts.backwards(Math.round(-stress.loaded)));
  const usual = stress && Math.max(Math.abs(stress.loaded), Math.abs(stress.highLoaded), stress.unloaded);
  if (c.volts !== undefined && usual !== undefined && usual > c.volts)
    return { verdict: "replace", why: texts.overRating(Math.round(usual), c.volts), danger: false };
  if (c.reformed === "replace") return say("replace", texts.reformFailed());
  if (c.reformed === "keep") return say("keep", texts.reformHeld());
  if (c.badNames.length > 0) {
    const [name] = c.badNames;
    return say(
      tests.length > 0 && tests.every((t) => t.verdict === "in") ? "test" : "replace",
      texts.badName(name!.does, name!.evidence.length),
    );
  }
  // Without a circuit nobody knows what it bears: a rating that was not read is missing.
  const bears = stress?.worst ?? (c.element ? 0 : Infinity);
  if (c.farads === undefined || (c.volts === undefined && bears > 10)) return say("look", texts.ratingUnread());
  const watched = tests.find((t) => t.verdict === "watch");
  const age = c.year === undefined ? undefined : today - c.year;
  const aged = age === undefined ? Infinity : age;
  const paper = /paper|wax|oil|black/i.test(c.kind ?? "");
  if (c.electrolytic) {
    if (aged < ELECTROLYTIC_YOUNG && !watched) return say("keep", texts.young(age!));
    if (aged < ELECTROLYTIC_AGED)
      return watched ? say("test", `${watched.what}: ${watched.why}`) : say(tests.length > 0 ? "keep" : "test", texts.middling(age!));
    const old = age === undefined ? texts.ageUnknown() : texts.aged(age);
    if (school === "replace") return say("replace", texts.schoolReplace(old));
    const leakRead = c.tests.some((t) => t.kind === "leakage");
    if (school === "test") {
      if (watched) return say("replace", `${old}; ${watched.what}: ${watched.why}`);
      return leakRead ? say("keep", texts.testedSound(old)) : say("test", texts.schoolTest(old));
    }
    // A few volts across a bypass: there is nothing to form, and a new one costs next to nothing.
    if (c.volts !== undefined && c.volts <= 63)
      return watched
        ? say("replace", `${watched.what}: ${watched.why}`)
        : leakRead || tests.length > 0
          ? say("keep", texts.testedSound(old))
          : say("test", texts.schoolTest(old));
    return say("reform", texts.schoolReform(old));
  }
  if (paper && aged >= PAPER_AGED) {
    const old = age === undefined ? texts.ageUnknown() : texts.aged(age);
    if (watched) return say("replace", `${old}; ${watched.what}: ${watched.why}`);
    if (tests.some((t) => t.verdict === "in")) return say("keep", texts.testedSound(old));
    return school === "replace" ? say("replace", texts.paperReplace(old)) : say("test", texts.paperTest(old));
  }
  if (watched) return say("test", `${watched.what}: ${watched.why}`);
  return say("keep", texts.soundKind(c.kind ?? texts.film()));
}
