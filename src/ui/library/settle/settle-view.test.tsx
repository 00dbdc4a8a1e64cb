/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { readFileSync } from "node:fs";
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { readCircuit } from "@/core/circuit/read";
import type { SolverPort } from "@/core/ports/solver-port";
import { settle } from "@/core/settle/settle";
import { SettleView } from "./settle-view";

const TEXT = readFileSync("demo/amps/wren-5.cir", "utf8");

function view(text = TEXT) {
  const setText = jest.fn<void, [string]>();
  const solver = {
    settle: jest.fn(async (netlist: string, given: never, measured: never) => settle(readCircuit(netlist).circuit, given, measured)),
    cancel: jest.fn(),
  } as unknown as SolverPort & { settle: jest.Mock };
  render(<SettleView text={text} setText={setText} circuit={readCircuit(text).circuit} solver={solver} />);
  return { setText, solver, user: userEvent.setup(), run: screen.getByRole("button", { name: "Settle the model" }) };
}

test("the chart of the file is settled on; its misprint is named; what comes of it is written into the file", async () => {
  const { setText, user, run } = view();
  await user.click(run);
  expect(await screen.findByText(/10 of 11 figures fit; left out as misprints: V1A\.p/)).toBeVisible();
  const fitted = within(screen.getByRole("table", { name: "Settled values" }));
  expect(fitted.getByRole("row", { name: /V3 winding volts 235 V 23\d V/ })).toBeVisible();
  expect(screen.getByText(/Not determined by these figures, left as it was: V3 source resistance/)).toBeVisible();
  await user.click(screen.getByRole("button", { name: "Write it into the file" }));
  expect(setText.mock.calls[0]![0]).toContain('settled="its chart at 220 V"');
});

test("a chart is typed straight down the points; a measured winding goes along; figures of another amp are refused", async () => {
  const { solver, user, run } = view();
  const field = (point: string) => screen.getByLabelText(`${point}, volts of the chart`);
  field("B1").focus();
  await user.clear(field("B1"));
  await user.keyboard("405{Enter}");
  expect(field("B2")).toHaveFocus();
  await user.keyboard("415{Enter}120{Enter}");
  expect(field("V2.k")).toHaveFocus();
  await user.type(screen.getByLabelText(/V3 winding volts/), "231");
  await user.click(run);
  expect(solver.settle.mock.calls[0]![2]).toEqual([{ part: "V3", key: "vac", value: 231 }]);
  expect(await screen.findByText(/This chart does not describe this circuit/)).toBeVisible();
  expect(screen.queryByRole("button", { name: "Write it into the file" })).toBeNull();
});

test("what is changed after settling has not been settled: the answer is gone until it is asked again", async () => {
  const { user, run } = view();
  await user.click(run);
  expect(await screen.findByRole("button", { name: "Write it into the file" })).toBeVisible();
  await user.type(screen.getByLabelText("V2.k, volts of the chart"), "1");
  expect(screen.queryByRole("button", { name: "Write it into the file" })).toBeNull();
  expect(screen.queryByRole("table", { name: "Settled values" })).toBeNull();
});

test("a chart without its mains, and a figure that is none, are said; what was typed stays", async () => {
  const { solver, user, run } = view();
  await user.clear(screen.getByLabelText("Mains of the chart, V"));
  await user.click(run);
  expect(screen.getByRole("alert")).toHaveTextContent("The chart's mains is wanted");
  await user.type(screen.getByLabelText("Mains of the chart, V"), "220");
  await user.type(screen.getByLabelText("B1, volts of the chart"), "x");
  await user.click(run);
  expect(screen.getByRole("alert")).toHaveTextContent("B1: 255x is not a voltage");
  expect(screen.getByLabelText("B1, volts of the chart")).toHaveValue("255x");
  expect(solver.settle).not.toHaveBeenCalled();
});
