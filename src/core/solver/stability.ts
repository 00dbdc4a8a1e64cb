/**
 * Whether an operating point holds, by the natural modes of the linear amp around it: G·x + s·C·x = 0. Written as (G⁻¹C)·x = −(1/s)·x
 * the modes without storage, of which there are many, come out as zeros. Eigenvalues by the QR algorithm (ml-matrix).
 * Source of the method: J. G. F. Francis, "The QR transformation", The Computer Journal 4, 1961.
 */

import { EigenvalueDecomposition, Matrix } from "ml-matrix";
import { assembleStorage } from "./network";
import { workspaceOf } from "./workspace";
import { factorAt, type OperatingPoint } from "./operating-point";
import * as texts from "../texts/solver";

/** A mode that grows: e^(growth·t), turning at `hertz`. */
export interface GrowingMode {
  /** Per second, above zero. */
  growth: number;
  /** 0 for one that runs away without turning. */
  hertz: number;
}

/** Faster than this no circuit of tubes and wires is described by its drawing; rounding makes such modes of nothing. */
const FASTEST = 1e-9;
/** Slower growth than this, per second, is rounding, or takes longer than anybody waits. */
const LEAST_GROWTH = 1e-3;

/** The modes that grow, the slowest turning first. @throws RangeError when there is no linear amp around the operating point. */
export function growingModes(op: OperatingPoint): GrowingMode[] {
  const { network } = op;
  const n = network.size;
  const work = workspaceOf(network);
  if (!op.converged || !factorAt(work, op.x)) throw new RangeError(texts.noOperatingPointWhose());
  const storage = new Float64Array(n * n);
  assembleStorage(network, storage);
  const columns = new Matrix(n, n);
  const column = new Float64Array(n);
  for (let c = 0; c < n; c++) {
    for (let r = 0; r < n; r++) column[r] = storage[r * n + c]!;
    work.lu.solve(column);
    for (let r = 0; r < n; r++) columns.set(r, c, column[r]!);
  }
  const { realEigenvalues: re, imaginaryEigenvalues: im } = new EigenvalueDecomposition(columns);
  const out: GrowingMode[] = [];
  for (let k = 0; k < n; k++) {
    const square = re[k]! ** 2 + im[k]! ** 2;
    if (Math.sqrt(square) < FASTEST) continue;
    // s = −1/m: growth is −Re(m)/|m|², its turning Im(m)/|m|² radians per second.
    const growth = -re[k]! / square;
    if (growth > LEAST_GROWTH && im[k]! >= 0) out.push({ growth, hertz: im[k]! / square / (2 * Math.PI) });
  }
  return out.sort((a, b) => a.hertz - b.hertz);
}
