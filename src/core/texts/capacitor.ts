/** Texts of capacitor: what capacitors do, how they are judged, formed and replaced. */

import { say, type Value } from "../language/language";

// role
export const placeDoes = (place: string) =>
  ({
    "line to chassis": say`from the mains to the chassis: if it shorts, the chassis is live`,
    "across the line": say`across the mains, before or behind the switch: if it shorts, it burns`,
    "output to a jack": say`keeps the high tension off a jack: if it shorts, whoever plugs in is on the high tension`,
  })[place] ?? place;
export const roleNamed = () => say`holds a charge: named at Make safe`;
export const roleUnknown = () => say`what it does is not known: this job has no circuit`;
export const roleReservoir = (rail: Value) => say`first capacitor after the rectifier, on ${rail}`;
export const roleFilter = (rail: Value) => say`smooths and decouples ${rail}`;
export const roleBias = (rail: Value) => say`smooths the bias supply ${rail}; its plus is at chassis`;
export const roleScreen = (tubes: Value) => say`holds the screen of ${tubes} still`;
export const roleCathode = (tubes: Value) => say`bypasses the cathode of ${tubes}: gain and bass`;
export const roleCoupling = (from: Value, to: Value) => say`passes the signal from ${from} to ${to} and keeps the direct voltage back`;
export const roleFeedback = () => say`in the feedback from the speaker`;
export const roleTone = () => say`shapes the tone`;
export const roleToneLine = () => say`shapes the tone; one end at the line-connected chassis side`;
export const roleTreble = () => say`rolls off treble or keeps the amp from oscillating`;

// stress
export const doesNotSettle = (node: Value, mains: Value) =>
  say`the amp does not settle at ${node} with ${mains} V of mains: its capacitors cannot be judged`;

// coupling leak
export const sourceVoltsMeterOhms = () => say`source volts and meter ohms above zero are wanted`;
export const liftedLegShowsBetween = (sourceVolts: Value, readVolts: Value) =>
  say`a lifted leg shows between 0 and the ${sourceVolts} V on the other side; read ${readVolts}`;
export const gridShowsBetween = (rest: Value, source: Value, read: Value) =>
  say`a leak puts a grid between the ${rest} V that it rests at and the ${source} V of its source; read ${read}`;
export const putsGrid = (gridVolts: Value) => say`puts ${gridVolts} on the grid`;
export const nextNothing = () => say`next to nothing`;

// leakage limit
export const ratingsWanted = () => say`capacitance and rated volts are wanted: read them off the part and enter them in the table`;
export const limitModern = (small: boolean, charge: Value, amps: Value) =>
  small ? say`0.05 × ${charge} µC = ${amps}, 5 µA at least` : say`0.03 × ${charge} µC + 20 µA = ${amps}`;
export const limitOld = (k: Value, farads: Value, amps: Value) => say`${k} mA/µF × ${farads} + 0.3 mA = ${amps}`;
export const limitFilm = (ohms: Value, amps: Value) => say`rated volts / ${ohms} = ${amps}`;
export const sourceIec = () => say`IEC 60384-4, general-purpose grade`;
export const sourceOld = () => say`the scheme K·C + 0.3 mA of the standards for dry electrolytics of its time`;
export const sourceFilm = () => say`insulation that published data sheets give for the kind when new`;

// measured
export const capacitanceLow = (part: Value, electrolytic: boolean) =>
  electrolytic ? say`${part} of the marked value: drying out` : say`${part} of the marked value`;
export const capacitanceHigh = (part: Value, paper: boolean) =>
  paper
    ? say`${part} of the marked value: a meter reads a leaky one too high`
    : say`${part} of the marked value: check the marking, µF against pF`;
export const ofMarked = (part: Value) => say`${part} of the marked value`;
export const seriesOhms = (most: Value) => say`up to ${most} is usual`;
export const dissipationMost = (most: Value) => say`up to ${most} is usual for the kind`;

// verdict
export const leaks = (amps: Value, at: Value) => say`leaks ${amps}${at}`;
export const atVolts = (volts: Value) => say` at ${volts} V`;
export const allowed = (amps: Value) => say`${amps} allowed`;
export const seriesShown = (ohms: Value) => say`${ohms} in series`;
export const leaksThrough = (ohms: Value) => say`leaks through ${ohms}`;
export const noLeak = () => say`no leak measurable`;
export const replacedHere = (line: Value) => say`replaced in this job, line ${line}`;
export const safetyType = (safety: Value) =>
  say`only a safety type of class ${safety} may stand here (IEC 60384-14); the old one is not reused`;
