/** @jest-environment jsdom */
import { act, fireEvent, screen } from "@testing-library/react";
import { energyOf, viewJob } from "@/core/job/job-view";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import { power, reading, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { SafeProbe } from "./safe-probe";

jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }) }));
jest.mock("./sound", () => ({ useSound: () => ({ say() {}, toggleSpeech() {}, toggleTone() {}, speech: false, tone: false }) }));

beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers({ advanceTimers: true });
});
afterEach(() => jest.useRealTimers());

const step = () => screen.getByTestId("safe-step");
async function type(text: string) {
  for (const key of text) fireEvent.keyDown(document.body, { key });
  fireEvent.keyDown(document.body, { key: " ", code: "Space" });
  act(() => void jest.advanceTimersByTime(50));
  fireEvent.keyUp(document.body, { key: " ", code: "Space" });
  await settle();
}

test("from a Wren that was just switched off to PROVEN DEAD: meter, tool, clip, one reading a reservoir, tool, meter", async () => {
  const server = new TestServer([power("on"), reading("B1", 292)], Date.now() - 90_000);
  await renderJob(<SafeProbe />, { server, netlist: WREN });
  expect(step()).toHaveTextContent("Switch off and pull the plug");
  await type("");
  expect(step()).toHaveTextContent("Prove the meter on a known source");
  await type("9.02");
  expect(step()).toHaveTextContent("Measure the discharge tool");
  await type("2190");
  expect(step()).toHaveTextContent("Clip the tool on C1: it holds");
  expect(step()).toHaveTextContent("at B1");
  fireEvent.keyDown(document.body, { key: "c" });
  await settle();
  expect(step()).toHaveTextContent("The clip is on C1: it cannot charge.");
  for (const reservoir of ["C1", "C2", "C3"]) {
    expect(step()).toHaveTextContent(`Read ${reservoir}`);
    await type("0.4");
  }
  expect(step()).toHaveTextContent("Measure the discharge tool again");
  await type("2200");
  expect(step()).toHaveTextContent("Prove the meter again");
  await type("9.01");
  expect(screen.getByRole("status", { name: "Energy state" })).toHaveTextContent(/PROVEN DEAD.*clip on C1/);
  // By the tape too: no second reading was needed, since the clip is on.
  expect(server.lines.filter((l) => l.type === "discharge-reading")).toHaveLength(3);
  const now = Date.now();
  expect(energyOf(viewJob([...server.lines], WREN, DEFAULT_SETTINGS, now), now).kind).toBe("proven-dead");
  // The clip comes off: the minute begins.
  await type("");
  expect(step()).toHaveTextContent("Read C1 again");
  expect(screen.getByRole("timer")).toBeVisible();
});

test("what cannot be read as volts is refused, and stays", async () => {
  const server = new TestServer([power("off")]);
  await renderJob(<SafeProbe />, { server, netlist: WREN });
  await type("9");
  await type("0,,4");
  expect(screen.getByRole("region", { name: "What is there" })).toHaveTextContent("0,,4 V");
  expect(server.lines.map((l) => l.type)).toEqual(["power", "meter-check"]);
});
