/** Texts of inspection. */

import { say, type Value } from "../language/language";

// claims
export const theCapacitors = "the capacitors";
export const theTubes = "the tubes";
export const theSpeaker = "the speaker";
export const theTransformers = "the transformers";
export const theControls = "the controls";
export const cordFuse = "cord and fuse";
export const datedAfterWorkSaid = (place: Value, dated: Value) => say`${place} is dated ${dated}: after the work is said to have been done`;
export const datedFits = (place: Value, dated: Value) => say`${place} is dated ${dated}: this fits`;
export const datedLongBeforeSo = (place: Value, dated: Value) =>
  say`${place} is dated ${dated}: long before, so this one was not renewed then`;
export const dateCodesSolder = (what: Value) => say`Date codes and solder of ${what}`;
export const newSolderNewParts = () => say`New solder, new parts, broken seals`;
export const askWhichYearWas = () => say`; ask in which year it was done`;
export const against = (year: Value) => say` against ${year}`;

// dating
export const rangeRunsBackwards = () => say`the first year is after the last`;
export const weekSourceDateCode = (week: Value) => say`week ${week}: a source-date code ends in a week from 01 to 53`;
export const yearBefore = (source: Value, first: Value) => say`year ${source} is before ${first}`;
export const sourceDateCodeMaker = (source: Value, source2: Value, week: Value) =>
  say`source-date code: maker ${source}, year ${source2}, week ${week}`;
export const weekOf = (weekYear: Value, weekYear2: Value) => say`week ${weekYear} of '${weekYear2}`;
export const year = (full: Value) => say`year ${full}`;
export const notCodeReadHere = () =>
  say`not a code that is read here; accepted: 137-6118 style source-date codes, 23/61 (week/year), 6123 (year, week), 1961, 1958-1961`;
export const thereNoWeek = (week: Value) => say`there is no week ${week}`;
export const noYearFrom = (two: Value, first: Value, last: Value) => say`no year '${two} from ${first} to ${last}`;
export const yearWeek = (two: Value, week: Value) => say`year '${two}, week ${week}`;
export const not = (value: Value, why: Value) => say` (not ${value}: ${why})`;
export const noDateCodeRead = (from: Value, model: Value) => say`No date code read yet. The model was made from ${from} to ${model}.`;
export const noDateCodeRead2 = () => say`No date code read yet.`;
export const madeAllCodesAgree = (describe: Value, length: Value) => say`Made ${describe}: all ${length} codes agree.`;
export const madeExceptDoesNot = (describe: Value, place: Value, code: Value, nearest: Value) =>
  say`Made ${describe}, except the ${place} (${code}, ${nearest}): it does not fit and may be a replacement.`;
export const doesNotFitModel = (place: Value, code: Value, from: Value, model: Value) =>
  say`The ${place} (${code}) does not fit a model made from ${from} to ${model}: it may be a replacement.`;
export const codesContradictEachOther = () =>
  say`The codes contradict each other and no single part explains it: more than one part was replaced, or a code was misread.`;

// inspection-around
export const tubeSockets = () => say`tube sockets`;
export const spreadContactsCrackedWafers = () => say`Spread contacts, cracked wafers, brown tracks between pins`;
export const socketContactLooseTracked = () => say`socket contact loose or tracked`;
export const cleanReTensionReplace = () => say`clean and re-tension, or replace`;
export const solderJoints = () => say`solder joints`;
export const greyCrackedRingedJoints = () => say`Grey, cracked or ringed joints, first at heavy parts and hot pins`;
export const coldCrackedJoint = () => say`cold or cracked joint`;
export const shaftsNutsSwitchesLoose = () => say`Shafts, nuts and switches: loose, stiff, bent`;
export const turnedPlayers = () => say`turned by players`;
export const controlLooseStiff = () => say`control loose or stiff`;
export const tightenClean = () => say`tighten or clean`;
export const chassisCase = () => say`chassis and case`;
export const carriageDamageLooseTransformers = () => say`Carriage damage, loose transformers, missing screws, something rattling`;
export const cameRoad = () => say`it was transported`;
export const looseMissingHardware = () => say`loose or missing hardware`;
export const secureIt = () => say`secure it`;
export const allOver = () => say`the whole amp`;
export const brokenSealsNewSolder = () => say`Broken seals, new solder, parts of another age, wiring that makes no sense`;
export const workSaidHaveBeen = () => say`work is said to have been done`;
export const mostAmpsHaveBeen = () => say`most amps have been opened`;
export const evidenceEarlierWork = () => say`evidence of earlier work`;
export const checkAgainstCircuit = () => say`check it against the circuit`;
export const replacedParts = () => say`replaced parts`;
export const coloursPrintEveryPart = (firstCapacitor: Value) =>
  say`Colours and print of every part that looks newer against the circuit (first capacitor ${firstCapacitor})`;
