/**
 * Tube types: basing, heater, ratings and the sheet's own typical point.
 * Every figure is from the type's published data sheet. Watts and volts are maxima in the rating system named:
 * design-centre figures allow for supply and tube spread, design-maximum ones do not.
 */

import { FITTED } from "./fitted";
import type { TubeModel } from "./model";

export type RatingSystem = "design-centre" | "design-maximum";
/** What the glass stands on: nine or seven pins with a gap between the last and the first, or eight with a key in the middle. */
export type Base = "noval" | "miniature" | "octal";
export type TubeKind = "triode" | "pentode" | "rectifier";

export interface TubeType {
  type: string;
  aliases: string[];
  kind: TubeKind;
  /** Undefined for a type of a circuit file, which does not say. */
  base?: Base;
  /** Socket pin of each electrode, by section: A and B of a twin triode, else one. */
  pins: Record<string, number>[];
  heater: { volts: number; amps: number };
  /** Socket pins of the heater's ends; with a centre its volts are those of the two halves in parallel. */
  heaterPins?: { ends: [number, number]; centre?: number };
  ratings?: { system: RatingSystem; plateVolts: number; plateWatts: number; screenWatts?: number };
  /** One typical class A point: volts, milliamperes, gm in mA/V. */
  typical?: { va: number; vg2?: number; vg: number; ia: number; ig2?: number; gm: number; mu?: number };
  /** Largest first capacitor that the sheet allows, farads; largest output current, amperes; drop of one plate: volts at amperes. */
  rectifier?: { largestFirstCapacitor?: number; amps: number; drop: [volts: number, amps: number] };
  /** Between electrodes, picofarads: grid to plate, grid to the rest, plate to the rest; socket and wiring left out. */
  picofarads?: { gp: number; gk: number; pk: number };
  model?: TubeModel;
}

/** Transconductance below this part of the new figure ends a tube's life where the sheet gives no limit of its own. */
export const REJECT_SHARE = 0.65;

type Row = Omit<TubeType, "aliases" | "model" | "picofarads"> & { aliases?: string[]; as?: string };

const NOVAL_TWIN = [
  { plate: 1, grid: 2, cathode: 3 },
  { plate: 6, grid: 7, cathode: 8 },
];
const OCTAL_TWIN = [
  { grid: 1, plate: 2, cathode: 3 },
  { grid: 4, plate: 5, cathode: 6 },
];
const OCTAL_POWER = [{ plate: 3, screen: 4, grid: 5, cathode: 8 }];
const MINIATURE_POWER = [{ cathode: 1, grid: 2, screen: 6, plate: 7 }];
const NOVAL_RECTIFIER = [{ "plate 1": 1, cathode: 3, "plate 2": 7 }];
const OCTAL_RECTIFIER = [{ "plate 1": 4, "plate 2": 6, cathode: 8 }];

const dc = (plateVolts: number, plateWatts: number, screenWatts?: number) => ({
  system: "design-centre" as const,
  plateVolts,
  plateWatts,
  screenWatts,
});
const dm = (plateVolts: number, plateWatts: number, screenWatts?: number) => ({
  system: "design-maximum" as const,
  plateVolts,
  plateWatts,
  screenWatts,
});
const six = (amps: number) => ({ volts: 6.3, amps });

