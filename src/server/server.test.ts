import { mkdtempSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { randomUUID } from "node:crypto";
import sharp from "sharp";
import { strToU8, unzipSync, zipSync, strFromU8 } from "fflate";
import { exportJob, importJob } from "./archive";
import { readOnce } from "@/core/circuit/read-once";
import { viewJob } from "@/core/job/job-view";
import { reportBlocks } from "@/core/papers/report-blocks";
import { writeWav } from "@/core/sound/wav";
import { storePhoto, storeRecording } from "./attachments";
import { board, search } from "./board";
import { csvToEvents, readingsToCsv } from "./csv";
import { migrate, openDatabase } from "./db";
import type { Database } from "./database";
import { explain, UserError } from "./errors";
import { freshShop } from "./fresh-shop-for-tests";
import { addModel } from "./models";
import { reportPdf } from "./paper/report-pdf";
import { getSettings, saveSettings } from "./settings";
import { solvedHere } from "./solved";
import { reportOf, viewOf, wholeJob } from "./shop";
import type { IncomingEvent } from "./incoming";
import { rebuildSummaries } from "./summaries";
import { append, openJob } from "./tape";
import { readTape } from "./tape-read";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";

const folders: string[] = [];
const temporary = () => {
  const folder = mkdtempSync(join(tmpdir(), "scutum-"));
  folders.push(folder);
  return folder;
};
const netlist = readFileSync("demo/amps/wren-5.cir", "utf8");
let shop: Database;
let empty: Database;

beforeAll(async () => {
  shop = await freshShop();
  empty = await freshShop();
});
afterAll(async () => {
  await shop.close();
  await empty.close();
  for (const f of folders) rmSync(f, { recursive: true, force: true });
});

const reading = (point: string, value: number, more: object = {}): IncomingEvent =>
  ({ type: "reading", payload: { point, kind: "dcv", value, conditions: { mains: 231 } }, who: "J.M.", ...more }) as IncomingEvent;
const newJob = async (owner = "Mrs. Tilda Marrowby", amp = "Wren 5") => {
  const model = await addModel(shop, netlist);
  const head = await shop.transaction((sql) => openJob(sql, { owner, amp, serial: "B1177", modelId: model.id, who: "J.M." }));
  await append(shop, head.id, [{ type: "job-opened", payload: { owner, amp }, who: "J.M." }]);
  return head;
};
const refusal = async (work: Promise<unknown>) => {
  try {
    await work;
  } catch (error) {
    if (error instanceof UserError) return error;
    throw error;
  }
  throw new Error("it was taken");
};

describe("the tape", () => {
  test("numbers lines without gaps and takes a second delivery once", async () => {
    const { id } = await newJob();
    const key = randomUUID();
    const [first] = await append(shop, id, [reading("B1", 318, { id: key })]);
    const [again] = await append(shop, id, [reading("B1", 318, { id: key }), reading("B2", 300)]);
    expect(again).toEqual(first);
    expect((await readTape(shop, id)).map((e) => e.seq)).toEqual([1, 2, 3]);
    expect(await readTape(shop, id, 2)).toHaveLength(1);
  });

  test("two tabs that correct the same line: the second is told who was first", async () => {
    const { id } = await newJob();
    await append(shop, id, [reading("B1", 31.8)]);
    await append(shop, id, [reading("B1", 318, { supersedes: 2, reason: "range" })]);
    const error = await refusal(append(shop, id, [reading("B1", 320, { supersedes: 2, reason: "range" })]));
    expect(error).toMatchObject({ status: 409, message: expect.stringContaining("already replaced by line 3 (J.M.") });
    expect(await readTape(shop, id)).toHaveLength(3);
  });

  test("two benches append at once and both are on the tape", async () => {
    const { id } = await newJob();
    await Promise.all(Array.from({ length: 12 }, (_, i) => append(shop, id, [reading("B1", 300 + i)])));
    const tape = await readTape(shop, id);
    expect(tape.map((e) => e.seq)).toEqual(Array.from({ length: 13 }, (_, i) => i + 1));
    expect(new Set(tape.slice(1).map((e) => (e.payload as { value: number }).value)).size).toBe(12);
  });

  test("nothing on it can be changed or removed, not even with SQL", async () => {
    const { id } = await newJob();
    await expect(shop.query("update events set who = 'X' where job_id = $1", [id])).rejects.toThrow(/append-only/);
    await expect(shop.query("delete from events where job_id = $1", [id])).rejects.toThrow(/append-only/);
  });

  test("a bad event in a batch leaves nothing behind", async () => {
    const { id } = await newJob();
    expect(await refusal(append(shop, id, [reading("B1", 318), reading("B1", 4000)]))).toMatchObject({
      status: 422,
      message: expect.stringMatching(/event 2.*4000 V/),
    });
    expect(await refusal(append(shop, id, [reading("B1", 318, { at: "2999-01-01T00:00:00Z" })]))).toMatchObject({ status: 422 });
    expect(await refusal(append(shop, id, [reading("B1", 318, { supersedes: 99 })]))).toMatchObject({ status: 422 });
    expect(await refusal(append(shop, 424242, [reading("B1", 318)]))).toMatchObject({ status: 404 });
    expect(await readTape(shop, id)).toHaveLength(1);
  });

  test("text with quotes and semicolons is only text", async () => {
    const { id } = await newJob("Robert'); drop table events;--");
    await append(shop, id, [{ type: "note", payload: { text: "'; delete from jobs; --" }, who: "J.M." }]);
    expect((await search(shop, "'; delete")).map((j) => j.id)).toEqual([id]);
  });

  test("the summary rows are what a rebuild from the tapes gives", async () => {
    const before = await shop.query("select * from job_summaries order by job_id");
    expect(before.length).toBeGreaterThan(3);
    await shop.query("update job_summaries set owner = 'wrong', readings = 99");
    expect(await rebuildSummaries(shop)).toEqual({ jobs: before.length, unreadable: [] });
    expect(await shop.query("select * from job_summaries order by job_id")).toEqual(before);
  });
});

describe("board and search", () => {
  test("finds by owner, serial, part and note, and says where", async () => {
    const { id } = await newJob("Captain Isolde Rusk", "Lantern 15");
    await append(shop, id, [
      { type: "identity", payload: { serial: "TW-4411" }, who: "J.M." },
      { type: "note", payload: { text: "ship's inverter gives 218 V" }, who: "J.M." },
      { type: "change", payload: { position: "C6", kind: "replacement", newPart: "47 nF 630 V film", reversible: true }, who: "J.M." },
      { type: "waiting", payload: { on: "part", what: "GZ34" }, who: "J.M." },
    ]);
    for (const text of ["isolde", "tw-4411", "inverter", "47 nf 630", String(id)])
      expect((await search(shop, text)).map((j) => j.id)).toContain(id);
    expect((await search(shop, "inverter"))[0]!.found).toBe("ship's inverter gives 218 v");
    expect(await search(shop, "no such thing")).toEqual([]);
    expect((await board(shop)).jobs.find((j) => j.id === id)).toMatchObject({ waitingOn: "part", waitingWhat: "GZ34" });
  });
});

describe("the job archive", () => {
  test("export, import into an empty shop, export: the same bytes", async () => {
    const { id } = await newJob("The Lamplight Picture House");
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: "#345" } })
      .png()
      .toBuffer();
    const { hash } = await storePhoto(shop, png);
    const wav = await storeRecording(shop, writeWav([new Float32Array(9000)], 8000));
    const levels = { f1dB: -30, f2dB: -20, hissdB: -80, totaldB: -19, curve: [-80, -30.5] };
    const recording = {
      hash: wav.hash,
      name: "hum.wav",
      when: "before",
      seconds: 1.1,
      sounds: [{ kind: "hum-double", confidence: 0.9 }],
      ...levels,
    };
    await append(shop, id, [
      { type: "photo", payload: { hash, caption: "underside", station: "look" }, who: "J.M." },
      { type: "recording", payload: recording as never, who: "J.M." },
      reading("B1", 318),
      reading("B1", 320, { supersedes: 4, reason: "again" }),
    ]);
    const first = await exportJob(shop, id);
    const { id: there, renumbered } = await importJob(empty, first);
    expect([there, renumbered]).toEqual([id, false]);
    // Line for line what it was, and a last line that says where they come from; given on, they are the same again.
    const [sent, kept] = [await readTape(shop, id), await readTape(empty, there)];
    expect(kept.slice(0, -1)).toEqual(sent);
    expect(kept.at(-1)).toMatchObject({ type: "brought-in", who: "archive" });
    expect(Buffer.compare(Buffer.from(await exportJob(empty, there)), Buffer.from(await exportJob(empty, there)))).toBe(0);
    expect(await refusal(importJob(empty, first))).toMatchObject({ status: 409, message: expect.stringContaining(`as job ${id}`) });
    expect((await board(empty)).jobs).toHaveLength(1);
  });

  test("a job number that is taken is given anew", async () => {
    const { id } = await newJob();
    const file = await exportJob(shop, id);
    await empty.query("insert into owners (name) values ('x')");
    await empty.query("insert into amps (owner_id, label) select id, 'y' from owners where name = 'x'");
    await empty.query("insert into jobs (id, uid, owner_id, amp_id) select $1, $2, owner_id, id from amps where label = 'y'", [
      id,
      randomUUID(),
    ]);
    expect(await importJob(empty, file)).toMatchObject({ renumbered: true });
  });

  test("broken and newer archives are refused whole, and say why", async () => {
    const { id } = await newJob();
    const good = await exportJob(shop, id);
    const files = unzipSync(good);
    const archive = JSON.parse(strFromU8(files["job.json"]!)) as Record<string, unknown>;
    const edited = (change: object) => zipSync({ "job.json": strToU8(JSON.stringify({ ...archive, ...change })) });
    const cases: [Uint8Array, RegExp][] = [
      [strToU8("hello"), /not a ZIP/],
      [good.slice(0, good.length - 60), /not a ZIP/],
      [zipSync({ "a.txt": strToU8("x") }), /no job\.json/],
      [zipSync({ "job.json": strToU8("{") }), /not JSON/],
      [edited({ version: 2 }), /newer Scutum/],
      [edited({ format: "other" }), /format/],
      [edited({ events: [{ seq: 2 }] }), /unknown type|missing/],
      [
        edited({ attachments: [{ hash: "a".repeat(64), type: "image/png", file: "photos/a.png" }] }),
        /attachment photos\/a\.png is missing/,
      ],
      [edited({ events: [{ ...(archive.events as object[])[0], payload: { owner: 5 } }] }), /owner/],
    ];
    const before = await empty.query("select count(*)::int as n from jobs");
    for (const [bytes, why] of cases) expect((await refusal(importJob(empty, bytes))).message).toMatch(why);
    expect(await empty.query("select count(*)::int as n from jobs")).toEqual(before);
  });
});