export const wrongValuesComeRepairs = () => say`repairs often bring wrong values`;
export const wrongValueFitted = () => say`wrong value fitted`;
export const fitValueCircuit = () => say`fit the value of the circuit`;
export const asClaimed = () => say`as claimed`;
export const doesLookSo = (text: Value, when: Value) => say`“${text}”: does it look like that?${when}`;
export const partsShouldDatedNear = (when: Value) => say` Parts should be dated near ${when}`;
export const claimNotFact = () => say`a claim is not a fact`;
export const notClaimed = (text: Value) => say`not as claimed: ${text}`;
export const tellOwner = () => say`tell the owner`;
export const bears = (type: Value, most: Value) => say`, ${type} allows ${most}`;
export const asDrawn = () => say`as drawn`;

// inspection-inside
export const seleniumPlatesBurstDiscoloured = () =>
  say`Selenium plates: burst or discoloured; a smell of garlic or rotten radish is poisonous: air the room`;
export const seleniumRectifier = () => say`selenium rectifier`;
export const seleniumRectifierAged = () => say`selenium rectifier aged`;
export const fitSiliconSeriesResistor = () => say`fit silicon with a series resistor`;
export const brownPaintCharredBoard = () => say`Brown paint, charred board or blistered wax under the resistors that run hot`;
export const ofWOrMore = (length: Value, hotWatts: Value) => say`${length} of ${hotWatts} W or more`;
export const hasRunHot = () => say`has run hot`;
export const measureMountClearBoard = () => say`measure it; mount it clear of the board`;
export const mainsTransformer = (namesOf: Value) => say`mains transformer, ${namesOf}`;
export const tarWaxRunOut = () => say`Tar or wax run out, burnt smell, blue steel, loose laminations`;
export const transformerHasBeenHot = () => say`transformer has been hot`;
export const measureWindingsBeforePower = () => say`measure its windings before power`;
export const fluxWaxDustScorch = () => say`Flux, wax, dust or scorch marks between neighbours on the board`;
export const highLowVoltsLie = () => say`points of high and low voltage lie side by side`;
export const dirtTrackBetweenNeighbours = () => say`dirt or a track between neighbours`;
export const cleanBoardMeasureLeak = () => say`clean the board, measure the leak`;
export const bendOneRubberCovered = () => say`Bend one rubber-covered wire a little: brittle insulation cracks off`;
export const pinchedMeltedBareWires = () => say`Pinched, melted or bare wires`;
export const insulationBrittleBare = () => say`insulation brittle or bare`;
export const sleeveReplaceWire = () => say`sleeve or replace the wire`;
export const bulgingEndsCrustWet = () => say`Bulging ends, crust or wet at the seal, shrunken sleeve`;
export const originalFile = (dates: Value) => say`original of ${dates} by the file`;
export const electrolyticLeakingBulging = () => say`electrolytic leaking or bulging`;
export const replaceTestReform = () => say`replace, or test and reform`;
export const waxDripsCrackedMoulding = () => say`Wax drips, cracked moulding, oil: paper leaks long before it shows`;
export const paperCapacitors = (length: Value) => say`${length} paper capacitors`;
export const paperCapacitorsCrackedLeaking = () => say`paper capacitors cracked or leaking`;
export const measureLeakageReplace = () => say`measure the leakage, replace`;
export const plusHigherVoltsBias = (parts: Value) => say`Plus at the higher voltage; bias capacitors have plus at chassis${parts}`;
export const oneBackwardsLivesWhile = () => say`a reversed capacitor works for a while before it fails`;
export const capacitorBackwards = () => say`capacitor in backwards`;
export const replaceRightWayRound = () => say`replace it the right way round`;
export const typeEachSocketAgainst = (types: Value) => say`Type in each socket against the circuit: ${types}`;
export const socketsTakeTypesLook = () => say`different types fit the same socket`;
export const wrongTubeType = () => say`wrong tube type`;
export const fitRightType = () => say`fit the right type`;
export const whiteGetterAirLoose = () => say`White getter (air got in), loose base, cracked glass, milky or burnt mica`;
export const seenBeforeAnyTest = () => say`visible without a test`;
export const tubeGassyBroken = () => say`tube is gassy or broken`;
export const replaceIt = () => say`replace it`;
export const oneMakerOneDate = () => say`Same maker, same date, same structure inside`;
export const theyShareWork = () => say`they share the load`;
export const mixedSet = () => say`mixed set`;
export const matchReplaceSet = () => say`match or replace as a set`;
export const typeEachSocketAgainst2 = () => say`Type in each socket against the print on the chassis`;
export const noCircuitHere = () => say`no circuit here`;

