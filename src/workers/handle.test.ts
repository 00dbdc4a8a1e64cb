import { expose, releaseProxy, type Remote } from "comlink";
import { workerHandle, type Speaking } from "./handle";

interface Api extends Speaking {
  work(told?: (part: number) => void): Promise<string>;
}

/** A worker on a channel in this process: comlink cannot tell the difference. */
function workerOf(api: Omit<Api, "speak">) {
  const { port1, port2 } = new MessageChannel();
  expose({ ...api, speak: () => {} }, port1 as never);
  port1.start();
  const terminate = jest.fn(() => (port1.close(), port2.close()));
  return Object.assign(port2, { terminate, onerror: null as ((e: { message: string }) => void) | null });
}
const made: ReturnType<typeof workerOf>[] = [];
const handleOf = (api: Omit<Api, "speak">) =>
  workerHandle<Api>(() => (made.push(workerOf(api)), made.at(-1)! as unknown as Worker), "the solver");
const soon = () => new Promise((r) => setTimeout(r, 30));
afterEach(() => made.splice(0).forEach((w) => w.terminate()));

test("progress comes while the work goes on, and no more once it has ended, though it is told later", async () => {
  let late: ((part: number) => void) | undefined;
  const { ask } = handleOf({
    work: async (told) => {
      late = told;
      await told?.(0.5);
      return "done";
    },
  });
  const parts: number[] = [];
  expect(
    await ask(
      (to, told) => to.work(told) as Promise<string>,
      (part) => parts.push(part),
    ),
  ).toBe("done");
  late!(0.9);
  await soon();
  expect(parts).toEqual([0.5]);
  (late as unknown as Remote<() => void>)[releaseProxy]();
});

test("giving up rejects what waits with the reason, ends the worker, and the next question starts another", async () => {
  let answer = false;
  const { ask, giveUp } = handleOf({ work: () => (answer ? Promise.resolve("second") : new Promise<string>(() => {})) });
  const first = ask((to) => to.work() as Promise<string>);
  await soon();
  giveUp(new Error("stopped"));
  await expect(first).rejects.toThrow("stopped");
  expect(made[0]!.terminate).toHaveBeenCalledTimes(1);
  answer = true;
  expect(await ask((to) => to.work() as Promise<string>)).toBe("second");
  expect(made).toHaveLength(2);
});

test("a worker that cannot be started says so to everybody who waits", async () => {
  const { ask } = handleOf({ work: () => new Promise<string>(() => {}) });
  const waiting = [1, 2].map(() => ask((to) => to.work() as Promise<string>));
  made[0]!.onerror!({ message: "" });
  for (const promise of waiting) await expect(promise).rejects.toThrow("the solver could not be started");
});
