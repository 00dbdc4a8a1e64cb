/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { useEarlyKeys } from "./early-keys";

function Page() {
  const early = useEarlyKeys();
  const [typed, setTyped] = useState<string>();
  return (
    <>
      <input aria-label="Reading" />
      <button onClick={() => setTyped(early() ?? "nobody called")}>The line is there</button>
      <output>{typed}</output>
    </>
  );
}

const there = () => userEvent.click(screen.getByRole("button"));

test("the line is called before it is there: what is typed after that waits for it, and lands nowhere else", async () => {
  render(<Page />);
  await userEvent.type(screen.getByLabelText("Reading"), "43{F2}B2 318x{Backspace}");
  expect(screen.getByLabelText("Reading")).toHaveValue("43");
  await there();
  expect(screen.getByRole("status")).toHaveTextContent("B2 318");
  // From then on the line answers by itself.
  await userEvent.type(screen.getByLabelText("Reading"), "5{F2}6");
  expect(screen.getByLabelText("Reading")).toHaveValue("4356");
});

test("who has not called it types where they are; Escape takes the call back", async () => {
  render(<Page />);
  await userEvent.type(screen.getByLabelText("Reading"), "e4");
  expect(screen.getByLabelText("Reading")).toHaveValue("e4");
  await userEvent.type(screen.getByLabelText("Reading"), "{F2}1{Escape}2");
  expect(screen.getByLabelText("Reading")).toHaveValue("e42");
  await there();
  expect(screen.getByRole("status")).toHaveTextContent("nobody called");
});
