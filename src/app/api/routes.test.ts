/** Every route's error answers: what cannot be taken is 4xx with what was read, never 500; what is right is 2xx. */

import { readFileSync } from "node:fs";
import { freshSharedShop } from "@/server/fresh-shop-for-tests";
import * as archive from "./v1/jobs/[id]/archive/route";
import * as bench from "./v1/jobs/[id]/bench/route";
import * as circuit from "./v1/jobs/[id]/circuit/route";
import * as events from "./v1/jobs/[id]/events/route";
import * as microphone from "./v1/jobs/[id]/microphone/route";
import * as readings from "./v1/jobs/[id]/readings/route";
import * as report from "./v1/jobs/[id]/report/route";
import * as imports from "./v1/import/route";
import * as jobs from "./v1/jobs/route";
import * as netlist from "./v1/models/[id]/netlist/route";
import * as models from "./v1/models/route";
import * as photo from "./v1/photos/[hash]/route";
import * as photos from "./v1/photos/route";
import * as recording from "./v1/recordings/[hash]/route";
import * as recordings from "./v1/recordings/route";
import * as search from "./v1/search/route";
import * as settings from "./v1/settings/route";

let remove: () => Promise<void>;
const WREN = readFileSync("demo/amps/wren-5.cir", "utf8");
let job = 0;

const request = (path: string, body?: BodyInit, method = body === undefined ? "GET" : "POST", type = "application/json") =>
  new Request(`http://127.0.0.1:4720${path}`, { method, body, headers: { "content-type": type, host: "127.0.0.1:4720" } });
const json = (value: unknown) => JSON.stringify(value);
const at = <T extends Record<string, string>>(params: T) => ({ params: Promise.resolve(params) });
interface Told {
  status: number;
  error: string;
  details?: { message: string }[];
}
async function told(answer: Response | Promise<Response>): Promise<Told> {
  const response = await answer;
  const body = response.headers.get("content-type")?.includes("json") ? ((await response.json()) as Partial<Told>) : {};
  return { status: response.status, error: body.error ?? "", details: body.details };
}

beforeAll(async () => {
  remove = await freshSharedShop();
  const opened = await jobs.POST(request("/api/v1/jobs", json({ who: "J.M.", owner: "Osric Venn", amp: "Wren 5", netlist: WREN })));
  job = ((await opened.json()) as { id: number }).id;
});
afterAll(() => remove());

test("a job is opened, its tape read and written", async () => {
  expect(job).toBe(1001);
  const reading = { type: "reading", who: "J.M.", payload: { point: "B1", kind: "dcv", value: 275, conditions: { mains: 230 } } };
  expect((await told(events.POST(request("", json({ events: [reading] })), at({ id: String(job) })))).status).toBe(200);
  const tape = (await (await events.GET(request("/events?after=0"), at({ id: String(job) }))).json()) as { events: object[] };
  expect(tape.events.at(-1)).toMatchObject(reading);
});

test.each(["9999", "abc", "-1", "1e3", "", "99999999999", "constructor", "../1001"])(
  "no job %p: every route of a job says 404",
  async (id) => {
    const here = at({ id });
    const body = json({ events: [{ type: "mains", who: "J.M.", payload: { volts: 230 } }] });
    const answers = await Promise.all([
      told(events.GET(request("/events"), here)),
      told(events.POST(request("", body), here)),
      told(archive.GET(request(""), here)),
      told(report.GET(request(""), here)),
      told(readings.GET(request(""), here)),
      told(readings.POST(request("", json({ readings: [] })), here)),
      told(bench.GET(request(""), here)),
      told(circuit.PUT(request("", json({ who: "J.M.", netlist: WREN }), "PUT"), here)),
      told(microphone.GET(request("/?seconds=1&noted="), here)),
    ]);
    expect(answers.map((a) => a.status)).toEqual(answers.map(() => 404));
    for (const a of answers) expect(a.error).toMatch(/no job/i);
  },
);

describe("bodies", () => {
  const broken = ["{", "not json", "", "[1,"];
  test.each(broken)("%p is no JSON: said with what it starts with", async (body) => {
    const here = at({ id: String(job) });
    for (const answer of [
      jobs.POST(request("", body)),
      events.POST(request("", body), here),
      readings.POST(request("", body), here),
      circuit.PUT(request("", body, "PUT"), here),
      settings.PUT(request("", body, "PUT")),
    ])
      expect(await told(answer)).toMatchObject({ status: 400, error: expect.stringContaining("not JSON") });
  });

  test.each([
    [{}, "owner"],
    [{ owner: "   ", amp: "x" }, "owner"],
    [{ owner: "Osric Venn" }, "amp"],
    [{ owner: 5, amp: [] }, "owner"],
  ])("a job of %p: the field is named", async (body, field) => {
    const answer = await told(jobs.POST(request("", json({ who: "J.M.", ...body }))));
    expect(answer.status).toBe(422);
    expect(answer.details).toEqual(expect.arrayContaining([expect.objectContaining({ field })]));
  });

  test("a circuit that cannot be read: every bad line, by its number; no job is opened", async () => {
    const bad = "title\nR1 a 0 4k7\nXV1 a b 12AX7\n";
    const answer = await told(jobs.POST(request("", json({ who: "J.M.", owner: "O", amp: "A", netlist: bad }))));
    expect(answer.status).toBe(422);
    expect(answer.details).toEqual(expect.arrayContaining([expect.objectContaining({ line: 2 }), expect.objectContaining({ line: 3 })]));
    expect(await told(circuit.PUT(request("", json({ who: "J.M.", netlist: bad }), "PUT"), at({ id: String(job) })))).toMatchObject({
      status: 422,
    });
    expect(await told(circuit.PUT(request("", json({ who: "J.M." }), "PUT"), at({ id: String(job) })))).toMatchObject({ status: 400 });
    expect(await told(circuit.PUT(request("", json({ who: "J.M.", modelId: 777 }), "PUT"), at({ id: String(job) })))).toMatchObject({
      status: 404,
    });
  });
});

