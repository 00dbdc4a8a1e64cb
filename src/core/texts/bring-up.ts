/** Texts of bring-up. */

import { say, type Value } from "../language/language";

// corridor
export const stopWhereSoundAmp = (amps: Value, high: Value) =>
  say`Stop: ${amps}, and a sound amp takes at most ${high}. Turn the dial back and pull the plug: something in this stage is shorted or has no bias`;
export const stopTubeAboveRating = (amps: Value, over: Value) =>
  say`STOP, off: at ${amps} an output tube without its bias stands above its rating (from ${over} on). Dial down, plug out, look for its bias`;
export const tubeAboveRating = (tube: Value, watts: Value, rated: Value) =>
  say`STOP, off: ${tube} burns ${watts} where ${rated} are rated. Dial down, plug out, look for its bias`;
export const aboveCorridorWaitFeel = (low: Value, high: Value) =>
  say`Above the expected ${low} to ${high}: wait, feel for heat, and go no further while the current rises`;
export const belowCorridorHeaterHigh = (low: Value, high: Value) =>
  say`Below the expected ${low} to ${high}: a heater or the high tension draws too little`;
export const stopSoundAmpLeaves = (expected: Value) => say`Stop: with a sound amp this lamp is ${expected}. It limits a short now`;
export const brighterThanSoundAmp = (expected: Value) =>
  say`Brighter than with a sound amp (${expected}): wait a minute, and stop if it does not fade`;
export const darkerThanExpectedSomething = (expected: Value) =>
  say`Darker than expected (${expected}): something draws no current. Check the fuse, the switch and the heaters`;
export const lampTooSmallSound = (watts: Value, nearest: Value, watts2: Value) =>
  say`Once all tubes are in, a ${watts} W lamp is too small: a sound amp lights it and gets ${nearest} % of the volts. Take ${watts2} W`;
export const lampTooLargeLets = (watts: Value, watts2: Value) =>
  say`A ${watts} W lamp is too large: it lets a short burn. Take ${watts2} W`;

// fuse-isolation
export const nothingShortedNowFuse = () => say`nothing is shorted now: the fuse was aged, or too small for the surge at power-on`;
export const shortMainsSideCord = () => say`short on the mains side: cord, switch or the capacitor across the line`;
export const shortMainsSideCord2 = () => say`short on the mains side: cord, switch, primary`;
export const highTensionWindingOne = () => say`high-tension winding: one half has shorted turns`;
export const highTensionWindingShorted = () => say`high-tension winding: shorted turns`;
export const htWinding = () => say`HT winding`;
export const shortAcrossHeaterWinding = () => say`short across a heater winding: leads, a lamp holder, a socket`;
export const rectifierShortedArcs = (value: Value) => say`${value}: the rectifier is shorted, or arcs`;
export const diodeShorted = (value: Value) => say`${value}: a diode is shorted`;
export const biasSupplyMissing = (value: Value) => say`the bias supply is missing: ${value}`;
export const isShorted = (part: Value, bias: Value) => say`${part} is shorted${bias}`;
export const noBias = () => say`: no bias`;
export const outputTransformerPrimaryBroken = (value: Value) => say`output transformer ${value}: primary broken through to the core`;
export const shortedInside = (tube: Value) => say`${tube} is shorted inside`;
export const shortedPlateVoltsGrid = (c: Value, tube: Value) => say`${c} is shorted: plate volts on the grid of ${tube}`;
export const oneLegLiftedOhms = (part: Value) => say`${part} with one leg lifted, ohms across it`;
export const diodeTestOneEnd = (part: Value) => say`${part}: diode test, one end off; winding volts before it`;
export const outSocketPlatesCathode = (part: Value) => say`${part} out of its socket, plates to cathode and to each other`;
export const diodeTestEachDiode = (part: Value) => say`${part}: diode test of each diode, one end off`;
export const primaryLeadsOffOhms = (part: Value) => say`${part} with its primary leads off, ohms to the core`;
export const highTensionWindingOff = () =>
  say`High-tension winding off, its ohms against what such a winding has, or a lamp with nothing connected`;
export const primaryOffOhmsAcross = () => say`Primary off: ohms across the plug's pins, switch on, fuse in`;
export const heaterLeadsOffTransformer = () => say`Heater leads off the transformer, ohms across each pair, tubes out`;
export const powerEveryTubeOut = () => say`Power on, all tubes removed`;
export const powerOnly = (names: Value) => say`Power on, only ${names} fitted`;
export const powerOutputTubesOut = () => say`Power on, output tubes removed`;
export const powerOutputTubesOnly = (tube: Value) => say`Power on, of the output tubes only ${tube} fitted`;
export const powerIn = (tube: Value) => say`Power on, ${tube} fitted`;
export const powerAllTubes = () => say`Power on, all tubes fitted`;
export const powerEverySecondaryLead = () => say`Power on, every secondary lead unsoldered`;
export const powerAllTubesSeries = () => say`Power on, all tubes fitted (a series heater string needs them all)`;
export const ohmsFromChassisPlug = (label: Value, value: Value) => say`Ohms from ${label} (${value} +) to chassis, plug out`;
export const ohmsAcrossPlugOut = (value: Value) => say`Ohms across ${value}, plug out`;
export const ohmsFirstHalfTubes = (value: Value) => say`Ohms of ${value}, first half, tubes out`;
export const ohmsSecondHalfTubes = (value: Value) => say`Ohms of ${value}, second half, tubes out`;
export const ohmsOutSocketPlate = (tube: Value) => say`Ohms in ${tube} out of its socket, plate to cathode`;
export const ohmsBothHalvesHigh = () => say`Ohms of both halves of the high-tension winding, rectifier out`;
export const biasOutputSocketsOutput = () => say`Bias at the output sockets, output tubes out, behind the lamp`;

