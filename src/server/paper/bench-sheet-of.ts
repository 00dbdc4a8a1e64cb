/** A circuit file read, solved, drawn and painted as its bench sheet. */

import { withUsualPoints } from "@/core/anatomy/usual-points";
import { readCircuit } from "@/core/circuit/read";
import { readOnce } from "@/core/circuit/read-once";
import { solveOnce } from "@/core/expectation/solve-once";
import { benchSheet } from "@/core/papers/bench-sheet";
import type { Settings } from "@/core/shop/settings";
import { drawn } from "./drawn";
import { benchSheetPdf } from "./report-pdf";
import type { PaperSize } from "./sheet";

interface Wanted {
  settings: Settings;
  netlist: string;
  /** Volts at the wall; those of the file unless given. */
  mains?: number;
  size: PaperSize;
}

export async function benchSheetOf({ settings, netlist: stored, mains, size }: Wanted): Promise<Buffer> {
  const { circuit: read, errors } = readCircuit(stored);
  if (errors.length > 0) throw new Error(`line ${errors[0]!.line} of the circuit file cannot be read: found ${errors[0]!.found}`);
  const netlist = withUsualPoints(stored, read);
  const circuit = readOnce(netlist);
  const wall = circuit.mains ? (mains ?? circuit.mains.volts) : undefined;
  const solution = solveOnce(circuit, { ...(wall === undefined ? {} : { mains: wall }), without: [], set: [] });
  const drawing = await drawn(netlist);
  const blocks = benchSheet(circuit, drawing, solution, settings.symbols, wall);
  return benchSheetPdf(blocks, size, `${settings.shopName}   ·   ${circuit.title}`);
}