describe("lines of a tape", () => {
  const post = (...list: object[]) => told(events.POST(request("", json({ events: list })), at({ id: String(job) })));
  test.each([
    [{ type: "no such", who: "J.M.", payload: {} }, /accepted/],
    [{ type: "reading", who: "J.M.", payload: { point: "B1", kind: "dcv", value: 9e9, conditions: {} } }, /no tube amplifier/],
    [{ type: "mains", who: "J.M.", payload: { volts: "230" } }, /volts/],
    [{ type: "mains", who: "", payload: { volts: 230 } }, /who/i],
    [{ type: "mains", who: "J.M.", payload: { volts: 230, more: 1 } }, /more/],
    [{ type: "undo", who: "J.M.", supersedes: 99, reason: "x", payload: {} }, /Line 99 is not on this tape/],
    [{ type: "photo", who: "J.M.", payload: { hash: "../../etc/passwd" } }, /hash|photo/],
    [{ type: "mains", who: "J.M.", at: "tomorrow", payload: { volts: 230 } }, /time|at/],
  ])("%p is refused", async (line, why) => {
    const answer = await post(line);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(answer.error).toMatch(why);
  });

  test("of several lines with a bad one none is stored", async () => {
    const count = async () =>
      ((await (await events.GET(request("/?after=0"), at({ id: String(job) }))).json()) as { events: object[] }).events.length;
    const before = await count();
    await post({ type: "mains", who: "J.M.", payload: { volts: 230 } }, { type: "mains", who: "J.M.", payload: { volts: 9000 } });
    expect(await count()).toBe(before);
  });
});

describe("readings from outside", () => {
  const csv = (text: string) => told(readings.POST(request("/?who=J.M.", text, "POST", "text/csv"), at({ id: String(job) })));
  test.each([
    ["", /no readings|header/i],
    ["a,b\n1,2\n", /missing: point, kind, value/],
    ["point,kind,value\nB9,dcv,3\n", /Line 2: read point "B9"/],
    ["point,kind,value\nB1,dcv,abc\n", /Line 2: read value "abc"/],
    ["point,kind,value,mains\nB1,dcv,275,9000\n", /read mains "9000"/],
  ])("CSV %p: the line and what is accepted", async (text, why) =>
    expect(await csv(text)).toMatchObject({ status: 422, error: expect.stringMatching(why) }),
  );

  test("a list of readings is wanted", async () => {
    expect(await told(readings.POST(request("", json({ readings: 5 })), at({ id: String(job) })))).toMatchObject({ status: 422 });
  });
});

describe("files", () => {
  const words = new TextEncoder().encode("these are not pixels");
  test("what is no picture, no WAV, no archive is refused by what was read", async () => {
    expect(await told(photos.POST(request("", words, "POST", "image/jpeg")))).toMatchObject({
      status: 422,
      error: expect.stringContaining("picture"),
    });
    expect(await told(recordings.POST(request("", words, "POST", "audio/wav")))).toMatchObject({
      status: 422,
      error: expect.stringContaining("RIFF"),
    });
    expect(await told(imports.POST(request("", words, "POST", "application/zip")))).toMatchObject({
      status: 422,
      error: expect.stringContaining("not a job archive"),
    });
  });
  test("what is not stored here is 404, whatever the name", async () => {
    for (const hash of ["a".repeat(64), "x", "../../package.json", ""]) {
      expect((await told(photo.GET(request(""), at({ hash })))).status).toBe(404);
      expect((await told(recording.GET(request(""), at({ hash })))).status).toBe(404);
    }
    for (const id of ["777", "x", "-1"]) expect((await told(netlist.GET(request(""), at({ id })))).status).toBe(404);
  });
  test("a picture that is too large is refused before it is read whole", async () => {
    const large = request("", new Uint8Array(21 * 1024 * 1024), "POST", "image/jpeg");
    expect(await told(photos.POST(large))).toMatchObject({ status: 413 });
  });
});

test("settings: the field and what was read; what is right is kept and speaks", async () => {
  const now = (await (await settings.GET()).json()) as { settings?: object };
  const kept = (now.settings ?? now) as Record<string, unknown>;
  for (const wrong of [
    { safeVolts: -1 },
    { tubeWord: "lamp" },
    { decimal: ";" },
    { technicians: [] },
    { limits: { earthBondOhms: "low" } },
  ])
    expect((await told(settings.PUT(request("", json({ ...kept, ...wrong }), "PUT")))).status).toBe(422);
  expect((await told(settings.PUT(request("", json({ ...kept, tubeWord: "valve" }), "PUT")))).status).toBe(200);
  expect((await told(settings.PUT(request("", json({ ...kept, tubeWord: "tube" }), "PUT")))).status).toBe(200);
});

test("a model of the library needs a circuit file", async () => {
  expect((await told(models.POST(request("", json({}))))).status).toBe(422);
  expect((await told(models.POST(request("", "R1 a", "POST", "text/plain")))).status).toBeGreaterThanOrEqual(400);
});

test("search takes anything", async () => {
  for (const q of ["", "%", "'; drop table jobs; --", "a".repeat(5000), "wren 1001"]) {
    const answer = await search.GET(request(`/?q=${encodeURIComponent(q)}`));
    expect(answer.status).toBe(200);
  }
});
