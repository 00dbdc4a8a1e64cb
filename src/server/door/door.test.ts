/** The door: who is let in, for how long, as what; what a stranger, a forged cookie and an old link get. */

import type { IncomingEvent } from "../incoming";
import { append, openJob } from "../tape";
import { freshSharedShop } from "../fresh-shop-for-tests";
import { db } from "../db";
import type { Database } from "../database";
import { addToken, listTokens, revokeToken } from "./bench-tokens";
import { mayEnter, ownerOnly, personOf, signedEvents, signerOf } from "./door";
import { addPerson, changePerson, listPeople, nobodyKnown, personBy } from "./people";
import { jobOfLink, linkTo } from "./report-links";
import { hashOf, signed, unsigned } from "./secret";
import { openSession, personOfCookie, signIn, signOut, signOutEverywhere } from "./sessions";
import { Tries } from "./tries";

let remove: () => Promise<void>;
let shop: Database;
let job: number;
const PHRASE = "a long enough phrase";
const person = (initials: string, role: "owner" | "technician" | "apprentice") => ({
  initials,
  name: `${initials} of the shop`,
  role,
  passphrase: `${PHRASE} ${initials}`,
});
const asks = (method: string, headers: Record<string, string> = {}) => ({ method, headers: new Headers(headers) });
const withCookie = (cookie: string) => asks("POST", { cookie: `theme=dark; scutum-session=${cookie}` });

beforeAll(async () => {
  remove = await freshSharedShop();
  process.env.SCUTUM_DOOR = "shut";
  shop = await db();
  job = (await shop.transaction((sql) => openJob(sql, { owner: "Osric Venn", amp: "Wren 5", who: "J.M." }))).id;
});
afterAll(async () => {
  delete process.env.SCUTUM_DOOR;
  await remove();
});

test("people: passphrases are kept as argon2id, initials are one person's, an owner is always left", async () => {
  expect(await nobodyKnown(shop)).toBe(true);
  const owner = await addPerson(shop, person("J.M.", "owner"));
  await addPerson(shop, person("R.T.", "technician"));
  const apprentice = await addPerson(shop, person("A.K.", "apprentice"));
  expect(await nobodyKnown(shop)).toBe(false);
  await expect(addPerson(shop, person("R.T.", "apprentice"))).rejects.toMatchObject({ status: 409 });
  const [row] = await shop.query<{ passphrase: string }>("select passphrase from people where initials = 'J.M.'");
  expect(row!.passphrase).toMatch(/^\$argon2id\$v=19\$m=65536/);
  expect(await personBy(shop, "R.T.", `${PHRASE} R.T.`)).toMatchObject({ role: "technician" });
  for (const wrong of ["", PHRASE, `${PHRASE} r.t.`, `${PHRASE} J.M.`]) expect(await personBy(shop, "R.T.", wrong)).toBeUndefined();
  expect(await personBy(shop, "X.X.", PHRASE)).toBeUndefined();
  await expect(changePerson(shop, owner.id, { active: false })).rejects.toMatchObject({ status: 409 });
  await expect(changePerson(shop, owner.id, { role: "technician" })).rejects.toMatchObject({ status: 409 });
  expect((await listPeople(shop)).find((p) => p.id === owner.id)).toMatchObject({ role: "owner", active: true });
  await expect(changePerson(shop, 99, { name: "nobody" })).rejects.toMatchObject({ status: 404 });
  expect(await changePerson(shop, apprentice.id, { name: "Ada Kell" })).toMatchObject({ name: "Ada Kell", role: "apprentice" });
});

test("a session is a signed cookie: forged, ended and of somebody who has left it lets nobody in", async () => {
  const { cookie } = await signIn(shop, "R.T.", `${PHRASE} R.T.`, "10.0.0.7", "tablet");
  expect(await personOf(withCookie(cookie))).toMatchObject({ initials: "R.T.", role: "technician" });
  const other = cookie.replace(/^./, (c) => (c === "a" ? "b" : "a"));
  for (const forged of ["", "x", cookie.slice(0, -1), `${cookie}x`, other, `${cookie.split(".")[0]}.`, ".", "a".repeat(400)])
    expect(await personOfCookie(shop, forged)).toBeUndefined();
  await signOut(shop, cookie);
  expect(await personOf(withCookie(cookie))).toBeUndefined();

  const rt = (await listPeople(shop)).find((p) => p.initials === "R.T.")!;
  const [one, two] = [await openSession(shop, rt.id, "a"), await openSession(shop, rt.id, "b")];
  await signOutEverywhere(shop, rt.id);
  expect([await personOfCookie(shop, one), await personOfCookie(shop, two)]).toEqual([undefined, undefined]);
  const three = await openSession(shop, rt.id, "c");
  await changePerson(shop, rt.id, { passphrase: `${PHRASE} anew` });
  expect(await personOfCookie(shop, three)).toBeUndefined();
  const four = await openSession(shop, rt.id, "d");
  await shop.query("update sessions set seen_at = now() - interval '31 days' where person_id = $1", [rt.id]);
  expect(await personOfCookie(shop, four)).toBeUndefined();
});

