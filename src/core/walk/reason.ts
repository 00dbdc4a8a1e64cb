/** The first plain reason for a reading that is out, with the parts of this circuit by name and where to look next. */

import { figure } from "../language/language";
import { formatVolts } from "../quantity/format";
import type { Circuit, TestPoint } from "../circuit/circuit";
import { couplingCapacitorsTo, electrodeNode, resistorsAt, roleOf, supplyChain, tubesAt } from "../anatomy/points";
import type { Expectation } from "../expectation/expectation";
import { disagree, stageCurrents } from "./stage-currents";
import * as texts from "../texts/walk";

const list = (names: string[], or = "or") =>
  names.length <= 1 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} ${or} ${names.at(-1)}`;

/** A plate this near to its supply passes nothing; where the supply was not read, so much above what is expected. */
const NEAR_SUPPLY = 0.97;
const MUCH = 1.18;

/** Volts of the node that the plate's resistor comes from: as read, else as the chart has it in proportion to this point. */
function supplyOf(circuit: Circuit, point: TestPoint, expected: number, read: Read): number | undefined {
  const { node } = point;
  for (const r of resistorsAt(circuit, node)) {
    const supply = circuit.points.find((p) => r.nodes.includes(p.node) && p.node !== node);
    const volts = supply && read(supply.name);
    if (volts !== undefined) return volts;
    if (supply?.chart && point.chart) return (supply.chart * expected) / point.chart;
  }
  return undefined;
}

/** Name of the test point that lies on a node, or undefined. */
function pointOn(circuit: Circuit, node: string | undefined): string | undefined {
  return circuit.points.find((p) => p.node === node)?.name;
}

const milliamps = (amps: number) => `${figure((amps * 1e3).toPrecision(3))} mA`;

/** What the two readings of a stage's current say together; undefined where there are not two, or where they agree and say no more. */
function byBothCurrents(circuit: Circuit, point: TestPoint, read: Read): string | undefined {
  const tube = tubesAt(circuit, point.node, "plate")[0] ?? tubesAt(circuit, point.node, "cathode")[0];
  const c = tube && stageCurrents(circuit, tube, read);
  if (!c || !disagree(c)) return undefined;
  const [plateR, cathodeR] = [list(c.plateResistors), list(c.cathodeResistors)];
  const bypass = circuit.elements.filter((e) => e.letter === "C" && e.nodes.includes(electrodeNode(tube, "cathode")!)).map((e) => e.name);
  const said = texts.theyCannotBothRight(milliamps(c.byPlate), plateR, milliamps(c.byCathode), cathodeR);
  const why =
    c.byCathode > c.byPlate
      ? texts.hasGoneHighLow(cathodeR, plateR)
      : texts.hasGoneHighSomething(plateR, bypass.length ? texts.leaksAcross(list(bypass), cathodeR) : "");
  return texts.takeAgainFirst(said, why, point.name);
}

type Read = (point: string) => number | undefined;

/**
 * Undefined when the reading is in band. `volts` is the reading.
 * One sentence of cause, one of what to look at next.
 * @param read volts of the other points, where they were read.
 */
export function firstReason(
  circuit: Circuit,
  point: TestPoint,
  volts: number,
  told: Expectation,
  read: Read = () => undefined,
): string | undefined {
  if (volts >= told.low && volts <= told.high) return undefined;
  // A solved grid stands some millivolts off zero; to the one who reads it that is zero.
  const expected = told.low < 0 && told.high > 0 ? { ...told, volts: 0 } : told;
  const role = roleOf(circuit, point);
  const high = Math.abs(volts) > Math.abs(expected.volts) && Math.sign(volts || 1) === Math.sign(expected.volts || 1);
  const gone = Math.abs(volts) < 0.03 * Math.abs(expected.volts);
  if (expected.volts !== 0 && Math.sign(volts) === -Math.sign(expected.volts) && !gone) return texts.polarityOtherWayRound();

  const plateOf = (electrode: "cathode" | "grid" | "screen") => {
    const tube = tubesAt(circuit, point.node, electrode)[0];
    return tube && pointOn(circuit, electrodeNode(tube, "plate"));
  };

  switch (role) {
    case "bias":
      return gone || !high ? texts.biasMissingLowOutput() : texts.moreBiasThanExpected();
    case "rail": {
      const chain = supplyChain(circuit);
      const at = chain.findIndex((s) => s.point.name === point.name);
      const before = chain.slice(0, at).at(-1);
      const droppers = list((chain[at]?.droppers ?? []).map((d) => d.name));
      if (gone)
        return at <= 0
          ? texts.noHighTensionRectifier()
          : texts.nothingHereOpenShort(droppers || texts.theDropper(), before?.point.name ?? texts.railBefore());
      if (high)
        return texts.highTooLittleCurrent(
          at <= 0 ? texts.outputTubeNotConducting() : texts.stageRailNotConducting(droppers || texts.theDropper()),
        );
      return at <= 0
        ? texts.lowTooMuchCurrent()
        : texts.lowTooMuchCurrent2(droppers || texts.theDropper(), before?.point.name ?? texts.railBefore());
    }
    case "cathode": {
      const resistors = list(resistorsAt(circuit, point.node).map((r) => r.name));
      const plate = plateOf("cathode");
      const both = gone ? undefined : byBothCurrents(circuit, point, read);
      if (both) return both;
      if (gone) return texts.cathodeNoCurrentOpen(plate ? texts.lookNext(plate) : "");
      if (high) return texts.highTubeDrawsToo(resistors || texts.cathodeResistor());
      if (told.wide) return texts.lowButNotMore();
      return texts.lowWeakTubeLow(resistors || texts.cathodeResistor(), plate ? texts.lookNext2(plate) : "").trim();
    }
    case "plate": {
      const load = list(resistorsAt(circuit, point.node).map((r) => r.name));
      const tube = tubesAt(circuit, point.node, "plate")[0];
      const cathode = tube && pointOn(circuit, electrodeNode(tube, "cathode"));
      const both = gone ? undefined : byBothCurrents(circuit, point, read);
      if (both) return both;
      if (gone) return texts.noPlateVoltageOpen(load || texts.theLoad());
      if (high) {
        const supply = tube && supplyOf(circuit, point, expected.volts, read);
        const at = cathode === undefined ? undefined : read(cathode);
        if (supply !== undefined ? volts > NEAR_SUPPLY * supply : volts > MUCH * expected.volts)
          return texts.nearSupplyTubeDraws(at === undefined && cathode ? texts.lookNextNothingThere(cathode) : "");
        if (at !== undefined) return texts.stageDrawsLessThan(cathode, formatVolts(at));
        return texts.somewhatHighLessCurrent(
          load || texts.theLoad(),
          cathode ? texts.lookNextLowThere(cathode, load || texts.theLoad()) : "",
        );
      }
      return texts.lowTubeDrawsToo(load || texts.theLoad(), cathode ? texts.tellsThemApartHigh(cathode) : "");
    }
    case "screen": {
      const feed = list(resistorsAt(circuit, point.node).map((r) => r.name));
      if (gone) return texts.noScreenVoltageOpen(feed || texts.itsFeed());
      return high ? texts.highScreenDrawsToo() : texts.lowGoneHighCapacitor(feed || texts.itsFeed());
    }
    case "grid": {
      const caps = list(couplingCapacitorsTo(circuit, point.node).map((c) => c.name));
      if (volts > expected.high && expected.volts >= 0)
        return texts.voltsGridTubeHas(caps ? texts.leaks(caps) : texts.couplingCapacitorLeaks());
      if (expected.volts < 0 && (gone || !high)) return texts.tooLittleBiasGrid(caps ? texts.leaks2(caps) : "");
      return texts.moreNegativeThanExpected();
    }
    default:
      return high ? texts.higherThanExpectedFollow() : texts.lowerThanExpectedFollow();
  }
}