describe("CSV", () => {
  const circuit = readOnce(netlist);
  test("out and in again: the same readings", async () => {
    const { id } = await newJob();
    await append(shop, id, [
      reading("B1", 318.4),
      reading("V2.k", 7.42, {
        payload: {
          point: "V2.k",
          kind: "dcv",
          value: 7.42,
          conditions: { mains: 229.5, without: ["V1", "V2"], controls: "volume, 3", warmMinutes: 12 },
          note: '=HYPERLINK("x")',
        },
      }),
      reading("R7", 0, { payload: { point: "R7", kind: "ohm", value: 118000, conditions: {} } }),
    ]);
    const text = readingsToCsv(await readTape(shop, id));
    expect(text).toContain("'=HYPERLINK");
    const other = await newJob();
    await append(shop, other.id, csvToEvents(text, circuit, "J.M."));
    expect(readingsToCsv(await readTape(shop, other.id))).toBe(text);
  });
  test.each([
    ["volts,place\n1,2", /the header reads "volts,place".*accepted: point,kind,value/],
    ["point,kind,value\nB9,dcv,3", /Line 2: read point "B9"/],
    ["point,kind,value\nB1,dcv,4000", /no tube amplifier/],
    ["point,kind,value\nB1,volts,3", /read kind "volts"/],
    ["point,kind,value\nR7,ohm,-3", /negative/],
    ["point,kind,value", /no readings/],
    ["point,kind,value,unit\nB1,dcv,3,nF", /farads|unit/],
  ])("%j is refused", (text, why) => expect(() => csvToEvents(text, circuit, "J.M.")).toThrow(why));
});

