/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { Findings } from "./findings";

beforeEach(() => localStorage.clear());

async function findings() {
  const server = new TestServer([power("off")]);
  await renderJob(<Findings station="look" />, { server, netlist: WREN });
  await settle();
  return server;
}
const field = (name: string) => screen.getByLabelText(new RegExp(`^${name}`), { selector: "input, select" });

test("a finding without its place is refused, and what was typed stays", async () => {
  const server = await findings();
  await userEvent.type(field("Finding"), "pin 3 loose");
  await userEvent.click(screen.getByRole("button", { name: "Add finding" }));
  await settle();
  expect(screen.getByText("Where is it?")).toBeVisible();
  expect(field("Finding")).toHaveValue("pin 3 loose");
  expect(server.lines).toHaveLength(1);
});

test("what the owner has to be asked becomes a question of its own; a closed finding says how", async () => {
  const server = await findings();
  await userEvent.type(field("Place"), "V2 socket");
  await userEvent.type(field("Finding"), "pin 3 loose");
  await userEvent.type(field("Suggested action"), "new socket");
  await userEvent.selectOptions(field("Severity"), "fault");
  await userEvent.selectOptions(field("Agreement"), "ask the owner");
  await userEvent.click(screen.getByRole("button", { name: "Add finding" }));
  await settle();
  expect(server.lines.slice(1)).toMatchObject([
    {
      type: "finding",
      payload: { station: "look", place: "V2 socket", text: "pin 3 loose", severity: "fault", brief: "ask", action: "new socket" },
    },
    { type: "approval", payload: { what: "V2 socket: new socket", answer: "asked" } },
  ]);
  expect(field("Place")).toHaveValue("");

  await userEvent.click(screen.getByRole("button", { name: "Close…" }));
  await userEvent.type(await screen.findByLabelText("How the finding was resolved"), "re-tensioned{Enter}");
  await settle();
  expect(server.lines.at(-1)).toMatchObject({ type: "finding-closed", payload: { finding: 2, how: "re-tensioned" } });
  expect(screen.getByText("Closed: re-tensioned")).toBeVisible();
});
