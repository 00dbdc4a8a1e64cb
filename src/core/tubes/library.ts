/**
 * Tube types: basing, heater, ratings and the sheet's own typical point.
 * Every figure is from the type's published data sheet. Watts and volts are maxima in the rating system named:
 * design-centre figures allow for supply and tube spread, design-maximum ones do not.
 */

export type RatingSystem = "design-centre" | "design-maximum";
export type TubeKind = "triode" | "pentode" | "rectifier";

export interface TubeType {
  type: string;
  aliases: string[];
  kind: TubeKind;
  /** Socket pin of each electrode, by section: A and B of a twin triode, else one. */
  pins: Record<string, number>[];
  heater: { volts: number; amps: number };
  ratings?: { system: RatingSystem; plateVolts: number; plateWatts: number; screenWatts?: number };
  /** One typical class A point: volts, milliamperes, gm in mA/V. */
  typical?: { va: number; vg2?: number; vg: number; ia: number; ig2?: number; gm: number; mu?: number };
  /** Largest first capacitor that the sheet allows, farads, and the largest output current, amperes. */
  rectifier?: { largestFirstCapacitor?: number; amps: number };
}

type Row = Omit<TubeType, "aliases"> & { aliases?: string[] };

const NOVAL_TWIN = [{ plate: 1, grid: 2, cathode: 3 }, { plate: 6, grid: 7, cathode: 8 }];
const OCTAL_TWIN = [{ grid: 1, plate: 2, cathode: 3 }, { grid: 4, plate: 5, cathode: 6 }];
const OCTAL_POWER = [{ plate: 3, screen: 4, grid: 5, cathode: 8 }];
const MINIATURE_POWER = [{ cathode: 1, grid: 2, screen: 6, plate: 7 }];
const NOVAL_RECTIFIER = [{ "plate 1": 1, cathode: 3, "plate 2": 7 }];
const OCTAL_RECTIFIER = [{ "plate 1": 4, "plate 2": 6, cathode: 8 }];

const dc = (plateVolts: number, plateWatts: number, screenWatts?: number) => ({ system: "design-centre" as const, plateVolts, plateWatts, screenWatts });
const dm = (plateVolts: number, plateWatts: number, screenWatts?: number) => ({ system: "design-maximum" as const, plateVolts, plateWatts, screenWatts });
const six = (amps: number) => ({ volts: 6.3, amps });

