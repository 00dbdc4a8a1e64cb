/** The demo shop: settings, amps, jobs with their tapes and photos. */

import "reflect-metadata";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { BenchFault } from "@/bench/amp";
import { listen, type Heard } from "@/bench/recordings";
import type { RecordingTaken } from "@/core/tape/events/noise-events";
import { curveOf } from "@/core/sound/curve";
import { recordingLine } from "@/core/sound/recording-line";
import { soundsOf } from "@/core/sound/sounds";
import { writeWav } from "@/core/sound/wav";
import { storePhoto, storeRecording } from "@/server/attachments";
import type { Database } from "@/server/database";
import { addModel, type AmpModel } from "@/server/models";
import { putOnBench } from "@/server/bench";
import { markPlace } from "@/server/point-places";
import { saveSettings } from "@/server/settings";
import { appendPast, openJob } from "@/server/tape";
import { Days } from "./days";
import { DEMO_SETTINGS } from "./settings";
import { coldBias, venn } from "./jobs/drover";
import { ferry, rusk } from "./jobs/lantern";
import { chokes, halberdHead } from "./jobs/halberd";
import { foyerLantern } from "./jobs/foyer";
import { dryDecoupler, fortyMinutes, howl } from "./jobs/noise";
import { kitchenSet, museum } from "./jobs/minor";
import { lamplight } from "./jobs/picture-house";
import { marrowby, netmakers } from "./jobs/wren";
import { cabinet, can, pinOnUnderside, underside } from "./photos";
import { stockTubesOf } from "./stock";
import { stockPartsOf } from "./stock-parts";
import { HUM, humming } from "./jobs/hum";
import { asleep, wetBoard, WET_BOARD } from "./jobs/capacitors";

const AMPS = join(process.cwd(), "demo/amps");

/** The amps on the simulated bench: job, seed of its own parts, true faults. The seeds are those of the readings on the tapes. */
const ON_THE_BENCH: [number, number, BenchFault[]][] = [
  [1001, 37, [{ set: "R9=148k" }]],
  [1003, 23, [{ set: "C1=9u" }]],
  [1004, 11, [{ set: "C6=leak:60M" }, { set: "C6=leak:14M", afterMinutes: 10 }]],
  [1005, 41, [{ set: "C20=leak:220k" }, { set: "C20=leak:22k", afterMinutes: 25 }]],
  [1006, 47, [{ set: "TAP=1.09" }]],
  [1007, 59, [{ set: "V6=weak:0.25" }]],
  [1008, 13, [{ set: "R9=open" }]],
  [1009, 71, [{ set: "V6=winding-short" }]],
  [1010, 73, [{ set: "V2=heater-open" }]],
  [
    1011,
    79,
    [
      {
        set: "",
        part: "reverb return lead",
        sound: { kind: "squeal", level: -14, at: 1180 },
        when: "footswitch lead long & treble boost on",
      },
    ],
  ],
  [1012, 83, [{ set: "C3=0.5u" }]],
  [1013, 89, [{ set: "C8=open", afterMinutes: 40 }]],
  [1014, 97, [{ set: "P9=0.12" }]],
  [1015, 101, []],
  [
    1016,
    103,
    [
      { set: "", part: "C3", forms: "slow" },
      { set: "", part: "C4", forms: "hopeless" },
    ],
  ],
  [1017, 107, WET_BOARD],
  [1018, 109, HUM],
];

/** A recording made up and stored, as its line says it. */
async function recorded(database: Database, name: string, when: RecordingTaken["when"], heard: Heard[]): Promise<RecordingTaken> {
  const options = { rate: 22_050, seconds: 6, mains: 50, seed: 17, room: -66 };
  const samples = listen(heard, options);
  const { hash } = await storeRecording(database, writeWav([samples], options.rate, 16));
  const sounds = soundsOf({ rate: options.rate, channels: [samples], bits: 16, float: false, notes: [] }, 50);
  return recordingLine({ ...sounds, curve: curveOf(sounds.spectrum) }, { hash, name, when });
}

