/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { Matrix } from "./matrix";

beforeEach(() => localStorage.clear());
const name = (i: number) => screen.getByLabelText(`Condition ${i}`);
const settingsOf = (i: number) => screen.getByLabelText(`Settings of condition ${i}`);
const plan = () => userEvent.click(screen.getByRole("button", { name: "Plan the runs" }));
const put = async (field: HTMLElement, text: string) => {
  await userEvent.clear(field);
  if (text) await userEvent.type(field, text);
};

async function station() {
  const server = new TestServer([power("off")]);
  await renderJob(<Matrix />, { server, netlist: WREN });
  return () => server.lines.slice(1).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}

test("conditions are read from what is typed: blanks fall out, a setting written twice counts once", async () => {
  const logged = await station();
  await put(name(1), " lead ");
  await put(settingsOf(1), "short,  long, short,");
  await userEvent.click(screen.getByRole("button", { name: "Remove condition 3" }));
  await put(name(2), "");
  await plan();
  await settle();
  expect(logged()).toEqual([{ type: "conditions", conditions: [{ name: "lead", settings: ["short", "long"] }] }]);
});

test("a row that is removed takes its own texts with it, not its neighbour's", async () => {
  await station();
  await put(name(1), "first");
  await put(name(2), "second");
  await userEvent.click(screen.getByRole("button", { name: "Remove condition 1" }));
  expect(name(1)).toHaveValue("second");
});

test("one setting alone, no condition, two of one name: each is said, and nothing is planned", async () => {
  const logged = await station();
  await put(settingsOf(1), "short");
  await plan();
  expect(screen.getByRole("alert")).toHaveTextContent(/has 1 setting; accepted: two to five/);
  await put(settingsOf(1), "short, long");
  expect(screen.queryByRole("alert")).toBeNull();
  await put(name(2), "twice");
  await put(name(3), "twice");
  await plan();
  expect(screen.getByRole("alert")).toHaveTextContent("Two conditions have one name");
  for (const i of [1, 2, 3]) await put(name(i), "");
  await plan();
  expect(screen.getByRole("alert")).toHaveTextContent("No condition is named");
  expect(logged()).toEqual([]);
});
