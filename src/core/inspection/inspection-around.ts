/** Joints, controls, case and earlier work on the inspection list. */

import { isRectifier } from "../circuit/special-parts";
import type { Circuit } from "../circuit/circuit";
import { formatQuantity } from "../quantity/format";
import { namesOf, type Claimed, type Inspected } from "./inspected";
import * as texts from "../texts/inspection";

export function aroundItems(inspected: Inspected, claims: readonly Claimed[]): void {
  const { circuit, parts, by, add } = inspected;
  add(
    "sockets",
    "joints and sockets",
    texts.tubeSockets(),
    texts.spreadContactsCrackedWafers(),
    by,
    texts.socketContactLooseTracked(),
    "watch",
    texts.cleanReTensionReplace(),
  );
  add(
    "joints",
    "joints and sockets",
    texts.solderJoints(),
    texts.greyCrackedRingedJoints(),
    by,
    texts.coldCrackedJoint(),
    "fault",
    "resolder",
  );
  const pots = parts.filter((e) => e.type === "POT" || e.type === "SW" || e.type === "SW2");
  if (pots.length > 0)
    add(
      "controls",
      "mechanical",
      namesOf(pots),
      texts.shaftsNutsSwitchesLoose(),
      texts.turnedPlayers(),
      texts.controlLooseStiff(),
      "watch",
      texts.tightenClean(),
    );
  add(
    "hardware",
    "mechanical",
    texts.chassisCase(),
    texts.carriageDamageLooseTransformers(),
    texts.cameRoad(),
    texts.looseMissingHardware(),
    "watch",
    texts.secureIt(),
  );
  add(
    "seals",
    "earlier work",
    texts.allOver(),
    texts.brokenSealsNewSolder(),
    claims.length > 0 ? texts.workSaidHaveBeen() : texts.mostAmpsHaveBeen(),
    texts.evidenceEarlierWork(),
    "note",
    texts.checkAgainstCircuit(),
  );
  const values = parts.filter((e) => e.letter === "R" && e.notes.prov !== "assumed").length;
  if (values > 0)
    add(
      "values",
      "earlier work",
      texts.replacedParts(),
      texts.coloursPrintEveryPart(firstCapacitor(circuit!)),
      texts.wrongValuesComeRepairs(),
      texts.wrongValueFitted(),
      "fault",
      texts.fitValueCircuit(),
    );
  claims.forEach(({ text, year: when }, i) =>
    add(
      `claim-${i}`,
      "earlier work",
      texts.asClaimed(),
      texts.doesLookSo(text, when === undefined ? "" : texts.partsShouldDatedNear(when)),
      texts.claimNotFact(),
      texts.notClaimed(text),
      "note",
      texts.tellOwner(),
    ),
  );
}

function firstCapacitor(circuit: Circuit): string {
  const rectifier = circuit.elements.find((e) => isRectifier(e.type) && e.nodes[0] !== "0");
  const c = circuit.elements.find((e) => e.letter === "C" && rectifier !== undefined && e.nodes.includes(rectifier.nodes[0]!));
  const most = rectifier?.rectifierTube?.rectifier?.largestFirstCapacitor;
  return c
    ? `${c.name} ${formatQuantity(c.value!, "F", 2)}${most ? texts.bears(rectifier!.rectifierTube!.type, formatQuantity(most, "F", 2)) : ""}`
    : texts.asDrawn();
}