describe("photos", () => {
  test("what is not a whole picture is refused", async () => {
    const png = await sharp({
      create: { width: 400, height: 300, channels: 3, background: "#345", noise: { type: "gaussian", mean: 128, sigma: 40 } },
    })
      .png()
      .toBuffer();
    expect((await storePhoto(shop, png)).type).toBe("image/png");
    expect((await refusal(storePhoto(shop, strToU8("GIF89a not really")))).message).toMatch(/starting "GIF89a n".*is not a picture/);
    expect((await refusal(storePhoto(shop, png.subarray(0, png.length / 2)))).message).toMatch(/not a picture/);
    expect((await refusal(storePhoto(shop, new Uint8Array(40 * 1024 * 1024)))).message).toMatch(/40\.0 MB; up to 20\.0 MB/);
  });
});

test("a recording is stored as it is; what is none is refused by what was read", async () => {
  expect((await storeRecording(shop, writeWav([new Float32Array(80)], 8000))).type).toBe("audio/wav");
  expect((await refusal(storeRecording(shop, strToU8("ID3 a song")))).message).toMatch(/an MP3.*wanted/);
  expect((await refusal(storeRecording(shop, new Uint8Array(70 * 1024 * 1024)))).message).toMatch(/70\.0 MB; up to 60\.0 MB are kept/);
});

