/** Streams go on while somebody may see them, and end when they may not, or leave. */

import { rmSync } from "node:fs";
import { closeDb } from "@/server/db";
import { freshShopFolder } from "@/server/fresh-folder-for-tests";
import { eventStream } from "./event-stream";

let folder: string;
beforeAll(async () => {
  folder = await freshShopFolder();
  process.env.SCUTUM_DATA = folder;
});
afterEach(() => {
  delete process.env.SCUTUM_DOOR;
});
afterAll(async () => {
  await closeDb();
  delete process.env.SCUTUM_DATA;
  rmSync(folder, { recursive: true, force: true });
});

const open = (signal?: AbortSignal) => {
  const told = { left: 0, send: (_: string) => {} };
  const response = eventStream(new Request("http://127.0.0.1/api/v1/live", { signal }), (send) => {
    told.send = send;
    return () => void told.left++;
  });
  return { told, reader: response.body!.pipeThrough(new TextDecoderStream()).getReader() };
};

test("what is sent arrives in order; who leaves is let go once, and a late chunk hurts nobody", async () => {
  const leaving = new AbortController();
  const { told, reader } = open(leaving.signal);
  told.send("data: one\n\n");
  told.send("data: two\n\n");
  let text = "";
  while (!text.includes("two")) text += (await reader.read()).value ?? "";
  expect(text).toBe(": Scutum\n\ndata: one\n\ndata: two\n\n");
  leaving.abort();
  await reader.cancel();
  told.send("data: late\n\n");
  expect(told.left).toBe(1);
});

test("a stream of somebody who is signed in no longer is ended at the next sign of life", async () => {
  const { told, reader } = open();
  process.env.SCUTUM_DOOR = "shut";
  let ended = false;
  while (!ended) ended = (await reader.read()).done;
  expect(told.left).toBe(1);
}, 30_000);