// load
export const openCoilLeadPlug = () => say`open: coil, lead or plug. Without a load the output transformer can flash over`;
export const shortLeadPlugCoil = () => say`a short: lead, plug or a coil that rubs bare`;
export const aboveTapScreensWork = () => say`above the tap: screens work harder, plates swing higher`;
export const belowTapPlatesWork = () => say`below the tap: plates work harder, less power`;
export const timesTap = (ratio: Value, how: Value) => say`${ratio} times the tap, ${how}`;
export const burnsAmpWhenDriven = (watts: Value, ampWatts: Value, wanted: Value) =>
  say`burns: ${watts} W for an amp of ${ampWatts} W, ${wanted} W when driven hard`;
export const enoughSineNotWhen = (wanted: Value) => say`enough for a sine, not for ${wanted} W when driven hard: short tests only`;
export const aboveZeroWantedRead = (name: Value, x: Value) => say`${name} above zero is wanted; read ${x}`;

// mains-frame
export const railsHeaters = (rails: Value) => say`rails and heaters ${rails}`;
export const fluxFrequency = (flux: Value) => say`core flux ${flux} by the frequency`;
export const transformerSaturatesHeatersBurn = (why: Value) =>
  say`${why}: the transformer saturates or the heaters burn; another tap or a step-down transformer`;
export const belowWorkingCurrentWill = (amps: Value) => say`below the working current of ${amps} A: it will blow without a fault`;
export const protectsNothingSlowWould = (fits: Value) => say`too large to protect the amp: fit ${fits} A slow`;
export const largeSlowFitsWorking = (fits: Value, amps: Value) =>
  say`larger than needed: ${fits} A slow suits a working current of ${amps} A`;

// predict-stages
export const betweenPositionsAmpComes = () => say`between its positions the model does not settle`;
export const risesFrom = (name: Value, before: Value, work: Value) => say`${name} rises from ${before} to ${work} W`;
export const screenRises = (name: Value, work: Value) => say`the screen of ${name} rises to ${work} W`;
export const electrodeHangsNothing = (name: Value) => say`an electrode of ${name} is left floating`;
export const wiperOffTrack = () => say`with its wiper off the track`;
export const betweenPositions = () => say`between its positions`;

// settle
export const readingsOverMinMore = (leastPoints: Value, leastMinutes: Value, length: Value, span: Value) =>
  say`${leastPoints} readings over ${leastMinutes} min or more say whether it has settled; ${length} over ${span} min so far.`;
export const afterMin = (last: Value, last2: Value) => say`${last} after ${last2} min`;
export const stillChangingTenMinutes = (figures: Value, slope: Value) =>
  say`${figures}, still changing ${slope} % in ten minutes and not slowing: find out why before it is left alone.`;
export const settled = (figures: Value) => say`${figures}: settled.`;
export const wayMinMore = (figures: Value, end: Value, tau: Value) => say`${figures}, heading for ${end}: about ${tau} min more.`;

// stage-reading
export const voltsGridShouldHave = () => say`volts on a grid that should have none: a leaky coupling capacitor`;
export const gridPulledNegative = () => say`a grid pulled negative`;
export const expected = (expected: Value, mains: Value) => say`${expected} expected${mains}`;

// stages
export const noTubesRailsCome = () => say`No tubes: the rails come up at once`;
export const noTubesWindingsOnly = () => say`No tubes: windings only`;
export const pullEveryTubeNote = () => say`Remove every tube and note its socket`;
export const solidStateRectifierCharges = () =>
  say`The solid-state rectifier charges the rails unloaded: read them at each turn of the dial, against the capacitors' ratings`;
export const nothingRectifiesCurrentTransformers = () =>
  say`Nothing is rectified yet: the current is the transformer's own. Read each winding at full volts, to chassis or centre tap`;