// One row a type, as in a catalogue.
// prettier-ignore
const ROWS: Row[] = [
  { type: "12AX7", aliases: ["ECC83", "7025"], kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 1), typical: { va: 250, vg: -2, ia: 1.2, gm: 1.6, mu: 100 } },
  { type: "12AT7", aliases: ["ECC81"], kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 2.5), typical: { va: 250, vg: -2, ia: 10, gm: 5.5, mu: 60 } },
  { type: "12AU7", aliases: ["ECC82"], kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 2.75), typical: { va: 250, vg: -8.5, ia: 10.5, gm: 2.2, mu: 17 } },
  { type: "12AY7", kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 1.5), typical: { va: 250, vg: -4, ia: 3, gm: 1.75, mu: 44 } },
  { type: "6SN7GTB", kind: "triode", pins: OCTAL_TWIN, heater: six(0.6), ratings: dc(450, 5), typical: { va: 250, vg: -8, ia: 9, gm: 2.6, mu: 20 } },
  { type: "6SN7GT", aliases: ["6SN7"], as: "6SN7GTB", kind: "triode", pins: OCTAL_TWIN, heater: six(0.6), ratings: dc(300, 2.5), typical: { va: 250, vg: -8, ia: 9, gm: 2.6, mu: 20 } },
  { type: "6SL7GT", aliases: ["6SL7"], kind: "triode", pins: OCTAL_TWIN, heater: six(0.3), ratings: dc(300, 1), typical: { va: 250, vg: -2, ia: 2.3, gm: 1.6, mu: 70 } },
  { type: "6AV6", kind: "triode", pins: [{ grid: 1, cathode: 2, plate: 7 }], heater: six(0.3), ratings: dc(300, 0.5), typical: { va: 250, vg: -2, ia: 1.2, gm: 1.6, mu: 100 } },
  { type: "12AV6", as: "6AV6", kind: "triode", pins: [{ grid: 1, cathode: 2, plate: 7 }], heater: { volts: 12.6, amps: 0.15 }, ratings: dc(300, 0.5), typical: { va: 250, vg: -2, ia: 1.2, gm: 1.6, mu: 100 } },
  { type: "12SQ7", aliases: ["12SQ7GT"], kind: "triode", pins: [{ grid: 2, cathode: 3, plate: 6 }], heater: { volts: 12.6, amps: 0.15 }, ratings: dc(300, 0.5), typical: { va: 250, vg: -2, ia: 1, gm: 1.15, mu: 100 } },
  { type: "EF86", aliases: ["6267"], kind: "pentode", pins: [{ screen: 1, cathode: 3, plate: 6, grid: 9 }], heater: six(0.2), ratings: dc(300, 1, 0.2), typical: { va: 250, vg2: 140, vg: -2, ia: 3, ig2: 0.6, gm: 2 } },
  { type: "6AU6", aliases: ["EF94"], kind: "pentode", pins: [{ grid: 1, plate: 5, screen: 6, cathode: 7 }], heater: six(0.3), ratings: dc(300, 3, 0.65), typical: { va: 250, vg2: 150, vg: -1, ia: 10.6, ig2: 4.3, gm: 5.2 } },
  { type: "12AU6", as: "6AU6", kind: "pentode", pins: [{ grid: 1, plate: 5, screen: 6, cathode: 7 }], heater: { volts: 12.6, amps: 0.15 }, ratings: dc(300, 3, 0.65), typical: { va: 250, vg2: 150, vg: -1, ia: 10.6, ig2: 4.3, gm: 5.2 } },
  { type: "EL84", aliases: ["6BQ5"], kind: "pentode", pins: [{ grid: 2, cathode: 3, plate: 7, screen: 9 }], heater: six(0.76), ratings: dc(300, 12, 2), typical: { va: 250, vg2: 250, vg: -7.3, ia: 48, ig2: 5.5, gm: 11.3 } },
  { type: "6V6GT", aliases: ["6V6"], kind: "pentode", pins: OCTAL_POWER, heater: six(0.45), ratings: dc(315, 12, 2), typical: { va: 250, vg2: 250, vg: -12.5, ia: 45, ig2: 4.5, gm: 4.1 } },
  { type: "6AQ5", aliases: ["EL90"], kind: "pentode", pins: [{ grid: 1, cathode: 2, plate: 5, screen: 6 }], heater: six(0.45), ratings: dc(250, 12, 2), typical: { va: 250, vg2: 250, vg: -12.5, ia: 45, ig2: 4.5, gm: 4.1 } },
  { type: "6L6GC", kind: "pentode", pins: OCTAL_POWER, heater: six(0.9), ratings: dm(500, 30, 5), typical: { va: 250, vg2: 250, vg: -14, ia: 72, ig2: 5, gm: 6 } },
  { type: "5881", kind: "pentode", pins: OCTAL_POWER, heater: six(0.9), ratings: dc(400, 23, 3), typical: { va: 250, vg2: 250, vg: -14, ia: 75, ig2: 4.3, gm: 6.1 } },
  { type: "EL34", aliases: ["6CA7"], kind: "pentode", pins: OCTAL_POWER, heater: six(1.5), ratings: dc(800, 25, 8), typical: { va: 250, vg2: 265, vg: -13.5, ia: 100, ig2: 15, gm: 11 } },
  { type: "KT66", kind: "pentode", pins: OCTAL_POWER, heater: six(1.27), ratings: dc(500, 25, 3.5), typical: { va: 250, vg2: 250, vg: -15, ia: 85, ig2: 6.3, gm: 6.5 } },
  { type: "KT88", kind: "pentode", pins: OCTAL_POWER, heater: six(1.6), ratings: dc(800, 35, 6), typical: { va: 250, vg2: 250, vg: -15, ia: 140, ig2: 3, gm: 11.5 } },
  { type: "6550", kind: "pentode", pins: OCTAL_POWER, heater: six(1.6), ratings: dc(600, 35, 6), typical: { va: 250, vg2: 250, vg: -14, ia: 140, ig2: 12, gm: 11 } },
  { type: "7591A", aliases: ["7591"], kind: "pentode", pins: [{ plate: 3, screen: 4, cathode: 5, grid: 6 }], heater: six(0.8), ratings: dm(550, 19, 3.3), typical: { va: 300, vg2: 300, vg: -10, ia: 60, ig2: 8, gm: 10.2 } },
  { type: "35C5", kind: "pentode", pins: MINIATURE_POWER, heater: { volts: 35, amps: 0.15 }, ratings: dc(135, 4.5, 1), typical: { va: 110, vg2: 110, vg: -7.5, ia: 40, ig2: 3, gm: 5.8 } },
  { type: "50C5", kind: "pentode", pins: MINIATURE_POWER, heater: { volts: 50, amps: 0.15 }, ratings: dc(135, 5.5, 1.25), typical: { va: 110, vg2: 110, vg: -7.5, ia: 49, ig2: 4, gm: 7.5 } },
  { type: "50L6GT", aliases: ["50L6"], kind: "pentode", pins: OCTAL_POWER, heater: { volts: 50, amps: 0.15 }, ratings: dc(200, 10, 1.25), typical: { va: 110, vg2: 110, vg: -7.5, ia: 49, ig2: 4, gm: 8 } },
  { type: "EZ80", aliases: ["6V4"], kind: "rectifier", pins: NOVAL_RECTIFIER, heater: six(0.6), rectifier: { largestFirstCapacitor: 50e-6, amps: 0.09, drop: [20, 0.09] } },
  { type: "EZ81", aliases: ["6CA4"], kind: "rectifier", pins: NOVAL_RECTIFIER, heater: six(1), rectifier: { largestFirstCapacitor: 50e-6, amps: 0.15, drop: [21, 0.15] } },
  { type: "GZ34", aliases: ["5AR4"], kind: "rectifier", pins: OCTAL_RECTIFIER, heater: { volts: 5, amps: 1.9 }, rectifier: { largestFirstCapacitor: 60e-6, amps: 0.25, drop: [17, 0.225] } },
  { type: "5Y3GT", aliases: ["5Y3"], kind: "rectifier", pins: OCTAL_RECTIFIER, heater: { volts: 5, amps: 2 }, rectifier: { largestFirstCapacitor: 20e-6, amps: 0.125, drop: [60, 0.125] } },
  { type: "5U4GB", aliases: ["5U4"], kind: "rectifier", pins: OCTAL_RECTIFIER, heater: { volts: 5, amps: 3 }, rectifier: { largestFirstCapacitor: 40e-6, amps: 0.275, drop: [50, 0.275] } },
  { type: "6X4", aliases: ["EZ90"], kind: "rectifier", pins: [{ "plate 1": 1, "plate 2": 6, cathode: 7 }], heater: six(0.6), rectifier: { amps: 0.07, drop: [22, 0.07] } },
  { type: "35W4", kind: "rectifier", pins: [{ "plate 1": 5, cathode: 7 }], heater: { volts: 35, amps: 0.15 }, rectifier: { largestFirstCapacitor: 40e-6, amps: 0.1, drop: [18, 0.2] } },
  { type: "35Z5GT", aliases: ["35Z5"], kind: "rectifier", pins: [{ "plate 1": 5, cathode: 8 }], heater: { volts: 35, amps: 0.15 }, rectifier: { amps: 0.1, drop: [20, 0.2] } },
];

