/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from "@testing-library/react";
import "@testing-library/jest-dom";
import { Keys } from "./keys";
import { LONG_MS, usePedal } from "./pedal";

const heard: string[] = [];
function Probe({ keys }: { keys: [string, string][] }) {
  const pedal = usePedal({
    short: () => heard.push("short"),
    long: () => heard.push("long"),
    other: (key) => (heard.push(key), true),
  });
  return <Keys keys={keys} pedal={pedal} />;
}
beforeEach(() => {
  heard.length = 0;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());
const KEYS: [string, string][] = [
  ["press", "take it now"],
  ["hold", "skip"],
  ["B", "back"],
  ["0–9 k M", "type it"],
  ["O", "off, plug out"],
  ["Esc", "leave"],
];

test("each key can be touched; the one key's long press takes as long by touch", () => {
  render(<Probe keys={KEYS} />);
  fireEvent.click(screen.getByRole("button", { name: "press take it now" }));
  fireEvent.click(screen.getByRole("button", { name: "B back" }));
  fireEvent.click(screen.getByRole("button", { name: "Esc leave" }));
  expect(heard.splice(0)).toEqual(["short", "b", "escape"]);

  const hold = screen.getByRole("button", { name: "hold skip" });
  fireEvent.pointerDown(hold);
  act(() => jest.advanceTimersByTime(LONG_MS - 100));
  fireEvent.pointerUp(hold);
  fireEvent.click(hold);
  act(() => jest.advanceTimersByTime(LONG_MS));
  // Too short for a long press, and not a press either.
  expect(heard).toEqual([]);
  fireEvent.pointerDown(hold);
  act(() => jest.advanceTimersByTime(LONG_MS));
  fireEvent.pointerUp(hold);
  expect(heard).toEqual(["long"]);
});

test("that the amp is off is not logged by a single touch", () => {
  render(<Probe keys={KEYS} />);
  expect(screen.queryByRole("button", { name: /off, plug out/ })).not.toBeInTheDocument();
  expect(screen.getByText("off, plug out")).toBeInTheDocument();
});

test("digits come when they are asked for, with the multipliers of what is measured", () => {
  render(<Probe keys={KEYS} />);
  expect(screen.queryByRole("group", { name: "Digits" })).not.toBeInTheDocument();
  fireEvent.click(screen.getByRole("button", { name: "0–9 k M type it" }));
  for (const key of ["4", "7", "k"]) fireEvent.click(screen.getByRole("button", { name: key }));
  fireEvent.click(screen.getByRole("button", { name: "Take back a digit" }));
  expect(heard).toEqual(["4", "7", "k", "backspace"]);
});