describe("settings", () => {
  test("are kept, and refused with the field", async () => {
    await saveSettings(shop, { ...DEFAULT_SETTINGS, safeVolts: 5 });
    expect((await getSettings(shop)).safeVolts).toBe(5);
    expect(await refusal(saveSettings(shop, { ...DEFAULT_SETTINGS, safeVolts: 400 }))).toMatchObject({
      details: [{ field: "safeVolts", message: expect.stringContaining("read 400") }],
    });
    await saveSettings(shop, DEFAULT_SETTINGS);
  });
});

describe("the report", () => {
  test("pairs readings before and after the work and prints as a PDF", async () => {
    const { id } = await newJob();
    await append(shop, id, [
      { type: "complaint", payload: { words: "It hums and is weak", when: ["always"], use: "kitchen" }, who: "J.M." },
      reading("V2.k", 14),
      reading("B1", 240),
      {
        type: "change",
        payload: {
          position: "C6",
          kind: "replacement",
          oldPart: "22 nF 400 V paper",
          oldMeasured: "leaks 80 V",
          newPart: "22 nF 630 V film",
          reason: "grid of V2 positive",
          reversible: true,
          oldWent: "bag for the owner",
        },
        who: "J.M.",
      },
      reading("V2.k", 7.9),
      reading("B1", 287),
      { type: "safety-test", payload: { test: "earth bond", value: 0.04, limit: 0.1, passed: true }, who: "J.M." },
      { type: "approval", payload: { what: "new output transformer", answer: "no", cost: 90 }, who: "J.M." },
      { type: "bill-line", payload: { text: "Bench time", amount: 80, kind: "labour" }, who: "J.M." },
      { type: "bill-line", payload: { text: "Capacitor", amount: 2.4, kind: "parts" }, who: "J.M." },
    ]);
    const job = await wholeJob(shop, id);
    const report = reportOf(job);
    expect(report.beforeAfter.find((b) => b.point === "V2.k")).toMatchObject({
      before: { text: "14.0 V", verdict: "out" },
      after: { text: "7.90 V", verdict: "in" },
    });
    expect(report).toMatchObject({
      declined: ["new output transformer"],
      bills: [{ sum: { total: 82.4 } }],
      oldParts: ["C6: 22 nF 400 V paper"],
    });
    expect(report.safety.find((s) => s.name === "Earth bond")).toMatchObject({
      result: "0.04 Ω",
      limit: "at most 0.1 Ω",
      verdict: "passed",
    });
    expect(report.safety.filter((s) => s.verdict === "not done")).toHaveLength(5);
    for (const size of ["A4", "LETTER"] as const) {
      const pdf = await reportPdf(reportBlocks(report), size, new Map());
      expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
      expect(pdf.length).toBeGreaterThan(8000);
    }
    expect(viewOf(job).rows.find((r) => r.point.name === "V2.k")?.verdict).toBe("in");
  });
});

