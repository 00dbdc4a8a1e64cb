/** @jest-environment jsdom */
import { act, renderHook } from "@testing-library/react";
import { useAnswer } from "./use-answer";

/** Answers that the test gives when it likes. */
function questions() {
  const open = new Map<string, { give(answer: string): void; fail(error: Error): void; progress(part: number): void }>();
  const ask = (key: string) => (progress: (part: number) => void) =>
    new Promise<string>((give, fail) => open.set(key, { give, fail, progress }));
  return { open, ask };
}
const soon = (work: () => void) => act(async () => work());

test("an answer that comes after the question has changed is dropped", async () => {
  const { open, ask } = questions();
  const { result, rerender } = renderHook(({ key }) => useAnswer(key, ask(key)), { initialProps: { key: "C1 open" } });
  rerender({ key: "C2 open" });
  await soon(() => open.get("C2 open")!.give("of C2"));
  await soon(() => open.get("C1 open")!.give("of C1, late"));
  expect(result.current.answer).toBe("of C2");
});

test("a failure that comes late does not hide the newer answer; a new question clears the old failure", async () => {
  const { open, ask } = questions();
  const { result, rerender } = renderHook(({ key }) => useAnswer(key, ask(key)), { initialProps: { key: "one" } });
  await soon(() => open.get("one")!.fail(new Error("the amp does not settle")));
  expect(result.current.failed).toBe("the amp does not settle");
  rerender({ key: "two" });
  expect(result.current.failed).toBe("");
  rerender({ key: "three" });
  await soon(() => open.get("three")!.give("fine"));
  await soon(() => open.get("two")!.fail(new Error("late")));
  expect(result.current).toMatchObject({ answer: "fine", failed: "" });
});

test("progress of an older question is not shown for the newer one", async () => {
  const { open, ask } = questions();
  const { result, rerender } = renderHook(({ key }) => useAnswer(key, ask(key)), { initialProps: { key: "one" } });
  await soon(() => open.get("one")!.progress(0.9));
  expect(result.current.progress).toBe(0.9);
  rerender({ key: "two" });
  await soon(() => open.get("one")!.progress(0.95));
  expect(result.current.progress).toBe(0);
});

test("nothing is asked without a key", () => {
  const ask = jest.fn();
  renderHook(() => useAnswer(undefined, ask));
  expect(ask).not.toHaveBeenCalled();
});