// prettier-ignore
const PICOFARADS: Record<string, TubeType["picofarads"]> = {
  "12AX7": { gp: 1.7, gk: 1.6, pk: 0.46 },
  "12AT7": { gp: 1.5, gk: 2.2, pk: 0.5 },
  "12AU7": { gp: 1.5, gk: 1.6, pk: 0.5 },
  "12AY7": { gp: 1.3, gk: 1.3, pk: 0.6 },
  "6SN7GTB": { gp: 4, gk: 2.2, pk: 0.7 },
  "6SL7GT": { gp: 2.8, gk: 3, pk: 3.8 },
  "6AV6": { gp: 2, gk: 2.2, pk: 0.8 },
  "12SQ7": { gp: 1.6, gk: 3.2, pk: 3 },
  "EF86": { gp: 0.05, gk: 3.8, pk: 5.3 },
  "6AU6": { gp: 0.0035, gk: 5.5, pk: 5 },
  "EL84": { gp: 0.5, gk: 10.8, pk: 6.5 },
  "6V6GT": { gp: 0.7, gk: 9, pk: 7.5 },
  "6AQ5": { gp: 0.4, gk: 8, pk: 8.5 },
  "6L6GC": { gp: 0.6, gk: 10, pk: 6.5 },
  "5881": { gp: 0.4, gk: 10.8, pk: 7 },
  "EL34": { gp: 1.1, gk: 15.2, pk: 8.4 },
  "KT66": { gp: 1.1, gk: 14.5, pk: 10 },
  "KT88": { gp: 1.2, gk: 16, pk: 12 },
  "6550": { gp: 0.8, gk: 14, pk: 12 },
  "7591A": { gp: 0.25, gk: 10, pk: 5 },
  "35C5": { gp: 0.6, gk: 12, pk: 6.2 },
  "50C5": { gp: 0.64, gk: 13, pk: 8.5 },
  "50L6GT": { gp: 0.8, gk: 15, pk: 9.5 },
};

