/**
 * A tube type that a circuit file brings along: `*@tube 6CB5X kind=pentode mu=… ex=… …`, as a fit from sheet points writes it, or
 * `*@tube 5X9 kind=rectifier drop=25 at=175m heater=5 amps=2 firstcap=10u most=200m`: the drop of one plate in volts at so many amperes.
 */

import { parseQuantity } from "../quantity/parse";
import type { TubeType } from "./library";
import type { TubeModel } from "./model";

const TRIODE_KEYS = ["mu", "ex", "kg1", "kp", "kvb", "vct", "kgrid"] as const;
const PENTODE_KEYS = [...TRIODE_KEYS, "knee", "share", "lambda"] as const;

type Report = (found: string, expected: string) => void;

/** Reads the line's words; reports everything that is wrong and gives undefined then. */
export function readTubeType(name: string | undefined, pairs: ReadonlyMap<string, string>, report: Report): TubeType | undefined {
  const kind = pairs.get("kind");
  if (name && kind === "rectifier") return readRectifierType(name, pairs, report);
  if (!name || (kind !== "triode" && kind !== "pentode")) {
    report(name ?? "nothing", "*@tube NAME kind=triode, pentode or rectifier with the parameters of its model");
    return undefined;
  }
  const keys: readonly string[] = kind === "triode" ? TRIODE_KEYS : PENTODE_KEYS;
  const extra = ["kind", "heater", "amps", "watts", "screenwatts", "volts"];
  let sound = true;
  const number = (key: string, needed: boolean): number => {
    const typed = pairs.get(key);
    if (typed === undefined && !needed) return 0;
    const parsed = parseQuantity(typed ?? "");
    if (parsed.ok && parsed.quantity.value > 0) return parsed.quantity.value;
    report(typed === undefined ? `${name} without ${key}=` : `${key}=${typed}`, `${key}= with a number above zero`);
    sound = false;
    return 0;
  };
  for (const key of pairs.keys()) {
    if (keys.includes(key) || extra.includes(key)) continue;
    report(`${key}=`, `one of ${[...keys, ...extra].map((k) => `${k}=`).join(", ")}`);
    sound = false;
  }
  const model = { kind, ...Object.fromEntries(keys.map((k) => [k, number(k, true)])) } as unknown as TubeModel;
  const watts = number("watts", false);
  const type: TubeType = {
    type: name.toUpperCase(),
    aliases: [],
    kind,
    pins: [],
    heater: { volts: number("heater", false) || 6.3, amps: number("amps", false) || 0.3 },
    model,
  };
  if (watts)
    type.ratings = {
      system: "design-centre",
      plateVolts: number("volts", false) || 300,
      plateWatts: watts,
      screenWatts: number("screenwatts", false) || undefined,
    };
  return sound ? type : undefined;
}

const RECTIFIER_KEYS = ["drop", "at"];
const RECTIFIER_EXTRA = ["kind", "heater", "amps", "firstcap", "most"];

/** Drop of one plate at a current; the largest first capacitor and current where the sheet has them. */
function readRectifierType(name: string, pairs: ReadonlyMap<string, string>, report: Report): TubeType | undefined {
  const accepted = [...RECTIFIER_KEYS, ...RECTIFIER_EXTRA];
  let sound = true;
  const bad = (found: string, expected: string) => {
    report(found, expected);
    sound = false;
  };
  const number = (key: string): number | undefined => {
    const typed = pairs.get(key);
    if (typed === undefined) return undefined;
    const parsed = parseQuantity(typed, key === "firstcap" ? { unit: "F" } : {});
    if (parsed.ok && parsed.quantity.value > 0) return parsed.quantity.value;
    bad(`${key}=${typed}`, `${key}= with a number above zero`);
    return undefined;
  };
  for (const key of pairs.keys()) if (!accepted.includes(key)) bad(`${key}=`, `one of ${accepted.map((k) => `${k}=`).join(", ")}`);
  for (const key of RECTIFIER_KEYS) if (!pairs.has(key)) bad(`${name} without ${key}=`, "drop= in volts at= amperes of one plate");
  const [drop, at] = [number("drop"), number("at")];
  if (!sound || drop === undefined || at === undefined) return undefined;
  return {
    type: name.toUpperCase(),
    aliases: [],
    kind: "rectifier",
    pins: [],
    heater: { volts: number("heater") ?? 5, amps: number("amps") ?? 2 },
    rectifier: { drop: [drop, at], amps: number("most") ?? at, largestFirstCapacitor: number("firstcap") },
  };
}

/** The line that `readTubeType` reads. */
export function writeTubeType(type: TubeType): string {
  if (type.rectifier) {
    const { drop, amps, largestFirstCapacitor } = type.rectifier;
    const words = [`drop=${drop[0]}`, `at=${drop[1]}`, `heater=${type.heater.volts}`, `amps=${type.heater.amps}`, `most=${amps}`];
    return ["*@tube", type.type, "kind=rectifier", ...words, ...(largestFirstCapacitor ? [`firstcap=${largestFirstCapacitor}`] : [])].join(
      " ",
    );
  }
  const model = type.model!;
  const keys = model.kind === "triode" ? TRIODE_KEYS : PENTODE_KEYS;
  const values = keys.map((k) => `${k}=${Number((model as unknown as Record<string, number>)[k]!.toPrecision(6))}`);
  const rated = type.ratings
    ? [
        `volts=${type.ratings.plateVolts}`,
        `watts=${type.ratings.plateWatts}`,
        ...(type.ratings.screenWatts ? [`screenwatts=${type.ratings.screenWatts}`] : []),
      ]
    : [];
  return ["*@tube", type.type, `kind=${model.kind}`, ...values, `heater=${type.heater.volts}`, `amps=${type.heater.amps}`, ...rated].join(
    " ",
  );
}
