/** Programs of node_modules run beside each other; what each prints comes out in one piece once it has ended, or line by line as it comes. */

import { spawn } from "node:child_process";
import { once } from "node:events";
import { say } from "./setup.mjs";

/**
 * @param {string} what its name in the report
 * @param {string[]} args of Node.js
 * @param {{ env?: Record<string, string>, show?: boolean }} options `show`: what it prints is shown as it comes.
 * @returns {Promise<boolean>} whether it ended well
 */
export async function beside(what, args, { env = {}, show = false } = {}) {
  const started = Date.now();
  const child = spawn(process.execPath, args, { stdio: ["ignore", "pipe", "pipe"], env: { ...process.env, ...env } });
  const printed = [];
  for (const stream of [child.stdout, child.stderr]) {
    stream.on("data", (part) => (show ? process.stdout.write(part) : printed.push(part)));
  }
  const [code] = await once(child, "close");
  if (code !== 0) process.stdout.write(Buffer.concat(printed));
  say(`${what}: ${code === 0 ? "passed" : `FAILED (exit ${code})`}, ${Math.round((Date.now() - started) / 1000)} s`);
  return code === 0;
}