const NOVAL_HALVES = { ends: [4, 5], centre: 9 } satisfies TubeType["heaterPins"];

function baseOf({ pins, type }: Row): Base {
  if (pins === NOVAL_TWIN || pins === NOVAL_RECTIFIER || type === "EF86" || type === "EL84") return "noval";
  if (pins === OCTAL_TWIN || pins === OCTAL_POWER || pins === OCTAL_RECTIFIER) return "octal";
  return ["12SQ7", "7591A", "35Z5GT"].includes(type) ? "octal" : "miniature";
}

/** Heater pins by what else is on the socket: the bases of the library put them where its catalogue has them. */
function heaterPinsOf(row: Row): TubeType["heaterPins"] {
  if (row.pins === NOVAL_TWIN) return NOVAL_HALVES;
  if (row.pins === OCTAL_TWIN || row.type.startsWith("12SQ7")) return { ends: [7, 8] };
  if (row.pins === OCTAL_RECTIFIER) return { ends: [2, 8] };
  if (row.pins === OCTAL_POWER || row.type === "7591A" || row.type === "35Z5GT") return { ends: [2, 7] };
  if (row.pins === NOVAL_RECTIFIER || row.type === "EF86" || row.type === "EL84") return { ends: [4, 5] };
  // The rest stand on the seven-pin miniature base.
  return { ends: [3, 4] };
}

export const TUBE_TYPES: TubeType[] = ROWS.map(({ as, ...row }) => ({
  aliases: [],
  base: baseOf(row),
  heaterPins: heaterPinsOf(row),
  ...row,
  picofarads: PICOFARADS[as ?? row.type],
  model: FITTED[as ?? row.type],
}));

const BY_NAME = new Map(TUBE_TYPES.flatMap((t) => [t.type, ...t.aliases].map((name) => [name.toUpperCase(), t] as const)));

/** The type of that name or alias, whatever its case; undefined when the library has none. */
export function findTubeType(name: string): TubeType | undefined {
  return BY_NAME.get(name.toUpperCase());
}

/** Transconductance new and at rejection, mA/V. */
export function gmLimits(type: TubeType): { fresh: number; reject: number } | undefined {
  return type.typical && { fresh: type.typical.gm, reject: type.typical.gm * REJECT_SHARE };
}

/** Part of the cathode current that goes to the screen at the sheet's typical point; 0 for a triode. */
export function screenShare(type: TubeType): number {
  const point = type.typical;
  return point?.ig2 ? point.ig2 / (point.ia + point.ig2) : 0;
}
