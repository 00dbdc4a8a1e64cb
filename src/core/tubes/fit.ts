/** Fits a tube model to the points of a data sheet, and says how good the fit is. */

import { nelderMead, type Bound } from "../numeric/nelder-mead";
import { pentodeLaw, PENTODE_OUT, triodeLaw, TRIODE_OUT, type TubeModel } from "./model";
import type { SheetData, SheetPoint } from "./sheet-points";
import * as texts from "../texts/tubes";

/** What a model gives at a point: milliamperes, mA/V, ohms, and µ = gm·rp (of grid 2 for a pentode: ∂Ik/∂Vg over ∂Ik/∂Vg2). */
export interface ModelPoint {
  ia: number;
  ig2?: number;
  gm: number;
  rp: number;
  mu: number;
}

export function modelAt(model: TubeModel, point: Pick<SheetPoint, "va" | "vg2" | "vg">): ModelPoint {
  if (model.kind === "triode") {
    const out = new Float64Array(TRIODE_OUT);
    triodeLaw(model, point.va, point.vg, out);
    return { ia: out[0]! * 1e3, gm: out[3]! * 1e3, rp: 1 / out[2]!, mu: out[3]! / out[2]! };
  }
  const out = new Float64Array(PENTODE_OUT);
  pentodeLaw(model, point.va, point.vg2 ?? point.va, point.vg, out);
  const [ip, is] = out;
  return { ia: ip! * 1e3, ig2: is! * 1e3, gm: out[5]! * 1e3, rp: 1 / out[3]!, mu: (out[5]! + out[8]!) / (out[4]! + out[7]!) };
}

export interface FitRow {
  point: SheetPoint;
  model: ModelPoint;
  /** Relative errors against the sheet, where the sheet has a figure. */
  errors: { ia: number; ig2?: number; gm?: number; rp?: number };
}

export interface Fit {
  model: TubeModel;
  rows: FitRow[];
  /** Largest relative error of plate current and gm over all points. */
  worst: number;
  /** In words for the screen; empty when the fit is within 10 %. */
  doubts: string[];
}

/** One sigma of each sheet figure, relative: what weight it has in the fit. */
const SIGMA = { ia: 0.03, gm: 0.03, ig2: 0.08, rp: 0.12, rpPentode: 0.3, mu: 0.04 };

/** Exponents and sizes that a real tube can have. */
function boundsOf(data: SheetData): { keys: string[]; bounds: Bound[]; start: number[] } {
  const typical = data.points[0]!;
  const pentode = data.points.some((p) => p.vg2 !== undefined);
  const drive = (typical.vg2 ?? typical.va) / data.mu + typical.vg;
  const kg1 = (2 * Math.max(0.3, drive) ** 1.4) / ((typical.ia + (typical.ig2 ?? 0)) / 1e3);
  const keys = ["mu", "ex", "kg1", "kp", "kvb", "vct"];
  const bounds: Bound[] = [
    { low: data.mu * 0.87, high: data.mu * 1.13 },
    { low: 1.15, high: 1.75 },
    { low: kg1 / 20, high: kg1 * 20 },
    pentode ? { low: 5, high: 400 } : { low: 20, high: 1500 },
    { low: 0.5, high: 4000 },
    { low: 0.02, high: 1.2 },
  ];
  const start = [data.mu, 1.4, kg1, pentode ? 40 : data.mu * 5, pentode ? 20 : 300, 0.4];
  if (pentode) {
    keys.push("knee", "share", "lambda");
    const total = typical.ia + (typical.ig2 ?? 0);
    bounds.push({ low: 12, high: 45 }, { low: (typical.ia / total) * 0.9, high: 0.9995 }, { low: 1e-6, high: 4e-3 });
    start.push(25, Math.min(0.995, typical.ia / total), 1 / (2000 + typical.va));
  }
  return { keys, bounds, start };
}

function modelFrom(keys: string[], x: number[], data: SheetData): TubeModel {
  const values = Object.fromEntries(keys.map((k, i) => [k, x[i]!]));
  return { kind: keys.includes("share") ? "pentode" : "triode", ...values, kgrid: data.kgrid } as TubeModel;
}

/**
 * Fits Koren's law to a sheet: bounded parameters, each figure weighted by what a sheet can be trusted to.
 * @throws RangeError when the points cannot describe a tube (no current, no point at all).
 */
export function fitTube(data: SheetData): Fit {
  if (data.points.length === 0) throw new RangeError(texts.leastOneSheetPoint());
  for (const p of data.points)
    if (!(p.va > 0 && p.ia > 0) || (p.gm !== undefined && !(p.gm > 0)))
      throw new RangeError(texts.plateVoltsPlateCurrent(p.va, p.ia, p.gm ?? texts.noGm()));
  const { keys, bounds, start } = boundsOf(data);
  const pentode = keys.includes("share");
  const cost = (x: number[]) => {
    const model = modelFrom(keys, x, data);
    // What the points leave open stays near what tubes are like: an exponent near 1.4, a contact potential near half a volt.
    let sum = (Math.log(x[0]! / data.mu) / (2 * SIGMA.mu)) ** 2 + ((x[1]! - 1.4) / 0.15) ** 2 + ((x[5]! - 0.5) / 0.3) ** 2;
    if (pentode) sum += (Math.log(x[6]! / 24) / 0.4) ** 2;
    for (const p of data.points) {
      const m = modelAt(model, p);
      const off = (got: number, wanted: number | undefined, sigma: number) => {
        if (wanted !== undefined) sum += Math.min(1e4, (Math.log(Math.max(1e-9, got) / wanted) / sigma) ** 2);
      };
      // A point off a curve, without gm, is read to a few percent less.
      off(m.ia, p.ia, p.gm === undefined ? 3 * SIGMA.ia : SIGMA.ia);
      off(m.gm, p.gm, SIGMA.gm);
      off(m.ig2 ?? 0, p.ig2, SIGMA.ig2);
      off(m.rp, p.rp, pentode ? SIGMA.rpPentode : SIGMA.rp);
      off(m.mu, data.mu, pentode ? 2 * SIGMA.mu : SIGMA.mu);
    }
    return sum;
  };
  const { x } = nelderMead(cost, start, bounds, 8);
  return judgeFit(modelFrom(keys, x, data), data);
}

/** Holds a model against its sheet. */
export function judgeFit(model: TubeModel, data: SheetData): Fit {
  const relative = (got: number | undefined, wanted: number | undefined) =>
    got === undefined || wanted === undefined ? undefined : got / wanted - 1;
  const rows = data.points.map((point): FitRow => {
    const m = modelAt(model, point);
    return {
      point,
      model: m,
      errors: { ia: m.ia / point.ia - 1, ig2: relative(m.ig2, point.ig2), gm: relative(m.gm, point.gm), rp: relative(m.rp, point.rp) },
    };
  });
  const worst = Math.max(...rows.flatMap((r) => [Math.abs(r.errors.ia), Math.abs(r.errors.gm ?? 0)]));
  const doubts: string[] = [];
  for (const { point, errors } of rows) {
    const at = `at ${point.va} V, ${point.vg} V`;
    if (Math.abs(errors.ia) > 0.1) doubts.push(texts.plateCurrentOff(Math.round(errors.ia * 100), at));
    if (Math.abs(errors.gm ?? 0) > 0.1) doubts.push(texts.gmOff(Math.round(errors.gm! * 100), at));
    if (Math.abs(errors.ig2 ?? 0) > 0.25) doubts.push(texts.screenCurrentOff(Math.round(errors.ig2! * 100), at));
  }
  return { model, rows, worst, doubts };
}
