/** @jest-environment jsdom */
import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { StoreByKeys } from "./store-by-keys";

function show(disabled = false) {
  const stored = jest.fn();
  render(
    <>
      <StoreByKeys />
      <form
        onSubmit={(e) => {
          e.preventDefault();
          stored(new FormData(e.currentTarget).get("words"));
        }}
      >
        <textarea aria-label="Words" name="words" />
        <button type="button">Another</button>
        <button disabled={disabled}>Store</button>
      </form>
      <input aria-label="Alone" />
    </>,
  );
  return stored;
}

test("from a text of several lines, Enter begins a line and Ctrl with it stores", async () => {
  const stored = show();
  await userEvent.type(screen.getByLabelText("Words"), "hums{Enter}loudly");
  expect(stored).not.toHaveBeenCalled();
  await userEvent.keyboard("{Control>}{Enter}{/Control}");
  expect(stored.mock.calls).toEqual([["hums\nloudly"]]);
});

test("not where there is nothing to store, nor outside a form", async () => {
  const stored = show(true);
  screen.getByLabelText("Words").focus();
  await userEvent.keyboard("{Control>}{Enter}{/Control}");
  fireEvent.keyDown(screen.getByLabelText("Alone"), { key: "Enter", ctrlKey: true });
  expect(stored).not.toHaveBeenCalled();
});
