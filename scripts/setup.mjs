/** What the commands need before they can start: packages, a build, a browser. Only Node.js itself is taken for granted. */

import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { get as plainGet } from "node:http";
import { get as secureGet } from "node:https";
import { createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), "..");
process.chdir(ROOT);
process.env.NEXT_TELEMETRY_DISABLED = "1";

export const say = (text) => console.log(`scutum: ${text}`);

/** Ends the command with a message and an honest exit code. */
export function fail(text, code = 1) {
  console.error(`scutum: ${text}`);
  process.exit(code);
}

/** Runs a program in the foreground. Gives its exit code; ends the command when `must` is set and it failed. */
export function run(program, args, { env = {}, must = true, what = program } = {}) {
  const result = spawnSync(program, args, { stdio: "inherit", cwd: ROOT, env: { ...process.env, ...env } });
  const code = result.status ?? 1;
  if (must && code !== 0) fail(`${what} failed (exit ${code}${result.error ? `, ${result.error.message}` : ""}).`, code);
  return code;
}

const hashOf = (text) => createHash("sha256").update(text).digest("hex").slice(0, 16);

function checkNode() {
  const major = Number(process.versions.node.split(".")[0]);
  if (major < 20) fail(`Node.js 20 or newer is wanted; this is ${process.versions.node}.`);
}

/** Installs from the lockfile when node_modules is missing or was installed from another one. */
export function ensureInstalled() {
  checkNode();
  const stamp = join(ROOT, "node_modules/.scutum-lock");
  const lock = hashOf(readFileSync(join(ROOT, "package-lock.json")));
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  say("installing packages from the lockfile…");
  run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], { what: "npm ci" });
  writeFileSync(stamp, lock);
}

