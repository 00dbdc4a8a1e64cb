/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { ReadingField } from "./reading-field";

const field = () => screen.getByLabelText("Reading, V");

test("Enter logs what was typed and empties the field", async () => {
  const take = jest.fn(() => undefined);
  render(<ReadingField label="Reading, V" take={take} />);
  await userEvent.type(field(), " 318 {Enter}");
  expect(take).toHaveBeenCalledWith("318");
  expect(field()).toHaveValue("");
});

test("what is refused stays for correction, with the reason, until it is changed", async () => {
  render(<ReadingField label="Reading, V" take={() => ({ refused: "no tube amplifier has that" })} />);
  await userEvent.type(field(), "4kV{Enter}");
  expect(field()).toHaveValue("4kV");
  expect(field()).toHaveAttribute("aria-invalid", "true");
  expect(screen.getByRole("alert")).toHaveTextContent("no tube amplifier has that");
  await userEvent.type(field(), "{Backspace}");
  expect(screen.getByRole("alert")).toBeEmptyDOMElement();
});

test("an empty field is an answer only where it means something", async () => {
  const take = jest.fn(() => undefined);
  const { rerender } = render(<ReadingField label="Reading, V" take={take} />);
  await userEvent.type(field(), "{Enter}");
  expect(take).not.toHaveBeenCalled();
  rerender(<ReadingField label="Reading, V" take={take} empty />);
  await userEvent.type(field(), "{Enter}");
  expect(take).toHaveBeenCalledWith("");
});

test("what was typed for one point never goes to the next: a new point is a new field", async () => {
  const taken: [string, string][] = [];
  const at = (point: string) => (
    <ReadingField
      key={point}
      label="Reading, V"
      take={(text) => {
        taken.push([point, text]);
        return undefined;
      }}
    />
  );
  const { rerender } = render(at("V1.p"));
  await userEvent.type(field(), "161");
  rerender(at("V2.p"));
  expect(field()).toHaveValue("");
  await userEvent.type(field(), "275{Enter}");
  expect(taken).toEqual([["V2.p", "275"]]);
});

test("arrows move between points where the form has them", async () => {
  const moved: number[] = [];
  render(<ReadingField label="Reading, V" take={() => undefined} onArrow={(step) => moved.push(step)} />);
  await userEvent.type(field(), "{ArrowDown}{ArrowUp}");
  expect(moved).toEqual([1, -1]);
});
