/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { Refused, useTypedForm } from "./typed-form";

const logged: unknown[] = [];
beforeEach(() => void (logged.length = 0));

/** Takes degrees from 0 to 99; the next reading is of the same place. */
function Thermometer() {
  const { field, onSubmit, refused, typed } = useTypedForm({ place: "", celsius: "" }, ({ place, celsius }) => {
    if (!place) return "Where was it measured?";
    if (!/^\d{1,2}$/.test(celsius)) return `Read "${celsius}"; accepted: 85`;
    logged.push([place, Number(celsius)]);
    return { place };
  });
  return (
    <form onSubmit={onSubmit}>
      <input aria-label="Where" {...field("place")} />
      <input aria-label="Celsius" {...field("celsius")} />
      <output>{`${typed.place} ${typed.celsius}`}</output>
      <button>Log it</button>
      <Refused>{refused}</Refused>
    </form>
  );
}
const box = (name: string) => screen.getByRole("textbox", { name });

test("what cannot be read stays in its field with the reason; the reason goes with the next key", async () => {
  render(<Thermometer />);
  await userEvent.type(box("Where"), "V4");
  await userEvent.type(box("Celsius"), "warm{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent('Read "warm"; accepted: 85');
  expect(box("Celsius")).toHaveValue("warm");
  expect(logged).toEqual([]);
  await userEvent.type(box("Celsius"), "{Backspace}");
  expect(screen.queryByRole("alert")).toBeNull();
});

test("what was taken leaves the form, but for what it begins anew with", async () => {
  render(<Thermometer />);
  await userEvent.type(box("Where"), "V4");
  await userEvent.type(box("Celsius"), "85{Enter}");
  expect([box("Where"), box("Celsius")].map((b) => (b as HTMLInputElement).value)).toEqual(["V4", ""]);
  expect(screen.getByRole("status")).toHaveTextContent("V4");
  await userEvent.type(box("Celsius"), "86{Enter}");
  expect(logged).toEqual([
    ["V4", 85],
    ["V4", 86],
  ]);
});

test("a refusal that was mended is taken, and once", async () => {
  render(<Thermometer />);
  await userEvent.type(box("Celsius"), "85{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("Where was it measured?");
  await userEvent.type(box("Where"), "R4");
  await userEvent.click(screen.getByRole("button"));
  await userEvent.click(screen.getByRole("button"));
  expect(logged).toEqual([["R4", 85]]);
});
