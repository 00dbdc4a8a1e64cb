/** @jest-environment jsdom */
import { act, fireEvent, render } from "@testing-library/react";
import { LONG_MS, usePedal } from "./pedal";

const called: string[] = [];
function Pedal({ name = "" }: { name?: string }) {
  usePedal({
    short: () => void called.push(`short${name}`),
    long: () => void called.push(`long${name}`),
    other: (key) => key === "b" && (called.push(key), true),
  });
  return <button onClick={() => called.push("clicked")}>a button</button>;
}

beforeEach(() => {
  called.length = 0;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());
const hold = (ms: number) => act(() => void jest.advanceTimersByTime(ms));
const down = (key: string, more: object = {}) => fireEvent.keyDown(window, { key, ...more });
const up = (key: string) => fireEvent.keyUp(window, { key });

test.each([" ", "Enter", "PageDown"])("%p short and long", (key) => {
  render(<Pedal />);
  down(key);
  hold(LONG_MS - 1);
  up(key);
  expect(called).toEqual(["short"]);
  down(key);
  hold(LONG_MS);
  up(key);
  expect(called).toEqual(["short", "long"]);
});

test("the key's own repeat does not press again, however long it is held", () => {
  render(<Pedal />);
  down(" ");
  for (let i = 0; i < 40; i++) {
    hold(30);
    down(" ", { repeat: true });
  }
  up(" ");
  expect(called).toEqual(["long"]);
});

test("letting go without a press is nothing: the key was pressed on the screen before", () => {
  render(<Pedal />);
  up(" ");
  expect(called).toEqual([]);
});

test("a button that has the focus is not pressed as well; other keys go to their own use", () => {
  const { getByRole } = render(<Pedal />);
  getByRole("button").focus();
  const space = new KeyboardEvent("keydown", { key: " ", bubbles: true, cancelable: true });
  act(() => void getByRole("button").dispatchEvent(space));
  expect(space.defaultPrevented).toBe(true);
  up(" ");
  down("B");
  down("x");
  down("b", { ctrlKey: true });
  expect(called).toEqual(["short", "b"]);
});

test("the latest handlers are called, and none after it is gone", () => {
  const { rerender, unmount } = render(<Pedal name=" one" />);
  rerender(<Pedal name=" two" />);
  down(" ");
  up(" ");
  down(" ");
  unmount();
  hold(LONG_MS * 2);
  up(" ");
  expect(called).toEqual(["short two"]);
});
