/** The mains side on the inspection list: what can kill from outside. */

import { isLineConnected } from "../circuit/line";
import type { Inspected } from "./inspection";

/** Before this year two-wire cords and capacitors to chassis were usual. */
const EARTHED_SINCE = 1970;

export function mainsItems(inspected: Inspected): void {
  const { circuit, year, by, add } = inspected;
  const direct = isLineConnected(circuit);
  add(
    "cord",
    "mains",
    "mains cord",
    "Cord, plug and strain relief: cracks, bare copper, knots in place of a clamp",
    by,
    "cord cracked or not held",
    "danger",
    "fit a new cord with strain relief",
  );
  if (!direct)
    add(
      "earth",
      "mains",
      "mains cord",
      "Two wires or three; the earth wire on its own bolt through bare metal",
      year !== undefined && year < EARTHED_SINCE ? `made by ${year}: often two wires only` : by,
      "two-wire cord, chassis not earthed",
      "danger",
      "fit a three-wire cord, earth on its own bolt",
    );
  add(
    "fuse-order",
    "mains",
    "fuse and switch",
    "Live goes to the far end of the fuse holder first, then the switch; neutral is not fused alone",
    "wired by hand in most amps",
    "fuse or switch in the neutral",
    "danger",
    "rewire: live to fuse, then switch",
  );
  add(
    "live-pin",
    "mains",
    "plug and outlet",
    "Which pin of the plug is the live one, and which of the outlet: the switch and fuse must be in it",
    direct ? "the chassis is one of the two" : "outlets are wired the other way round now and then",
    "live and neutral changed over",
    "danger",
    "rewire the plug; have the outlet put right",
  );
  add(
    "fuse-rating",
    "mains",
    "fuse",
    `Rating and type of the fuse${circuit?.facts.fuse ? `: ${circuit.facts.fuse} A slow belongs in` : " against the plate"}; foil, wire or a nail`,
    "the first thing that is bridged",
    "wrong fuse",
    "danger",
    "fit the right fuse",
  );
  if (!direct)
    add(
      "line-capacitor",
      "mains",
      "line to chassis",
      "A capacitor from either line wire to chassis",
      year === undefined || year < EARTHED_SINCE ? "usual before earthed cords" : by,
      "capacitor from line to chassis",
      "danger",
      "remove it, or fit a safety type",
    );
  else {
    add(
      "line-chassis",
      "mains",
      "chassis",
      "Knob grub screws, chassis bolts and back: anything that a hand can reach and that is on the line",
      "line-connected set",
      "line-connected metal within reach",
      "danger",
      "fit insulation; isolation transformer at the bench",
    );
    add(
      "interference-capacitor",
      "mains",
      "across the line",
      "The capacitor across the line: an old paper one is always live",
      "line-connected set",
      "paper capacitor across the line",
      "danger",
      "fit a safety type for across-the-line use",
    );
  }
  add(
    "tap",
    "mains",
    "voltage selector",
    `Primary tap or selector against the wall${circuit?.mains ? `; the circuit is for ${circuit.mains.volts} V ${circuit.mains.hertz} Hz` : ""}`,
    "a wrong tap looks like many faults",
    "wrong primary tap",
    "fault",
    "change to the tap for this wall",
  );
}
