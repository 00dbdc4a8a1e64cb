/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { ReadingField } from "./reading-field";
import { Stays } from "./stays";

const logged: string[] = [];
/** Asks for one point after the other; `ask` is another bench, or the solver. */
let ask: (point: string) => void;
let pick: (point: string) => void;
function Sheet() {
  const [point, setPoint] = useState("B1");
  const [turn, setTurn] = useState(0);
  ask = setPoint;
  pick = (p) => {
    setPoint(p);
    setTurn((n) => n + 1);
  };
  return (
    <>
      <Stays of={point} name={point} turn={turn}>
        {(at) => (
          <>
            <h2>{at}</h2>
            <ReadingField
              key={at}
              autoFocus="free"
              label="Reading, V"
              take={(text) => (text === "x" ? { refused: "no number" } : void logged.push(`${at} ${text}`))}
            />
          </>
        )}
      </Stays>
      <input aria-label="Entry line" />
      <button>Stop</button>
    </>
  );
}
const heading = () => screen.getByRole("heading").textContent;
const asks = (point: string) => act(() => ask(point));
const settle = () => act(async () => void (await new Promise((r) => setTimeout(r, 5))));
beforeEach(() => {
  logged.length = 0;
  render(<Sheet />);
});

test("half typed it stays, whatever is asked for meanwhile, and is logged where it was typed", async () => {
  expect(screen.getByLabelText("Reading, V")).toHaveFocus();
  await userEvent.type(screen.getByLabelText("Reading, V"), "4");
  asks("B2");
  expect(heading()).toBe("B1");
  await userEvent.keyboard("3{Enter}");
  await settle();
  expect(logged).toEqual(["B1 43"]);
  // Logged: now the other one is asked for, and has the focus.
  expect(heading()).toBe("B2");
  expect(screen.getByLabelText("Reading, V")).toHaveFocus();
});

test("focused and empty it stays too, until it is left", async () => {
  asks("B2");
  expect(heading()).toBe("B1");
  await userEvent.click(screen.getByLabelText("Entry line"));
  await settle();
  expect(heading()).toBe("B2");
  expect(screen.getByLabelText("Entry line")).toHaveFocus();
});

test("what is refused stays, and the next typing replaces it", async () => {
  await userEvent.type(screen.getByLabelText("Reading, V"), "x{Enter}");
  await settle();
  asks("B2");
  expect(heading()).toBe("B1");
  expect(screen.getByRole("alert")).toHaveTextContent("no number");
  await userEvent.keyboard("7{Enter}");
  await settle();
  expect(logged).toEqual(["B1 7"]);
});

test("a field that appears takes the focus from nobody", async () => {
  await userEvent.click(screen.getByLabelText("Entry line"));
  await userEvent.keyboard("B1 3");
  asks("B2");
  await settle();
  expect(heading()).toBe("B2");
  await userEvent.keyboard("18");
  expect(screen.getByLabelText("Entry line")).toHaveValue("B1 318");
  act(() => screen.getByText("Stop").focus());
  asks("B3");
  await settle();
  expect(screen.getByText("Stop")).toHaveFocus();
});

test("left half typed, it stays for who comes back; a point that is picked by hand is shown at once", async () => {
  await userEvent.type(screen.getByLabelText("Reading, V"), "43");
  await userEvent.click(screen.getByLabelText("Entry line"));
  asks("B2");
  await settle();
  expect([heading(), (screen.getByLabelText("Reading, V") as HTMLInputElement).value]).toEqual(["B1", "43"]);
  act(() => pick("B3"));
  expect(heading()).toBe("B3");
});