export const readClass = (safety: Value) =>
  say`replaced here: read off the new one that it is of class ${safety} (IEC 60384-14), and note it`;
export const jackPaper = () => say`old paper between high tension and a jack: whoever plugs in relies on it`;
export const eyeFound = (seen: Value) => say`found at the look: ${seen}`;
export const backwards = (volts: Value) =>
  say`drawn with its plus at −${volts} V: look how it is in. If the part is so, replace it and turn the new one round; if the drawing is, correct it`;
export const overRating = (worst: Value, rated: Value) => say`sees up to ${worst} V and is rated for ${rated} V`;
export const noMarginLeft = (worst: Value, rated: Value) =>
  say`no margin: up to ${worst} V with the tubes out and the mains up a tenth, rated for ${rated} V`;
export const reformFailed = () => say`could not be reformed`;
export const reformHeld = () => say`reformed and within its limit`;
export const badName = (does: Value, times: number) =>
  times === 1 ? say`a bad name in this shop: ${does} (seen once)` : say`a bad name in this shop: ${does} (seen ${times} times)`;
export const ratingUnread = () => say`its capacitance or rated volts are not known: read them off the part`;
export const young = (age: Value) => say`${age} years old: nothing speaks against it`;
export const middling = (age: Value) => say`${age} years old: measured, it may stay`;
export const aged = (age: Value) => say`${age} years old`;
export const ageUnknown = () => say`age not known`;
export const schoolReplace = (old: Value) => say`${old}: this shop replaces electrolytics of that age`;
export const schoolTest = (old: Value) => say`${old}: measure its leakage at working volts, capacitance and series resistance`;
export const schoolReform = (old: Value) => say`${old}: reform it before full voltage, then judge by its leakage`;
export const testedSound = (old: Value) => say`${old}, measured sound`;
export const paperReplace = (old: Value) => say`${old}: paper takes up water and leaks`;
export const paperTest = (old: Value) => say`${old}: paper; measure its leakage with one leg lifted`;
export const soundKind = (kind: Value) => say`${kind}: keeps for decades; replaced only when measured bad`;
export const film = () => say`film`;

// board
export const boardCause = (cause: string, part: Value, tube: Value) =>
  ({
    capacitor: say`${part} leaks`,
    board: say`the board conducts between neighbours`,
    tube: say`${tube} draws grid current`,
  })[cause] ?? cause;
export const boardTest = (test: string, part: Value, tube: Value) =>
  ({
    neighbours: say`Read the other grids along the same strip: is it one, or are there several?`,
    breath: say`Breathe on the board beside the grid, from a hand's breadth away, a meter clipped on: do the volts move?`,
    heat: say`Warm air on the board for two minutes, clipped on, hands away: do the volts move?`,
    pull: say`Power off, ${tube} out, power on: are the volts on its grid gone?`,
    lift: say`Proven dead, lift the grid side of ${part}; power on: are the volts on the grid gone?`,
    clean: say`Proven dead, clean the strip with alcohol, brush, dry it warm for an hour; read again: have the volts fallen?`,
  })[test] ?? test;

// reforming
export const aboveRating = (working: Value, rated: Value) =>
  say`it sees ${working} V in its place and is rated for ${rated} V: it is not reformed, it is replaced`;
export const onlyElectrolytics = () => say`only electrolytics reform`;
export const safetyNeverReformed = () => say`a part that safety hangs on is not reformed but replaced`;
export const seenBad = (seen: Value) => say`the eye has found: ${seen}`;
export const coldShort = () => say`a few kilohms across it cold: shorted inside`;
export const driedOut = (left: Value) => say`${left} % of its capacitance left: dried out, reforming brings nothing back`;
export const wasBackwards = () => say`drawn backwards: look how it is in first`;
export const readFirst = () => say`no reading at this step yet`;
export const punctured = (volts: Value, held: Value, supply: Value) =>
  say`punctured: it held ${held} V and now has ${volts} V across it, the supply at ${supply} V. Stop and replace it`;
export const takesAll = (volts: Value, supply: Value) =>
  say`it takes all that the resistor lets through and comes up no more: ${volts} V of ${supply} V. Stop and replace it`;
