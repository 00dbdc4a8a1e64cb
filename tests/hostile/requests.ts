/** Odd requests to every route of the interface: none may be answered with 500 or more. */

import { uniformDraws } from "../../src/core/numeric/random";
import { mutate, wordsIn, type Random } from "../../src/core/tape/mutations-for-tests";
import { samplePayloads, type StoredForTests } from "../../src/core/tape/samples-for-tests";
import { DEFAULT_SETTINGS } from "../../src/core/shop/settings";
import type { Client } from "./client";
import type { Outcome } from "./lines";

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

const ODD_PIECES = [
  "1001",
  "1",
  "0",
  "-1",
  "1e3",
  "99999999",
  "999999999999",
  "abc",
  "%ff",
  "%00",
  "%2e%2e",
  "..",
  "%F0%9F",
  "a%2Fb",
  "__proto__",
  "é".repeat(3),
  "x".repeat(3000),
  "'",
  "%22",
  "null",
  "[id]",
  "",
];
const ODD_QUERIES = [
  "",
  "?",
  "?after=-1",
  "?after=1e9",
  "?after=abc",
  "?after=2147483648",
  "?q=%ff",
  "?q=%00",
  "?q=" + "a".repeat(5000),
  "?q=%25_%25",
  "?form=spice",
  "?paper=letter",
  "?paper=%ff",
  "?as=instrument",
  "?as=%00",
  "?seconds=1",
  "?seconds=-1",
  "?seconds=NaN",
  "?who=%00",
  "?who=" + "x".repeat(200),
  "?a=1&a=2&__proto__=3",
];
const PATHS = [
  "/api/v1/jobs",
  "/api/v1/jobs/{}/events",
  "/api/v1/jobs/{}/readings",
  "/api/v1/jobs/{}/archive",
  "/api/v1/jobs/{}/report",
  "/api/v1/jobs/{}/circuit",
  "/api/v1/jobs/{}/bench",
  "/api/v1/jobs/{}/microphone",
  "/api/v1/models",
  "/api/v1/models/{}/netlist",
  "/api/v1/photos",
  "/api/v1/photos/{}",
  "/api/v1/recordings",
  "/api/v1/recordings/{}",
  "/api/v1/import",
  "/api/v1/search",
  "/api/v1/settings",
  ...[
    "/jobs/{}",
    "/jobs/{}/walk",
    "/jobs/1001/{}",
    "/jobs/{}/report",
    "/jobs/{}/probe",
    "/library/{}",
    "/guide/{}",
    "/guide/picture/{}",
    "/jobs/new",
    "/settings",
    "/library",
    "/{}",
  ],
];
const METHODS = ["GET", "GET", "POST", "POST", "POST", "PUT", "PUT", "DELETE", "PATCH", "HEAD", "OPTIONS"];
const TYPES = [
  "application/json",
  "application/json",
  "text/csv",
  "text/plain",
  "application/octet-stream",
  "application/json; charset=utf-16",
  "x",
  "multipart/form-data; boundary=x",
];

/** Bodies that the routes know, to be changed. */
function soundBodies(stored: StoredForTests): unknown[] {
  const payloads = samplePayloads(stored, { finding: 2, removed: 3, change: 4, asked: 5, soak: 6, reform: 7, planned: 8, bill: 9 });
  return [
    ...Object.entries(payloads).map(([type, payload]) => ({
      events: [{ type, payload, who: "J.M.", at: "2026-03-02T09:00:00.000Z", id: crypto.randomUUID() }],
    })),
    { who: "J.M.", readings: [payloads.reading, { point: "B1", kind: "dcv", value: 270 }] },
    { who: "J.M.", owner: "Osric Venn", amp: "Wren 5", serial: "B1", maker: "Brackwater", modelId: 1, complaint: "hums" },
    { who: "J.M.", modelId: 1 },
    { who: "J.M.", netlist: "Title\nR1 a 0 1k\nV1 a 0 9\n.end" },
    DEFAULT_SETTINGS,
  ];
}

const nested = (depth: number) => "[".repeat(depth) + "]".repeat(depth);

function rawBody(random: Random): string | Uint8Array {
  const bytes = () => Uint8Array.from({ length: Math.floor(random() * 400) }, () => Math.floor(random() * 256));
  return pick<() => string | Uint8Array>(random, [
    () => "",
    () => "null",
    () => "[1,2",
    () => '"text"',
    () => nested(5000),
    () => `{"events":${nested(5000)}}`,
    () => `{"__proto__":{"events":[]},"events":[]}`,
    () => `{"events":[{"__proto__":{"type":"note"},"who":"J.M.","payload":{"text":"a"}}]}`,
    () => `{"events":[${'{"type":"note"},'.repeat(2500)}{}]}`,
    () => JSON.stringify({ readings: [{ point: "x".repeat(100_000), kind: "dcv", value: 1 }] }),
    () => JSON.stringify({ readings: Array.from({ length: 2000 }, () => ({ point: "a:b".repeat(30), kind: "dcv", value: 1 })) }),
    () => `point,kind,value\n${"x".repeat(100_000)},dcv,1`,
    () => `point,kind,value\n${"B1,dcv,1\n".repeat(3000)}`,
    () => `${"a,".repeat(20_000)}\n${"1,".repeat(20_000)}`,
    () => `Title\n${"R1 a 0 1k\n".repeat(2000)}.end`,
    () => JSON.stringify({ netlist: `t\n${"X".repeat(50_000)}\n${"(".repeat(20_000)}\n.end` }),
    () => JSON.stringify({ netlist: `t\n${Array.from({ length: 800 }, (_, i) => `R${i} n${i} n${i + 1} 1k`).join("\n")}\n.end` }),
    () => "PK\u0003\u0004" + "a".repeat(200),
    () => "RIFF\u0010\u0000\u0000\u0000WAVEfmt " + "z".repeat(100),
    () => Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), bytes()]),
    () => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), bytes()]),
    bytes,
  ])();
}

/** Sends `cases` odd requests, each by the draws of `seed`, some of them at once. */
export async function attackWithRequests(client: Client, stored: StoredForTests, cases: number, seed: number): Promise<Outcome> {
  const random = uniformDraws(seed);
  const sound = soundBodies(stored);
  const words = wordsIn(sound);
  const outcome: Outcome = { cases, accepted: 0, refused: 0, failures: [] };
  const one = async (i: number) => {
    const route = pick(random, PATHS);
    const path =
      route.replace("{}", () => (random() < 0.6 ? "1001" : pick(random, ODD_PIECES))) + (random() < 0.3 ? pick(random, ODD_QUERIES) : "");
    const method = pick(random, METHODS);
    const withBody = method !== "GET" && method !== "HEAD";
    let body: string | Uint8Array | undefined;
    if (withBody) body = random() < 0.4 ? rawBody(random) : JSON.stringify(mutate(random, pick(random, sound) as never, words));
    const type = pick(random, TYPES);
    const { status, text } = await client.send(method, encodeURI(path).replace(/%25/g, "%"), body, type);
    if (status >= 500)
      outcome.failures.push(
        `${method} ${path.slice(0, 100)} (${type}): ${status} ${text.slice(0, 100)}; case ${i} of seed ${seed}: ${String(body).slice(0, 300)}`,
      );
    else if (status < 300) outcome.accepted++;
    else outcome.refused++;
  };
  for (let i = 0; i < cases; i += 4) await Promise.all(Array.from({ length: Math.min(4, cases - i) }, (_, k) => one(i + k)));
  return outcome;
}
