/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { FittedType, SolverPort } from "@/core/ports/solver-port";
import { AddTube } from "./add-tube";

const FITTED: FittedType = { line: "*@tube 6XX6 kind=pentode mu=9.8", rows: [], doubts: [] };
function page(fit: SolverPort["fit"]) {
  const setText = jest.fn();
  const { container } = render(<AddTube text={"My amp\nR1 a 0 1k\n"} setText={setText} solver={{ fit } as SolverPort} />);
  container.querySelector("details")!.open = true;
  return setText;
}
const fill = async (type: string, mu: string, sheet: string) => {
  const [name, grid, points] = screen.getAllByRole("textbox");
  for (const [field, text] of [
    [name, type],
    [grid, mu],
    [points, sheet],
  ] as const) {
    await userEvent.clear(field!);
    if (text) await userEvent.type(field!, text);
  }
};
const button = () => screen.getByRole("button", { name: /^Fit/ });

test("what is no point of a sheet is said and stays; the solver is not asked", async () => {
  const fit = jest.fn();
  page(fit);
  await fill("6XX6", "9.8", "250 at -12");
  await userEvent.click(button());
  expect(screen.getByRole("alert")).toHaveTextContent("250 at -12");
  expect(screen.getAllByRole("textbox")[2]).toHaveValue("250 at -12");
  expect(fit).not.toHaveBeenCalled();
});

test("while it is fitted the button waits; the line then goes into the file, other lines unchanged", async () => {
  let give: (fitted: FittedType) => void = () => {};
  const setText = page(() => new Promise((g) => (give = g)));
  await fill("6XX6", "9.8", "250 / 250 / -12.5: 45 + 4.5, 4.1");
  await userEvent.click(button());
  expect(button()).toBeDisabled();
  expect(button()).toHaveTextContent("Fitting…");
  await act(async () => give(FITTED));
  expect(button()).toBeEnabled();
  await userEvent.click(screen.getByRole("button", { name: "Put it into this file" }));
  expect(setText.mock.calls[0]![0].split("\n")).toEqual(expect.arrayContaining(["My amp", FITTED.line, "R1 a 0 1k"]));
});

test("a fit that fails says why and can be tried again; what it doubts is said beside the line", async () => {
  const fit = jest
    .fn()
    .mockRejectedValueOnce(new Error("the points contradict each other"))
    .mockResolvedValueOnce({ ...FITTED, doubts: ["off by 14 % at 250 V"] });
  page(fit);
  await fill("6XX6", "9.8", "250 / 250 / -12.5: 45 + 4.5, 4.1");
  await userEvent.click(button());
  expect(await screen.findByRole("alert")).toHaveTextContent("the points contradict each other");
  await userEvent.click(button());
  expect(await screen.findByText("▲ off by 14 % at 250 V")).toBeVisible();
  expect(screen.queryByRole("alert")).toBeNull();
});
