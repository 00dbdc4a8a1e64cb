/** @jest-environment jsdom */
import { act, fireEvent, screen } from "@testing-library/react";
import type { Role } from "@/core/shop/people";
import { HALBERD, renderJob, settle, TestServer } from "../job-for-tests";
import { Asking } from "./asking";

beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers({ advanceTimers: true });
});
afterEach(() => jest.useRealTimers());

const check = () => screen.getByRole("region", { name: "Live-work check" });
const press = async (held: number) => {
  fireEvent.keyDown(document.body, { key: " ", code: "Space" });
  act(() => void jest.advanceTimersByTime(held));
  fireEvent.keyUp(document.body, { key: " ", code: "Space" });
  await settle();
};
/** Nods all conditions through, up to the first that is no condition of a person but a gate of the amp. */
async function toTheGate(role?: Role) {
  const server = new TestServer();
  await renderJob(<Asking order="movement" setOrder={() => {}} done={() => {}} out={() => {}} />, { server, netlist: HALBERD, role });
  for (let i = 0; i < 12 && !/Safety condition not met/.test(check().textContent); i++) await press(50);
  expect(check()).toHaveTextContent(/Safety condition not met/);
  return server;
}

test("a gate of the amp is passed by a long press, which lands on the tape", async () => {
  const server = await toTheGate();
  await press(50);
  expect(server.lines).toEqual([]);
  await press(2000);
  expect(server.lines.map((l) => l.type)).toEqual(["gate-passed"]);
});

test("an apprentice is told whom to ask, and a long press passes nothing", async () => {
  const server = await toTheGate("apprentice");
  expect(check()).toHaveTextContent("An apprentice passes no safety gate: ask the technician.");
  await press(2000);
  expect([server.lines, /Safety condition not met/.test(check().textContent)]).toEqual([[], true]);
});