export const doublerUnloadedRailReaches = () => say`a doubler: the unloaded rail reaches twice the winding's peak`;
export const solidStateRectifierNo = () => say`solid-state rectifier: no tube delays the rails`;
export const shortedTransformerShowsHere = () => say`a shorted transformer shows here, before anything else can burn`;
export const rectifierOnlyRailsUnloaded = () => say`Rectifier only: rails unloaded`;
export const putOnly = (a: Value) => say`Fit ${a} only`;
export const turnSlowlyRailsRise = () => say`Turn slowly; the rails rise above what they have under load: against the capacitors' ratings`;
export const tubeRectifierDoesLittle = () => say`a tube rectifier does little until its heater is near full volts`;
export const biasEachOutputSocket = () => say`Bias at each output socket`;
export const outputTubesStillOut = () => say`Output tubes still removed, full mains`;
export const readGridPinEvery = () => say`Read the grid pin of every output socket, and turn the adjuster from end to end once`;
export const withoutBiasOutputTube = () => say`without bias an output tube runs away in seconds`;
export const loadConnected = () => say`Load connected`;
export const powerOffSpeakerDummy = () => say`Power off. Speaker or dummy load on the right tap; measure it through its own lead`;
export const outputTransformerWithoutLoad = () => say`an output transformer without load can flash over`;
export const smallTubes = () => say`Small tubes`;
export const putOutputTubesStill = (a: Value) => say`Fit ${a}; output tubes still removed`;
export const readGridPinEach = () => say`Read the grid pin of each output socket: anything above zero comes through a coupling capacitor`;
export const railsBeginComeDown = () => say`the rails begin to come down`;
export const couplingCapacitorsGetTheir = () => say`coupling capacitors get their full volts: a leak shows at the sockets`;
export const outputTube = (tube: Value) => say`Output tube ${tube} fitted`;
export const othersStayOut = () => say`leave the others out`;
export const stayIn = (a: Value) => say`${a} stay fitted`;
export const stopFirstGlowPlate = () => say`Switch off at the first glow of a plate or jump of the current`;
export const fuseHasBlownOne = () => say`a fuse has blown: one tube at a time, so that the one that does it is seen`;
export const outputTubes = () => say`Output tubes`;
export const outputTube2 = () => say`Output tube`;
export const putIn = (a: Value) => say`Fit ${a}`;
export const watchPlatesFromSide = () => say`Watch the plates from the side; switch off at the first red glow`;
export const fullLoad = () => say`the full load`;
export const isolationTransformer = () => say`Isolation transformer`;
export const setBehindIsolationTransformer = () => say`Set behind an isolation transformer, the variable transformer before it`;
export const measureChassisEarthPlug = () => say`Measure chassis to earth with the plug in both ways: it must float`;
export const oneSideLineChassis = () =>
  say`the chassis is one side of the mains: an earthed lead on it makes a short, touching it gives a shock`;
export const heaterStringCold = () => say`Heater string, cold`;
export const ohmsAcrossStringSwitch = () => say`Ohms across the string with the switch on and the plug out`;
export const openReadAcrossSingle = () => say`If it is open, measure each heater at Cold checks`;
export const seriesStringOneOpen = (a: Value) => say`series string ${a}: one open heater puts all of them out, so no tube is pulled here`;
export const speakerDummyLoadMeasure = () => say`Speaker or dummy load on; measure it through its own lead`;
export const allTubesDialUp = () => say`All tubes fitted, turn the dial up slowly`;
export const everyTubeStaysPulling = () => say`Leave every tube in: pulling one opens the heater string`;
export const halfVoltsFirstHeaters = () => say`Half voltage first: all heaters glow evenly, none flares up`;
export const readReservoirRectifierWarms = () => say`Read the reservoir as the rectifier warms`;
export const seriesStringThereNo = () => say`series heater string: there is no stage without tubes`;
export const fullMainsNoLimiter = () => say`Full mains, no limiter`;
export const takeLampOutIsolated = () => say`Take the lamp out. The isolation transformer stays, here and at every powered step`;
export const takeLampOutStraight = () => say`Take the lamp out, straight to the wall`;
export const currentOnceMoreThen = () => say`Read the current once more, then go to Walk`;
export const onlyNowDoPrinted = () => say`the voltages of the chart hold only at full mains without a lamp`;
export const settlingRun = () => say`Settling run`;
export const leaveIdleReadBias = () => say`Leave it on, idle; read bias and rail every few minutes`;
export const throughWhenReadingsNo = () => say`It is finished when the readings no longer drift`;
export const whatChangesWarmsShows = () => say`what changes as it warms shows here: bias that sags, a tube that runs away`;

// watches
export const biasSupply = () => say`Bias supply`;
export const socketGrid = (tube: Value) => say`${tube} socket, grid`;
export const pin = (tube: Value, pin: Value) => say`${tube} pin ${pin}`;
export const cathode = (tube: Value) => say`${tube} cathode`;
export const highTensionWindingFirst = () => say`High-tension winding, first half`;
export const highTensionWindingSecond = () => say`High-tension winding, second half`;
export const highTensionWinding = () => say`High-tension winding`;
export const biasWinding = () => say`Bias winding`;
export const heaterWinding = (name: Value, h: Value) => say`Heater winding ${name}, for ${h}`;
