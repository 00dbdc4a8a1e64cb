/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ProofStep } from "@/core/safety/proof";
import { power, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { StepForm } from "./step-form";

beforeEach(() => localStorage.clear());

async function at(step: ProofStep) {
  const server = new TestServer([power("off")]);
  await renderJob(<StepForm step={step} />, { server, netlist: WREN });
  return { logged: () => server.lines.slice(1).map((l) => ({ type: l.type, ...(l.payload as object) })) };
}
const typed = async (label: RegExp, text: string) => {
  await userEvent.clear(screen.getByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), `${text}{Enter}`);
  await settle();
};

test("a reading is logged for its reservoir; what is no voltage stays in the field with the reason", async () => {
  const { logged } = await at({ do: "read", reservoir: "C1", round: 1, wait: 0 });
  await typed(/^Reading, V/, "some");
  expect(screen.getByRole("alert")).toHaveTextContent(/is no number. Accepted/);
  expect(screen.getByLabelText(/^Reading, V/)).toHaveValue("some");
  expect(logged()).toEqual([]);
  await typed(/^Reading, V/, "0.4");
  expect(logged()).toEqual([expect.objectContaining({ type: "discharge-reading", reservoir: "C1", volts: 0.4 })]);
  expect(screen.getByLabelText(/^Reading, V/)).toHaveValue("");
});

test("the meter is proved on a known source; its volts stay for the next time", async () => {
  const { logged } = await at({ do: "meter", when: "before" });
  await typed(/^Known source, V/, "9.1");
  await typed(/^Meter reads, V/, "9.02");
  expect(logged()).toEqual([expect.objectContaining({ type: "meter-check", read: 9.02, expected: 9.1 })]);
  expect(screen.getByLabelText(/^Known source, V/)).toHaveValue("9.1");
});

test("the second reading has its wait beside it, and says why", async () => {
  await at({ do: "read", reservoir: "C1", round: 2, wait: 42 });
  expect(screen.getByRole("timer")).toHaveTextContent("42 s");
  expect(screen.getByText(/sooner than a minute after the first does not count/)).toBeVisible();
});

test("an open discharge tool is refused by what it would do, and is on the tape as measured", async () => {
  const { logged } = await at({ do: "tool", when: "before" });
  await typed(/^Tool reads, Ω/, "OL");
  expect(screen.getByRole("alert")).toHaveTextContent("it would bleed nothing");
  expect(logged()).toHaveLength(1);
  await typed(/^Tool reads, Ω/, "1");
  expect(screen.getByRole("alert")).toHaveTextContent("it would spark");
  expect(logged().map((l) => l.type)).toEqual(["tool-check", "tool-check"]);
});

test("what cannot be reached is left unproven only with a reason, and Enter in it takes no reading", async () => {
  const { logged } = await at({ do: "read", reservoir: "C21", round: 1, wait: 0 });
  await userEvent.click(screen.getByRole("button", { name: "Cannot be read…" }));
  const leave = () => screen.getByRole("button", { name: "Leave it unproven" });
  await typed(/^Why C21 cannot be read/, "no");
  expect(leave()).toBeDisabled();
  expect(logged()).toEqual([]);
  await typed(/^Why C21 cannot be read/, "under the bias board");
  await userEvent.click(leave());
  await settle();
  expect(logged()).toEqual([{ type: "reservoir-unread", reservoir: "C21", reason: "under the bias board" }]);
});
