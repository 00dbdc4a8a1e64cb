/** @jest-environment jsdom */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { Brief } from "./intake-brief";

beforeEach(() => localStorage.clear());
const last = (server: TestServer) => server.lines.findLast((l) => l.type === "brief")?.payload;

test("what must not be changed is typed or chosen by kinds, shown back as understood, and stored as it was said", async () => {
  const server = new TestServer([]);
  await renderJob(<Brief />, { server, netlist: WREN });
  const field = screen.getByLabelText(/What must not be changed/);
  await userEvent.type(field, "the caps and the glorp");
  expect(screen.getByText(/Understood: capacitors. Not understood: glorp; .*owner is asked/)).toBeVisible();
  const kinds = within(screen.getByRole("group", { name: "Kinds that must not be changed" }));
  expect(kinds.getByRole("button", { name: "capacitors" })).toHaveAttribute("aria-pressed", "true");
  await userEvent.click(kinds.getByRole("button", { name: "tubes" }));
  expect(field).toHaveValue("the caps and the glorp, tubes");
  // Taken out by its kind, whatever word it was named by.
  await userEvent.click(kinds.getByRole("button", { name: "capacitors" }));
  expect(field).toHaveValue("tubes, glorp");
  await userEvent.clear(field);
  await userEvent.type(field, "V2");
  await userEvent.click(screen.getByRole("button", { name: "reliability, as number 1" }));
  await userEvent.click(screen.getByRole("button", { name: "cost, as number 2" }));
  await userEvent.click(screen.getByRole("button", { name: /^Store/ }));
  await settle();
  expect(last(server)).toMatchObject({ order: ["reliability", "cost"], mustNotChange: "V2" });
});

test("the order is taken back where it was pressed, the focus stays there", async () => {
  const server = new TestServer([]);
  await renderJob(<Brief />, { server, netlist: WREN });
  screen.getByRole("button", { name: "tone, as number 1" }).focus();
  await userEvent.keyboard("{Enter}");
  expect(screen.getByRole("button", { name: "1: tone, take it out" })).toHaveFocus();
  await userEvent.keyboard("{Enter}");
  expect(screen.getByRole("button", { name: "tone, as number 1" })).toHaveFocus();
});

test("a part is taken from the circuit, and is not offered again", async () => {
  const server = new TestServer([]);
  await renderJob(<Brief />, { server, netlist: WREN });
  const parts = screen.getByLabelText("A part of the circuit");
  await userEvent.selectOptions(parts, "C6");
  await userEvent.selectOptions(parts, "R7");
  expect(screen.getByLabelText(/What must not be changed/)).toHaveValue("C6, R7");
  expect(screen.getByText("Understood: C6, R7.")).toBeVisible();
  expect(within(parts).queryByRole("option", { name: /^C6:/ })).toBeNull();
  expect(within(parts).getByRole("option", { name: /^C5:/ })).toBeInTheDocument();
});