/** Fills an empty shop. `now` is the time that the tapes lead up to. */
export async function makeDemoShop(database: Database, now = new Date()): Promise<void> {
  await saveSettings(database, DEMO_SETTINGS);
  const model = async (file: string): Promise<AmpModel> => addModel(database, readFileSync(join(AMPS, `${file}.cir`), "utf8"));
  const [wren, lantern, drover] = [await model("wren-5"), await model("lantern-15"), await model("drover-40")];
  const [picture, minor, halberd] = [await model("picture-house"), await model("minor"), await model("halberd-120")];
  const store = async (picture: Promise<Buffer>) => (await storePhoto(database, await picture)).hash;
  const photo = {
    cabinet: await store(cabinet("#6b3a2e", true)),
    green: await store(cabinet("#2f4a3a", false)),
    red: await store(cabinet("#7c2f2a", false)),
    grey: await store(cabinet("#55585a", false)),
    underside: await store(underside(7, true)),
    underside2: await store(underside(23)),
    can: await store(can(true)),
  };
  // The Wren came before: somebody marked its pins on the photo then.
  const marks = {
    "V1A.p": ["V1", 1],
    "V1A.k": ["V1", 3],
    "V1B.p": ["V1", 6],
    "V1B.k": ["V1", 8],
    "V2.g": ["V2", 2],
    "V2.k": ["V2", 3],
    "V2.p": ["V2", 7],
    "V2.s": ["V2", 9],
  } as const;
  for (const [point, [tube, pin]] of Object.entries(marks))
    await markPlace(database, wren, { point, hash: photo.underside, ...pinOnUnderside(tube, pin) }, "P.Q.");
  const growl = await recorded(database, "growl on the bench.wav", "before", [{ kind: "hum-double", level: -17 }]);
  const take = async (id: number, owner: string, amp: string, serial: string, circuit: AmpModel | undefined, days: Days) => {
    const { contact } = days.events[0]!.payload as { contact?: string };
    await database.transaction((sql) => openJob(sql, { id, owner, contact, amp, serial, modelId: circuit?.id, who: "J.M." }));
    await appendPast(database, id, days.events);
  };
  const days = (model?: AmpModel) => new Days(now, model?.netlist);
  await take(1001, "Ferry Dance Orchestra", "Lantern 15", "TW-3907", lantern, ferry(days(lantern), photo));
  await take(1002, "Port Ellery Radio Museum", "Vantry Minor", "M-0093", undefined, museum(days()));
  await take(1003, "Captain Isolde Rusk", "Lantern 15", "TW-4411", lantern, rusk(days(lantern), photo, growl));
  await take(1004, "Mrs. Tilda Marrowby", "Wren 5", "B1177", wren, marrowby(days(wren), photo));
  await take(1005, "Osric Venn", "Drover 40", "D2208", drover, venn(days(drover), photo));
  await take(1006, "Netmakers' Hall committee", "Wren 5", "", wren, netmakers(days(wren), photo));
  await take(1007, "Lamplight Picture House", "Picture House", "PH-021", picture, lamplight(days(picture)));
  await take(1008, "Ferry Dance Orchestra", "Halberd 120", "OH-0217", halberd, halberdHead(days(halberd), photo));
  await take(1009, "Lamplight Picture House", "Lantern 15", "TW-2218", lantern, foyerLantern(days(lantern), photo));
  await take(1010, "Mrs. Tilda Marrowby", "Vantry Minor", "M-0411", minor, kitchenSet(days(minor)));
  await take(1011, "Osric Venn", "Drover 40", "D2416", drover, howl(days(drover), photo));
  await take(1012, "Netmakers' Hall committee", "Lantern 15", "TW-2950", lantern, dryDecoupler(days(lantern)));
  await take(1013, "Port Ellery Radio Museum", "Wren 5", "B0412", wren, fortyMinutes(days(wren)));
  await take(1014, "Netmakers' Hall committee", "Drover 40", "D2302", drover, coldBias(days(drover), photo));
  await take(1015, "Captain Isolde Rusk", "Halberd 120", "OH-0301", halberd, chokes(days(halberd), photo));
  await take(1016, "Port Ellery Radio Museum", "Picture House", "PH-007", picture, asleep(days(picture), photo));
  await take(1017, "Netmakers' Hall committee", "Lantern 15", "TW-3120", lantern, wetBoard(days(lantern)));
  await take(1018, "Osric Venn", "Lantern 15", "TW-3514", lantern, humming(days(lantern), photo));
  await stockTubesOf(database);
  await stockPartsOf(database);
  for (const [id, seed, faults] of ON_THE_BENCH) await putOnBench(database, id, { seed, faults });
}
