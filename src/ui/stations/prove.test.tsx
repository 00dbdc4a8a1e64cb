/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { EventDraft } from "@/core/tape/events/event";
import { power, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { Prove } from "./prove";

beforeEach(() => localStorage.clear());

async function station(more: EventDraft[] = [], settings = {}) {
  const server = new TestServer([power("off"), ...more]);
  const given = server.lines.length;
  await renderJob(<Prove />, { server, netlist: WREN, settings });
  return () => server.lines.slice(given).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}
const measured = (name: RegExp) => screen.getByRole("textbox", { name });
const row = (test: string) => document.querySelector(`tr[data-test="${test}"]`)!;

test("a figure is passed or failed by the shop's limit, which goes on the tape with it", async () => {
  const logged = await station([], { limits: { insulationOhms: 2e6, leakageAmps: 0.5e-3, earthBondOhms: 0.1 } });
  await userEvent.type(measured(/, measured, A$/), "0.4m{Enter}");
  await settle();
  await userEvent.type(measured(/, measured, A$/), "0.6m{Enter}");
  await settle();
  expect(logged()).toEqual([
    expect.objectContaining({ type: "safety-test", passed: true, limit: 0.5e-3 }),
    expect.objectContaining({ type: "safety-test", passed: false, limit: 0.5e-3 }),
  ]);
  expect((logged()[1]!.value as number) * 1000).toBeCloseTo(0.6, 9);
  expect(row(String(logged()[1]!.test))).toHaveTextContent("■ FAILED");
});

test("what is no resistance stays for correction; less than nothing is refused", async () => {
  const logged = await station();
  const field = measured(/insulation.*, measured, Ω$/i);
  await userEvent.type(field, "plenty{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("accepted");
  expect(field).toHaveValue("plenty");
  await userEvent.clear(field);
  await userEvent.type(field, "-5M{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("cannot be negative");
  expect(logged()).toEqual([]);
});

test("a test by eye takes its note with it", async () => {
  const logged = await station();
  const note = screen.getByPlaceholderText("T1A, 20 mm");
  await userEvent.type(note, "T630mA");
  await userEvent.click(screen.getByRole("button", { name: /fuse.* failed/i }));
  await settle();
  expect(logged()).toEqual([expect.objectContaining({ test: "fuse", passed: false, note: "T630mA" })]);
  expect(note).toHaveValue("");
});

test("while something is off the amp no test can be taken, and what it is stands on top", async () => {
  await station([{ type: "removed", payload: { what: "two back-panel screws" } } as EventDraft]);
  expect(screen.getByRole("region", { name: "Not put back yet" })).toHaveTextContent("two back-panel screws");
  expect(row("fuse").closest("[inert]")).not.toBeNull();
  await userEvent.click(screen.getByRole("button", { name: "Put back" }));
  await settle();
  expect(row("fuse").closest("[inert]")).toBeNull();
});

test("Enter goes from test to test as they are shown; an insulation reading is no earth bond; an open bond is OL", async () => {
  const logged = await station();
  await userEvent.type(measured(/earth bond.*, measured/i), "20M{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("that is a reading of Insulation, not of");
  expect(logged()).toEqual([]);
  // What was refused is replaced by the next typing.
  await userEvent.keyboard("0.06{Enter}");
  await settle();
  expect(measured(/insulation.*, measured/i)).toHaveFocus();
  await userEvent.keyboard("20M{Enter}");
  await settle();
  expect(measured(/, measured, A$/)).toHaveFocus();
  await userEvent.type(measured(/earth bond.*, measured/i), "OL{Enter}");
  await settle();
  expect(logged().map((l) => [l.test, l.value, l.passed])).toEqual([
    ["earth bond", 0.06, true],
    ["insulation", 20e6, true],
    ["earth bond", 1e9, false],
  ]);
  expect(row("earth bond")).toHaveTextContent("■ FAILED OL");
});
