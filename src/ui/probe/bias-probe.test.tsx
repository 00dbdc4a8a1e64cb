/** @jest-environment jsdom */
import { readFileSync } from "node:fs";
import { act, fireEvent, screen } from "@testing-library/react";
import type { EventDraft } from "@/core/tape/events/event";
import { power, renderJob, settle, TestServer } from "../job-for-tests";
import { BiasProbe } from "./bias-probe";

jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }) }));
jest.mock("./sound", () => ({ useSound: () => ({ say() {}, toggleSpeech() {}, toggleTone() {}, speech: false, tone: false }) }));

const DROVER = readFileSync("demo/amps/drover-40.cir", "utf8");
const checked: EventDraft = { type: "live-check", payload: { confirmed: ["one hand"] } };

beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers({ advanceTimers: true });
});
afterEach(() => jest.useRealTimers());

const point = () => screen.getByTestId("bias-step").dataset.point;
async function type(text: string) {
  for (const key of text) fireEvent.keyDown(document.body, { key });
  fireEvent.keyDown(document.body, { key: " ", code: "Space" });
  act(() => void jest.advanceTimersByTime(50));
  fireEvent.keyUp(document.body, { key: " ", code: "Space" });
  await settle();
}
async function begun() {
  const server = new TestServer([power("on"), checked], Date.now() - 600_000);
  await renderJob(<BiasProbe />, { server, netlist: DROVER });
  return server;
}

test("what is typed is read of the tube that is asked for, the next one comes, and the way back finds the run as it was", async () => {
  const server = await begun();
  expect(point()).toBe("V5.k");
  await type("0.45");
  expect(point()).toBe("V6.k");
  expect(server.lines.at(-1)).toMatchObject({ type: "reading", payload: { point: "V5.k", kind: "dcv", value: 0.45 } });
  fireEvent.keyDown(document.body, { key: "Escape" });
  await settle();
  expect(screen.getByRole("region", { name: "Power-off question" })).toBeVisible();
  fireEvent.keyDown(document.body, { key: "Escape" });
  await settle();
  expect(point()).toBe("V6.k");
});

test("a bias that is missing says switch off, and leads nowhere else", async () => {
  const server = await begun();
  for (const volts of ["0.45", "0.46", "-2"]) await type(volts);
  const question = screen.getByRole("region", { name: "Power-off question" });
  expect(question).toHaveTextContent("Switch off now: without bias the output tubes overheat within seconds.");
  expect(server.lines.at(-1)).toMatchObject({ type: "reading", payload: { point: "BIAS", value: -2 } });
  fireEvent.keyDown(document.body, { key: "Escape" });
  await settle();
  expect(screen.queryByTestId("bias-step")).toBeNull();
});

test("what cannot be read is refused and stays; a skipped tube is come back to", async () => {
  await begun();
  await type("0,,4");
  const there = screen.getByRole("region", { name: "What is there" });
  expect(there).toHaveTextContent("0,,4 V");
  expect(there).toHaveTextContent("accepted: 0.45, 38m");
  fireEvent.keyDown(document.body, { key: "Escape" });
  fireEvent.keyDown(document.body, { key: " ", code: "Space" });
  act(() => void jest.advanceTimersByTime(2000));
  fireEvent.keyUp(document.body, { key: " ", code: "Space" });
  await settle();
  expect(point()).toBe("V6.k");
  fireEvent.keyDown(document.body, { key: "b" });
  await settle();
  expect(point()).toBe("V5.k");
});