// inspection-mains
export const mainsCord = () => say`mains cord`;
export const cordPlugStrainRelief = () => say`Cord, plug and strain relief: cracks, bare copper, knots in place of a clamp`;
export const cordCrackedNotHeld = () => say`cord cracked or not held`;
export const fitNewCordStrain = () => say`fit a new cord with strain relief`;
export const twoWiresThreeEarth = () => say`Two wires or three; the earth wire on its own bolt through bare metal`;
export const madeOftenTwoWires = (year: Value) => say`made by ${year}: often two wires only`;
export const twoWireCordChassis = () => say`two-wire cord, chassis not earthed`;
export const fitThreeWireCord = () => say`fit a three-wire cord, earth on its own bolt`;
export const fuseSwitch = () => say`fuse and switch`;
export const liveGoesFarEnd = () => say`Live goes to the far end of the fuse holder first, then the switch; neutral is not fused alone`;
export const wiredHandMostAmps = () => say`wired by hand in most amps`;
export const fuseSwitchNeutral = () => say`fuse or switch in the neutral`;
export const rewireLiveFuseThen = () => say`rewire: live to fuse, then switch`;
export const plugOutlet = () => say`plug and outlet`;
export const whichPinPlugLive = () =>
  say`Which pin of the plug is the live one, and which of the outlet: the switch and fuse must be in it`;
export const chassisOneTwo = () => say`the chassis is one of the two`;
export const outletsWiredOtherWay = () => say`outlets are wired the other way round now and then`;
export const liveNeutralChangedOver = () => say`live and neutral changed over`;
export const rewirePlugHaveOutlet = () => say`rewire the plug; have the outlet put right`;
export const ratingTypeFuseFoil = (circuit: Value) =>
  say`Rating and type of the fuse${circuit}; look for foil, wire or a nail in its place`;
export const slowBelongs = (fuse: Value) => say`: ${fuse} A slow belongs there`;
export const againstPlate = () => say` against the plate`;
export const firstThingBridged = () => say`a fuse is often bridged`;
export const wrongFuse = () => say`wrong fuse`;
export const fitRightFuse = () => say`fit the right fuse`;
export const lineChassis = () => say`line to chassis`;
export const capacitorFromEitherLine = () => say`A capacitor from either line wire to chassis`;
export const usualBeforeEarthedCords = () => say`usual before earthed cords`;
export const capacitorFromLineChassis = () => say`capacitor from line to chassis`;
export const removeFitSafetyType = () => say`remove it, or fit a safety type`;
export const knobGrubScrewsChassis = () =>
  say`Knob grub screws, chassis bolts and back: anything that a hand can reach and that is on the line`;
export const lineConnectedSet = () => say`line-connected set`;
export const lineConnectedMetalWithin = () => say`line-connected metal within reach`;
export const fitInsulationIsolationTransformer = () => say`fit insulation; isolation transformer at the bench`;
export const mainsWiring = () => say`mains wiring`;
export const bendWiresBeforeTransformer = () =>
  say`Every wire from the cord to fuse, switch, selector and transformer: bend each a little; rubber and cloth that crack bare it`;
export const mainsInsulationBrittle = () => say`insulation of the mains wiring brittle or bare`;
export const renewMainsWiring = () => say`renew the mains wiring, sleeved and tied`;
export const minusToChassis = () => say`B− to chassis, aerial, jack`;
export const capacitorFromMinus = () =>
  say`The capacitor (with its resistor) between the set's minus line and the chassis, the aerial or a jack: type, class, leakage`;
export const capacitorFromMinusShock = () =>
  say`Capacitor from B− to chassis, aerial or jack: the only thing between the mains and whoever touches them; paper, leaking or of no safety class`;
export const fitSafetyTypeMinus = () => say`fit a safety type, class Y, of the same value; the resistor across it checked`;
export const acrossLine = () => say`across the line`;
export const capacitorAcrossLineOld = () => say`The capacitor across the line: an old paper one is always live`;
export const paperCapacitorAcrossLine = () => say`paper capacitor across the line`;
export const fitSafetyTypeAcross = () => say`fit a safety type for across-the-line use`;
export const voltageSelector = () => say`voltage selector`;
export const primaryTapSelectorAgainst = (circuit: Value) => say`Primary tap or selector against the wall${circuit}`;
export const circuitHz = (volts: Value, hertz: Value) => say`; the circuit is for ${volts} V ${hertz} Hz`;
export const wrongTapLooksLike = () => say`a wrong tap looks like many faults`;
export const wrongPrimaryTap = () => say`wrong primary tap`;
export const changeTapWall = () => say`change to the tap for this wall`;

// inspection
export const ageNotKnown = () => say`age not known`;
export const aboutYearsOld = (age: Value) => say`about ${age} years old`;
