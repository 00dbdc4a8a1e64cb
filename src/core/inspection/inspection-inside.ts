/** Heat, capacitors and tubes on the inspection list. */

import { isLineConnected } from "../circuit/mains-connection";
import { isRectifier } from "../circuit/special-parts";
import { envelopeOf, type Circuit, type Element } from "../circuit/circuit";
import { namesOf, type Inspected } from "./inspected";
import * as texts from "../texts/inspection";

/** Years after which each kind of part is past its youth. Usual practice. */
const OLD_ELECTROLYTIC = 25;
const OLD_RUBBER = 40;
/** A resistor of this many watts or more runs hot enough to char what is beside it. */
const HOT_WATTS = 1;

export function insideItems(inspected: Inspected): void {
  const { circuit, parts, today, by, old, add } = inspected;
  const direct = isLineConnected(circuit);
  const selenium = parts.filter((e) => isRectifier(e.type) && e.params.tube === "selenium");
  if (selenium.length > 0)
    add(
      "selenium",
      "heat and damage",
      namesOf(selenium),
      texts.seleniumPlatesBurstDiscoloured(),
      texts.seleniumRectifier(),
      texts.seleniumRectifierAged(),
      "watch",
      texts.fitSiliconSeriesResistor(),
    );
  const hot = parts.filter((e) => e.letter === "R" && (e.notes.watts ?? 0) >= HOT_WATTS);
  if (hot.length > 0)
    add(
      "charred",
      "heat and damage",
      namesOf(hot),
      texts.brownPaintCharredBoard(),
      texts.ofWOrMore(hot.length, HOT_WATTS),
      texts.hasRunHot(),
      "watch",
      texts.measureMountClearBoard(),
    );
  const windings = parts.filter((e) => e.type?.startsWith("OPT") || e.type === "XFMR" || (e.letter === "L" && e.notes.dcr));
  if (windings.length > 0 || !direct)
    add(
      "transformers",
      "heat and damage",
      windings.length > 0 ? texts.mainsTransformer(namesOf(windings)) : "transformers",
      texts.tarWaxRunOut(),
      by,
      texts.transformerHasBeenHot(),
      "fault",
      texts.measureWindingsBeforePower(),
    );
  if (circuit && circuit.near.length > 0)
    add(
      "tracking",
      "heat and damage",
      circuit.near.map(([a, b]) => `${a}–${b}`).join(", "),
      texts.fluxWaxDustScorch(),
      texts.highLowVoltsLie(),
      texts.dirtTrackBetweenNeighbours(),
      "watch",
      texts.cleanBoardMeasureLeak(),
    );
  add(
    "insulation",
    "heat and damage",
    "wiring",
    old(OLD_RUBBER) ? texts.bendOneRubberCovered() : texts.pinchedMeltedBareWires(),
    by,
    texts.insulationBrittleBare(),
    "fault",
    texts.sleeveReplaceWire(),
  );

  const electrolytics = parts.filter((e) => e.letter === "C" && (e.notes.kind === "electrolytic" || (e.value ?? 0) >= 1e-6));
  const dates = [...new Set(electrolytics.flatMap((e) => e.notes.year ?? []))];
  if (electrolytics.length > 0)
    add(
      "electrolytics",
      "capacitors",
      namesOf(electrolytics),
      texts.bulgingEndsCrustWet(),
      dates.length > 0 && today - Math.min(...dates) >= OLD_ELECTROLYTIC ? texts.originalFile(Math.min(...dates)) : by,
      texts.electrolyticLeakingBulging(),
      "fault",
      texts.replaceTestReform(),
    );
  const paper = parts.filter((e) => e.letter === "C" && (e.notes.kind === "paper" || e.notes.kind === "moulded"));
  if (paper.length > 0)
    add(
      "paper-caps",
      "capacitors",
      namesOf(paper),
      texts.waxDripsCrackedMoulding(),
      texts.paperCapacitors(paper.length),
      texts.paperCapacitorsCrackedLeaking(),
      "fault",
      texts.measureLeakageReplace(),
    );
  const backwards = electrolytics.filter((e) => e.notes.kind === "electrolytic");
  if (backwards.length > 0)
    add(
      "polarity",
      "capacitors",
      namesOf(backwards),
      texts.plusHigherVoltsBias(parts.some(isBias) ? " here" : ""),
      texts.oneBackwardsLivesWhile(),
      texts.capacitorBackwards(),
      "danger",
      texts.replaceRightWayRound(),
    );

  const tubes = parts.filter((e) => e.tube ?? e.rectifierTube);
  const types = [...new Map(tubes.map((e) => [envelopeOf(e.name), (e.tube ?? e.rectifierTube)!.type]))];
  if (types.length > 0) {
    add(
      "types",
      "tubes",
      types.map(([n]) => n).join(", "),
      texts.typeEachSocketAgainst(types.map(([n, t]) => `${n} ${t}`).join(", ")),
      texts.socketsTakeTypesLook(),
      texts.wrongTubeType(),
      "fault",
      texts.fitRightType(),
    );
    add(
      "getters",
      "tubes",
      types.map(([n]) => n).join(", "),
      texts.whiteGetterAirLoose(),
      texts.seenBeforeAnyTest(),
      texts.tubeGassyBroken(),
      "fault",
      texts.replaceIt(),
    );
    const sets = outputSets(circuit!);
    for (const set of sets)
      add(
        `set-${set[0]}`,
        "tubes",
        set.join(", "),
        texts.oneMakerOneDate(),
        texts.theyShareWork(),
        texts.mixedSet(),
        "watch",
        texts.matchReplaceSet(),
      );
  } else
    add(
      "types",
      "tubes",
      "tubes",
      texts.typeEachSocketAgainst2(),
      texts.noCircuitHere(),
      texts.wrongTubeType(),
      "fault",
      texts.fitRightType(),
    );
}

function isBias(e: Element): boolean {
  return isRectifier(e.type) && e.nodes[0] === "0";
}

/** Tubes that work as pairs or more on one output transformer, by envelope. */
export function outputSets(circuit: Circuit): string[][] {
  return circuit.elements
    .filter((e) => e.type === "OPT_PP")
    .map((t) => {
      const ends = new Set([t.nodes[0], t.nodes[2]]);
      return [...new Set(circuit.elements.filter((e) => e.tube && ends.has(e.nodes[0]!)).map((e) => envelopeOf(e.name)))];
    })
    .filter((set) => set.length > 1);
}
