/** @jest-environment jsdom */
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { Inspection } from "./inspection";

beforeEach(() => localStorage.clear());
const box = () => screen.getByRole("region", { name: "Inspection" });
const progress = () => Number(/^(\d+) of/.exec(within(box()).getByText(/ looked at · /).textContent!)![1]);
/** Place and what to look at: a place can have several. */
const title = () => box().querySelector("p.text-3xl")!.textContent + box().querySelector("p.text-lg")!.textContent!;
const press = async (keys: string) => {
  await userEvent.keyboard(keys);
  await settle();
};

async function station() {
  const server = new TestServer([power("off")]);
  await renderJob(<Inspection />, { server, netlist: WREN });
  box().focus();
  return () => server.lines.slice(1).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}

test("1 and 3 answer the item and go on to the next; arrows move without answering", async () => {
  const logged = await station();
  const first = title();
  await press("1");
  expect(logged()).toEqual([expect.objectContaining({ type: "inspection", result: "sound" })]);
  expect(title()).not.toBe(first);
  expect(progress()).toBe(1);
  const second = title();
  await press("{ArrowDown}");
  expect(title()).not.toBe(second);
  await press("{ArrowUp}");
  expect(title()).toBe(second);
  await press("3");
  expect(logged().at(-1)).toMatchObject({ result: "not there" });
  expect(progress()).toBe(2);
});

test("2 opens the draft of a finding; figures typed into it are text, not answers", async () => {
  const logged = await station();
  await press("2");
  const finding = screen.getByLabelText(/^Finding/);
  expect(finding).toHaveFocus();
  await userEvent.clear(finding);
  await press("R1 and 3 burnt");
  expect(finding).toHaveValue("R1 and 3 burnt");
  expect(logged()).toEqual([]);
  await press("{Enter}");
  expect(logged().slice(0, 2)).toEqual([
    expect.objectContaining({ type: "inspection", result: "found" }),
    expect.objectContaining({ type: "finding", text: "R1 and 3 burnt", station: "look" }),
  ]);
});

test("a finding without words is not taken, Escape leaves the draft, and nothing is logged", async () => {
  const logged = await station();
  await press("2");
  await userEvent.clear(screen.getByLabelText(/^Finding/));
  await press("{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("What was found?");
  await press("{Escape}");
  expect(screen.queryByLabelText(/^Finding/)).toBeNull();
  expect(logged()).toEqual([]);
});

test("what the owner has to be asked for is asked with the finding", async () => {
  const logged = await station();
  await press("2");
  await userEvent.selectOptions(screen.getByLabelText(/^Agreement with the owner/), "ask the owner");
  await userEvent.clear(screen.getByLabelText(/^Suggested action/));
  await userEvent.type(screen.getByLabelText(/^Suggested action/), "new cabinet cloth");
  await press("{Enter}");
  expect(logged().map((l) => l.type)).toEqual(["inspection", "finding", "approval"]);
  expect(logged()[1]).toMatchObject({ brief: "ask", action: "new cabinet cloth" });
  expect(logged()[2]!.what).toEqual(expect.stringContaining("new cabinet cloth"));
});
