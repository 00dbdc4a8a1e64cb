/** A shop that other machines reach: the first owner, signing in, an apprentice, the owner's link, TLS. */

import { awakeBeforeUse, expect, test, type Browser, type Page } from "./test";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { request } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, Shop } from "./shop";

const CODE = "code-of-the-terminal";
let shop: Shop;
test.beforeAll(async () => {
  shop = await Shop.open({ demo: true, env: { SCUTUM_DOOR: "shut", SCUTUM_FIRST_CODE: CODE } });
});
test.afterAll(() => shop.close());

async function signIn(browser: Browser, initials: string, passphrase: string): Promise<Page> {
  const page = awakeBeforeUse(await (await browser.newContext()).newPage());
  await page.goto(`${shop.address}/jobs/1004/walk`);
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await page.getByLabel("Initials").fill(initials);
  await page.getByLabel("Passphrase").fill(passphrase);
  await page.getByRole("button", { name: "Sign in" }).click();
  return page;
}

test("the first owner, an apprentice who passes no gate, sign-out, and a report for the amp's owner", async ({ page, browser }) => {
  await page.goto(shop.address);
  await expect(page).toHaveURL(/sign-in/);
  await page.getByLabel("Code from the terminal").fill("a guess");
  await page.getByLabel("Initials").fill("J.M.");
  await page.getByLabel("Name", { exact: true }).fill("Jonas Mell");
  await page.getByLabel(/^Passphrase/).fill("the lathe hums at night");
  await page.getByLabel("The same again").fill("the lathe hums at noon");
  await page.getByRole("button", { name: "Store and sign in" }).click();
  await expect(page.getByText("not the same")).toBeVisible();
  await page.getByLabel("The same again").fill("the lathe hums at night");
  await page.getByRole("button", { name: "Store and sign in" }).click();
  await expect(page.getByText("not the code that the terminal shows")).toBeVisible();
  await page.getByLabel("Code from the terminal").fill(CODE);
  await page.getByRole("button", { name: "Store and sign in" }).click();
  await expect(page.getByText("J.M. owner")).toBeVisible();

  await page.goto(`${shop.address}/settings`);
  const people = page.getByRole("region", { name: "People" });
  await people.getByLabel("Initials").fill("A.K.");
  await people.getByLabel("Name", { exact: true }).fill("Ada Kell");
  await people.getByRole("combobox", { name: "Role", exact: true }).selectOption("apprentice");
  await people.getByLabel("Passphrase, 10").fill("coffee in the field");
  await people.getByRole("button", { name: "Add this person" }).click();
  await expect(people.getByText("Ada Kell")).toBeVisible();

  const hers = await signIn(browser, "A.K.", "coffee in the field");
  await expect(hers).toHaveURL(/\/jobs\/1004\/walk/);
  await hers.goto(`${shop.address}/jobs/1004/intake`);
  const entry = hers.getByLabel("Entry line", { exact: true });
  await entry.fill("note rang the owner");
  await entry.press("Enter");
  const line = hers.getByRole("list", { name: "Lines of the tape" }).getByRole("listitem").last();
  await expect(line).toContainText("rang the owner");
  await expect(line).toContainText("A.K.");
  const refused = await hers.evaluate(async () => {
    const events = [{ type: "bill-line", who: "J.M.", payload: { text: "bench time", amount: 90, kind: "labour" } }];
    const answer = await fetch("/api/v1/jobs/1004/events", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ events }),
    });
    return [answer.status, ((await answer.json()) as { error: string }).error];
  });
  expect(refused).toEqual([403, expect.stringMatching(/enters nothing on the bill/)]);
  await hers.goto(`${shop.address}/settings`);
  await expect(hers.getByRole("region", { name: "People" })).toHaveCount(0);

  await page.goto(`${shop.address}/jobs/1012/report`);
  await page.getByRole("button", { name: "Link for the owner" }).click();
  const link = await page.getByLabel(/For the owner, until/).inputValue();
  const owner = awakeBeforeUse(await (await browser.newContext()).newPage());
  await owner.goto(link);
  await expect(owner.getByRole("article")).toBeVisible();
  const pdf = await owner.request.get(link.replace("/shared/", "/api/v1/shared/") + "/report");
  expect([pdf.status(), (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, "%PDF-"]);
  for (const path of ["/", "/jobs/1012/report", "/jobs/1012/walk"]) {
    await owner.goto(shop.address + path);
    await expect(owner).toHaveURL(/sign-in/);
  }
  expect((await owner.request.get(`${shop.address}/api/v1/jobs/1012/report`)).status()).toBe(401);

  await page.goto(shop.address);
  await page.getByText("J.M. owner").click();
  await page.getByRole("button", { name: "Sign out on every device" }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("beyond this machine everything goes over TLS, with a certificate of its own; plain HTTP has to be meant", async () => {
  const folder = mkdtempSync(join(tmpdir(), "scutum-tls-"));
  const port = await freePort();
  const env = { ...process.env, NODE_ENV: "production" as const, SCUTUM_DATA: folder, SCUTUM_HOST: "0.0.0.0", PORT: String(port) };
  const refused = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: { ...env, SCUTUM_PLAIN_HTTP: "yes" },
    stdio: ["ignore", "ignore", "pipe"],
  });
  let said = "";
  refused.stderr.on("data", (part) => (said += String(part)));
  expect(await new Promise((resolve) => refused.once("exit", resolve))).toBe(1);
  expect(said).toContain("Without TLS everybody on this network can read the passphrases");

  const child = spawn(process.execPath, ["scripts/serve.mjs"], { env, stdio: ["ignore", "pipe", "inherit"] });
  let printed = "";
  child.stdout.on("data", (part) => (printed += String(part)));
  try {
    const get = (path: string) =>
      new Promise<{ status: number; headers: Record<string, unknown>; fingerprint: string }>((resolve, reject) => {
        const asked = request({ host: "127.0.0.1", port, path, rejectUnauthorized: false }, (answer) => {
          const fingerprint = (answer.socket as unknown as { getPeerCertificate(): { fingerprint256: string } }).getPeerCertificate()
            .fingerprint256;
          answer.resume().on("end", () => resolve({ status: answer.statusCode!, headers: answer.headers, fingerprint }));
        });
        asked.on("error", reject).end();
      });
    // It says so when it can be reached, however long that takes on a busy machine; or it ends, and then nothing is waited for.
    await new Promise<void>((resolve, reject) => {
      child.once("exit", (code) => reject(new Error(`the server ended with ${code}; it said: ${printed}`)));
      child.stdout.on("data", () => printed.includes("Certificate, SHA-256") && resolve());
    });
    expect((await get("/sign-in")).status).toBe(200);
    const page = await get("/");
    expect([page.status, page.headers.location]).toEqual([307, expect.stringContaining("/sign-in?to=%2F")]);
    expect(page.headers["strict-transport-security"] ?? (await get("/sign-in")).headers["strict-transport-security"]).toContain("max-age=");
    await expect.poll(() => printed).toContain(page.fingerprint);
    expect(printed).toMatch(/becomes the owner of the shop/);
    await expect(fetch(`http://127.0.0.1:${port}/sign-in`)).rejects.toThrow();
  } finally {
    child.kill("SIGKILL");
    rmSync(folder, { recursive: true, force: true });
  }
});