// One row a type, as in a catalogue.
// prettier-ignore
const ROWS: Row[] = [
  { type: "12AX7", aliases: ["ECC83", "7025"], kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 1), typical: { va: 250, vg: -2, ia: 1.2, gm: 1.6, mu: 100 } },
  { type: "12AT7", aliases: ["ECC81"], kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 2.5), typical: { va: 250, vg: -2, ia: 10, gm: 5.5, mu: 60 } },
  { type: "12AU7", aliases: ["ECC82"], kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 2.75), typical: { va: 250, vg: -8.5, ia: 10.5, gm: 2.2, mu: 17 } },
  { type: "12AY7", kind: "triode", pins: NOVAL_TWIN, heater: six(0.3), ratings: dc(300, 1.5), typical: { va: 250, vg: -4, ia: 3, gm: 1.75, mu: 44 } },
  { type: "6SN7GTB", aliases: ["6SN7", "6SN7GT"], kind: "triode", pins: OCTAL_TWIN, heater: six(0.6), ratings: dc(450, 5), typical: { va: 250, vg: -8, ia: 9, gm: 2.6, mu: 20 } },
  { type: "6SL7GT", aliases: ["6SL7"], kind: "triode", pins: OCTAL_TWIN, heater: six(0.3), ratings: dc(300, 1), typical: { va: 250, vg: -2, ia: 2.3, gm: 1.6, mu: 70 } },
  { type: "6AV6", kind: "triode", pins: [{ grid: 1, cathode: 2, plate: 7 }], heater: six(0.3), ratings: dc(300, 0.5), typical: { va: 250, vg: -2, ia: 1.2, gm: 1.6, mu: 100 } },
  { type: "12AV6", kind: "triode", pins: [{ grid: 1, cathode: 2, plate: 7 }], heater: { volts: 12.6, amps: 0.15 }, ratings: dc(300, 0.5), typical: { va: 250, vg: -2, ia: 1.2, gm: 1.6, mu: 100 } },
  { type: "12SQ7", aliases: ["12SQ7GT"], kind: "triode", pins: [{ grid: 2, cathode: 3, plate: 6 }], heater: { volts: 12.6, amps: 0.15 }, ratings: dc(250, 0.5), typical: { va: 250, vg: -2, ia: 1, gm: 1.15, mu: 100 } },
  { type: "EF86", aliases: ["6267"], kind: "pentode", pins: [{ screen: 1, cathode: 3, plate: 6, grid: 9 }], heater: six(0.2), ratings: dc(300, 1, 0.2), typical: { va: 250, vg2: 140, vg: -2, ia: 3, ig2: 0.6, gm: 2 } },
  { type: "6AU6", aliases: ["EF94"], kind: "pentode", pins: [{ grid: 1, plate: 5, screen: 6, cathode: 7 }], heater: six(0.3), ratings: dc(300, 3, 0.65), typical: { va: 250, vg2: 150, vg: -1, ia: 10.6, ig2: 4.3, gm: 5.2 } },
  { type: "12AU6", kind: "pentode", pins: [{ grid: 1, plate: 5, screen: 6, cathode: 7 }], heater: { volts: 12.6, amps: 0.15 }, ratings: dc(300, 3, 0.65), typical: { va: 250, vg2: 150, vg: -1, ia: 10.6, ig2: 4.3, gm: 5.2 } },
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
  { type: "EZ80", aliases: ["6V4"], kind: "rectifier", pins: NOVAL_RECTIFIER, heater: six(0.6), rectifier: { largestFirstCapacitor: 50e-6, amps: 0.09 } },
  { type: "EZ81", aliases: ["6CA4"], kind: "rectifier", pins: NOVAL_RECTIFIER, heater: six(1), rectifier: { largestFirstCapacitor: 50e-6, amps: 0.15 } },
  { type: "GZ34", aliases: ["5AR4"], kind: "rectifier", pins: OCTAL_RECTIFIER, heater: { volts: 5, amps: 1.9 }, rectifier: { largestFirstCapacitor: 60e-6, amps: 0.25 } },
  { type: "5Y3GT", aliases: ["5Y3"], kind: "rectifier", pins: OCTAL_RECTIFIER, heater: { volts: 5, amps: 2 }, rectifier: { largestFirstCapacitor: 20e-6, amps: 0.125 } },
  { type: "5U4GB", aliases: ["5U4"], kind: "rectifier", pins: OCTAL_RECTIFIER, heater: { volts: 5, amps: 3 }, rectifier: { largestFirstCapacitor: 40e-6, amps: 0.275 } },
  { type: "6X4", aliases: ["EZ90"], kind: "rectifier", pins: [{ "plate 1": 1, "plate 2": 6, cathode: 7 }], heater: six(0.6), rectifier: { amps: 0.07 } },
  { type: "35W4", kind: "rectifier", pins: [{ "plate 1": 5, cathode: 7 }], heater: { volts: 35, amps: 0.15 }, rectifier: { largestFirstCapacitor: 40e-6, amps: 0.1 } },
  { type: "35Z5GT", aliases: ["35Z5"], kind: "rectifier", pins: [{ "plate 1": 5, cathode: 8 }], heater: { volts: 35, amps: 0.15 }, rectifier: { amps: 0.1 } },
];

export const TUBE_TYPES: TubeType[] = ROWS.map((row) => ({ aliases: [], ...row }));

const BY_NAME = new Map(TUBE_TYPES.flatMap((t) => [t.type, ...t.aliases].map((name) => [name.toUpperCase(), t] as const)));

/** The type of that name or alias, whatever its case; undefined when the library has none. */
export function findTubeType(name: string): TubeType | undefined {
  return BY_NAME.get(name.toUpperCase());
}

/** Part of the cathode current that goes to the screen at the sheet's typical point; 0 for a triode. */
export function screenShare(type: TubeType): number {
  const point = type.typical;
  return point?.ig2 ? point.ig2 / (point.ia + point.ig2) : 0;
}
