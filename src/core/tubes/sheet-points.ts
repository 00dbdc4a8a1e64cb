/**
 * What the models are fitted to: points of published data sheets. Volts, milliamperes, mA/V, ohms.
 * The first point of each type is its typical class A point. A point without `gm` comes from a curve or a class AB table.
 */

export interface SheetPoint {
  va: number;
  vg2?: number;
  vg: number;
  ia: number;
  ig2?: number;
  gm?: number;
  /** Internal resistance, ohms. */
  rp?: number;
}

export interface SheetData {
  type: string;
  /** Amplification factor; of grid 2 against grid 1 for a pentode. */
  mu: number;
  points: SheetPoint[];
  /** Grid current scale of the model: small signal types draw less. */
  kgrid: number;
}

const SMALL = 2000;
const POWER = 900;

export const SHEET_DATA: SheetData[] = [
  {
    type: "12AX7",
    mu: 100,
    kgrid: SMALL,
    points: [
      { va: 250, vg: -2, ia: 1.2, gm: 1.6, rp: 62.5e3 },
      { va: 100, vg: -1, ia: 0.5, gm: 1.25, rp: 80e3 },
      { va: 150, vg: 0, ia: 3.2 },
    ],
  },
  {
    type: "12AT7",
    mu: 60,
    kgrid: 1500,
    points: [
      { va: 250, vg: -2, ia: 10, gm: 5.5, rp: 10.9e3 },
      { va: 100, vg: -1, ia: 3.7, gm: 4.0, rp: 15e3 },
    ],
  },
  {
    type: "12AU7",
    mu: 17,
    kgrid: 1200,
    points: [
      { va: 250, vg: -8.5, ia: 10.5, gm: 2.2, rp: 7.7e3 },
      { va: 100, vg: 0, ia: 11.8, gm: 3.1, rp: 6.25e3 },
    ],
  },
  {
    type: "12AY7",
    mu: 44,
    kgrid: SMALL,
    points: [
      { va: 250, vg: -4, ia: 3, gm: 1.75, rp: 25e3 },
      { va: 100, vg: 0, ia: 4.2 },
    ],
  },
  {
    type: "6SN7GTB",
    mu: 20,
    kgrid: 1200,
    points: [
      { va: 250, vg: -8, ia: 9, gm: 2.6, rp: 7.7e3 },
      { va: 90, vg: 0, ia: 10, gm: 3.0, rp: 6.7e3 },
    ],
  },
  {
    type: "6SL7GT",
    mu: 70,
    kgrid: SMALL,
    points: [
      { va: 250, vg: -2, ia: 2.3, gm: 1.6, rp: 44e3 },
      { va: 100, vg: 0, ia: 2.4 },
    ],
  },
  {
    type: "6AV6",
    mu: 100,
    kgrid: SMALL,
    points: [
      { va: 250, vg: -2, ia: 1.2, gm: 1.6, rp: 62.5e3 },
      { va: 100, vg: -1, ia: 0.5, gm: 1.25, rp: 80e3 },
    ],
  },
  {
    type: "12SQ7",
    mu: 100,
    kgrid: SMALL,
    points: [
      { va: 250, vg: -2, ia: 1.0, gm: 1.15, rp: 85e3 },
      { va: 100, vg: -1, ia: 0.45, gm: 0.925, rp: 110e3 },
    ],
  },
  {
    type: "EF86",
    mu: 38,
    kgrid: SMALL,
    points: [
      { va: 250, vg2: 140, vg: -2, ia: 3, ig2: 0.6, gm: 2.0, rp: 2.5e6 },
      { va: 250, vg2: 140, vg: -3.2, ia: 1.05 },
    ],
  },
  {
    type: "6AU6",
    mu: 36,
    kgrid: 1500,
    points: [
      { va: 250, vg2: 150, vg: -1, ia: 10.6, ig2: 4.3, gm: 5.2, rp: 1e6 },
      { va: 100, vg2: 100, vg: -1, ia: 5, ig2: 2.1, gm: 3.9, rp: 500e3 },
    ],
  },
  {
    type: "EL84",
    mu: 19,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -7.3, ia: 48, ig2: 5.5, gm: 11.3, rp: 38e3 },
      { va: 290, vg2: 290, vg: -10.4, ia: 36, ig2: 4 },
      { va: 50, vg2: 250, vg: 0, ia: 125 },
    ],
  },
  {
    type: "6V6GT",
    mu: 9.8,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -12.5, ia: 45, ig2: 4.5, gm: 4.1, rp: 50e3 },
      { va: 180, vg2: 180, vg: -8.5, ia: 29, ig2: 3, gm: 3.7, rp: 50e3 },
      { va: 315, vg2: 225, vg: -13, ia: 34, ig2: 2.2, gm: 3.75, rp: 80e3 },
      { va: 50, vg2: 250, vg: 0, ia: 105 },
    ],
  },
  {
    type: "6AQ5",
    mu: 9.5,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -12.5, ia: 45, ig2: 4.5, gm: 4.1, rp: 52e3 },
      { va: 180, vg2: 180, vg: -8.5, ia: 29, ig2: 3, gm: 3.7, rp: 58e3 },
      { va: 50, vg2: 250, vg: 0, ia: 100 },
    ],
  },
  {
    type: "6L6GC",
    mu: 8,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -14, ia: 72, ig2: 5, gm: 6.0, rp: 22.5e3 },
      { va: 350, vg2: 250, vg: -18, ia: 54, ig2: 2.5, gm: 5.2, rp: 33e3 },
      { va: 60, vg2: 250, vg: 0, ia: 170 },
    ],
  },
  {
    type: "5881",
    mu: 8,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -14, ia: 75, ig2: 4.3, gm: 6.1, rp: 30e3 },
      { va: 350, vg2: 250, vg: -18, ia: 53, ig2: 2.5, gm: 5.2, rp: 48e3 },
      { va: 60, vg2: 250, vg: 0, ia: 170 },
    ],
  },
  {
    type: "EL34",
    mu: 11,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 265, vg: -13.5, ia: 100, ig2: 15, gm: 11, rp: 15e3 },
      // Idle of the sheet's class AB pairs: the screen behind 1 kΩ stands some volts under its supply.
      { va: 425, vg2: 420, vg: -38, ia: 30 },
      { va: 400, vg2: 400, vg: -36, ia: 30 },
      { va: 60, vg2: 250, vg: 0, ia: 270 },
    ],
  },
  {
    type: "KT66",
    mu: 8,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -15, ia: 85, ig2: 6.3, gm: 6.5, rp: 22.5e3 },
      // As a triode the sheet has 62 mA for plate and screen together; the screen's share is taken off.
      { va: 400, vg2: 400, vg: -38, ia: 57.7 },
      { va: 60, vg2: 250, vg: 0, ia: 190 },
    ],
  },
  {
    type: "KT88",
    mu: 8,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -15, ia: 140, ig2: 3, gm: 11.5, rp: 12e3 },
      { va: 560, vg2: 300, vg: -34, ia: 60 },
      { va: 60, vg2: 250, vg: 0, ia: 310 },
    ],
  },
  {
    type: "6550",
    mu: 8,
    kgrid: POWER,
    points: [
      { va: 250, vg2: 250, vg: -14, ia: 140, ig2: 12, gm: 11, rp: 12e3 },
      { va: 400, vg2: 225, vg: -16.5, ia: 87, ig2: 4, gm: 9, rp: 27e3 },
    ],
  },
  {
    type: "7591A",
    mu: 17,
    kgrid: POWER,
    points: [
      { va: 300, vg2: 300, vg: -10, ia: 60, ig2: 8, gm: 10.2, rp: 29e3 },
      { va: 60, vg2: 300, vg: 0, ia: 170 },
    ],
  },
  {
    type: "35C5",
    mu: 7.5,
    kgrid: POWER,
    points: [{ va: 110, vg2: 110, vg: -7.5, ia: 40, ig2: 3, gm: 5.8, rp: 14e3 }],
  },
  {
    type: "50C5",
    mu: 7.5,
    kgrid: POWER,
    points: [{ va: 110, vg2: 110, vg: -7.5, ia: 49, ig2: 4, gm: 7.5, rp: 10e3 }],
  },
  {
    type: "50L6GT",
    mu: 8,
    kgrid: POWER,
    points: [
      { va: 110, vg2: 110, vg: -7.5, ia: 49, ig2: 4, gm: 8.0, rp: 13e3 },
      { va: 200, vg2: 125, vg: -8.5, ia: 48 },
    ],
  },
];