export const comesUp = (volts: Value, supply: Value) =>
  say`it still takes nearly all that the resistor lets through, ${volts} V of ${supply} V across it: go on while its volts rise`;
export const neverPerhaps = () => say`never`;
export const leakageRises = (least: Value, now: Value) =>
  say`the leakage rises at the same voltage, from ${least} to ${now}: stop and replace it`;
export const underDwell = (amps: Value, bound: Value, left: Value) =>
  say`${amps}, under the ${bound} of this step; hold it for ${left} more`;
export const underRaise = (amps: Value, bound: Value) => say`${amps}, under the ${bound} of this step: raise the supply to the next`;
export const underKeep = (amps: Value, bound: Value) => say`${amps} at its working voltage, under the ${bound} allowed: keep`;
export const voltsNotThere = (volts: Value, target: Value) =>
  say`${volts} V of ${target} V are across it, the rest is in the series resistor: go on until they are there`;
export const endsAbove = (final: Value, low: Value, bound: Value) =>
  say`it will settle at ${final}, hardly below ${low}; ${bound} are allowed. Stop and replace it`;
export const reachesIn = (time: Value, low: Value, high: Value) =>
  say`falls to its limit in about ${time} (between ${low} and ${high}, 95 of 100): go on`;
export const fewReadings = (n: Value, least: Value) => say`${n} of ${least} readings that a prediction needs: go on`;
export const cannotTellYet = (bound: Value) => say`above the ${bound} of this step, and the readings do not say yet where it ends: go on`;
export const clockStood = (n: Value) => say`${n} readings left out: the tester's clock stood still`;
export const clockWentBack = (n: Value) => say`${n} readings left out: the tester's clock went back`;
export const rangeChanged = (n: number) =>
  n === 1
    ? say`the meter changed its range once: readings weigh by the digit of their range`
    : say`the meter changed its range ${n} times: readings weigh by the digit of their range`;
export const plugFirst = () => say`The amp's plug is in: take it out before a supply goes to a part of it.`;
export const caseUnknown = () =>
  say`Nobody knows yet what the can's case is joined to: measure case to minus and to chassis first, and note it.`;
export const chassisAtTestVolts = () =>
  say`The can's case is on the chassis, and this tester has its test voltage on the negative lead: the chassis and every screw of it would stand at the test volts. Lift the can off the chassis, or use a supply without a connection to earth.`;
export const lineNeedsIsolation = () =>
  say`Line-connected set: a supply that has a way to earth or to the wall makes its chassis live. Use an isolated supply.`;
export const supplyOnEarth = () => say`The supply's minus has to go to the chassis; one with a way to earth ties them together.`;
export const bleedersCarry = () =>
  say`In its amp, bleeders and dividers carry current too: lift the plus lead, or what is read is not the capacitor's.`;

// substitution
export const atLeast = (x: Value) => say`${x} at least`;
export const atMost = (x: Value) => say`${x} at most`;
export const between = (low: Value, high: Value) => say`${low} to ${high}`;
export const years = (n: Value) => say`${n} years`;
export const belowUnloaded = () => say`below what it sees with the tubes out or cold and the mains up a tenth`;
export const noMargin = () => say`no margin over what it sees unloaded`;
export const tooSmall = (role: string) =>
  ({
    reservoir: say`more ripple`,
    filter: say`more ripple and coupling between stages`,
    bias: say`more hum on the bias`,
    coupling: say`less bass`,
    "cathode bypass": say`less gain in the bass`,
  })[role] ?? say`another tone`;
export const tooLarge = (role: string) =>
  ({
    reservoir: say`higher charging peaks in rectifier and winding`,
    filter: say`longer charge after the power is off`,
    bias: say`the bias comes up late, when the tubes are hot already`,
    coupling: say`slower recovery from overdrive`,
    "line to chassis": say`more current to a touched chassis`,
  })[role] ?? say`another tone`;
export const overFirst = (tube: Value) => say`above the largest first capacitor that the sheet of ${tube} allows`;
export const ofSheet = (tube: Value) => say`sheet of ${tube}`;
export const rippleUnknown = () => say`read it off the data sheet`;
export const filmRipple = () => say`film bears it`;
export const heatsItself = () => say`it would heat itself`;
export const classUnknown = () => say`temperature class not given`;
export const hoursUnknown = () => say`hours at the class temperature not given`;
export const tenDegrees = (inside: Value, hours: Value) =>
  say`twice the hours for each 10 °C below the class; ${inside} °C inside, ${hours} h a year`;
