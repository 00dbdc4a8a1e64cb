/** @jest-environment jsdom */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { TubeTests } from "./tube-tests";

beforeEach(() => localStorage.clear());
const choose = (label: string, what: string) => userEvent.selectOptions(screen.getByLabelText(label), what);

async function station(settings = {}) {
  const server = new TestServer([power("off")]);
  await renderJob(<TubeTests />, { server, netlist: WREN, settings });
  return () => server.lines.slice(1).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}

test("transconductance is a test and evidence for the suspects; emission is a test alone", async () => {
  const logged = await station();
  await choose("Tube", "V2");
  await userEvent.type(screen.getByLabelText(/^Figure/), "62{Enter}");
  await settle();
  const first = logged();
  expect(first.map((l) => l.type)).toEqual(["tube-test", "reading"]);
  expect(first[0]).toMatchObject({ method: "transconductance", percent: 62 });
  expect(first[1]).toMatchObject({ point: first[0]!.tube, kind: "gm", value: 62 });
  await choose("Tube", "V2");
  await choose("How", "emission");
  await userEvent.type(screen.getByLabelText(/^Figure/), "80{Enter}");
  await settle();
  expect(logged().slice(2)).toEqual([expect.objectContaining({ type: "tube-test", method: "emission", percent: 80 })]);
});

test("the next tube comes up by itself, tested in the same way", async () => {
  await station();
  const tube = () => screen.getByLabelText<HTMLSelectElement>("Tube").value;
  const before = tube();
  await choose("How", "emission");
  await choose("Shorts", "none");
  await userEvent.type(screen.getByLabelText(/^Figure/), "90{Enter}");
  await settle();
  expect(tube()).not.toBe(before);
  expect(screen.getByLabelText("How")).toHaveValue("emission");
  expect(screen.getByLabelText("Shorts")).toHaveValue("none");
  expect(screen.getByLabelText(/^Figure/)).toHaveValue("");
});

test("a figure that cannot be is refused with what is accepted, and kept", async () => {
  const logged = await station();
  await choose("Tube", "V2");
  await userEvent.type(screen.getByLabelText(/^Figure/), "900{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("Read 900; accepted: 0 to 250 %");
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Unit" }), "mA/V");
  await userEvent.clear(screen.getByLabelText(/^Figure/));
  await userEvent.type(screen.getByLabelText(/^Figure/), "61{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("0 to 60 mA/V");
  expect(logged()).toEqual([]);
});

test("a rectifier is not asked for its transconductance", async () => {
  await station();
  await choose("Tube", "V3");
  const methods = within(screen.getByLabelText("How")).getAllByRole("option");
  expect(methods.map((o) => o.textContent)).not.toContain("transconductance");
  expect(screen.getByLabelText("How")).toHaveValue("emission");
});

test("a known good one in its place needs no figure", async () => {
  const logged = await station();
  await choose("Tube", "V2");
  await choose("How", "substitution");
  expect(screen.queryByLabelText(/^Figure/)).toBeNull();
  await choose("With a known good one the amp is", "better");
  await userEvent.click(screen.getByRole("button", { name: "Log the test" }));
  await settle();
  expect(logged()).toEqual([expect.objectContaining({ type: "tube-test", method: "substitution", swap: "better" })]);
});
