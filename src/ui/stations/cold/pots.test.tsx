/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { Pots } from "./pots";

beforeEach(() => localStorage.clear());
const at = (turn: number) => screen.getByLabelText(`${turn} %`);
const whole = () => screen.getByLabelText(/from end to end, Ω/);

async function station(settings = {}) {
  const server = new TestServer([power("off")]);
  await renderJob(<Pots />, { server, netlist: WREN, settings });
  return () => server.lines.slice(1).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}

test("a sweep is logged with its turns as parts of one, and the form is empty for the next", async () => {
  const logged = await station();
  await userEvent.type(whole(), "1.02M");
  await userEvent.type(at(0), "20");
  await userEvent.type(at(50), "140k");
  await userEvent.type(at(100), "1M{Enter}");
  await settle();
  expect(logged()).toEqual([
    {
      type: "pot-sweep",
      pot: expect.stringMatching(/^P\d$/),
      total: 1.02e6,
      points: [
        { turn: 0, ohms: 20 },
        { turn: 0.5, ohms: 140e3 },
        { turn: 1, ohms: 1e6 },
      ],
    },
  ]);
  expect([whole(), at(0), at(50)].map((f) => (f as HTMLInputElement).value)).toEqual(["", "", ""]);
});

test("the place that cannot be read is named, and everything typed stays", async () => {
  const logged = await station();
  await userEvent.type(whole(), "1M");
  await userEvent.type(at(30), "lots");
  await userEvent.type(at(60), "300k{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent(/^At 30 %: .*accepted/);
  expect([whole(), at(30), at(60)].map((f) => (f as HTMLInputElement).value)).toEqual(["1M", "lots", "300k"]);
  expect(logged()).toEqual([]);
});

test("two places say no law, and more ohms than from end to end cannot be", async () => {
  const logged = await station();
  await userEvent.type(whole(), "1M");
  await userEvent.type(at(0), "0");
  await userEvent.type(at(100), "1M{Enter}");
  expect(screen.getByRole("alert")).not.toBeEmptyDOMElement();
  expect(logged()).toEqual([]);
});