test("tries: five, then waits that double up to a quarter of an hour; a right passphrase forgets them", async () => {
  const tries = new Tries();
  let now = 1e12;
  for (let i = 0; i < 5; i++) {
    expect(tries.waitOf("a", now)).toBe(0);
    tries.failed("a", now);
  }
  const waits: number[] = [];
  for (let i = 0; i < 12; i++) {
    waits.push(tries.waitOf("a", now) / 1000);
    now += tries.waitOf("a", now);
    expect(tries.waitOf("a", now)).toBe(0);
    tries.failed("a", now);
  }
  expect(waits).toEqual([2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900, 900]);
  expect(tries.waitOf("b", now)).toBe(0);
  expect(tries.waitOf("a", now + 25 * 3600_000)).toBe(0);
  tries.succeeded("a");
  expect(tries.waitOf("a", now)).toBe(0);

  const guess = () => signIn(shop, "J.M.", "a wrong phrase", "10.0.0.66", "");
  for (let i = 0; i < 5; i++) await expect(guess()).rejects.toMatchObject({ status: 401 });
  await expect(guess()).rejects.toMatchObject({ status: 429, message: expect.stringMatching(/Try again in \d+ s/) });
  await expect(signIn(shop, "A.K.", `${PHRASE} A.K.`, "10.0.0.66", "")).rejects.toMatchObject({ status: 429 });
});

test("the door: a stranger reaches the sign-in and an owner's link, an instrument its own ways, everybody else what is theirs", async () => {
  const { cookie } = await signIn(shop, "A.K.", `${PHRASE} A.K.`, "10.0.0.8", "");
  const stranger = asks("GET");
  const open = ["/sign-in", "/api/v1/session", "/shared/abc.def", "/api/v1/shared/abc.def/report"];
  for (const path of open) expect([path, await mayEnter(stranger, path)]).toEqual([path, true]);
  const shut = [
    "/",
    "/jobs/1001/walk",
    "/settings",
    "/api/v1/settings",
    "/api/v1/jobs/1001/events",
    "/sign-in/x",
    "/shared/a/b",
    "/api/v1/sessions",
  ];
  for (const path of shut) expect([path, await mayEnter(stranger, path)]).toEqual([path, false]);
  for (const path of shut) expect(await mayEnter(withCookie(cookie), path)).toBe(true);

  const { id, token } = await addToken(shop, "bench by the window", "J.M.");
  expect(JSON.stringify(await listTokens(shop))).not.toContain(token);
  const bridge = (method: string, text = token) => asks(method, { authorization: `Bearer ${text}` });
  expect(await mayEnter(bridge("POST"), `/api/v1/jobs/${job}/readings`)).toBe(true);
  expect(await mayEnter(bridge("GET"), `/api/v1/jobs/${job}/bench`)).toBe(true);
  for (const path of ["/", `/api/v1/jobs/${job}/events`, `/api/v1/jobs/${job}/report`, "/api/v1/settings"])
    expect(await mayEnter(bridge("POST"), path)).toBe(false);
  expect(await mayEnter(bridge("GET"), `/api/v1/jobs/${job}/readings`)).toBe(false);
  expect(await mayEnter(bridge("POST", `${token}x`), `/api/v1/jobs/${job}/readings`)).toBe(false);
  expect(await signerOf(bridge("POST"), "X.X.")).toEqual({ initials: "J.M." });
  await revokeToken(shop, id);
  expect(await mayEnter(bridge("POST"), `/api/v1/jobs/${job}/readings`)).toBe(false);
  await expect(revokeToken(shop, id)).rejects.toMatchObject({ status: 404 });
  await expect(ownerOnly(withCookie(cookie))).rejects.toMatchObject({ status: 403 });
  await expect(ownerOnly(stranger)).rejects.toMatchObject({ status: 403 });
});

