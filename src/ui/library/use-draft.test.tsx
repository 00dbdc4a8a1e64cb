/** @jest-environment jsdom */
import { act, renderHook } from "@testing-library/react";
import { useDraft } from "./use-draft";

const PLACE = "scutum-draft:model-1";
beforeEach(() => localStorage.clear());

test("what is typed is undone and done again, and kept until it is stored", () => {
  const { result } = renderHook(() => useDraft("model-1", "stored"));
  expect(result.current.canUndo).toBe(false);
  act(() => result.current.setText("stored, then much more"));
  act(() => result.current.setText("stored, then something else entirely"));
  expect(JSON.parse(localStorage.getItem(PLACE)!)).toMatchObject({ text: "stored, then something else entirely", stored: "stored" });
  act(() => result.current.undo());
  expect(result.current.text).toBe("stored, then much more");
  act(() => result.current.undo());
  expect(result.current.text).toBe("stored");
  expect(localStorage.getItem(PLACE)).toBeNull();
  act(() => result.current.redo());
  expect(result.current.text).toBe("stored, then much more");
  act(() => result.current.discard());
  expect(result.current.text).toBe("stored");
  act(() => result.current.undo());
  expect(result.current.text).toBe("stored, then much more");
});

test("letters in a row are one step", () => {
  const { result } = renderHook(() => useDraft("model-1", "a long enough text"));
  for (const text of ["a long enough text1", "a long enough text12", "a long enough text123"]) act(() => result.current.setText(text));
  act(() => result.current.undo());
  expect(result.current.text).toBe("a long enough text");
});

test("a reload goes on where it was; a file that was stored since is not overwritten by an old draft", () => {
  localStorage.setItem(PLACE, JSON.stringify({ text: "typed before", stored: "stored", at: "2026-03-01T10:00:00Z" }));
  const { result } = renderHook(() => useDraft("model-1", "stored"));
  expect(result.current.text).toBe("typed before");
  expect(result.current.from).toEqual(new Date("2026-03-01T10:00:00Z"));
  const newer = renderHook(() => useDraft("model-1", "stored since"));
  expect(newer.result.current.text).toBe("stored since");
});

test("what cannot be kept is said; what was left there by another program is no draft", () => {
  localStorage.setItem(PLACE, "{broken");
  const { result } = renderHook(() => useDraft("model-1", "stored"));
  expect(result.current.text).toBe("stored");
  const full = jest.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new Error("the quota is used up");
  });
  act(() => result.current.setText("something new in it"));
  expect(result.current.notKept).toBe("the quota is used up");
  full.mockRestore();
});
