/** Hostile text in every free field, opened in a browser. */

import { expect, test } from "./test";
import { samplePayloads } from "../../src/core/tape/samples-for-tests";
import { STATIONS } from "../../src/core/tape/stations";
import { Client } from "../hostile/client";
import { openAll, openTarget, storeBoth } from "../hostile/lines";
import { Shop } from "./shop";

let shop: Shop;
let client: Client;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true });
  client = new Client(shop.address);
  // The samples of quotes and bills are without tax: with one they would be refused before anybody reads them.
  const address = `${shop.address}/api/v1/settings`;
  const settings = (await (await fetch(address)).json()) as { money: object };
  const body = JSON.stringify({ ...settings, money: { ...settings.money, taxes: [] } });
  expect((await fetch(address, { method: "PUT", headers: { "content-type": "application/json" }, body })).status).toBe(200);
});
test.afterAll(async () => {
  client.close();
  await shop.close();
});

const HOSTILE = [
  `"><img src=x onerror="alert(1)">`,
  `<script>alert(2)</script>`,
  `javascript:alert(3)`,
  `' onmouseover='alert(4)`,
  `</title></style><svg onload=alert(5)>`,
  `=HYPERLINK("http://x.invalid","y")`,
];

/** Copies of a payload with one free text each replaced. */
function hostileCopies(value: unknown, text: string): unknown[] {
  if (typeof value === "string") return [text];
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, inner]) =>
    hostileCopies(inner, text).map((copy) =>
      Array.isArray(value) ? value.map((v: unknown, i) => (i === Number(key) ? copy : v)) : { ...value, [key]: copy },
    ),
  );
}

test("hostile text in every free field runs nowhere, and breaks no page", async ({ page }) => {
  const stored = await storeBoth(client);
  const { job, lines } = await openTarget(client, stored);
  let taken = 0;
  for (const [type, payload] of Object.entries(samplePayloads(stored, lines))) {
    if (type === "undo") continue;
    for (const [i, copy] of hostileCopies(payload, "").entries()) {
      const text = HOSTILE[i % HOSTILE.length]!;
      const event = { type, who: "J.M.", payload: JSON.parse(JSON.stringify(copy), (_, v: unknown) => (v === "" ? text : v)) as object };
      if ((await client.send("POST", `/api/v1/jobs/${job}/events`, JSON.stringify({ events: [event] }))).status === 200) taken++;
    }
  }
  expect(taken).toBeGreaterThan(60);
  expect(await openAll(client, job)).toEqual([]);

  const wrong: string[] = [];
  page.on("dialog", (d) => (wrong.push(`dialog ${d.message()}`), void d.dismiss()));
  page.on("pageerror", (e) => wrong.push(`error ${e.message}`));
  page.on("console", (m) => m.text().startsWith("CSP") && wrong.push(m.text()));
  await page.addInitScript(() =>
    document.addEventListener("securitypolicyviolation", (e) => console.error(`CSP ${e.violatedDirective} ${e.blockedURI} ${e.sample}`)),
  );
  for (const path of [...STATIONS.map((s) => `/jobs/${job}/${s.id}`), `/jobs/${job}/probe`, `/jobs/${job}/report`, "/"]) {
    await page.goto(shop.address + path);
    await expect(page.locator("main, article, [data-ready]").first()).toBeVisible();
  }
  expect(wrong).toEqual([]);
});
