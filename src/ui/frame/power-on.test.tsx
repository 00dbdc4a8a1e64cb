/** @jest-environment jsdom */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { HALBERD, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { PowerOn } from "./power-on";

beforeEach(() => localStorage.clear());
const button = () => screen.getByRole("button", { name: "Power is on", hidden: true });
const boxes = () => screen.getAllByRole("checkbox", { hidden: true });
const tickAll = async () => {
  for (const box of boxes()) await userEvent.click(box);
};
const through = (way: string) => userEvent.selectOptions(screen.getByRole("combobox", { hidden: true }), way);

test("power goes on only once every condition is ticked, and the tape has them", async () => {
  const server = new TestServer();
  const close = jest.fn();
  await renderJob(<PowerOn close={close} />, { server, netlist: WREN });
  expect(button()).toBeDisabled();
  for (const box of boxes().slice(1)) await userEvent.click(box);
  expect(button()).toBeDisabled();
  await userEvent.click(boxes()[0]!);
  await userEvent.click(button());
  await settle();
  expect(server.lines.map((l) => l.type)).toEqual(["power", "live-check"]);
  expect((server.lines[1]!.payload as { confirmed: string[] }).confirmed).toHaveLength(boxes().length);
  expect(close).toHaveBeenCalled();
});

test("a gate that is not met wants a reason, which lands on the tape before the power does", async () => {
  const server = new TestServer();
  await renderJob(<PowerOn close={() => {}} />, { server, netlist: HALBERD });
  await through("lamp");
  const gates = screen.getByRole("region", { name: /not met/i, hidden: true });
  expect(gates).toHaveTextContent(/bias is not proven/i);
  await tickAll();
  expect(button()).toBeDisabled();
  const reason = within(gates).getByRole("textbox", { hidden: true });
  await userEvent.type(reason, "ok");
  expect(button()).toBeDisabled();
  await userEvent.type(reason, ", ran last night");
  await userEvent.click(button());
  await settle();
  expect(server.lines.map((l) => l.type)).toEqual(["gate-passed", "power", "live-check"]);
  expect(server.lines[0]!.payload).toMatchObject({ reason: expect.stringContaining("ok, ran last night") });
});

test("with the output tubes out the bias gate does not stand in the way", async () => {
  const server = new TestServer();
  await renderJob(<PowerOn close={() => {}} />, { server, netlist: HALBERD });
  await through("lamp");
  const field = screen.getByPlaceholderText(/none, or/);
  await userEvent.type(field, "V4, V5, V6, V7");
  expect(screen.queryByText(/bias is not proven/i)).not.toBeInTheDocument();
});

test("straight from the wall is never without a word after work", async () => {
  await renderJob(<PowerOn close={() => {}} />, { server: new TestServer(), netlist: WREN });
  await through("straight");
  expect(screen.getByText(/Never straight to full mains/)).toBeInTheDocument();
});

test("an apprentice does not pass a gate with a reason: neither the gate nor the power lands on the tape", async () => {
  const server = new TestServer();
  await renderJob(<PowerOn close={() => {}} />, { server, netlist: HALBERD, role: "apprentice" });
  await through("lamp");
  await tickAll();
  const gates = screen.getByRole("region", { name: /not met/i, hidden: true });
  expect(gates).toHaveTextContent("An apprentice passes no safety gate: ask the technician.");
  expect(within(gates).queryByRole("textbox", { hidden: true })).not.toBeInTheDocument();
  expect(button()).toBeDisabled();
  expect(server.lines).toEqual([]);
});

test("where no gate stands in the way an apprentice puts the amp on as everybody does", async () => {
  const server = new TestServer();
  await renderJob(<PowerOn close={() => {}} />, { server, netlist: WREN, role: "apprentice" });
  await tickAll();
  await userEvent.click(button());
  await settle();
  expect(server.lines.map((l) => l.type)).toEqual(["power", "live-check"]);
});
