/** The mains side on the inspection list: what can kill from outside. */

import { isLineConnected } from "../circuit/mains-connection";
import type { Inspected } from "./inspected";
import * as texts from "../texts/inspection";

/** Before this year two-wire cords and capacitors to chassis were usual. */
const EARTHED_SINCE = 1970;

export function mainsItems(inspected: Inspected): void {
  const { circuit, year, by, add } = inspected;
  const direct = isLineConnected(circuit);
  add("cord", "mains", texts.mainsCord(), texts.cordPlugStrainRelief(), by, texts.cordCrackedNotHeld(), "danger", texts.fitNewCordStrain());
  if (!direct)
    add(
      "earth",
      "mains",
      texts.mainsCord(),
      texts.twoWiresThreeEarth(),
      year !== undefined && year < EARTHED_SINCE ? texts.madeOftenTwoWires(year) : by,
      texts.twoWireCordChassis(),
      "danger",
      texts.fitThreeWireCord(),
    );
  add(
    "mains-insulation",
    "mains",
    texts.mainsWiring(),
    texts.bendWiresBeforeTransformer(),
    by,
    texts.mainsInsulationBrittle(),
    "danger",
    texts.renewMainsWiring(),
  );
  add(
    "fuse-order",
    "mains",
    texts.fuseSwitch(),
    texts.liveGoesFarEnd(),
    texts.wiredHandMostAmps(),
    texts.fuseSwitchNeutral(),
    "danger",
    texts.rewireLiveFuseThen(),
  );
  add(
    "live-pin",
    "mains",
    texts.plugOutlet(),
    texts.whichPinPlugLive(),
    direct ? texts.chassisOneTwo() : texts.outletsWiredOtherWay(),
    texts.liveNeutralChangedOver(),
    "danger",
    texts.rewirePlugHaveOutlet(),
  );
  add(
    "fuse-rating",
    "mains",
    "fuse",
    texts.ratingTypeFuseFoil(circuit?.facts.fuse ? texts.slowBelongs(circuit.facts.fuse) : texts.againstPlate()),
    texts.firstThingBridged(),
    texts.wrongFuse(),
    "danger",
    texts.fitRightFuse(),
  );
  if (!direct)
    add(
      "line-capacitor",
      "mains",
      texts.lineChassis(),
      texts.capacitorFromEitherLine(),
      year === undefined || year < EARTHED_SINCE ? texts.usualBeforeEarthedCords() : by,
      texts.capacitorFromLineChassis(),
      "danger",
      texts.removeFitSafetyType(),
    );
  else {
    add(
      "line-chassis",
      "mains",
      "chassis",
      texts.knobGrubScrewsChassis(),
      texts.lineConnectedSet(),
      texts.lineConnectedMetalWithin(),
      "danger",
      texts.fitInsulationIsolationTransformer(),
    );
    add(
      "minus-capacitor",
      "mains",
      texts.minusToChassis(),
      texts.capacitorFromMinus(),
      texts.lineConnectedSet(),
      texts.capacitorFromMinusShock(),
      "danger",
      texts.fitSafetyTypeMinus(),
    );
    add(
      "interference-capacitor",
      "mains",
      texts.acrossLine(),
      texts.capacitorAcrossLineOld(),
      texts.lineConnectedSet(),
      texts.paperCapacitorAcrossLine(),
      "danger",
      texts.fitSafetyTypeAcross(),
    );
  }
  add(
    "tap",
    "mains",
    texts.voltageSelector(),
    texts.primaryTapSelectorAgainst(circuit?.mains ? texts.circuitHz(circuit.mains.volts, circuit.mains.hertz) : ""),
    texts.wrongTapLooksLike(),
    texts.wrongPrimaryTap(),
    "fault",
    texts.changeTapWall(),
  );
}
