/** The stock of parts and the bad names over their routes: pieces come and go, never below nothing; a name is withdrawn with a reason. */

import "reflect-metadata";
import * as evidence from "./v1/names/[number]/evidence/route";
import * as names from "./v1/names/route";
import * as pieces from "./v1/parts/[number]/pieces/route";
import * as parts from "./v1/parts/route";
import type { BadName } from "@/core/shop/bad-names";
import type { StockPart } from "@/core/shop/stock-parts";
import { freshSharedShop } from "@/server/fresh-shop-for-tests";

let remove: () => Promise<void>;
beforeAll(async () => {
  remove = await freshSharedShop();
});
afterAll(() => remove());

const request = (body?: object) =>
  new Request("http://127.0.0.1:4720/api/v1/parts", {
    method: body ? "POST" : "GET",
    ...(body ? { body: JSON.stringify({ who: "J.M.", ...body }) } : {}),
    headers: { "content-type": "application/json", host: "127.0.0.1:4720" },
  });
const at = (number: string) => ({ params: Promise.resolve({ number }) });
const told = async (answer: Promise<Response>) => {
  const response = await answer;
  return {
    status: response.status,
    ...((await response.json()) as { parts?: StockPart[]; names?: BadName[]; number?: number; error?: string }),
  };
};
const CAN = {
  letter: "C",
  value: 100e-6,
  rating: 500,
  kind: "electrolytic",
  sections: [100e-6, 50e-6],
  price: 38.5,
  pieces: 2,
  place: "shelf",
};

test("a part gets a number and comes back as it went in; pieces are counted", async () => {
  const { number, parts: stock } = await told(parts.POST(request(CAN)));
  expect(stock!.find((p) => p.number === number)).toEqual({ number, ...CAN });
  const one = await told(pieces.POST(request({ pieces: -1, why: "job 1016, C1" }), at(String(number))));
  expect(one.parts!.find((p) => p.number === number)!.pieces).toBe(1);
  const more = await told(pieces.POST(request({ pieces: 5 }), at(String(number))));
  expect(more.parts!.find((p) => p.number === number)!.pieces).toBe(6);
});

test("two benches that take the last piece: one of them is told that there is none", async () => {
  const { number } = await told(parts.POST(request({ ...CAN, pieces: 1 })));
  const answers = await Promise.all([1, 2].map(() => told(pieces.POST(request({ pieces: -1 }), at(String(number))))));
  expect(answers.map((a) => a.status).sort()).toEqual([201, 409]);
  expect(answers.find((a) => a.status === 409)!.error).toMatch(/There are 0 pieces/);
});

test("a bad name keeps its cases, and stands no longer once it is withdrawn", async () => {
  const made = await told(
    names.POST(
      request({ letter: "C", words: "moulded paper", fromYear: 1955, toYear: 1962, does: "leaks", evidence: { job: 3, text: "C6" } }),
    ),
  );
  const [name] = made.names!;
  expect(name).toMatchObject({ words: "moulded paper", fromYear: 1955, evidence: [{ job: 3, text: "C6", who: "J.M." }] });
  const again = await told(evidence.POST(request({ text: "seen again", job: 4 }), at(String(name!.id))));
  expect(again.names![0]!.evidence).toHaveLength(2);
  const gone = await told(evidence.POST(request({ text: "it was the board", withdraws: true }), at(String(name!.id))));
  expect(gone.names).toEqual([]);
});

test.each([
  ["a part that is not there", () => pieces.POST(request({ pieces: 1 }), at("999")), 404],
  ["a name that is not there", () => evidence.POST(request({ text: "x" }), at("999")), 404],
  ["a capacitance below anything", () => parts.POST(request({ ...CAN, value: -1 })), 422],
  ["a price below nothing", () => parts.POST(request({ ...CAN, price: -4 })), 422],
  ["a fraction of a piece", () => parts.POST(request({ ...CAN, pieces: 1.5 })), 422],
  [
    "a year of another age",
    () => names.POST(request({ letter: "C", words: "x", fromYear: 19, does: "leaks", evidence: { text: "x" } })),
    422,
  ],
  ["a name without a case", () => names.POST(request({ letter: "C", words: "x", does: "leaks" })), 422],
] as [string, () => Promise<Response>, number][])("%s is refused", async (_, ask, status) => {
  const answer = await told(ask());
  expect(answer.status).toBe(status);
  expect(answer.error).toBeTruthy();
});
