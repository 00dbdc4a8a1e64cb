/** @jest-environment jsdom */
/** Bill, payments and hand-over as they are worked at. */

import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import type { EventDraft } from "@/core/tape/events/event";
import { renderJob, settle, TestServer, WREN, type TestJob } from "../../job-for-tests";
import { ReturnStation } from "./return";

const user = userEvent.setup();
const settings = {
  shopName: "Saltmarsh Lane",
  currency: "kr",
  money: {
    ...DEFAULT_SETTINGS.money,
    hourly: 60,
    taxes: [{ name: "VAT", percent: 25, on: ["labour" as const, "parts" as const] }],
    warranty: "a year",
  },
};
const opened: EventDraft = { type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" } };
const time = (minutes: number): EventDraft => ({ type: "time", payload: { minutes } });
const last = (server: TestServer, type: string) => server.lines.findLast((l) => l.type === type)?.payload;
async function at(tab: string, server: TestServer, more: Partial<TestJob> = {}) {
  await renderJob(<ReturnStation />, { server, netlist: WREN, settings, ...more });
  await user.click(screen.getByRole("tab", { name: tab }));
}

test("a bill is made out of the time that it took, paid, and the amp goes home; reopened, only what is new is billed", async () => {
  const server = new TestServer([opened, time(40)]);
  await at("Bill", server);
  expect(screen.getByRole("table", { name: "Bill" })).toHaveTextContent(/Total of it VAT 25 % 9.00.kr45.00.kr/);
  await user.click(screen.getByRole("button", { name: /Make out bill 7-1/ }));
  await settle();
  expect(last(server, "bill")).toMatchObject({ number: "7-1", sum: { net: 36, total: 45 }, warranty: "a year" });
  expect(screen.getByRole("region", { name: "Owed" })).toHaveTextContent(/45.00.kr to be paid/);
  const pay = screen.getByRole("form", { name: "A payment" });
  const amount = within(pay).getByLabelText("Amount, kr");
  for (const [typed, says] of [
    ["45,00,1", /read “45,00,1”, which is no amount/],
    ["-45", /cannot be negative/],
    ["0", /more than nothing/],
  ] as const) {
    await user.clear(amount);
    await user.type(amount, `${typed}{Enter}`);
    expect(within(pay).getByRole("alert")).toHaveTextContent(says);
    expect(amount).toHaveValue(typed);
  }
  await user.clear(amount);
  await user.type(amount, "45,00{Enter}");
  await settle();
  expect(last(server, "payment")).toMatchObject({ amount: 45, means: "card", what: "payment" });
  expect(screen.getByText("● Paid in full")).toBeVisible();

  await user.click(screen.getByRole("tab", { name: "Hand over" }));
  await user.click(screen.getByRole("button", { name: "Handed over to Osric Venn" }));
  await settle();
  await user.click(screen.getByRole("button", { name: "Open the job again" }));
  await settle();
  expect(server.state.returned).toBeUndefined();
  await user.click(screen.getByRole("tab", { name: "Bill" }));
  expect(screen.getByText(/Everything that was done stands on a bill already/)).toBeVisible();
});

test("a line by hand, a discount, and a bill that is cancelled with its reason", async () => {
  const server = new TestServer([opened]);
  await at("Bill", server);
  const line = screen.getByRole("form", { name: "A line of the bill" });
  await user.type(within(line).getByLabelText("For"), "carriage");
  await user.type(within(line).getByLabelText("Amount, kr"), "-5{Enter}");
  expect(within(line).getByRole("alert")).toHaveTextContent("cannot be negative; tick “taken off” for a discount");
  await user.clear(within(line).getByLabelText("Amount, kr"));
  await user.type(within(line).getByLabelText("Amount, kr"), "12{Enter}");
  await settle();
  await user.type(within(line).getByLabelText("For"), "for an old customer");
  await user.type(within(line).getByLabelText("Amount, kr"), "2");
  await user.click(within(line).getByLabelText("taken off"));
  await user.click(within(line).getByRole("button", { name: "Add" }));
  await settle();
  expect(server.state.bill.map((l) => l.amount)).toEqual([12, -2]);
  await user.click(screen.getByRole("button", { name: "Remove for an old customer from the bill" }));
  await settle();
  await user.click(screen.getByRole("button", { name: /Make out bill 7-1/ }));
  await settle();
  await user.click(screen.getByRole("button", { name: "Cancel it" }));
  expect(screen.getByRole("button", { name: "Cancel the bill" })).toBeDisabled();
  await user.type(screen.getByLabelText(/Why bill 7-1 is cancelled/), "wrong amount{Enter}");
  await settle();
  expect(screen.getByText("cancelled: wrong amount")).toBeVisible();
  expect(screen.getByRole("button", { name: /Make out bill 7-2/ })).toBeVisible();
});

test("an apprentice sees the bill and makes none", async () => {
  await at("Bill", new TestServer([opened, time(40)]), { role: "apprentice" });
  expect(screen.getByText("An apprentice enters nothing on the bill: ask the technician.")).toBeVisible();
  expect(screen.queryByRole("button", { name: /Make out/ })).toBeNull();
  expect(screen.queryByRole("form", { name: "A payment" })).toBeNull();
});

test("the job goes to another technician with its state, which can be worded anew", async () => {
  const server = new TestServer([opened, { type: "complaint", payload: { words: "Hums", when: [] } }]);
  await at("Hand over", server);
  const says = screen.getByLabelText("The state of the job");
  expect(says).toHaveTextContent(/^Wren 5 of Osric Venn\./);
  await user.type(says, " Mind the lid.");
  await user.type(screen.getByLabelText("Goes to"), "P.Q.");
  await user.click(screen.getByRole("button", { name: "Hand the job on" }));
  await settle();
  expect(last(server, "handed-on")).toMatchObject({ to: "P.Q.", says: expect.stringMatching(/^Wren 5 of Osric Venn.*Mind the lid\.$/) });
  expect(screen.getByText(/P\.Q\. has it since/)).toBeVisible();
});

test("the calendar file is there once the next service has a date", async () => {
  const server = new TestServer([opened]);
  await at("Report", server);
  expect(screen.queryByRole("link", { name: /Calendar file/ })).toBeNull();
  await user.type(screen.getByLabelText("To the owner"), "Keep it dry.");
  await user.type(screen.getByLabelText("Next service"), "2028-02-29");
  await user.click(screen.getByRole("button", { name: "Store the advice" }));
  await settle();
  expect(screen.getByRole("link", { name: "Calendar file for 2028-02-29" })).toHaveAttribute("href", "/api/v1/jobs/7/service");
});

test("a first bill without the shop's name is asked about before it is made out", async () => {
  const server = new TestServer([opened, time(40)]);
  await at("Bill", server, { settings: { ...settings, shopName: "" } });
  await user.click(screen.getByRole("button", { name: /Make out bill 7-1/ }));
  expect(screen.getByRole("alert")).toHaveTextContent("the shop's name is not set");
  expect(last(server, "bill")).toBeUndefined();
  await user.click(screen.getByRole("button", { name: /All the same: make out bill 7-1/ }));
  await settle();
  expect(last(server, "bill")).toMatchObject({ number: "7-1" });
});

test("whether the amp may be used stands on the report's tab and where it is handed over, and goes when every test has passed", async () => {
  const danger: EventDraft = {
    type: "finding",
    payload: { station: "look", place: "mains cord", text: "bare wire", severity: "danger", brief: "allowed" },
  };
  const server = new TestServer([opened, danger]);
  await at("Report", server);
  const says = () =>
    within(screen.getByRole("list", { name: "Whether it may be used" }))
      .getAllByRole("listitem")
      .map((l) => l.textContent);
  expect(says()).toEqual([
    "■ Do not use it: a danger is not put right yet. mains cord: bare wire.",
    "■ Do not use it yet: the electrical safety tests have not been done.",
  ]);
  await user.click(screen.getByRole("tab", { name: "Hand over" }));
  expect(says()).toHaveLength(2);
});

test("an amp that passed all its tests carries no warning", async () => {
  const passed = ["earth bond", "insulation", "leakage", "fuse", "polarity", "cord"].map(
    (test): EventDraft => ({ type: "safety-test", payload: { test, passed: true } }) as EventDraft,
  );
  await at("Hand over", new TestServer([opened, ...passed]));
  expect(screen.queryByRole("list", { name: "Whether it may be used" })).toBeNull();
});
