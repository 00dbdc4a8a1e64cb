/** Texts of walk. */

import { say, type Value } from "../language/language";

// reason
export const theyCannotBothRight = (milliamps: Value, plateR: Value, milliamps2: Value, cathodeR: Value) =>
  say`${milliamps} by ${plateR}, ${milliamps2} by ${cathodeR}: they cannot both be right.`;
export const hasGoneHighLow = (cathodeR: Value, plateR: Value) =>
  say`${cathodeR} has gone high, ${plateR} is low or bridged, or a reading is off.`;
export const hasGoneHighSomething = (plateR: Value, bypass: Value) =>
  say`${plateR} has gone high, something else draws from the plate, ${bypass}or a reading is off.`;
export const leaksAcross = (list: Value, cathodeR: Value) => say`${list} leaks across ${cathodeR}, `;
export const takeAgainFirst = (said: Value, why: Value, name: Value) => say`${said} ${why} Take ${name} again first.`;
export const polarityOtherWayRound = () => say`The polarity is the other way round: check the leads, then the part that is polarised here.`;
export const biasMissingLowOutput = () =>
  say`Bias is missing or low: without it the output tubes overheat within seconds. Switch off, take them out, and look at the bias rectifier and its capacitor.`;
export const moreBiasThanExpected = () =>
  say`More bias than expected: the output tubes will run cold. Look at the bias divider and where its adjuster stands.`;
export const noHighTensionRectifier = () =>
  say`No high tension: rectifier, fuse, standby switch or mains transformer. Check the windings with the power off.`;
export const nothingHereOpenShort = (droppers: Value, before: Value) =>
  say`Nothing here: ${droppers} open, or a short on this rail. Look at ${before} next.`;
export const theDropper = () => say`the dropper`;
export const railBefore = () => say`the rail before`;
export const highTooLittleCurrent = (is: Value) => say`High: too little current is drawn. ${is}`;
export const outputTubeNotConducting = () => say`Is an output tube not conducting? Look at its cathode next.`;
export const stageRailNotConducting = (droppers: Value) => say`A stage on this rail is not conducting, or ${droppers} is low or bridged.`;
export const lowTooMuchCurrent = () =>
  say`Low: too much current drawn, a worn rectifier, a low reservoir, or low mains. Look at the output cathodes next.`;
export const lowTooMuchCurrent2 = (droppers: Value, before: Value) =>
  say`Low: too much current through ${droppers}, or it has gone high, or the capacitor here leaks. Look at ${before} next.`;
export const cathodeNoCurrentOpen = (plate: Value) =>
  say`Cathode at 0 V: no current. Open cathode resistor would read high, so: dead tube, no plate voltage${plate}, or its bypass capacitor shorted.`;
export const lookNext = (plate: Value) => say` (look at ${plate} next)`;
export const highTubeDrawsToo = (resistors: Value) =>
  say`High: the tube draws too much (a positive grid from a leaky coupling capacitor, or no bias), or ${resistors} is open or high. Look at the grid next.`;
export const cathodeResistor = () => say`the cathode resistor`;
export const lowButNotMore = () =>
  say`Low, but not more than output tubes often are where their screens stand far above the sheet's volts: 10 to 25 % under the sheet's tube is usual there. Compare it with its fellow, and test the tube before it is called weak.`;
export const lowWeakTubeLow = (resistors: Value, plate: Value) =>
  say`Low: weak tube, low screen or plate voltage, or ${resistors} low. ${plate}`;
export const lookNext2 = (plate: Value) => say`Look at ${plate} next.`;
export const noPlateVoltageOpen = (load: Value) =>
  say`No plate voltage: ${load} open, the winding open, or no supply. Look at its supply next.`;
export const theLoad = () => say`the load`;
export const nearSupplyTubeDraws = (cathode: Value) =>
  say`Near the supply: the tube draws next to nothing. Dead tube, or open cathode.${cathode}`;
export const lookNextNothingThere = (cathode: Value) =>
  say` Look at ${cathode} next: nothing there means the tube, many volts an open resistor.`;
export const stageDrawsLessThan = (cathode: Value, value: Value) =>
  say`The stage draws less than usual, and its cathode (${cathode}, ${value}) agrees with that: a worn tube, a supply or grid that is off, or values that have drifted. Suspects weighs them.`;
export const somewhatHighLessCurrent = (load: Value, cathode: Value) =>
  say`Somewhat high: less current than usual through ${load}.${cathode}`;
export const lookNextLowThere = (cathode: Value, load: Value) =>
  say` Look at ${cathode} next: low there too means the tube, in band means ${load} or the reading.`;
export const lowTubeDrawsToo = (load: Value, cathode: Value) => say`Low: the tube draws too much, or ${load} has gone high.${cathode}`;
export const tellsThemApartHigh = (cathode: Value) => say` ${cathode} tells them apart: high there means current, low means the load.`;
export const noScreenVoltageOpen = (feed: Value) =>
  say`No screen voltage: ${feed} open, or its capacitor shorted. The tube passes almost no current.`;
export const itsFeed = () => say`its feed`;
export const highScreenDrawsToo = () => say`High: the screen draws too little. Weak tube or cathode open. Look at the cathode next.`;
export const lowGoneHighCapacitor = (feed: Value) =>
  say`Low: ${feed} gone high, its capacitor leaks, or the tube draws too much screen current.`;
export const voltsGridTubeHas = (caps: Value) =>
  say`Volts on a grid: ${caps}, or the tube has grid current. Pull the tube: if the voltage stays, it is the capacitor.`;
export const leaks = (caps: Value) => say`${caps} leaks`;
export const couplingCapacitorLeaks = () => say`the coupling capacitor leaks`;
export const tooLittleBiasGrid = (caps: Value) =>
  say`Too little bias at this grid: ${caps}the grid leak is open, or the bias supply is low. Switch off before the tube overheats.`;
export const leaks2 = (caps: Value) => say`${caps} leaks, `;
export const moreNegativeThanExpected = () =>
  say`More negative than expected: look at the bias supply, or the stage is being driven by a signal.`;
export const higherThanExpectedFollow = () => say`Higher than expected: follow the path towards the supply.`;
export const lowerThanExpectedFollow = () => say`Lower than expected: follow the path towards the supply.`;

// spoken
export const zeroVolts = () => say`zero volts`;
export const millivolts = (sign: Value, size: Value) => say`${sign}${size} millivolts`;
export const inBand = (what: Value) => say`in band. ${what}`;
export const expected = (verdict: Value, side: Value, what: Value, spokenVolts: Value) =>
  say`${verdict}, ${side}. ${what}. ${spokenVolts} expected`;

// bias-missing
export const biasIsMissing = (label: Value) =>
  say`${label} is missing or low. Switch off now: without bias the output tubes overheat within seconds.`;