export const noneMarked = () => say`none marked`;
export const filmWanted = () => say`film`;
export const electrolyticLeaks = () => say`an electrolytic leaks onto the grid`;
export const otherMounting = () => say`another mounting: a clamp or new holes, to be agreed`;
export const caseWords = (lead: string) =>
  ({ minus: say`case at minus`, insulated: say`case insulated`, plus: say`case at plus`, unknown: say`case not known` })[lead] ?? lead;
export const caseOther = () => say`its case is joined to another lead than the old one's`;
export const lugUnknown = () => say`which lug is the case has to be measured first`;
export const noSuchCapacitor = (part: Value) => say`there is no capacitor ${part} in this circuit`;
export const noFilmFor = (volts: Value) => say`no film capacitor is sold for ${volts} V`;
export const noElectrolyticFor = (volts: Value) => say`no two electrolytics in series are sold for ${volts} V`;
export const twoInSeries = (each: Value) => say`no single one is sold for the volts: two of ${each} V in series, a resistor across each`;
export const dissipates = (watts: Value) => say`${watts} in it; half a rating keeps it near 80 °C`;
export const usualOfWatts = () => say`usual for its watts; its sheet decides`;
export const flameproofWanted = () => say`one that goes open and does not burn`;
export const wouldBurn = () => say`a short behind it would burn it: metal oxide, wirewound or fusible`;
export const charsBoard = () => say`on the board it would char it: keep it off`;
export const noRectifier = (name: Value) => say`${name} is no rectifier of this circuit`;
export const emptyCapacitors = () => say`into empty capacitors at the worst moment of the mains, a tenth up`;
export const withMargin = () => say`a third more than the winding gives, for surges of the street`;
export const seriesFor = (ohms: Value, paths: number) =>
  paths > 1 ? say`${ohms} between rectifier and first capacitor bring it back` : say`${ohms} in series with the diode bring it back`;
export const withinRatings = () => say`within their ratings`;
export const allWithin = () => say`all within`;
export const higherRatings = () => say`fit capacitors of a higher rating first, or keep the slow rectifier`;
export const noSlowStart = () => say`the rails are up before the tubes are warm, each time it is switched on`;
export const potLoads = () => say`what stands before and behind it sees these ohms`;
export const atHalf = (decibels: Value) => say`${decibels} at half a turn against the old one`;
export const intoLoad = (primary: Value, load: Value) => say`${primary} with ${load}`;
export const gapped = () => say`through a gapped core`;
export const noSuchWinding = () => say`no such winding`;
export const otherPins = () => say`other pins: it does not go into the socket as it is wired`;
export const windingBears = () => say`whether the winding bears it has to be known`;
export const biasAgain = () => say`set the bias anew, cold first`;
export const cathodeAgain = () => say`another cathode resistor may be wanted`;

// kit
export const canComesOut = (can: Value, others: Value) => (others ? say`${can} comes out whole, with ${others}` : say`${can} comes out`);
export const atSockets = (tubes: Value) => say`at the socket of ${tubes}`;
export const pairInSeries = () => say`two in series`;
export const fromDrawer = (number: Value) => say`number ${number} of the stock`;

// typed-part
export const valueNotRead = () => say`its value cannot be read; it comes first: 22 nF 630 V film`;
export const voltsNotNamed = () => say`the volts that it is rated for are not named: 22 nF 630 V film`;
export const wattsNotNamed = () => say`the watts that it is rated for are not named: 56 k 2 W metal-oxide`;
export const kindNotNamed = () => say`its kind is not named: film, electrolytic, metal-oxide`;
export const notChecked = (why: Value) => say`not checked in its place: ${why}`;
export const notSolved = () => say`what bears on it is not solved`;

// What stands on a capacitor, as it is typed.
export const sizeNotRead = (why: Value) => say`Size: ${why}; accepted: 32u, 100uF, 22n`;
export const sizeOutside = (echo: Value) => say`Size: read ${echo}; accepted: 0.1 pF to 1 F`;
export const ratedNotRead = (why: Value) => say`Rated volts: ${why}; accepted: 450`;
export const ratedOutside = (echo: Value) => say`Rated volts: read ${echo}; accepted: 1 to 20,000 V`;
