/** Odd lines for a job's tape: whatever is accepted, every page and export of the job still opens. */

import { readFileSync } from "node:fs";
import sharp from "sharp";
import { uniformDraws } from "../../src/core/numeric/random";
import { writeWav } from "../../src/core/sound/wav";
import { mutate, wordsIn } from "../../src/core/tape/mutations-for-tests";
import { samplePayloads, type LinesForTests, type StoredForTests } from "../../src/core/tape/samples-for-tests";
import { STATIONS } from "../../src/core/tape/stations";
import { Client } from "./client";

const NETLIST = readFileSync("demo/amps/wren-5.cir", "utf8");
/** A job gets this many accepted lines, then everything of it is opened, and the next job takes the lines that follow. */
const LINES_A_JOB = 6;

export interface Outcome {
  cases: number;
  accepted: number;
  refused: number;
  /** What must not be: an answer of 500 or more, or a page or export of the job that does not open. */
  failures: string[];
}

const pagesOf = (job: number): string[] => [
  ...STATIONS.map((s) => `/jobs/${job}/${s.id}`),
  ...[`/jobs/${job}/probe`, `/jobs/${job}/report`, "/"],
  ...["events", "readings", "archive", "report"].map((what) => `/api/v1/jobs/${job}/${what}`),
];

/** Opens every page and export of a job. Gives those that did not open. */
export async function openAll(client: Client, job: number): Promise<string[]> {
  const failed: string[] = [];
  for (const path of pagesOf(job)) {
    const { status } = await client.send("GET", path);
    if (status >= 400) failed.push(`GET ${path}: ${status}`);
  }
  return failed;
}

/** A photo and a recording in the shop, to refer to. */
export async function storeBoth(client: Client): Promise<StoredForTests> {
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#335577" } })
    .png()
    .toBuffer();
  const sound = writeWav([Float32Array.from({ length: 16000 }, (_, i) => 0.2 * Math.sin((2 * Math.PI * 100 * i) / 8000))], 8000);
  const hash = async (path: string, bytes: Uint8Array) =>
    (JSON.parse((await client.send("POST", path, bytes, "application/octet-stream")).text) as { hash: string }).hash;
  return { photo: await hash("/api/v1/photos", picture), recording: await hash("/api/v1/recordings", sound) };
}

/** A job with a line of each type that others refer to. */
export async function openTarget(client: Client, stored: StoredForTests): Promise<{ job: number; lines: LinesForTests }> {
  const { id: job } = await client.json<{ id: number }>("POST", "/api/v1/jobs", {
    who: "J.M.",
    owner: "Osric Venn",
    amp: "Wren 5",
    netlist: NETLIST,
  });
  const p = samplePayloads(stored, { finding: 1, removed: 1, change: 1, asked: 1, soak: 1, reform: 1, planned: 1, bill: 1 });
  const say = (type: string, payload: object) => ({ type, payload, who: "J.M." });
  const { events } = await client.json<{ events: { seq: number }[] }>("POST", `/api/v1/jobs/${job}/events`, {
    events: [
      say("finding", p.finding),
      say("removed", p.removed),
      // Before the capacitors are on a supply: nothing is changed in a live amp.
      say("change", { position: "V2 socket", kind: "repair", newPart: "new socket", reversible: true }),
      say("approval", { what: "V2 socket: new socket", answer: "asked" }),
      say("soak-begun", p["soak-begun"]),
      say("reform-begun", p["reform-begun"]),
      say("planned", { ...p.planned, needs: [] }),
      say("bill-line", { text: "bench time", amount: 90, kind: "labour" }),
    ],
  });
  const [finding, removed, change, asked, soak, reform, planned, billLine] = events.map((e) => e.seq);
  // A bill is what the shop makes of the tape: of this one, the line that was put on it by hand.
  const line = { text: "bench time", kind: "labour", pieces: 1, price: 90, amount: 90, key: `line ${billLine}` };
  const made = await client.json<{ events: { seq: number }[] }>("POST", `/api/v1/jobs/${job}/events`, {
    events: [say("bill", { ...p.bill, lines: [line], sum: { net: 90, taxes: [], included: true, rounding: 0, total: 90 }, paid: 0 })],
  });
  const bill = made.events[0]!.seq;
  return {
    job,
    lines: {
      finding: finding!,
      removed: removed!,
      change: change!,
      asked: asked!,
      soak: soak!,
      reform: reform!,
      planned: planned!,
      bill,
    },
  };
}

/**
 * Sends `cases` changed lines of every type in turn; opens everything of a job when it has its lines. Of a job that does not open, which
 * line it was is found by opening it anew after each of them.
 */
export async function attackWithLines(client: Client, cases: number, seed: number): Promise<Outcome> {
  const random = uniformDraws(seed);
  const stored = await storeBoth(client);
  let target = await openTarget(client, stored);
  let taken: string[] = [];
  const outcome: Outcome = { cases, accepted: 0, refused: 0, failures: [] };
  const look = async () => {
    const failed = await openAll(client, target.job);
    if (failed.length > 0) outcome.failures.push(`${failed.join(", ")}; ${await culprit(client, stored, taken)}`);
    [target, taken] = [await openTarget(client, stored), []];
  };
  for (let i = 0; i < cases; i++) {
    const payloads = samplePayloads(stored, target.lines);
    const types = Object.keys(payloads) as (keyof typeof payloads)[];
    const type = types[i % types.length]!;
    const words = wordsIn(payloads);
    let event = {
      type,
      who: "J.M.",
      payload: payloads[type],
      ...(type === "undo" ? { supersedes: 1 + Math.floor(random() * 5) } : {}),
    } as never;
    if (random() < 0.15) event = mutate(random, { ...(event as object), at: "2026-03-02T09:00:00.000Z", reason: "slip" }, words) as never;
    else event = { ...(event as object), payload: mutate(random, payloads[type] as never, words) } as never;
    const body = JSON.stringify({ events: [event] });
    const path = `/api/v1/jobs/${target.job}/events`;
    const { status } = await client.send("POST", path, body);
    if (status >= 500) outcome.failures.push(`POST ${path}: ${status}; case ${i} of seed ${seed}: ${body.slice(0, 400)}`);
    if (status !== 200) {
      outcome.refused++;
      continue;
    }
    outcome.accepted++;
    taken.push(body);
    if (taken.length >= LINES_A_JOB) await look();
  }
  if (taken.length > 0) await look();
  return outcome;
}

/** The first of these lines after which a job of its own does not open. */
async function culprit(client: Client, stored: StoredForTests, bodies: readonly string[]): Promise<string> {
  const { job } = await openTarget(client, stored);
  for (const body of bodies) {
    const { status } = await client.send("POST", `/api/v1/jobs/${job}/events`, body);
    if (status === 200 && (await openAll(client, job)).length > 0) return `since ${body.slice(0, 400)}`;
  }
  return `by these together: ${bodies.map((b) => b.slice(0, 200)).join(" ")}`;
}
