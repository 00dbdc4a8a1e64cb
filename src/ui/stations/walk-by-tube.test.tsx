/** @jest-environment jsdom */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer } from "../job-for-tests";
import { Walk } from "./walk";

beforeEach(() => localStorage.clear());

const field = () => screen.getByLabelText("Place and value");
const enter = async (text: string) => {
  await userEvent.type(field(), `${text}{Enter}`);
  await settle();
};

test("without a circuit readings stand by rail, tube and pin, and what they say stands on top", async () => {
  const server = new TestServer([power("on")], Date.now());
  await renderJob(<Walk />, { server });
  expect(field()).toHaveFocus();
  await enter("V4 is EL84");
  await enter("B+ 318, V4 pin 7 312, V4 pin 9 300");
  await enter("grid V4 14");
  await enter("V4 pin 3 11");
  const tube = screen.getByRole("region", { name: "V4" });
  expect(within(tube).getByRole("img", { name: /Socket of V4, EL84, from below/ })).toBeInTheDocument();
  expect(
    within(tube)
      .getAllByRole("row")
      .slice(1)
      .map((r) => r.textContent),
  ).toEqual([
    expect.stringMatching(/^V4\.p plate, pin 7312 V/),
    expect.stringMatching(/^V4\.s screen, pin 9300 V/),
    expect.stringMatching(/^V4\.g grid, pin 214\.0 V/),
    expect.stringMatching(/^V4\.k cathode, pin 311\.0 V/),
  ]);
  expect(screen.getByRole("region", { name: "What the readings say" })).toHaveTextContent("V4 The grid is 3.00 V above its cathode");
  expect(screen.getByRole("region", { name: "Rails" })).toHaveTextContent("B1 318 V");
  expect(server.lines.filter((l) => l.type === "reading")).toHaveLength(5);
  // It leads on once every socket is named, so that each reading meets its own tube.
  expect(screen.getByText(/Say first what is in V1, V2, V3/)).toBeVisible();
  await enter("V1 is 12AX7");
  await enter("V2 is 12AX7");
  await enter("V3 is EL84");
  const on = screen.getByRole("link", { name: "Put the circuit together from these tubes" });
  expect(on).toHaveAttribute("href", expect.stringContaining("tubes=12AX7+12AX7+EL84+EL84"));
});

test("a value without its place is refused and stays", async () => {
  const server = new TestServer([power("on")], Date.now());
  await renderJob(<Walk />, { server });
  await enter("182");
  expect(screen.getByRole("alert")).toHaveTextContent("“182” names no place");
  expect(field()).toHaveValue("182");
  expect(server.lines).toHaveLength(1);
});
