/** The first plain reason for a reading that is out, with the parts of this circuit by name and where to look next. */

import type { Circuit, TestPoint } from "../circuit/circuit";
import { couplingCapacitorsTo, electrodeNode, resistorsAt, roleOf, supplyChain, tubesAt } from "./anatomy";
import type { Expectation } from "./expectation";

const list = (names: string[], or = "or") =>
  names.length <= 1 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} ${or} ${names.at(-1)}`;

/** Name of the test point that lies on a node, or undefined. */
function pointOn(circuit: Circuit, node: string | undefined): string | undefined {
  return circuit.points.find((p) => p.node === node)?.name;
}

/**
 * Undefined when the reading is in band. `volts` is the reading.
 * One sentence of cause, one of what to look at next.
 */
export function firstReason(circuit: Circuit, point: TestPoint, volts: number, told: Expectation): string | undefined {
  if (volts >= told.low && volts <= told.high) return undefined;
  // A solved grid stands some millivolts off zero; to the one who reads it that is zero.
  const expected = told.low < 0 && told.high > 0 ? { ...told, volts: 0 } : told;
  const role = roleOf(circuit, point);
  const high = Math.abs(volts) > Math.abs(expected.volts) && Math.sign(volts || 1) === Math.sign(expected.volts || 1);
  const gone = Math.abs(volts) < 0.03 * Math.abs(expected.volts);
  if (expected.volts !== 0 && Math.sign(volts) === -Math.sign(expected.volts) && !gone)
    return "The polarity is the other way round: check the leads, then the part that is polarised here.";

  const plateOf = (electrode: "cathode" | "grid" | "screen") => {
    const tube = tubesAt(circuit, point.node, electrode)[0];
    return tube && pointOn(circuit, electrodeNode(tube, "plate"));
  };

  switch (role) {
    case "bias":
      return gone || !high
        ? "Bias is missing or low: the output tubes run away without it. Switch off, take them out, and look at the bias rectifier and its capacitor."
        : "More bias than expected: the output tubes will run cold. Look at the bias divider and where its adjuster stands.";
    case "rail": {
      const chain = supplyChain(circuit);
      const at = chain.findIndex((s) => s.point.name === point.name);
      const before = chain.slice(0, at).at(-1);
      const droppers = list((chain[at]?.droppers ?? []).map((d) => d.name));
      if (gone)
        return at <= 0
          ? "No high tension: rectifier, fuse, standby switch or mains transformer. Check the windings with the power off."
          : `Nothing here: ${droppers || "the dropper"} open, or a short on this rail. Look at ${before?.point.name ?? "the rail before"} next.`;
      if (high)
        return `High: too little current is drawn. ${at <= 0 ? "Is an output tube not conducting? Look at its cathode next." : `A stage on this rail is not conducting, or ${droppers || "the dropper"} is low or bridged.`}`;
      return at <= 0
        ? "Low: too much current drawn, a tired rectifier, a low reservoir, or low mains. Look at the output cathodes next."
        : `Low: too much current through ${droppers || "the dropper"}, or it has gone high, or the capacitor here leaks. Look at ${before?.point.name ?? "the rail before"} next.`;
    }
    case "cathode": {
      const resistors = list(resistorsAt(circuit, point.node).map((r) => r.name));
      const plate = plateOf("cathode");
      if (gone)
        return `Cathode at 0 V: no current. Open cathode resistor would read high, so: dead tube, no plate voltage${plate ? ` (look at ${plate} next)` : ""}, or its bypass capacitor shorted.`;
      if (high)
        return `High: the tube draws too much (a positive grid from a leaky coupling capacitor, or no bias), or ${resistors || "the cathode resistor"} is open or high. Look at the grid next.`;
      return `Low: weak tube, low screen or plate voltage, or ${resistors || "the cathode resistor"} low. ${plate ? `Look at ${plate} next.` : ""}`.trim();
    }
    case "plate": {
      const load = list(resistorsAt(circuit, point.node).map((r) => r.name));
      const tube = tubesAt(circuit, point.node, "plate")[0];
      const cathode = tube && pointOn(circuit, electrodeNode(tube, "cathode"));
      if (gone) return `No plate voltage: ${load || "the load"} open, the winding open, or no supply. Look at its supply next.`;
      if (high)
        return `Near the supply: the tube draws too little. Weak or dead tube, or cathode open.${cathode ? ` Look at ${cathode} next.` : ""}`;
      return `Low: the tube draws too much, or ${load || "the load"} has gone high.${cathode ? ` ${cathode} tells them apart: high there means current, low means the load.` : ""}`;
    }
    case "screen": {
      const feed = list(resistorsAt(circuit, point.node).map((r) => r.name));
      if (gone) return `No screen voltage: ${feed || "its feed"} open, or its capacitor shorted. The tube passes almost no current.`;
      return high
        ? "High: the screen draws too little. Weak tube or cathode open. Look at the cathode next."
        : `Low: ${feed || "its feed"} gone high, its capacitor leaks, or the tube draws too much screen current.`;
    }
    case "grid": {
      const caps = list(couplingCapacitorsTo(circuit, point.node).map((c) => c.name));
      if (volts > expected.high && expected.volts >= 0)
        return `Volts on a grid: ${caps ? `${caps} leaks` : "the coupling capacitor leaks"}, or the tube has grid current. Pull the tube: if the voltage stays, it is the capacitor.`;
      if (expected.volts < 0 && (gone || !high))
        return `Too little bias at this grid: ${caps ? `${caps} leaks, ` : ""}the grid leak is open, or the bias supply is low. Switch off before the tube overheats.`;
      return "More negative than expected: look at the bias supply, or the stage is being driven.";
    }
    default:
      return high
        ? "Higher than expected: follow the path towards the supply."
        : "Lower than expected: follow the path towards the supply.";
  }
}
