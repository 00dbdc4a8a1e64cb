/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { EventDraft } from "@/core/tape/events/event";
import { power, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { Soak } from "./soak";

beforeEach(() => localStorage.clear());
const field = (label: RegExp) => screen.getByLabelText(label);
const put = async (label: RegExp, text: string) => {
  await userEvent.clear(field(label));
  if (text) await userEvent.type(field(label), text);
};

async function station(more: EventDraft[] = [], settings = {}) {
  const server = new TestServer([power("off"), ...more]);
  const given = server.lines.length;
  await renderJob(<Soak />, { server, netlist: WREN, settings });
  return () => server.lines.slice(given).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}

test("how long it must run is said while it is typed, by the rule of the plan", async () => {
  // One failure in an hour, 95 %: t = h·((1 − c)^(−1/n) − 1) = 19 hours, worked by hand.
  await station();
  await put(/^For the fault/, "loses level");
  await put(/^Failures/, "1");
  await put(/^within hours/, "1");
  expect(screen.getByText(/It would have to run/)).toHaveTextContent("19.0 h");
  await put(/^Failures/, "3");
  // (0.05)^(−1/3) − 1 = 1.714.
  expect(screen.getByText(/It would have to run/)).toHaveTextContent("1.7 h");
});

test("without a fault, hours or a sensible confidence it does not begin, and says which", async () => {
  const logged = await station();
  const begin = () => userEvent.click(screen.getByRole("button", { name: "Start the soak test" }));
  await put(/^For the fault/, "");
  await begin();
  expect(screen.getByRole("alert")).toHaveTextContent("Which fault");
  await put(/^For the fault/, "loses level");
  await put(/^Failures/, "2");
  await put(/^within hours/, "3");
  await put(/^Confidence/, "200");
  await begin();
  expect(screen.getByRole("alert")).toHaveTextContent(/confidence/i);
  await put(/^Confidence/, "95");
  await put(/^minutes after/, "-5");
  await begin();
  expect(screen.getByRole("alert")).toHaveTextContent('Read "-5" minutes');
  expect(logged()).toEqual([]);
  await put(/^minutes after/, "40");
  await begin();
  await settle();
  expect(logged()[0]).toEqual({ type: "soak-begun", fault: "loses level", failures: 2, hours: 3, onsetMinutes: 40, confidence: 0.95 });
  expect(logged()[1]).toMatchObject({ type: "waiting", on: "soak" });
});

test("in a shop that writes 0,5 the hours are read so", async () => {
  const logged = await station([], { decimal: "," });
  await put(/^For the fault/, "howls");
  await put(/^Failures/, "1");
  await put(/^within hours/, "0,5");
  await userEvent.click(screen.getByRole("button", { name: "Start the soak test" }));
  await settle();
  expect(logged()[0]).toMatchObject({ hours: 0.5 });
});

test("a running test cannot be called cured before its rule is met, nor failed without a failure", async () => {
  const begun = { type: "soak-begun", payload: { fault: "howls", failures: 1, hours: 1, onsetMinutes: 0, confidence: 0.95 } } as EventDraft;
  const logged = await station([begun]);
  expect(screen.getByRole("button", { name: "Cured" })).toBeDisabled();
  expect(screen.getByRole("button", { name: "Not cured" })).toBeDisabled();
  expect(screen.getByRole("button", { name: "No fault found" })).toBeDisabled();
  await put(/^What was done/, "socket cleaned");
  await userEvent.click(screen.getByRole("button", { name: "No fault found" }));
  await settle();
  expect(logged()[0]).toMatchObject({ type: "soak-ended", outcome: "no fault found", done: "socket cleaned" });
});
