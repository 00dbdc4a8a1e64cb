/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { ForeignTypes } from "./foreign-types";

const FILE = "T\nXU1 p g k 12AX7_A\nR1 b p 100k\n.subckt 12AX7_A A G K\nG1 A K VALUE={1}\n.ends\n.tran 1m\n.end";
beforeEach(() => localStorage.clear());

test("the guess stands there; a pin that is named twice is said; the answer is kept for the next file", async () => {
  const setText = jest.fn<void, [string]>();
  const user = userEvent.setup();
  const { unmount } = render(<ForeignTypes text={FILE} setText={setText} />);
  expect(screen.getByLabelText("12AX7_A is")).toHaveValue("12AX7");
  await user.selectOptions(screen.getByLabelText("12AX7_A, node G"), "plate");
  expect(screen.getByText("12AX7 needs one plate")).toBeVisible();
  expect(screen.getByRole("button", { name: "Rewrite the file" })).toBeDisabled();
  await user.selectOptions(screen.getByLabelText("12AX7_A, node G"), "grid");
  await user.clear(screen.getByLabelText("12AX7_A is"));
  await user.type(screen.getByLabelText("12AX7_A is"), "12at7");
  await user.click(screen.getByRole("button", { name: "Rewrite the file" }));
  expect(setText.mock.calls[0]![0]).toContain("XV1 p g k 12AT7");
  unmount();
  render(<ForeignTypes text={FILE} setText={setText} />);
  expect(screen.getByLabelText("12AX7_A is")).toHaveValue("12AT7");
});

test("nothing is asked of a file in Scutum's own terms", () => {
  const { container } = render(<ForeignTypes text={"T\nXV1 p g k 12AX7"} setText={() => {}} />);
  expect(container).toBeEmptyDOMElement();
});
