/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { readCircuit } from "@/core/circuit/read";
import { LineUpForm } from "./line-up-form";

function form() {
  const made = jest.fn<void, [string]>();
  render(<LineUpForm mains={{ volts: 230, hertz: 50 }} made={made} typing={() => {}} />);
  return { made, user: userEvent.setup(), field: screen.getByLabelText(/Which tubes are in it/) };
}
const chain = () => screen.getByRole("region", { name: "Proposed chain" }).textContent;

test("tubes, Enter: a file of the usual chain that reads without errors", async () => {
  const { made, user, field } = form();
  await user.type(field, "12AX7 EL84 EZ80{Enter}");
  expect(made).toHaveBeenCalledTimes(1);
  const { circuit, errors } = readCircuit(made.mock.calls[0]![0]);
  expect(errors).toEqual([]);
  expect(circuit.elements.filter((e) => e.tube).map((e) => e.name)).toEqual(["V1A", "V1B", "V2"]);
  expect(circuit.mains).toEqual({ volts: 230, hertz: 50 });
});

test("the letter in front turns to the next answer, and the chain follows", async () => {
  const { made, user, field } = form();
  await user.type(field, "12AX7 12AX7 6V6 6V6 5Y3");
  expect(chain()).toContain("Long-tailed pair V2A V2B");
  const choices = screen.getByRole("group", { name: /What else it could be/ });
  choices.focus();
  await user.keyboard("i");
  expect(chain()).toContain("Paraphase inverter V2A V2B");
  await user.keyboard("b");
  expect(chain()).toContain("Bias supply");
  await user.click(screen.getByRole("button", { name: "split load" }));
  expect(chain()).toContain("Split-load inverter V2B");
  choices.focus();
  await user.keyboard("{Enter}");
  expect(made.mock.calls[0]![0]).toContain("kind=split-load");
});

test("what cannot be an amp is said, and nothing can be put together", async () => {
  const { made, user, field } = form();
  await user.type(field, "EL84{Enter}");
  expect(screen.getByText(/An output tube alone/)).toBeVisible();
  expect(screen.queryByRole("button", { name: "Put it together" })).toBeNull();
  expect(made).not.toHaveBeenCalled();
});

test("mains that no country has are refused with what was read", async () => {
  const { made, user, field } = form();
  await user.type(field, "12AX7 EL84");
  await user.type(screen.getByLabelText(/Mains, V/), "23{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("90 to 260 V are accepted; read 23");
  expect(made).not.toHaveBeenCalled();
  await user.type(screen.getByLabelText(/Mains, V/), "0{Enter}");
  expect(made).toHaveBeenCalledTimes(1);
});