test("the tape is signed by who is signed in; an apprentice logs no money and passes no gate, nor strikes such a line", async () => {
  const { cookie } = await signIn(shop, "A.K.", `${PHRASE} A.K.`, "10.0.0.9", "");
  const apprentice = withCookie(cookie);
  const says = (type: string, payload: object, more: object = {}) => ({ type, payload, who: "J.M.", ...more }) as IncomingEvent;
  const log = async (by: ReturnType<typeof withCookie>, event: IncomingEvent) => {
    const { events, role } = await signedEvents(by, [event]);
    return (await append(shop, job, events, role))[0]!;
  };
  expect(await log(apprentice, says("note", { text: "hums" }))).toMatchObject({ who: "A.K.", type: "note" });
  const bill = says("bill-line", { text: "bench time", amount: 90, kind: "labour" });
  const refused = (event: IncomingEvent) => expect(log(apprentice, event)).rejects.toMatchObject({ status: 403 });
  const task = { position: "C6", what: "renew", phase: "power off", from: "technician", reversible: true };
  for (const event of [
    bill,
    says("gate-passed", { station: "walk", reason: "looking only", understood: true }),
    says("approval", { what: "new socket", answer: "yes", cost: 40 }),
    says("planned", { ...task, fixedPrice: 80 }),
    says("planned", { ...task, parts: [{ text: "22 nF", pieces: 1, cost: 3, state: "to order" }] }),
    says("change", { position: "C6", kind: "repair", newPart: "22 nF", reversible: true, cost: 3 }),
    says("brief", { order: [], spendingLimit: 900 }),
    says("time", { minutes: -9999 }),
  ])
    await refused(event);
  await log(apprentice, says("planned", task));
  const [line] = await append(shop, job, [bill]);
  await refused(says("undo", {}, { supersedes: line!.seq }));
  // A quote and a question of cost are answered by the technician, whatever the answer leaves out; a question without a cost by anybody.
  const c6 = { text: "C6", kind: "parts", pieces: 1, price: 12, amount: 12 };
  const sum = { net: 12, taxes: [], included: true, rounding: 0, total: 12 };
  const quote = says("quote", { options: [{ name: "Make it work", lines: [c6], sum }] });
  const asked = await append(shop, job, [
    quote,
    says("approval", { what: "new socket", answer: "asked", cost: 40 }),
    says("approval", { what: "drill the chassis", answer: "asked" }),
  ]);
  const yes = (asks: number) => says("approval", { what: "as asked", answer: "yes", asks });
  for (const line of asked.slice(0, 2)) await refused(yes(line!.seq));
  await log(apprentice, yes(asked[2]!.seq));
  // Corrected twice, the second time without its cost, it is still the question that named one.
  const [once] = await append(shop, job, [
    says("approval", { what: "new sockets", answer: "asked", cost: 44 }, { supersedes: asked[1]!.seq }),
  ]);
  const [twice] = await append(shop, job, [says("approval", { what: "new sockets", answer: "asked" }, { supersedes: once!.seq })]);
  await refused(yes(twice!.seq));
  const [agreed] = await append(shop, job, [yes(asked[0]!.seq)]);
  await refused(says("undo", {}, { supersedes: agreed!.seq }));
  // An undo of an undo brings back what it struck.
  const [struck] = await append(shop, job, [says("undo", {}, { supersedes: line!.seq })]);
  await refused(says("undo", {}, { supersedes: struck!.seq }));
  const payment = says("payment", { amount: 20, on: "2026-03-02", means: "cash", what: "payment" });
  const [paid] = await append(shop, job, [payment]);
  const [back] = await append(shop, job, [says("undo", {}, { supersedes: paid!.seq })]);
  const [again] = await append(shop, job, [says("undo", {}, { supersedes: back!.seq })]);
  await refused(says("undo", {}, { supersedes: again!.seq }));
  await expect(log(asks("POST") as never, bill)).rejects.toMatchObject({ status: 401 });

  process.env.SCUTUM_DOOR = "";
  expect(await signedEvents(asks("POST"), [bill])).toEqual({ events: [bill] });
  expect(await signerOf(asks("POST"), "R.T.")).toEqual({ initials: "R.T." });
  process.env.SCUTUM_DOOR = "shut";
});

test("an owner's link opens one job for thirty days; nothing of it can be changed", async () => {
  const now = Date.UTC(2026, 2, 1);
  const { token, until } = await linkTo(shop, job, now);
  expect(until).toBe("2026-03-31");
  expect(await jobOfLink(shop, token, now)).toBe(job);
  expect(await jobOfLink(shop, token, Date.UTC(2026, 2, 31, 23))).toBe(job);
  expect(await jobOfLink(shop, token, Date.UTC(2026, 3, 1, 1))).toBeUndefined();
  const other = token.replace(`report-${job}`, `report-${job + 1}`);
  for (const forged of [other, token.replace("2026-03-31", "2027-03-31"), token.slice(0, -2), await signed(shop, "session")])
    expect(await jobOfLink(shop, forged, now)).toBeUndefined();
  expect(await unsigned(shop, await signed(shop, "x"))).toBe("x");
  expect(hashOf("x")).toHaveLength(64);
});