describe("one circuit for a job", () => {
  test("a kept experiment moves the report's band as it moves the screen's: R4 at 270 ohms, V2.k at 9.90 V", async () => {
    const { id } = await newJob();
    const model = await addModel(shop, netlist);
    await shop.query("update jobs set model_id = $2 where id = $1", [id, model.id]);
    const change = (payload: object) => ({ type: "change", payload, who: "J.M." }) as IncomingEvent;
    await append(shop, id, [
      reading("V2.k", 7.9),
      change({ position: "R4", kind: "experiment", newPart: "270 ohms", reversible: true, outcome: "kept", set: ["R4=270"] }),
      reading("V2.k", 9.9),
    ]);
    const job = await wholeJob(shop, id);
    const screen = viewJob(job.events, job.model!.netlist, job.settings, Date.now(), solvedHere);
    const row = screen.rows.find((r) => r.point.name === "V2.k")!;
    expect(row.verdict).toBe("in");
    // Without the experiment the band ends at 8.8 V: the report said "out" by it.
    expect(row.expected!.low).toBeGreaterThan(8);
    expect(row.expected!.high).toBeGreaterThan(10);
    expect(reportOf(job).beforeAfter.find((b) => b.point === "V2.k")).toMatchObject({
      // Read before the experiment, judged without it.
      before: { text: "7.90 V", verdict: "in" },
      after: { text: "9.90 V", verdict: "in" },
    });
  });

  test("readings from a file are taken by the names of the circuit in use", async () => {
    const { id } = await newJob();
    const model = await addModel(shop, netlist);
    await shop.query("update jobs set model_id = $2 where id = $1", [id, model.id]);
    const job = await wholeJob(shop, id);
    expect(viewOf(job).circuit).toBe(viewOf(job).inUse!.circuit);
    expect(csvToEvents("point,kind,value\nv2.k,dcv,9.9\n", viewOf(job).circuit, "J.M.")[0]!.payload).toMatchObject({ point: "V2.k" });
  });
});

describe("the data folder", () => {
  test("a damaged and a newer database are refused with words", async () => {
    const folder = temporary();
    mkdirSync(join(folder, "pg"));
    writeFileSync(join(folder, "pg", "junk"), "x");
    expect(await refusal(openDatabase(folder, undefined))).toMatchObject({
      message: expect.stringMatching(/damaged: PG_VERSION is missing/),
    });
    await empty.query("insert into migrations (number, name) values (9999, 'future')");
    expect((await refusal(migrate(empty))).message).toMatch(/newer Scutum \(step 9999/);
    await empty.query("delete from migrations where number = 9999");
  });

  test("a full disk is said to be one", () => {
    expect(explain(Object.assign(new Error("could not extend file"), { code: "53100" }))).toMatchObject({ status: 507 });
    expect(explain(new Error("ENOSPC: no space left on device, write"))).toMatchObject({
      message: expect.stringContaining("disk is full"),
    });
  });
});