function* filesUnder(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesUnder(path);
    else if (!/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

/** A hash of everything that the build is made of. */
function sourceHash() {
  const hash = createHash("sha256");
  for (const file of [
    "package-lock.json",
    "next.config.mjs",
    "tsconfig.json",
    "postcss.config.mjs",
    "scripts/service-worker.mjs",
    ...filesUnder("src"),
  ]) {
    if (existsSync(file) && statSync(file).isFile()) hash.update(file).update(readFileSync(file));
  }
  return hash.digest("hex").slice(0, 16);
}

const BUILD_STAMP = join(ROOT, ".next/scutum-build");
const BUILD = [
  ["build", ["node_modules/next/dist/bin/next", "build"]],
  ["service worker", ["scripts/service-worker.mjs"]],
];

/** The hash of the sources, where they are not those of the build that stands; undefined: there is nothing to build. */
function toBuild() {
  const source = sourceHash();
  return existsSync(BUILD_STAMP) && readFileSync(BUILD_STAMP, "utf8") === source ? undefined : source;
}

function built(source) {
  mkdirSync(dirname(BUILD_STAMP), { recursive: true });
  writeFileSync(BUILD_STAMP, source);
}

/** Builds when there is no build or the sources have changed since. */
export function ensureBuilt() {
  const source = toBuild();
  if (!source) return;
  say("building the application…");
  for (const [what, args] of BUILD) run(process.execPath, args, { what });
  built(source);
}

/**
 * The same beside other work, with the types of all that tsconfig.json names: a build checks them, with those of the routes that it has
 * just written. Where there is nothing to build they are checked by themselves; never beside a build, which writes what they read.
 * @param run what runs a step: its name and the arguments of Node.js; answers whether it ended well.
 */
export async function buildStep(run) {
  const source = toBuild();
  if (!source) return run("types", ["node_modules/typescript/bin/tsc", "--noEmit"]);
  for (const [what, args] of BUILD) if (!(await run(what, args))) return false;
  built(source);
  return true;
}

/** Path of a Chromium; on Debian as root it is installed when missing. */
export function ensureChromium() {
  const places = [process.env.SCUTUM_CHROMIUM, "/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"].filter(Boolean);
  const found = () => places.find((p) => existsSync(p));
  if (found()) return found();
  installDebian("chromium", "for the tests in a browser");
  if (found()) return found();
  fail("no Chromium was found. Install it (Debian: apt-get install chromium) or set SCUTUM_CHROMIUM to its path.");
}

/** The same browser without a window, which costs a third less: for the tests that need none. Where a machine has no such package, the whole one. */
export function ensureHeadlessShell() {
  const whole = ensureChromium();
  // A browser that somebody has chosen is the one that is meant.
  if (process.env.SCUTUM_CHROMIUM) return whole;
  if (!existsSync(HEADLESS_SHELL)) installDebian("chromium-headless-shell", "for the tests in a browser");
  return existsSync(HEADLESS_SHELL) ? HEADLESS_SHELL : whole;
}
const HEADLESS_SHELL = "/usr/bin/chromium-headless-shell";

/** Installs a Debian package when root on such a machine; what it would have brought is looked for by the caller. */
function installDebian(name, why) {
  if (process.getuid?.() !== 0 || !existsSync("/usr/bin/apt-get")) return;
  say(`installing ${name} from Debian's packages, ${why}…`);
  const quiet = { must: false, env: { DEBIAN_FRONTEND: "noninteractive" } };
  run("apt-get", ["update", "-qq"], quiet);
  run("apt-get", ["install", "-y", "-qq", "--no-install-recommends", name], quiet);
}

/** A general SPICE to hold the exported netlists against: Debian's ngspice when root, else what is there. Nothing depends on it. */
export function ensureSpice() {
  if (existsSync("/usr/bin/ngspice")) return;
  installDebian("ngspice", "for the tests of the SPICE export");
  if (!existsSync("/usr/bin/ngspice")) say("no ngspice here: the tests that compare with it are passed over.");
}

/** A PostgreSQL server for the tests of a shop that is on one. */
export function ensurePostgres() {
  if (existsSync("/usr/lib/postgresql")) return;
  installDebian("postgresql", "for the tests of a shop on a server");
  if (!existsSync("/usr/lib/postgresql")) say("no PostgreSQL here: the tests of a shop on a server are passed over.");
}

export function freePort(wanted) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(freePort(0)));
    probe.listen(wanted, "127.0.0.1", () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/** Whether a server answers there. Whose certificate it shows is not asked: it is this machine's own. */
function answers(address) {
  return new Promise((resolve) => {
    const get = address.startsWith("https:") ? secureGet : plainGet;
    const asked = get(`${address}/api/v1/settings`, { rejectUnauthorized: false }, (answer) => {
      answer.resume();
      resolve(answer.statusCode === 200 || answer.statusCode === 401);
    });
    asked.on("error", () => resolve(false));
    asked.setTimeout(5000, () => asked.destroy());
  });
}

/** Starts the built application on a data folder. Resolves when it answers. */
export async function startServer({ data, port, quiet = false, host = process.env.SCUTUM_HOST ?? "127.0.0.1" }) {
  const child = spawn(process.execPath, ["scripts/serve.mjs"], {
    cwd: ROOT,
    stdio: ["ignore", quiet ? "ignore" : "inherit", "inherit"],
    env: { ...process.env, NODE_ENV: "production", SCUTUM_DATA: data, SCUTUM_HOST: host, PORT: String(port) },
  });
  const ended = new Promise((resolve) => child.once("exit", (code) => resolve(code ?? 1)));
  const secure = !["127.0.0.1", "localhost", "::1"].includes(host) && process.env.SCUTUM_PLAIN_HTTP === undefined;
  const address = `${secure ? "https" : "http"}://${host === "0.0.0.0" ? "127.0.0.1" : host}:${port}`;
  const deadline = Date.now() + 60_000;
  for (;;) {
    const answered = await answers(address);
    if (answered) return { child, address, ended };
    const gone = await Promise.race([ended, new Promise((r) => setTimeout(() => r(undefined), 60))]);
    if (gone !== undefined) return { child, address, ended, failed: gone };
    if (Date.now() > deadline) {
      child.kill("SIGKILL");
      return { child, address, ended, failed: 1 };
    }
  }
}

/** Lets a server run until it ends or this command is stopped. */
export async function serve(server) {
  for (const signal of ["SIGINT", "SIGTERM"]) process.once(signal, () => server.child.kill(signal));
  process.exit(await server.ended);
}
