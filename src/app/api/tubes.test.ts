/** The stock of tubes over its routes: numbers, tests over time, where each is; what cannot be is refused and nothing is changed. */

import "reflect-metadata";
import * as moves from "./v1/tubes/[number]/moves/route";
import * as tests from "./v1/tubes/[number]/tests/route";
import * as tubes from "./v1/tubes/route";
import { inStock, placeOf, sameVolts, type StockTube } from "@/core/shop/stock-tubes";
import { freshSharedShop } from "@/server/fresh-shop-for-tests";

let remove: () => Promise<void>;
beforeAll(async () => {
  remove = await freshSharedShop();
});
afterAll(() => remove());

const request = (body?: object) =>
  new Request("http://127.0.0.1:4720/api/v1/tubes", {
    method: body ? "POST" : "GET",
    ...(body ? { body: JSON.stringify({ who: "J.M.", ...body }) } : {}),
    headers: { "content-type": "application/json", host: "127.0.0.1:4720" },
  });
const at = (number: string) => ({ params: Promise.resolve({ number }) });
const told = async (answer: Promise<Response>) => {
  const response = await answer;
  return { status: response.status, ...((await response.json()) as { tubes?: StockTube[]; number?: number; error?: string }) };
};
const TEST = { milliamps: 72, gm: 5.9, plateVolts: 250, screenVolts: 250, gridVolts: -14 };

test("a tube gets a number, keeps every test, and says where it went", async () => {
  const { number, tubes: stock } = await told(tubes.POST(request({ type: "6l6gc", place: "drawer 3", note: "pulled" })));
  expect(stock!.find((t) => t.number === number)).toMatchObject({
    type: "6L6GC",
    note: "pulled",
    tests: [],
    moves: [{ place: "drawer 3", who: "J.M." }],
  });
  await told(tests.POST(request(TEST), at(String(number))));
  const again = await told(tests.POST(request({ ...TEST, milliamps: 66 }), at(String(number))));
  expect(again.tubes!.find((t) => t.number === number)!.tests.map((t) => t.milliamps)).toEqual([72, 66]);
  const moved = await told(moves.POST(request({ place: "in job 1001, V4" }), at(String(number))));
  const tube = moved.tubes!.find((t) => t.number === number)!;
  expect(placeOf(tube)).toBe("in job 1001, V4");
  expect(inStock(tube)).toBe(false);
  expect(tube.moves).toHaveLength(2);
});

test.each([
  ["a number that is not there", () => tests.POST(request(TEST), at("999")), 404],
  ["an address that is no number", () => moves.POST(request({ place: "drawer" }), at("abc")), 404],
  ["a tube without a type", () => tubes.POST(request({ place: "drawer" })), 422],
  ["a current below nothing", () => tests.POST(request({ ...TEST, milliamps: -3 }), at("1")), 422],
  ["a field that nobody knows", () => tubes.POST(request({ type: "EL84", place: "drawer", colour: "blue" })), 422],
])("%s is refused with a word", async (_, ask, status) => {
  const before = (await told(tubes.GET())).tubes;
  const answer = await told(ask());
  expect(answer.status).toBe(status);
  expect(answer.error).toBeTruthy();
  expect((await told(tubes.GET())).tubes).toEqual(before);
});

test("tests compare at the same volts only", () => {
  expect(sameVolts(TEST, { ...TEST, milliamps: 60, plateVolts: 252 })).toBe(true);
  expect(sameVolts(TEST, { ...TEST, gridVolts: -16 })).toBe(false);
  expect(sameVolts(TEST, { milliamps: 60, plateVolts: 250, gridVolts: -14 })).toBe(false);
});
