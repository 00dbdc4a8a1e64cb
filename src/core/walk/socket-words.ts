/** What lies on each pin of a socket, for whoever probes there: a slip is known before it happens. */

import type { Socket, SocketPin } from "../anatomy/sockets";
import { formatVolts } from "../quantity/format";
import type { WalkRow } from "./walk";

export interface PinWords {
  /** "A plate", "heater". */
  what: string;
  /** "402 V": as last read, else as expected, else what lies there in words; undefined where nothing is known. */
  volts?: string;
  /** Expected and not read. */
  expected: boolean;
}

/** By pin; only pins that the circuit uses. */
export function socketWords(socket: Socket, rows: readonly WalkRow[]): Map<number, PinWords> {
  return new Map(socket.pins.flatMap((p) => (p.electrode ? [[p.pin, pinWords(p, rows)] as const] : [])));
}

function pinWords({ electrode, half, node, carries }: SocketPin, rows: readonly WalkRow[]): PinWords {
  const what = half ? `${half} ${electrode}` : electrode!;
  if (node === "0") return { what, volts: "chassis", expected: false };
  const row = node === undefined ? undefined : rows.find((r) => r.point.node === node);
  if (row?.reading) return { what, volts: formatVolts(row.reading.value), expected: false };
  if (row?.expected) return { what, volts: formatVolts(row.expected.volts), expected: true };
  return { what, volts: carries, expected: false };
}
